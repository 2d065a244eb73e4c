import { contentStems } from '../sentence/sentence.ts';
import type { ArticleDocument } from './block.ts';
import { articleText } from './text.ts';

/** What a word of a category counts where it stands; in the text it must stand more than once. */
const WEIGHTS = { phrase: 3, title: 3, heading: 2, text: 1 };
const LEAST_IN_TEXT = 2;
/** Of the most a category could have; below that none fits. */
const LEAST = 0.25;

/**
 * The category of a blog an article fits best: by the words of its name, taken to their stems, in the key phrase, the title,
 * the headings and the text. The one found whole counts more than a longer one found in part.
 * @returns null when none fits
 */
export function bestCategory(
  categories: readonly string[],
  article: Pick<ArticleDocument, 'title' | 'keyPhrase' | 'body' | 'language'>,
): string | null {
  const { language } = article;
  const stems = (text: string) => contentStems(text, language);
  const places: [number, (stem: string) => boolean][] = [
    [WEIGHTS.phrase, has(stems(article.keyPhrase))],
    [WEIGHTS.title, has(stems(article.title))],
    [WEIGHTS.heading, has(article.body.flatMap((block) => (block.type === 'heading' ? stems(block.text) : [])))],
    [WEIGHTS.text, oftenIn(stems(articleText(article)))],
  ];
  const most = places.reduce((sum, [weight]) => sum + weight, 0);
  let best: { name: string; score: number } | null = null;
  for (const name of categories) {
    const words = [...new Set(stems(name))];
    if (words.length === 0) continue;
    const counted = words.map((word) => places.reduce((sum, [weight, isIn]) => sum + (isIn(word) ? weight : 0), 0));
    const score = counted.reduce((sum, one) => sum + one, 0) / words.length / most;
    if (score >= LEAST && score > (best?.score ?? 0)) best = { name, score };
  }
  return best?.name ?? null;
}

function has(words: readonly string[]): (word: string) => boolean {
  const set = new Set(words);
  return (word) => set.has(word);
}

function oftenIn(words: readonly string[]): (word: string) => boolean {
  const times = new Map<string, number>();
  for (const word of words) times.set(word, (times.get(word) ?? 0) + 1);
  return (word) => (times.get(word) ?? 0) >= LEAST_IN_TEXT;
}

/**
 * Names a post goes under as the blog writes them: one it has is written as there, others are kept or left out.
 * @param known the categories the blog told of; null where it does not tell
 */
export function asTheBlogHas(
  names: readonly string[],
  known: readonly string[] | null,
  others: 'made' | 'left out',
): string[] {
  const there = new Map((known ?? []).map((name) => [plain(name), name]));
  const once = new Map<string, string>();
  for (const name of names) {
    const as = there.get(plain(name)) ?? (others === 'made' || known === null ? name : null);
    if (as !== null && as !== '' && !once.has(plain(as))) once.set(plain(as), as);
  }
  return [...once.values()];
}

const plain = (name: string): string => name.normalize('NFC').toLowerCase().replace(/\s+/g, ' ').trim();
