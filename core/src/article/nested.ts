/** Deeper in each other than quotations and lists of any text people write. */
const DEEPEST = 60;

/**
 * Whether quotations or lists of a Markdown text lie so deep in each other that reading it would take a step for every
 * level: told by the marks and the room each line begins with.
 */
export function tooNested(markdown: string): boolean {
  for (const line of markdown.split('\n')) {
    let marks = 0;
    let room = 0;
    let kinds = '';
    let at = 0;
    for (; at < line.length; at++) {
      const letter = line[at]!;
      if (letter === ' ' || letter === '\t') room++;
      else if ('>-*+.)'.includes(letter)) {
        marks++;
        if (!kinds.includes(letter)) kinds += letter;
      } else if (letter < '0' || letter > '9') break;
    }
    // A line of one mark alone parts a text (CommonMark 0.31, section 4.1): nothing lies in it.
    const isRule = at === line.length && kinds.length === 1 && '-*'.includes(kinds);
    if (!isRule && (marks > DEEPEST || (marks > 0 && room > DEEPEST * 4))) return true;
  }
  return false;
}
