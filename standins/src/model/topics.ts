import { byUse, countedWords, stemsOf } from '../words/language.ts';
import { type ReadRequest, rarity, relevance } from './request.ts';

/** What the material speaks of, what fits the subject best first: known headings, else the things it repeats. */
export function topics(request: ReadRequest): string[] {
  const weight = rarity(request.passages);
  const subject = new Set(stemsOf(request.subject));
  const ranked = [...request.passages].sort(
    (a, b) => relevance(b.stems, subject, weight) - relevance(a.stems, subject, weight) || a.n - b.n,
  );
  // An article holds what several passages spoke of.
  const known = ranked.flatMap(({ sentences }) =>
    sentences
      .flatMap(({ statement, stems }) =>
        statement ? [{ heading: statement.heading, score: relevance(stems, subject, weight) }] : [],
      )
      .sort((a, b) => b.score - a.score)
      .map(({ heading }) => heading),
  );
  const unknown = ranked.filter(({ heading }) => heading === null);
  // Of a text that is hardly known what is known is what the house says of itself, and names nothing of the subject.
  if (!isKnown(request)) return [];
  const all = [...known, ...things(unknown.map(({ text }) => text).join(' '), subject)];
  return all.filter((topic, i) => all.findIndex((other) => other.toLowerCase() === topic.toLowerCase()) === i);
}

/** Whether it is known of most of the material what it says. */
export function isKnown({ passages }: Pick<ReadRequest, 'passages'>): boolean {
  const sentences = passages.flatMap((passage) => passage.sentences);
  return sentences.filter(({ statement }) => statement !== null).length * 2 >= sentences.length;
}

/** What is measured with is not what is spoken of. */
export const MEASURES =
  /^(?:\p{L}*(?:metres?|meters?|litres?|grams?|kilos?|grammes?)|\p{L}*(?:meter|liter|gramm)n?|degrees?|minutes?|hours?|weeks?|months?|years?|euros?|cents?|other|which|where|there|about|first|second|third|never|every|stand|makes?|takes?|grad|wochen?|tagen?|stunden?)$/iu;

/** Words a text uses again and again, longer than most, that are not its subject's own. */
function things(text: string, subject: ReadonlySet<string>): string[] {
  return countedWords(text, 5)
    .filter(({ stem, n, word }) => n > 2 && !subject.has(stem) && !MEASURES.test(word))
    .sort(byUse)
    .slice(0, 4)
    .map(({ word }) => word);
}
