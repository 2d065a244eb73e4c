/** What a keyword tool measured of a phrase. */
export interface Measures {
  /** Searches a month. */
  volume: number | null;
  /** How hard it is to be found for it, 0 to 100. */
  difficulty: number | null;
}

/**
 * What a phrase promises: the searches a month, less the share its difficulty takes, volume × (100 − difficulty) ÷ 100.
 * A rule of thumb of the house; null where either is not known.
 */
export function opportunity({ volume, difficulty }: Measures): number | null {
  return volume === null || difficulty === null ? null : (volume * (100 - difficulty)) / 100;
}
