import type { ArticleDocument } from '../article/block.ts';
import { blockText } from '../article/text.ts';
import { sentencesOf, wordsOfText } from '../sentence/sentence.ts';
import type { HouseStyleDocument } from './document.ts';
import { FIGURE_NAMES, FIGURES, type FigureName, figuresOfText, rounded } from './figures.ts';
import { type UnwantedWord, unwantedIn } from './reword.ts';
import { isOfHouse } from './standing.ts';
import { isWithin } from './told.ts';

/** One figure of an article beside what its house has it at. */
export interface FigureCompared {
  name: FigureName;
  value: number;
  range: { from: number; to: number } | null;
  /** Null where the house does not care. */
  within: boolean | null;
  /** What to do where it is not. */
  mend: string | null;
  /** The block it is most true of, where one is. */
  place: string | null;
}

export interface StyleCompared {
  figures: FigureCompared[];
  /** Words the house does not say. */
  unwanted: UnwantedWord[];
  /** Who it should speak as and does not, in a sentence; null where it does. */
  person: string | null;
}

type Compared = Pick<ArticleDocument, 'title' | 'body' | 'language'>;

/** The running text of an article, without what the house itself puts there and what somebody else said. */
export function ownText({ body }: Pick<ArticleDocument, 'body'>): string {
  return body
    .filter(
      (block) => !isOfHouse(block) && (block.type === 'paragraph' || block.type === 'list' || block.type === 'closing'),
    )
    .map(blockText)
    .join('\n');
}

/** An article beside its house style, point by point. */
export function comparedWithStyle(document: Compared, style: HouseStyleDocument): StyleCompared {
  const { figures, persons } = figuresOfText(ownText(document), document.language);
  return {
    figures: FIGURE_NAMES.map((name): FigureCompared => {
      const within = isWithin(style, name, figures[name]);
      const range = style.ranges[name] ?? null;
      const off = within === false;
      const above = off && figures[name] > range!.to;
      return {
        name,
        value: rounded(figures[name], FIGURES[name].digits),
        range,
        within,
        mend: off ? FIGURES[name][above ? 'above' : 'below'] : null,
        place: above ? placeOf(document, name) : null,
      };
    }),
    unwanted: unwantedIn({ ...document, body: document.body.filter((block) => !isOfHouse(block)) }, style),
    person: personWrong(style.person, persons),
  };
}

const SPEAKS: Record<NonNullable<HouseStyleDocument['person']>, { as: 'I' | 'we' | 'you' | null; says: string }> = {
  'first person singular': { as: 'I', says: 'The house speaks as “I”' },
  'first person plural': { as: 'we', says: 'The house speaks as “we”' },
  'second person': { as: 'you', says: 'The house speaks to “you”' },
  'third person': { as: null, says: 'The house speaks neither as “I” or “we” nor to “you”' },
};
const LEAST_SHARE = 0.2;

function personWrong(person: HouseStyleDocument['person'], persons: Record<'I' | 'we' | 'you', number>): string | null {
  if (person === null) return null;
  const { as, says } = SPEAKS[person];
  const said = persons.I + persons.we + persons.you;
  if (as === null) return said > 0 ? `${says}; this text does.` : null;
  if (persons[as] >= LEAST_SHARE) return null;
  return persons[as] === 0 ? `${says}; this text never does.` : `${says}; this text hardly does.`;
}

/** The block a figure that is too high is most true of. */
function placeOf({ body, language }: Compared, name: FigureName): string | null {
  const counts: Partial<Record<FigureName, (text: string) => number>> = {
    sentence: (text) => longest(text, language),
    long: (text) => longest(text, language),
    grade: (text) => longest(text, language),
    commas: (text) => text.split(',').length - 1,
    semicolons: (text) => text.split(';').length - 1,
    exclamations: (text) => text.split('!').length - 1,
    questions: (text) => text.split('?').length - 1,
    figures: (text) => text.match(/\d+/g)?.length ?? 0,
    contractions: (text) => text.match(/\p{L}['’]\p{L}/gu)?.length ?? 0,
  };
  const count = counts[name]!;
  let best: { id: string; n: number } | null = null;
  for (const block of body) {
    if (isOfHouse(block) || (block.type !== 'paragraph' && block.type !== 'list')) continue;
    const n = count(blockText(block));
    if (n > (best?.n ?? 0)) best = { id: block.id, n };
  }
  return best?.id ?? null;
}

function longest(text: string, language: string): number {
  return Math.max(0, ...sentencesOf(text, language).map((one) => wordsOfText(one, language).length));
}
