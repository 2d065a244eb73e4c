import type { Measure } from '@grivo/contract';
import { type ArticleDocument, articleWords, countWords, figuresAmiss, inlineText, sentencesOf } from '@grivo/core';

/** The measures of an article that its text and its sources give. */
export function measuresOf(
  document: ArticleDocument,
  sources: readonly { id: string; text: string }[],
): { measures: Measure[]; figuresNotFound: string[] } {
  const paragraphs = document.body.filter((block) => block.type === 'paragraph');
  const texts = paragraphs.map((block) => (block.type === 'paragraph' ? inlineText(block.content) : ''));
  const resting = paragraphs.filter((block) => (block.evidence?.length ?? 0) > 0).length;
  const sentences = texts.flatMap((text) => sentencesOf(text));
  const words = articleWords(document);
  const mean = sentences.length === 0 ? 0 : sentences.reduce((sum, s) => sum + countWords(s), 0) / sentences.length;
  const figuresNotFound = figuresAmiss(document, sources);
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
        'Figures',
        figuresNotFound.length,
        null,
        0,
        'not found',
        figuresNotFound.length === 0 ? 'every figure stands in a passage' : 'marked in the text',
      ),
      measure('Title', document.title.length, 20, 70, 'characters', document.title === '' ? 'no title yet' : ''),
    ],
    figuresNotFound,
  };
}
