import type { Clause, Sentence } from './clause.ts';
import { partOf } from './compared.ts';
import { setOf } from './lexicon.ts';
import type { Moment } from './moments.ts';
import { type Meaning, near, type Quantity } from './quantity.ts';
import { unitAt } from './units.ts';

/** What figures may mean that are no parts of others. */
export const whole = (of: readonly Quantity[]): Meaning[] => of.flatMap((one) => (partOf(one) ? [] : one.means));

/** Figures any two of which are reckoned with; more are a table, of which nearly everything follows. */
export const MOST_HELD = 200;
/** The same of one sentence. */
export const MOST_TOGETHER = 40;
/** Clauses that are reckoned with. */
export const MOST_CLAUSES = 1_500;

/** What sources say, to reckon with; what is made of it is made once, for all figures that are reckoned. */
export class Reckoning {
  private known: { meanings?: Meaning[]; sentences?: { figures: Quantity[]; of: Sentence }[] } = {};

  constructor(
    readonly quantities: readonly Quantity[],
    readonly moments: readonly Moment[],
    readonly clauses: readonly Clause[],
  ) {}

  /** What all figures mean that are no parts of others. */
  get meanings(): readonly Meaning[] {
    this.known.meanings ??= whole(this.quantities).slice(0, MOST_HELD);
    return this.known.meanings;
  }

  /** Sentences with their figures. */
  get sentences(): readonly { figures: readonly Quantity[]; of: Sentence }[] {
    this.known.sentences ??= [...new Set(this.clauses.map(({ sentence }) => sentence))]
      .map((of) => ({ of, figures: of.clauses.flatMap(({ facts }) => facts.quantities) }))
      .filter(({ figures }) => figures.length <= MOST_TOGETHER);
    return this.known.sentences;
  }
}

/** A way in which a figure follows from what sources say. */
export type Way = (figure: Quantity, said: Clause, held: Reckoning) => boolean;

/** How far what was reckoned may be rounded. */
export const ROUNDED = 0.02;
export const EXACTLY = { says: 'exactly' } as const;
export const fits = (figure: Quantity, value: number, { dimension }: Pick<Meaning, 'dimension'>, rounding = ROUNDED) =>
  value > 0 &&
  figure.means.some((mine) => mine.dimension === dimension && near(mine.value, value, figure, EXACTLY, rounding));
export const EXACT = 1e-6;

/** How far what is so much a week may be rounded from what is so much a month. */
export const BY_PERIODS = 0.05;

export const REST = setOf(
  'rest other others remaining remainder remain remains survive survives survived left kept übrigen übrige übrig andere anderen restlichen restliche bleibt bleiben überlebt überleben überlebte überlebten preserved extant surviving erhalten vorhanden',
);

/** Sentences back in which it is looked for what a part is of. */
export const BACK = 3;
export const OF_THEM =
  /\b(?:of (?:them|these|those|the|all)|davon|der|von (?:ihnen|diesen|denen|den|allen)|darunter)\b/i;

export const ONE = setOf('a an one per each every ein eine einen einem einer pro je jeder jede jedes jeden');

const PARTLY = setOf('half quarter quarters third thirds of');

/** What there is one of, and where it stands: 'a litre', 'je Meter'. */
export const singles = ({ tokens }: Clause): (Meaning & { at: number })[] => {
  const lowers = tokens.map(({ lower }) => lower);
  return lowers.flatMap((lower, at) => {
    const isOne = ONE.has(lower) && !PARTLY.has(lowers[at - 1] ?? '');
    const unit = isOne && tokens[at + 1]?.unit === true ? unitAt(lowers, at + 1)?.units[0] : undefined;
    return unit ? [{ dimension: unit.dimension, value: unit.size, size: unit.size, at }] : [];
  });
};
