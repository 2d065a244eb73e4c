/** A phrase of a file, with what it says of it. */
export interface FilePhrase {
  phrase: string;
  /** Searches a month. */
  volume: number | null;
  /** From 0 to 100. */
  difficulty: number | null;
}

/** A phrase nothing is known of. */
export function bare(phrase: string): FilePhrase {
  return { phrase: phrase.trim().replace(/\s+/g, ' '), volume: null, difficulty: null };
}
