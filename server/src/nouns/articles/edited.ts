import {
  type ArticleDocument,
  alignBlocks,
  articleWords,
  type Block,
  inlinesOf,
  type ReadBody,
  readEditable,
  tidy,
  tooNested,
} from '@grivo/core';
import { readEditedHtml } from './editedHtml.ts';

/** Parts with a form of their own (links, emphasis, items) an edited text may have; a long article has some hundred. */
const MOST_PARTS = 5_000;

/** What the body of an article is edited as. */
export type EditedAs = 'markdown' | 'html';

export type Edited =
  | { ok: true; article: ArticleDocument; words: number }
  | { ok: false; problem: string; mend: string };

/** An article with its body as a person edited it, kept by the rules of every article; or what is wrong with the text. */
export function editedArticle(text: string, article: ArticleDocument, as: EditedAs): Edited {
  if (as === 'markdown' && tooNested(text)) return refused('quotations or lists in it lie too deep in each other');
  const read = as === 'html' ? readHtml(text, article.body) : readEditable(text, article.body);
  if (!read.ok) {
    const { line, sentence, mend } = read.problems[0]!;
    return { ok: false, problem: `line ${line}: ${sentence.replace(/\.$/, '')}`, mend };
  }
  if (read.body.length === 0) return refused('nothing is left of it');
  if (partsOf(read.body) > MOST_PARTS)
    return refused(`it has more than ${MOST_PARTS.toLocaleString('en-GB')} paragraphs, links and emphasised words`);
  const edited = tidy({ ...article, body: read.body }).article;
  if (edited.body.length === 0) return refused('nothing is left of it but headings with no text below them');
  return { ok: true, article: edited, words: articleWords(edited) };
}

function readHtml(text: string, former: readonly Block[]): ReadBody {
  const read = readEditedHtml(text, former);
  return read.ok ? { ok: true, body: alignBlocks(former, read.body) } : read;
}
/** Every block, and in it what has a form of its own. */
function partsOf(body: readonly Block[]): number {
  return body.reduce((sum, block) => {
    const inlines = inlinesOf(block);
    // Cells without marks and links take no more than the words they are.
    return (
      sum + 1 + (block.type === 'table' ? inlines.filter(({ marks, link }) => marks ?? link).length : inlines.length)
    );
  }, 0);
}

function refused(problem: string): Edited {
  return { ok: false, problem, mend: 'Write it, or leave it as it was.' };
}
