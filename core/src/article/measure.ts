/** One figure about an article with the range it should lie in, either end open. */
export interface ArticleMeasure {
  name: string;
  value: number;
  least: number | null;
  most: number | null;
  unit: string;
  /** What it rests on, or what to do. */
  says: string;
  /** The block it speaks of first, where it is of one. */
  place: string | null;
}

/** What the article was made from. */
export type MeasuredSource = { id: string; text: string; language?: string | undefined };

/** What else an article is held against; nothing is asked of what is not known. */
export interface MeasuredBeside {
  /** Articles of ours that say some of the same. */
  own: { title: string; text: string }[];
  /** Most likeness its procedure lets pass, in per cent; null where it does not look. */
  most: { sources: number | null; own: number | null };
  /** Addresses that led nowhere when they were last looked at. */
  dead: string[];
}

export const NOTHING_BESIDE: MeasuredBeside = { own: [], most: { sources: null, own: null }, dead: [] };

/** A measure, its value in tenths. */
export function measure(
  name: string,
  value: number,
  [least, most]: readonly [number | null, number | null],
  unit: string,
  says: string,
  place: string | null = null,
): ArticleMeasure {
  return { name, value: Math.round(value * 10) / 10, least, most, unit, says, place };
}

/** What is made of something in a language, once for each for as long as that is there. */
export function onceFor<K extends object, T extends object>(make: (of: K, language: string) => T) {
  const known = new WeakMap<K, Map<string, T>>();
  return (of: K, language: string): T => {
    const by = known.get(of) ?? new Map<string, T>();
    known.set(of, by);
    const made = by.get(language) ?? make(of, language);
    by.set(language, made);
    return made;
  };
}
