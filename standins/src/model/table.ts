import { stemsOf } from '../words/language.ts';
import { ownWords } from './own.ts';
import { type ReadRequest, rarity, relevance, type Sentence } from './request.ts';

/** Tables of what the material gives in figures: a figure, what it is of, a row each. */

/** A figure with what it counts, as it stands in a sentence. */
const FIGURE =
  /(?:\d[\d.,]*(?:\s(?:to|up to|bis|and|und)\s|–|-)?)*\d[\d.,]*\s?(?:per cent|Prozent|%|°C|degrees(?: Celsius)?|Grad|パーセント|グラム|キロ|リットル|(?![\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}])[\p{L}]{1,20})/u;

interface Row {
  of: string;
  figure: string;
  sentence: Sentence;
}

function rowsOf(request: ReadRequest): Row[] {
  const most = Number(/at most (\d+) rows/.exec(request.task)?.[1] ?? 6);
  const weight = rarity(request.passages);
  const subject = new Set(stemsOf(request.subject));
  const found = request.passages.flatMap((passage) =>
    passage.sentences.flatMap((sentence): (Row & { score: number })[] => {
      const figure = counted(FIGURE.exec(sentence.text)?.[0]);
      if (figure === undefined) return [];
      const of = sentence.statement?.heading ?? passage.heading ?? named(sentence.text, figure);
      return of === '' ? [] : [{ of, figure, sentence, score: relevance(sentence.stems, subject, weight) }];
    }),
  );
  const ranked = found.sort((a, b) => b.score - a.score || a.sentence.passage - b.sentence.passage);
  return ranked
    .filter(({ of }, i) => ranked.findIndex((other) => other.of === of) === i)
    .slice(0, most)
    .sort((a, b) => a.sentence.passage - b.sentence.passage || a.sentence.at - b.sentence.at);
}

/** A figure without a word behind it that is no unit: '0.02 for'. */
const counted = (figure: string | undefined): string | undefined => {
  const [, number, word] = /^(.*\d)\s?(\p{L}+)$/u.exec(figure ?? '') ?? [];
  return number !== undefined && stemsOf(word!).length === 0 && word!.length > 1 ? number : figure;
};

/** What a sentence says its figure is of: the words before it, or those behind when only small words go before. */
const named = (text: string, figure: string): string => {
  const at = text.indexOf(figure);
  const before = text.slice(0, at);
  const words = (stemsOf(before).length > 0 ? before : text.slice(at + figure.length)).trim().split(/\s+/);
  const first = words.findIndex((word) => stemsOf(word).length > 0);
  return words
    .slice(Math.max(first, 0))
    .slice(0, 4)
    .join(' ')
    .replace(/[,;:.\s]+$/, '');
};

export function tableHead({ language }: ReadRequest): string[] {
  return ownWords(language).table;
}

export function tableRows(request: ReadRequest): { cells: string[]; passages: number[] }[] {
  return rowsOf(request).map(({ of, figure, sentence }) => ({ cells: [of, figure], passages: [sentence.passage] }));
}

export function tableCaption({ language, subject }: ReadRequest): string {
  return ownWords(language).figures(subject);
}
