import { countWords, stemsOf } from '../words/language.ts';
import type { ReadRequest } from './request.ts';

/** What the model makes of a text it is to judge: read off the text alone. */
export interface Judgement {
  score: number;
  kind: string;
  reason: string;
}

const SELLING =
  /\b(?:buy|order now|shop now|discount|special offer|limited time|best[- ]selling|don't miss|sign up|exclusive|our customers|jetzt kaufen|rabatt|angebot)\b/gi;
const ANNOUNCING =
  /\b(?:announces?|announced|is (?:proud|pleased|delighted|thrilled) to|for immediate release|press contact|a spokes(?:man|woman|person)|kündigt an|pressekontakt)\b/gi;
const EXAMPLES = /\b(?:for example|for instance|such as|e\.g\.|zum Beispiel|etwa)\b/gi;
const FIGURES = /\d+(?:[.,]\d+)?/g;

/** Judges the fenced material, or the subject when there is none, for the qualities the task names. */
export function judge(request: ReadRequest): Judgement {
  const text = request.passages.map((passage) => passage.text).join('\n') || request.subject;
  const words = countWords(text);
  const times = (pattern: RegExp) => (text.match(pattern) ?? []).length;
  const figures = times(FIGURES);
  const selling = times(SELLING);
  const announcing = times(ANNOUNCING);
  const subject = new Set(stemsOf(request.subject));
  const stems = stemsOf(text);
  const onSubject = stems.filter((s) => subject.has(s)).length / Math.max(1, stems.length);
  const qualities = /for these qualities: ([^.]*)\./.exec(request.task)?.[1]?.toLowerCase() ?? '';
  const bare = request.passages.length === 0;
  let score = bare ? 3 + Math.min(4, countWords(text)) : 2 + Math.min(4, words / 120);
  if (!bare && /figure|fact|substance|detail/.test(qualities))
    score += Math.min(3, (figures / Math.max(40, words)) * 120);
  if (!bare && /example|practical|use/.test(qualities)) score += Math.min(1.5, times(EXAMPLES) * 0.5);
  score += Math.min(1.5, onSubject * 20);
  score -= selling * 1.5 + announcing * 2;
  const kind =
    announcing > 0 && announcing >= selling
      ? 'press release'
      : selling > 1
        ? 'advertisement'
        : !bare && words < 60
          ? 'stub'
          : figures > 3
            ? 'guide'
            : 'article';
  const reason = bare
    ? `It is a subject of ${words} words, with nothing to read yet.`
    : `It gives ${figures} figures in ${words} words${selling + announcing > 0 ? `, and ${selling + announcing} times it speaks like an offer` : ''}.`;
  return { score: Math.round(Math.max(0, Math.min(10, score))), kind, reason };
}
