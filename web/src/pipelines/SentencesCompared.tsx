import { compareLines } from '@grivo/core';

/** Two procedures as their sentences, only what differs: taken away struck out, new ones plain, each with its side. */
export function SentencesCompared({
  before,
  after,
  names,
}: {
  before: readonly string[];
  after: readonly string[];
  names: readonly [string, string];
}) {
  const changes = compareLines(before, after).filter(({ in: where }) => where !== 'both');
  if (changes.length === 0)
    return <p className="text-small text-ink-3">The sentences are the same; a detail differs.</p>;
  return (
    <ul>
      {changes.map(({ line, in: where, at }) => (
        <li key={`${where} ${at}`} className="grid grid-cols-[64px_28px_1fr] text-proc">
          <span className="text-small leading-6 text-ink-3">{where === 'before' ? names[0] : names[1]}</span>
          <span className="fig leading-6 text-ink-3">{at + 1}</span>
          {where === 'before' ? <s className="text-ink-3">{line}</s> : <span>{line}</span>}
        </li>
      ))}
    </ul>
  );
}
