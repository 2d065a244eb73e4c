import { figuresOf } from '../passage/figures.ts';
import type { ArticleDocument, Block, Inline } from './block.ts';
import { slugOf } from './slug.ts';

/** A text of an article to be put into another language. Links and marks in it are numbered tags: `<1>text</1>`. */
export interface Unit {
  n: number;
  text: string;
}

type Put = (texts: ReadonlyMap<number, string>) => ArticleDocument;

interface Slot {
  text: string;
  /** What the tags stand for. */
  tags: Inline[];
}

/**
 * The texts of an article that a reader reads, in order, and how the article is put together again from their
 * translations. Ids, evidence, links, pictures and figures stay as they are.
 */
export function unitsOf(article: ArticleDocument): { units: Unit[]; put: Put } {
  const slots: Slot[] = [];
  const plain = (text: string): number => slots.push({ text, tags: [] });
  const inline = (content: readonly Inline[]): number => {
    const tags: Inline[] = [];
    const text = content
      .map((part) => {
        if (!part.link && !part.marks) return part.text;
        tags.push(part);
        return `<${tags.length}>${part.text}</${tags.length}>`;
      })
      .join('');
    return slots.push({ text, tags });
  };
  type Make = (get: (n: number) => string, rich: (n: number) => Inline[]) => Block;
  const makeBlock = (block: Block): Make => {
    switch (block.type) {
      case 'heading': {
        const n = plain(block.text);
        return (get) => ({ ...block, text: get(n) });
      }
      case 'paragraph':
      case 'standing text': {
        const n = inline(block.content);
        return (_, rich) => ({ ...block, content: rich(n) });
      }
      case 'list': {
        const ns = block.items.map(inline);
        return (_, rich) => ({ ...block, items: ns.map(rich) });
      }
      case 'key points': {
        const ns = block.items.map(plain);
        return (get) => ({ ...block, items: ns.map(get) });
      }
      case 'quote': {
        const n = plain(block.text);
        return (get) => ({ ...block, text: get(n) });
      }
      case 'question and answer': {
        const q = plain(block.question);
        const a = inline(block.answer);
        return (get, rich) => ({ ...block, question: get(q), answer: rich(a) });
      }
      case 'call to action': {
        const t = plain(block.text);
        const b = plain(block.button);
        return (get) => ({ ...block, text: get(t), button: get(b) });
      }
      case 'figure': {
        const a = plain(block.alternative);
        const c = block.caption ? plain(block.caption) : null;
        return (get) => ({ ...block, alternative: get(a), ...(c === null ? {} : { caption: get(c) }) });
      }
      case 'table': {
        const head = block.head.map(plain);
        const rows = block.rows.map((row) => row.map((cell) => (/\p{L}/u.test(cell) ? plain(cell) : cell)));
        return (get) => ({
          ...block,
          head: head.map(get),
          rows: rows.map((row) => row.map((cell) => (typeof cell === 'number' ? get(cell) : cell))),
        });
      }
      case 'chart': {
        const a = plain(block.alternative);
        return (get) => ({ ...block, alternative: get(a) });
      }
      case 'video':
      case "owner's markup":
      case 'contents':
        return () => block;
    }
  };
  const title = plain(article.title);
  const description = plain(article.description);
  const keywords = article.keywords.map(plain);
  const blocks = article.body.map(makeBlock);
  const units = slots.map(({ text }, i) => ({ n: i + 1, text })).filter(({ text }) => /\p{L}/u.test(text));
  const put: Put = (texts) => {
    const get = (n: number) => texts.get(n) ?? slots[n - 1]!.text;
    const rich = (n: number) => untagged(get(n), slots[n - 1]!.tags);
    const newTitle = get(title);
    return {
      ...article,
      title: newTitle,
      titleChoices: newTitle === '' ? [] : [newTitle],
      slug: newTitle === '' ? '' : slugOf(newTitle),
      description: get(description),
      keywords: keywords.map(get),
      body: blocks.map((make) => make(get, rich)),
    };
  };
  return { units, put };
}

/** What is wrong with a translation of one text, null when nothing is: tags and figures must all be there, and words. */
export function unitProblem(before: string, after: string, mark: string): string | null {
  if (after.trim() === '') return `nothing was given for ‘${before.slice(0, 60)}’`;
  if (after.includes(mark)) return `‘${after.slice(0, 80)}’ is left untranslated`;
  for (const [tag] of before.matchAll(/<\/?\d+>/g))
    if (!after.includes(tag)) return `a link or emphasis was lost in ‘${before.slice(0, 60)}’`;
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
