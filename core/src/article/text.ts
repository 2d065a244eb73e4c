import { countWords } from '../sentence/sentence.ts';
import type { ArticleDocument, Block, Inline, LinkTarget } from './block.ts';
import { kindOf } from './blocks/all.ts';
import type { TextVisit } from './blocks/kind.ts';
import { inlineText } from './inline.ts';

const UNSEEN: TextVisit = {
  rich: (content) => [...content],
  plain: (text) => text,
  aside: (text) => text,
  credit: (content) => [...content],
};

/** A block with some of its texts as they are given back; the others stay. */
export function withTexts<B extends Block>(block: B, visit: Partial<TextVisit>): B {
  return kindOf(block).texts(block, { ...UNSEEN, ...visit });
}

/** The words of a block that may have marks and links. */
export function inlinesOf(block: Block): readonly Inline[] {
  const out: Inline[] = [];
  const take = (content: readonly Inline[]) => {
    out.push(...content);
    return [...content];
  };
  withTexts(block, { rich: take, credit: take });
  return out;
}

/** Where a block leads, in the order of its links. */
export function linksOf(block: Block): LinkTarget[] {
  return [...inlinesOf(block).flatMap(({ link }) => link ?? []), ...(kindOf(block).links?.(block) ?? [])];
}

/** The words a reader reads in a block, without markup; pictures and the contents list count for nothing. */
export function blockText(block: Block): string {
  const kind = kindOf(block);
  if (kind.words) return kind.words(block);
  const lines: string[] = [];
  kind.texts(block, {
    ...UNSEEN,
    rich: (content) => {
      lines.push(inlineText(content));
      return [...content];
    },
    plain: (text) => {
      lines.push(text);
      return text;
    },
  });
  return lines.join('\n');
}

/** An article as a file of plain text: its title, its blocks, and who said what is quoted. */
export function articlePlain({ title, body }: Pick<ArticleDocument, 'title' | 'body'>): string {
  const lines = body.map((block) => {
    const text = blockText(block);
    if (block.type === 'quote' && block.credit) return `${text}\n— ${inlineText(block.credit)}`;
    return block.type === 'call to action' ? `${text}\n${block.button}` : text;
  });
  return `${[title, ...lines].filter((line) => line.trim() !== '').join('\n\n')}\n`;
}

/** The article as plain text, blocks parted by blank lines. */
export function articleText(article: Pick<ArticleDocument, 'body'>): string {
  return article.body
    .map(blockText)
    .filter((text) => text !== '')
    .join('\n\n');
}

export function articleWords(article: Pick<ArticleDocument, 'body' | 'language'>): number {
  return countWords(articleText(article), article.language);
}

/** Blocks whose words come from the writer and so need evidence. */
export function isStatement(block: Block): boolean {
  return kindOf(block).isStatement;
}
