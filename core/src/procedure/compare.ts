/** A line of one or both of two texts. */
export interface ComparedLine {
  line: string;
  in: 'before' | 'after' | 'both';
  /** Its position in the text it is from; of a line in both, in the later. */
  at: number;
}

/**
 * Two texts line by line, as a longest common subsequence (Wagner and Fischer 1974, without changes): what was taken away
 * stands before what came in its place. Quadratic in lines; procedures have at most some hundreds.
 */
export function compareLines(before: readonly string[], after: readonly string[]): ComparedLine[] {
  const common = Array.from({ length: before.length + 1 }, () => new Uint16Array(after.length + 1));
  for (let i = before.length - 1; i >= 0; i--)
    for (let j = after.length - 1; j >= 0; j--)
      common[i]![j] =
        before[i] === after[j] ? common[i + 1]![j + 1]! + 1 : Math.max(common[i + 1]![j]!, common[i]![j + 1]!);
  const out: ComparedLine[] = [];
  let i = 0;
  let j = 0;
  while (i < before.length || j < after.length) {
    if (i < before.length && j < after.length && before[i] === after[j]) {
      out.push({ line: after[j]!, in: 'both', at: j++ });
      i++;
    } else if (j >= after.length || (i < before.length && common[i + 1]![j]! >= common[i]![j + 1]!))
      out.push({ line: before[i]!, in: 'before', at: i++ });
    else out.push({ line: after[j]!, in: 'after', at: j++ });
  }
  return out;
}
