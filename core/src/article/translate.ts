import { figuresOf } from '../passage/figures.ts';
import type { ArticleDocument, Inline } from './block.ts';
import type { TextVisit } from './blocks/kind.ts';
import { slugOf } from './slug.ts';
import { withTexts } from './text.ts';

/** A text of an article to be put into another language. Links and marks in it are numbered tags: `<1>text</1>`. */
export interface Unit {
  n: number;
  text: string;
}

interface Slot {
  text: string;
  /** What the tags stand for. */
  tags: Inline[];
}

/**
 * The texts of an article that a reader reads, in order, and how the article is put together again from their
 * translations. Ids, evidence, links, pictures and figures stay as they are.
 */
export function unitsOf(article: ArticleDocument): {
  units: Unit[];
  put: (texts: ReadonlyMap<number, string>) => ArticleDocument;
} {
  const slots: Slot[] = [];
  const plain = (text: string): string => {
    slots.push({ text, tags: [] });
    return text;
  };
  const rich = (content: readonly Inline[]): Inline[] => {
    slots.push(tagged(content));
    return [...content];
  };
  each(article, { plain, rich, aside: plain });
  const units = slots.map(({ text }, i) => ({ n: i + 1, text })).filter(({ text }) => /\p{L}/u.test(text));
  const put = (texts: ReadonlyMap<number, string>): ArticleDocument => {
    let n = 0;
    const next = () => {
      const slot = slots[n++]!;
      return { text: texts.get(n), slot };
    };
    const words = () => {
      const { text, slot } = next();
      return text ?? slot.text;
    };
    return each(article, {
      plain: words,
      aside: words,
      rich: (content) => {
        const { text, slot } = next();
        return text === undefined ? [...content] : untagged(text, slot.tags);
      },
    });
  };
  return { units, put };
}

/** The article with its texts as they are given back, always in the same order. */
function each(article: ArticleDocument, visit: Pick<TextVisit, 'plain' | 'rich' | 'aside'>): ArticleDocument {
  const title = visit.plain(article.title);
  const { replaced: _, ...rest } = article;
  return {
    ...rest,
    title,
    titleChoices: title === '' ? [] : [title],
    slug: title === '' ? '' : slugOf(title),
    description: visit.plain(article.description),
    keywords: article.keywords.map(visit.plain),
    body: article.body.map((block) => withTexts(block, visit)),
  };
}

/** Words with links and marks as numbered tags. */
function tagged(content: readonly Inline[]): Slot {
  const tags: Inline[] = [];
  const text = content
    .map((part) => {
      if (!part.link && !part.marks) return part.text;
      tags.push(part);
      return `<${tags.length}>${part.text}</${tags.length}>`;
    })
    .join('');
  return { text, tags };
}

/** What stands around words. */
const SIGNS = `()[].,;:!?"'“”„‘’«»`;

/**
 * Names that are the same in every language by their form: addresses, models (V-4P), words with capitals inside (pH).
 * Abbreviations are not: what is the EU to one is the UE to another.
 */
function namesThatStay(text: string): string[] {
  return text.split(/\s+/).flatMap((word) => {
    let [from, to] = [0, word.length];
    while (from < to && SIGNS.includes(word[from]!)) from++;
    while (to > from && SIGNS.includes(word[to - 1]!)) to--;
    const bare = word.slice(from, to);
    if (/^https?:/.test(bare) || /^[\w.+-]+@[\w.-]+$/.test(bare)) return [bare];
    return (bare.match(/[A-Za-z\d-]+/g) ?? []).filter(
      (one) =>
        (/\d/.test(one) && /[A-Z]/.test(one) && !/^\d+[A-Za-z]{1,3}$/.test(one)) ||
        /^[a-z]+[A-Z][A-Za-z]*$|^[A-Z][a-z]+[A-Z][a-z]+$/.test(one),
    );
  });
}

/** What is wrong with a translation of one text, null when nothing is: tags, figures and names that no language changes must all be there, and words. */
export function unitProblem(before: string, after: string, mark: string): string | null {
  if (after.trim() === '') return `nothing was given for ‘${before.slice(0, 60)}’`;
  if (after.includes(mark)) return `‘${after.slice(0, 80)}’ is left untranslated`;
  for (const [tag] of before.matchAll(/<\/?\d+>/g))
    if (!after.includes(tag)) return `a link or emphasis was lost in ‘${before.slice(0, 60)}’`;
  const kept = namesThatStay(before.replace(/<\/?\d+>/g, ' ')).find((name) => !after.includes(name));
  if (kept !== undefined) return `the name ${kept} was lost in ‘${before.slice(0, 60)}’`;
  const has = new Set(figuresOf(after.replace(/<\/?\d+>/g, '')));
  const lost = figuresOf(before.replace(/<\/?\d+>/g, '')).find((figure) => !has.has(figure));
  return lost === undefined ? null : `the figure ${lost} was lost in ‘${before.slice(0, 60)}’`;
}

function untagged(text: string, tags: readonly Inline[]): Inline[] {
  const out: Inline[] = [];
  const pattern = /<(\d+)>([\s\S]*?)<\/\1>/g;
  let at = 0;
  const add = (part: Inline) => part.text !== '' && out.push(part);
  for (const match of text.matchAll(pattern)) {
    add({ text: text.slice(at, match.index) });
    const tag = tags[Number(match[1]) - 1];
    add(tag ? { ...tag, text: match[2]! } : { text: match[2]! });
    at = match.index + match[0].length;
  }
  add({ text: text.slice(at) });
  return out;
}
