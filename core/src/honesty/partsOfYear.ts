/** Seasons by their words, with the months people mean by them: one to either side, as they are spoken of. */
export const SEASONS: readonly { words: readonly string[]; months: readonly number[] }[] = [
  { words: 'spring springtime frühjahr frühjahrs frühling frühlings'.split(' '), months: [2, 3, 4, 5, 6] },
  { words: 'summer summers midsummer sommer sommers hochsommer sommermonaten'.split(' '), months: [5, 6, 7, 8, 9] },
  { words: 'autumn autumns fall herbst herbstes'.split(' '), months: [8, 9, 10, 11, 12] },
  { words: 'winter winters midwinter wintermonaten'.split(' '), months: [11, 12, 1, 2, 3] },
];

/** The number of the season a word names. */
export const SEASON_OF: ReadonlyMap<string, number> = new Map(
  SEASONS.flatMap(({ words }, season) => words.map((word): [string, number] => [word, season])),
);

/** Months a part of a year may lie in, by the word for it. */
export const PARTS: Record<string, readonly number[]> = {
  beginning: [1, 2, 3],
  start: [1, 2, 3],
  early: [1, 2, 3, 4],
  end: [10, 11, 12],
  late: [9, 10, 11, 12],
  middle: [5, 6, 7, 8],
  mid: [5, 6, 7, 8],
  anfang: [1, 2, 3],
  mitte: [5, 6, 7, 8],
  ende: [10, 11, 12],
};
/** Days a part of a month may lie in. */
export const PART_DAYS: Record<string, [number, number]> = {
  beginning: [1, 10],
  start: [1, 10],
  early: [1, 12],
  middle: [10, 20],
  mid: [10, 20],
  end: [20, 31],
  late: [18, 31],
  anfang: [1, 10],
  mitte: [10, 20],
  ende: [20, 31],
};
