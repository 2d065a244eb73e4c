import { countWords } from '../sentence/sentence.ts';
import type { ArticleDocument, Block, Inline } from './block.ts';

export function inlineText(content: readonly Inline[]): string {
  return content.map((part) => part.text).join('');
}

/** The words of a block that may have marks and links. */
export function inlinesOf(block: Block): readonly Inline[] {
  switch (block.type) {
    case 'paragraph':
    case 'standing text':
      return block.content;
    case 'list':
      return block.items.flat();
    case 'question and answer':
      return block.answer;
    default:
      return [];
  }
}

/** The words a reader reads in a block, without markup; pictures and the contents list count for nothing. */
export function blockText(block: Block): string {
  switch (block.type) {
    case 'heading':
      return block.text;
    case 'paragraph':
    case 'standing text':
      return inlineText(block.content);
    case 'list':
      return block.items.map(inlineText).join('\n');
    case 'table':
      return [block.caption ?? '', block.head.join(' | '), ...block.rows.map((row) => row.join(' | '))]
        .filter((line) => line !== '')
        .join('\n');
    case 'quote':
      return block.text;
    case 'key points':
      return block.items.join('\n');
    case 'question and answer':
      return `${block.question}\n${inlineText(block.answer)}`;
    case 'call to action':
      return `${block.text} ${block.button}`;
    case 'figure':
      return block.caption ?? '';
    case 'video':
    case 'chart':
    case "owner's markup":
    case 'contents':
      return '';
  }
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
  return (
    block.type === 'paragraph' ||
    block.type === 'list' ||
    block.type === 'table' ||
    block.type === 'quote' ||
    block.type === 'key points'
  );
}
