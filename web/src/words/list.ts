const conjunction = new Intl.ListFormat('en-GB', { type: 'conjunction' });

/** 'a', 'a and b', 'a, b and c'. */
export function inARow(words: readonly string[]): string {
  return conjunction.format(words);
}
