import type { Measure } from '@grivo/contract';
import {
  type ArticleDocument,
  articleDoubts,
  articleWords,
  type BlockDoubt,
  countWords,
  inlineText,
  sentencesOf,
} from '@grivo/core';

/** The measures of an article that its text and its sources give. */
export function measuresOf(
  document: ArticleDocument,
  sources: readonly { id: string; text: string; language?: string }[],
): { measures: Measure[]; doubts: BlockDoubt[] } {
  const paragraphs = document.body.filter((block) => block.type === 'paragraph');
  const texts = paragraphs.map((block) => (block.type === 'paragraph' ? inlineText(block.content) : ''));
  const resting = paragraphs.filter((block) => (block.evidence?.length ?? 0) > 0).length;
  const sentences = texts.flatMap((text) => sentencesOf(text));
  const words = articleWords(document);
  const mean = sentences.length === 0 ? 0 : sentences.reduce((sum, s) => sum + countWords(s), 0) / sentences.length;
  const doubts = articleDoubts(document, sources);
  const sections = document.body.filter((block) => block.type === 'heading' && block.level === 2).length;
  const measure = (
    name: string,
    value: number,
    least: number | null,
    most: number | null,
    unit: string,
    says: string,
  ) => ({
    name,
    value: Math.round(value * 10) / 10,
    least,
    most,
    unit,
    says,
  });
  return {
    measures: [
      measure('Length', words, null, null, 'words', `about ${Math.max(1, Math.round(words / 220))} min to read`),
      measure('Sentences', mean, 9, 22, 'words each', `${sentences.length} sentences`),
      measure('Sections', sections, 2, null, '', sections === 1 ? 'one heading' : `${sections} headings`),
      measure(
        'Evidence',
        paragraphs.length === 0 ? 0 : (resting / paragraphs.length) * 100,
        100,
        null,
        '%',
        `${resting} of ${paragraphs.length} paragraphs rest on a passage`,
      ),
      measure(
        'Against the sources',
        doubts.length,
        null,
        0,
        doubts.length === 1 ? 'doubt' : 'doubts',
        doubts.length === 0 ? 'figures, dates, names and quotations are as there' : 'marked in the text',
      ),
      measure('Title', document.title.length, 20, 70, 'characters', document.title === '' ? 'no title yet' : ''),
    ],
    doubts,
  };
}

/** Revisions whose measures are remembered: a page is read again at every event that touches it. */
const MOST_REMEMBERED = 200;
const remembered = new Map<string, ReturnType<typeof measuresOf>>();

/**
 * The same of a revision, which never changes, reckoned once for its sources.
 * @param revision id of the revision the document is of
 */
export function measuresOfRevision(
  revision: string,
  document: ArticleDocument,
  sources: readonly { id: string; text: string; language?: string }[],
): ReturnType<typeof measuresOf> {
  const key = `${revision} ${sources.length} ${sources[0]?.id ?? ''} ${sources.at(-1)?.id ?? ''}`;
  const known = remembered.get(key);
  if (known) return known;
  const found = measuresOf(document, sources);
  const oldest = remembered.size >= MOST_REMEMBERED ? remembered.keys().next().value : undefined;
  if (oldest !== undefined) remembered.delete(oldest);
  remembered.set(key, found);
  return found;
}
