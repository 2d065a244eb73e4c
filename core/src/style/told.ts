import type { FormOfAddress, HouseStyleDocument } from './document.ts';
import { FIGURES, type FigureName, type FigureOver, rounded, sharesOver, type TextFigures } from './figures.ts';

/** Words of an article told to a writer at most: more would push the task aside. */
const MOST_WORDS = 120;

const ADDRESS: Readonly<Record<string, Record<Exclude<FormOfAddress, 'as it fits'>, string>>> = {
  de: { familiar: 'Speak to the reader as du, never as Sie.', formal: 'Speak to the reader as Sie, never as du.' },
  fr: { familiar: 'Speak to the reader as tu.', formal: 'Speak to the reader as vous.' },
  es: { familiar: 'Speak to the reader as tú.', formal: 'Speak to the reader as usted.' },
  it: { familiar: 'Speak to the reader as tu.', formal: 'Speak to the reader as Lei.' },
  nl: { familiar: 'Speak to the reader as je.', formal: 'Speak to the reader as u.' },
  pl: { familiar: 'Speak to the reader as ty.', formal: 'Speak to the reader as Pan or Pani.' },
};

/** What a writer is told of a house, in sentences; empty where it asks for nothing. */
export function toldToWriter(
  style: Pick<HouseStyleDocument, 'voice' | 'address' | 'spelling' | 'ranges' | 'words' | 'never'>,
  language: string,
): string {
  const tongue = language.slice(0, 2);
  const out: string[] = [];
  if (style.voice !== '') out.push(style.voice.replace(/\s+/g, ' '));
  if (style.address !== 'as it fits') {
    const said = ADDRESS[tongue]?.[style.address];
    if (said) out.push(said);
  }
  if (style.spelling && tongue === 'en') out.push(`Spell as ${style.spelling} English does.`);
  const { sentence } = style.ranges;
  if (sentence) out.push(`Sentences have ${rounded(sentence.from, 0)} to ${rounded(sentence.to, 0)} words on average.`);
  if (style.ranges.exclamations?.to === 0) out.push('No exclamation marks.');
  const pairs = style.words
    .slice(0, MOST_WORDS)
    .map(({ use, not }) => `“${use}”, not ${not.map((one) => `“${one}”`).join(' or ')}`);
  if (pairs.length > 0) out.push(`Say ${pairs.join('; ')}.`);
  if (style.never.length > 0)
    out.push(
      `Never say ${style.never
        .slice(0, MOST_WORDS)
        .map((one) => `“${one}”`)
        .join(', ')}.`,
    );
  return out.join(' ');
}

const amount = (n: number): string => String(rounded(n, n < 10 ? 1 : 0));

/** A description of how texts sound, from their figures alone; what it says can be said of every text of that hand. */
export function describedBy(texts: readonly TextFigures[], figures: readonly FigureOver[]): string {
  const of = (name: FigureName) => figures.find((one) => one.name === name)!.mean;
  const { I, we, you } = sharesOver(texts, ({ persons }) => persons);
  const opens = sharesOver(texts, ({ openings }) => openings);
  const out: string[] = [];
  const speaks = (I ?? 0) > Math.max(we ?? 0, 0.2) ? 'I' : (we ?? 0) > 0.2 ? 'we' : null;
  if (speaks || (you ?? 0) > 0.2)
    out.push(`Speak ${speaks ? `as “${speaks}”` : 'of the matter'}${(you ?? 0) > 0.2 ? ', to “you”' : ''}.`);
  else out.push('Speak of the matter, neither as “we” nor to “you”.');
  const mean = of('sentence');
  out.push(
    `${mean < 14 ? 'Keep sentences short' : mean < 19 ? 'Write sentences of middling length' : 'Let sentences run long'}, about ${amount(mean)} words; ${of('long') < 5 ? 'hardly any' : `${amount(of('long'))} in 100`} over 25.`,
  );
  if ((opens['an order'] ?? 0) > 0.25) out.push('Often begin with what to do.');
  if (of('figures') > 2) out.push('Say how much, how long and how warm in figures.');
  out.push(
    of('contractions') > 1
      ? 'Contract as people speak.'
      : of('contractions') > 0.3
        ? 'Contract now and then.'
        : 'Do not contract.',
  );
  if (of('questions') > 8) out.push('Ask what readers ask.');
  else if (of('questions') < 1.5) out.push('Ask no questions.');
  if (of('exclamations') < 0.5) out.push('No exclamation marks.');
  if (of('semicolons') < 0.5) out.push('No semicolons.');
  return out.join(' ');
}

/** Whether a figure of a text lies where the house has it; null where the house does not care. */
export function isWithin(style: Pick<HouseStyleDocument, 'ranges'>, name: FigureName, value: number): boolean | null {
  const range = style.ranges[name];
  if (!range) return null;
  const { digits } = FIGURES[name];
  const shown = rounded(value, digits);
  return shown >= range.from && shown <= range.to;
}
