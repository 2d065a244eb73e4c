import type { ArticleDocument, Block, Inline, LinkTarget } from '../article/block.ts';
import { inlineText } from '../article/inline.ts';
import { articleText, linksOf } from '../article/text.ts';
import { contentStems } from '../sentence/sentence.ts';
import { type LinkPage, type RankedPage, rankPages } from './rank.ts';

export interface PlacedLink {
  page: LinkPage;
  block: string;
  anchor: string;
}

export interface LinkLimits {
  /** Most links in the article. */
  own: number;
  /** Most links in one paragraph. */
  perParagraph: number;
  /** Whether paragraphs above the first heading may have any; they may where it is not said. */
  inOpening?: boolean;
}

/**
 * Links an article to pages of its blog: best fitting first, on words that stand in a paragraph and hold the rarest
 * words of the page's title. Never to itself, never twice to one page, never inside a link, a heading or a list.
 * @param self addresses and ids that are this article
 */
export function placeLinks(
  article: ArticleDocument,
  pages: readonly LinkPage[],
  limits: LinkLimits,
  self: ReadonlySet<string> = new Set(),
): { article: ArticleDocument; placed: PlacedLink[] } {
  const open = pages.filter(
    (page) => !self.has(page.address) && !(page.article !== undefined && self.has(page.article)),
  );
  const ranked = rankPages(articleText(article), open, article.language);
  const used = new Set(linkedAlready(article.body));
  const wordsOf = wordCutter(article.language);
  const perBlock = new Map<string, number>();
  const placed: PlacedLink[] = [];
  const opening = new Set(limits.inOpening === false ? openingOf(article.body) : []);
  let body = article.body;
  for (const candidate of ranked) {
    if (placed.length >= limits.own) break;
    const key = targetKey(candidate.page);
    if (used.has(key)) continue;
    const spot = bestSpot(
      body,
      candidate,
      wordsOf,
      (block) => !opening.has(block) && (perBlock.get(block) ?? 0) < limits.perParagraph,
    );
    if (!spot) continue;
    used.add(key);
    perBlock.set(spot.block.id, (perBlock.get(spot.block.id) ?? 0) + 1);
    body = body.map((block) =>
      block.id === spot.block.id && block.type === 'paragraph'
        ? { ...block, content: withLink(block.content, spot.anchor, targetOf(candidate.page)) }
        : block,
    );
    placed.push({ page: candidate.page, block: spot.block.id, anchor: spot.anchor });
  }
  return { article: { ...article, body }, placed };
}

/** Ids of the blocks above the first heading. */
function openingOf(body: readonly Block[]): string[] {
  const first = body.findIndex(({ type }) => type === 'heading');
  return body.slice(0, first < 0 ? 1 : first).map(({ id }) => id);
}

function targetOf(page: LinkPage): LinkTarget {
  return page.article === undefined
    ? { to: 'address', address: page.address }
    : { to: 'article', article: page.article };
}

function targetKey(page: LinkPage): string {
  return page.article ?? page.address;
}

function linkedAlready(body: readonly Block[]): string[] {
  return body.flatMap(linksOf).map((link) => (link.to === 'article' ? link.article : link.address));
}

interface Spot {
  block: Block & { type: 'paragraph' };
  anchor: string;
  worth: number;
}

const LONGEST_ANCHOR = 5;

interface Word {
  at: number;
  end: number;
  stem: string | undefined;
}
type WordCutter = (text: string) => readonly Word[];

/** Cuts texts into words with their stems, each text and each word once: every page asks for the same paragraphs. */
function wordCutter(language: string): WordCutter {
  const texts = new Map<string, readonly Word[]>();
  const stems = new Map<string, string | undefined>();
  const stemOf = (word: string): string | undefined => {
    if (!stems.has(word)) stems.set(word, contentStems(word, language)[0]);
    return stems.get(word);
  };
  return (text) => {
    let words = texts.get(text);
    if (!words) {
      words = [...text.matchAll(/[\p{L}\p{N}][\p{L}\p{N}'’-]*/gu)].map((match) => ({
        at: match.index,
        end: match.index + match[0].length,
        stem: stemOf(match[0]),
      }));
      texts.set(text, words);
    }
    return words;
  };
}

function bestSpot(
  body: readonly Block[],
  ranked: RankedPage,
  wordsOf: WordCutter,
  mayTake: (block: string) => boolean,
): Spot | null {
  let best: Spot | null = null;
  for (const block of body) {
    if (block.type !== 'paragraph' || !mayTake(block.id)) continue;
    for (const part of block.content) {
      if (part.link) continue;
      const found = bestAnchor(part.text, ranked.stems, wordsOf);
      if (found && (!best || found.worth > best.worth + 0.01)) best = { block, ...found };
    }
  }
  return best;
}

/** The run of up to five words that holds most of the title's words: at least two of them, or the only one it has. */
function bestAnchor(
  text: string,
  stems: ReadonlySet<string>,
  wordsOf: WordCutter,
): { anchor: string; worth: number } | null {
  const words = wordsOf(text);
  const least = Math.min(2, stems.size);
  let best: { anchor: string; worth: number } | null = null;
  for (let from = 0; from < words.length; from++) {
    if (!words[from]!.stem || !stems.has(words[from]!.stem!)) continue;
    const met = new Set<string>();
    for (let to = from; to < Math.min(words.length, from + LONGEST_ANCHOR); to++) {
      const s = words[to]!.stem;
      if (to > from && /[.!?;:()]/.test(text.slice(words[to - 1]!.end, words[to]!.at))) break;
      if (!s || !stems.has(s)) continue;
      met.add(s);
      if (met.size < least) continue;
      const worth = met.size / stems.size - (to - from + 1) * 0.02;
      if (!best || worth > best.worth) best = { anchor: text.slice(words[from]!.at, words[to]!.end), worth };
    }
  }
  return best;
}

function withLink(content: readonly Inline[], anchor: string, link: LinkTarget): Inline[] {
  let placed = false;
  const out = content.flatMap((part): Inline[] => {
    const at = placed || part.link ? -1 : part.text.indexOf(anchor);
    if (at < 0) return [part];
    placed = true;
    const pieces: Inline[] = [
      { ...part, text: part.text.slice(0, at) },
      { ...part, text: anchor, link },
      { ...part, text: part.text.slice(at + anchor.length) },
    ];
    return pieces.filter((piece) => piece.text !== '');
  });
  if (inlineText(out) !== inlineText(content)) throw new Error('a link changed the words of its paragraph');
  return out;
}
