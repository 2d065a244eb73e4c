import { contentStems, fold } from '../sentence/sentence.ts';
import type { ArticleDocument } from './block.ts';
import { articleText } from './text.ts';

const MOST = 6;
/** Words that only lead from one to another. */
const LOOSE = new Set(
  'about above across after against along among around as at before behind below between beyond by down during except for from in inside into like near of off on onto out over past per since than that then these this those through to toward under until up upon via with within without more most less much per cent percent many very too also just only even still über unter nach vor mit ohne von zu zum zur bei für gegen durch seit bis auf aus an am im ins mehr sehr auch nur noch'.split(
    ' ',
  ),
);
const APART = /[.,;:!?()"“”„«»\n]/;
/** Words a term is of at most: longer ones are sentences. */
const MOST_WORDS = 4;
/** Words a key phrase is of at most, to be a tag: an entry of a feed may have brought along its headline. */
const MOST_PHRASE_WORDS = 6;
/** How often a term stands in the text at least: what is said once the article is not about. */
const LEAST = 2;

/**
 * Tags of an article: its key phrase, then those of its keywords that are terms of it. A term stands in the text more than
 * once as it is, with no comma or stop in it ('clear, shiny'), and neither begins nor ends with a word that means nothing by
 * itself ('cuts about') or with a part of a measure ('per cent vinegar').
 */
export function tagsOf(
  article: Pick<ArticleDocument, 'title' | 'body' | 'keyPhrase' | 'keywords' | 'language'>,
): string[] {
  // What stands apart in the text stands apart here; what is repeated word for word, as key points are, is said once.
  const parts = fold(`${article.title}. ${articleText(article)}`)
    .split(APART)
    .map(plain);
  const text = ` ${[...new Set(parts)].join(' | ')} `;
  const isTerm = (term: string) => {
    const words = plain(term).split(' ');
    const means = (word: string | undefined) =>
      word !== undefined && !LOOSE.has(word) && contentStems(word, article.language).length > 0;
    return (
      words.length <= MOST_WORDS && means(words[0]) && means(words.at(-1)) && timesIn(text, ` ${plain(term)} `) >= LEAST
    );
  };
  const isHeadline = APART.test(article.keyPhrase) || article.keyPhrase.split(' ').length > MOST_PHRASE_WORDS;
  const terms = article.keywords.filter(isTerm);
  const all = [isHeadline ? '' : article.keyPhrase, ...terms]
    .map((term) => term.replace(/\s+/g, ' ').trim())
    .filter((term) => term !== '');
  const once = new Map<string, string>();
  for (const term of all) if (!once.has(plain(term))) once.set(plain(term), term);
  return [...once.values()].slice(0, MOST);
}

function timesIn(text: string, term: string): number {
  let n = 0;
  // The blank behind one may be the one before the next.
  for (let at = text.indexOf(term); at >= 0; at = text.indexOf(term, at + term.length - 1)) n++;
  return n;
}

function plain(text: string): string {
  return fold(text)
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}
