import { ARTICLE_FORMAT } from './block.ts';

type Loose = Record<string, unknown>;

const words = (text: unknown): Loose[] => (typeof text === 'string' && text !== '' ? [{ text }] : []);
const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);

/** A text of a block that may be missing, as words; nothing where it is. */
function optional(name: string, text: unknown): Loose {
  return typeof text === 'string' && text.trim() !== '' ? { [name]: words(text) } : {};
}

/** What became of the blocks of format 1: cells, captions, key points, quotations and calls have words with marks and links. */
const FROM_1: Record<string, (block: Loose) => Loose> = {
  table: ({ caption, head, rows, ...rest }) => ({
    ...rest,
    ...optional('caption', caption),
    head: list(head).map(words),
    rows: list(rows).map((row) => list(row).map(words)),
  }),
  figure: ({ caption, credit, ...rest }) => ({
    ...rest,
    ...optional('caption', caption),
    ...optional('credit', credit),
  }),
  quote: ({ text, attribution, ...rest }) => ({
    ...rest,
    content: words(text),
    ...optional('credit', attribution),
  }),
  'key points': ({ items, ...rest }) => ({ ...rest, items: list(items).map(words) }),
  'call to action': ({ text, address, ...rest }) => ({
    ...rest,
    content: words(text),
    link: { to: 'address', address },
  }),
};

/**
 * A kept article in the format of today. What is no article at all comes back as it is, to be refused by its schema.
 * @param document as it was kept, of any format
 */
export function upgradedArticle(document: unknown): unknown {
  if (typeof document !== 'object' || document === null || 'format' in document) return document;
  const { body, ...rest } = document as Loose;
  return {
    ...rest,
    format: ARTICLE_FORMAT,
    body: list(body).map((block) => {
      const upgrade = FROM_1[String((block as Loose)?.['type'])];
      return upgrade ? upgrade(block as Loose) : block;
    }),
  };
}
