import type { HouseStyleWhole, StyleVersion } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Loading, Trouble } from '../design/index.ts';
import { useNow } from '../shell/useNow.ts';
import { moment } from '../words/time.ts';
import { linesOf } from './styleLines.ts';
import { type StyleWords, useStyleWords } from './useStyle.ts';

/** What the parts of a style are called. */
const CALLED: Record<keyof StyleWords, string> = {
  voice: 'how it sounds',
  person: 'who it speaks as',
  address: 'how readers are addressed',
  spelling: 'spelling',
  ranges: 'ranges',
  facts: 'facts about us',
  words: 'words',
  never: 'words never said',
  standing: 'standing text',
  rules: 'replacements',
  closingLink: 'the closing link',
  wording: 'words of parts',
  call: 'what readers are asked to do',
  disclosure: 'what readers are told',
  pictures: 'pictures',
  cards: 'cards',
  links: 'links',
  values: 'named texts',
};
const PARTS = Object.keys(CALLED) as (keyof StyleWords)[];

/** The versions of a style, the newest first, each with what it changed; one is brought back. */
export function StyleVersionList({ style }: { style: HouseStyleWhole }) {
  const list = useQuery(read.styleVersions(style.id));
  const slots = useQuery(read.slots(null, 7)).data;
  const now = useNow(slots?.now, slots?.speed) ?? Date.now();
  const edit = useStyleWords(style);
  if (list.isPending) return <Loading />;
  if (list.isError) return <Trouble>{inWords(list.error)}</Trouble>;
  const { versions } = list.data;
  return (
    <>
      {edit.error ? <Trouble>{inWords(edit.error)}</Trouble> : null}
      <ol className="-mx-8 border-t border-ink px-8">
        {versions.map((version, i) => (
          <li key={version.n} className="grid grid-cols-[160px_1fr_140px] gap-x-4 border-b border-rule-soft py-2">
            <span>
              <span className="font-semibold">Version {version.n}</span>
              <span className="block text-small text-ink-3">
                {version.by ?? 'Grivo'}, {moment(version.atDesk, now)}
              </span>
            </span>
            <Changed version={version} before={versions[i + 1] ?? null} />
            <span className="text-right text-small">
              {version.n === style.version ? (
                <span className="text-ink-3">now</span>
              ) : (
                <Button
                  look="word"
                  onClick={() => {
                    const { grivo: _, ...words } = version.document;
                    edit.put(words);
                  }}
                >
                  Bring it back
                </Button>
              )}
            </span>
          </li>
        ))}
      </ol>
      <p className="py-3 text-small text-ink-3">
        Articles are written in the version there is when their step is done. A version brought back becomes the newest.
      </p>
    </>
  );
}

/** What a version changed, part by part: what went and what came. */
function Changed({ version, before }: { version: StyleVersion; before: StyleVersion | null }) {
  if (!before)
    return <span className="text-ink-3">{version.n === 1 ? 'the first' : 'those before are not shown'}</span>;
  const changed = PARTS.flatMap((name) => {
    const [was, is] = [linesOf(name, before.document), linesOf(name, version.document)];
    const [went, came] = [was.filter((line) => !is.includes(line)), is.filter((line) => !was.includes(line))];
    return went.length + came.length > 0 ? [{ name, went, came }] : [];
  });
  return (
    <dl className="min-w-0">
      {changed.map(({ name, went, came }) => (
        <div key={name} className="grid grid-cols-[200px_minmax(0,1fr)] gap-x-3">
          <dt className="text-ink-3">{CALLED[name]}</dt>
          <dd className="min-w-0 break-words">
            <Lines lines={went} was />
            <Lines lines={came} />
          </dd>
        </div>
      ))}
      {changed.length === 0 ? <div className="text-ink-3">nothing</div> : null}
    </dl>
  );
}

const MOST_LINES = 8;

function Lines({ lines, was = false }: { lines: readonly string[]; was?: boolean }) {
  return (
    <>
      {lines.slice(0, MOST_LINES).map((line) => (
        <span key={line} className="block">
          {was ? <s className="text-ink-3">{line}</s> : line}
        </span>
      ))}
      {lines.length > MOST_LINES ? (
        <span className="block text-ink-3">
          and {lines.length - MOST_LINES} more {was ? 'taken out' : 'put in'}
        </span>
      ) : null}
    </>
  );
}
