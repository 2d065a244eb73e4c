import { type Versions as VersionList, VersionWhole } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Loading, Trouble } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { useDraft } from './draft.ts';
import { SentencesCompared } from './SentencesCompared.tsx';

type Version = VersionList['versions'][number];

/** The versions of a procedure, newest first, each with what it changed; compared with today's, and brought back. */
export function Versions({ id, now }: { id: string; now: number }) {
  const versions = useQuery(read.versions(id)).data?.versions;
  const [compared, setCompared] = useState<number | null>(null);
  const [, setSearch] = useSearchParams();
  const edit = useDraft((store) => store.edit);
  const back = useMutation({
    mutationFn: (n: number) => call('GET', `/pipelines/${id}/versions/${n}`, { answer: VersionWhole }),
    onSuccess: ({ document }) => {
      edit(() => document);
      setSearch({});
    },
  });
  if (!versions) return <Loading />;
  const newest = versions[0]!;
  return (
    <>
      {back.isError ? <Trouble>{inWords(back.error)}</Trouble> : null}
      <ol className="-mx-8 border-t border-ink px-8">
        {versions.map((version, i) => {
          const withNow = version.n !== newest.n && compared === version.n;
          return (
            <li key={version.n} className="grid grid-cols-[112px_1fr_250px] gap-x-4 border-b border-rule-soft py-2">
              <span>
                <span className="font-semibold">Version {version.n}</span>
                <span className="block text-small text-ink-3">
                  {version.by ?? 'Grivo'}, {moment(Date.parse(String(version.at)), now)}
                </span>
              </span>
              <div className="min-w-0">
                <Changed version={version} before={versions[i + 1]} newest={withNow ? newest : null} />
              </div>
              <span className="flex items-start justify-end gap-4 pt-0.5 text-small">
                {version.n === newest.n ? (
                  <span className="text-ink-3">now</span>
                ) : (
                  <>
                    <Button look="quiet" aria-pressed={withNow} onClick={() => setCompared(withNow ? null : version.n)}>
                      {withNow ? 'what it changed' : `compare with ${newest.n}`}
                    </Button>
                    <Button
                      look="word"
                      busy={back.isPending && back.variables === version.n ? 'Bringing back' : null}
                      onClick={() => back.mutate(version.n)}
                    >
                      Bring it back
                    </Button>
                  </>
                )}
              </span>
            </li>
          );
        })}
      </ol>
      <p className="py-3 text-small text-ink-3">
        Briefs finish on the version they began with. A version brought back stays a draft until you save it.
      </p>
    </>
  );
}

/** What a version changed, or how it differs from the newest. */
function Changed({
  version,
  before,
  newest,
}: {
  version: Version;
  before: Version | undefined;
  /** Where it is compared with that. */
  newest: Version | null;
}) {
  if (newest)
    return (
      <SentencesCompared
        before={version.lines}
        after={newest.lines}
        names={[`version ${version.n}`, `version ${newest.n}`]}
      />
    );
  if (before) return <SentencesCompared before={before.lines} after={version.lines} names={['taken out', 'new']} />;
  return (
    <span className="text-ink-3">
      the first, {plural(Math.max(0, ...version.lines.map(({ step }) => step ?? 0)), 'step')}
    </span>
  );
}
