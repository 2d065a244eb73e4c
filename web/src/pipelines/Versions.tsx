import { useQuery } from '@tanstack/react-query';
import { read } from '../api/queries.ts';
import { Loading } from '../design/index.ts';
import { moment } from '../words/time.ts';

/** The versions of a procedure, newest first, each with the sentences that changed. */
export function Versions({ id, now }: { id: string; now: number }) {
  const versions = useQuery(read.versions(id)).data?.versions;
  if (!versions) return <Loading />;
  return (
    <ol className="-mx-8 border-t border-ink px-8">
      {versions.map((version, i) => {
        const before = versions[i + 1]?.sentences;
        const changed = version.sentences.filter((sentence) => before && !before.includes(sentence));
        return (
          <li key={version.n} className="grid grid-cols-[90px_180px_1fr] border-b border-rule-soft py-2">
            <span className="font-semibold">Version {version.n}</span>
            <span className="text-small text-ink-3">
              {version.by ?? 'Grivo'}, {moment(Date.parse(String(version.at)), now)}
            </span>
            <span className="text-proc">
              {before === undefined ? (
                <span className="text-ink-3">the first, {version.sentences.length} steps</span>
              ) : (
                changed.map((sentence) => (
                  <span key={sentence} className="block">
                    {sentence}
                  </span>
                ))
              )}
            </span>
          </li>
        );
      })}
    </ol>
  );
}
