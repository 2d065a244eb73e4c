import { compareLines, type ToldLine } from '@grivo/core';

/** Two procedures told in full, only what differs: taken away struck out, new ones plain, each with its side. */
export function SentencesCompared({
  before,
  after,
  names,
}: {
  before: readonly ToldLine[];
  after: readonly ToldLine[];
  names: readonly [string, string];
}) {
  const says = (lines: readonly ToldLine[]) => lines.map((line) => line.says);
  const changes = compareLines(says(before), says(after)).filter(({ in: where }) => where !== 'both');
  if (changes.length === 0) return <p className="text-small text-ink-3">Both say the same.</p>;
  return (
    <ul>
      {changes.map(({ line, in: where, at }) => (
        <li key={`${where} ${at}`} className="grid grid-cols-[64px_28px_1fr] text-proc">
          <span className="text-small leading-6 text-ink-3">{where === 'before' ? names[0] : names[1]}</span>
          <span className="fig leading-6 text-ink-3">{(where === 'before' ? before : after)[at]?.step ?? ''}</span>
          {where === 'before' ? <s className="text-ink-3">{line}</s> : <span>{line}</span>}
        </li>
      ))}
    </ul>
  );
}
