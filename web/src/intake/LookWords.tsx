import type { Looked, SourceSettings, StartFrom } from '@grivo/contract';
import { listWords } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { read } from '../api/queries.ts';
import { ChoiceEditor, DoneHere, Head, NumberEditor, Trouble, ValuesEditor, Word } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';

const STARTS: { value: StartFrom['at']; says: string; does: string }[] = [
  { value: 'the beginning', says: 'the beginning', does: 'everything that is there comes in' },
  { value: 'now', says: 'now', does: 'only what is added from now on' },
  { value: 'the last', says: 'the last so many', does: 'the newest, then what is added' },
  { value: 'a day', says: 'a day', does: 'what came out since then' },
];

/** Where a source begins; it counts at the first look. */
export function StartWord({ start, onChange }: { start: StartFrom; onChange: (start: StartFrom) => void }) {
  const [day, setDay] = useState(start.at === 'a day' ? start.day : '');
  const says = start.at === 'the last' ? `the last ${start.n}` : start.at === 'a day' ? start.day : start.at;
  const choose = (value: string) => {
    if (value === 'the last') onChange({ at: 'the last', n: 3 });
    else if (value === 'a day') onChange({ at: 'a day', day: day || '2026-01-01' });
    else onChange({ at: value as 'now' | 'the beginning' });
  };
  return (
    <Word
      label="Start from"
      editor={() => (
        <>
          <ChoiceEditor value={start.at} options={STARTS} onChoose={choose} />
          {start.at === 'the last' ? (
            <div className="pt-3">
              <NumberEditor
                label="The last"
                value={start.n}
                least={1}
                most={10_000}
                onChange={(n) => n !== null && onChange({ at: 'the last', n })}
              />
            </div>
          ) : null}
          {start.at === 'a day' ? (
            <input
              className="field mt-3"
              type="date"
              aria-label="The day"
              value={day}
              onChange={(event) => {
                setDay(event.target.value);
                if (event.target.value !== '') onChange({ at: 'a day', day: event.target.value });
              }}
            />
          ) : null}
        </>
      )}
    >
      {says}
    </Word>
  );
}

/** Words that leave an item out. */
export function ExcludeWord({
  exclude,
  label = 'Leave out titles with',
  onChange,
}: {
  exclude: readonly string[];
  label?: string;
  onChange: (words: string[]) => void;
}) {
  return (
    <Word
      label={label}
      editor={() => (
        <ValuesEditor label="Words that leave an item out" value={exclude} most={200} onChange={onChange} />
      )}
    >
      {listWords(exclude, 'certain words (none chosen)')}
    </Word>
  );
}

/** What a look has brought, said where it was asked for. */
export function LookedHere({ looked, error }: { looked: Looked | undefined; error: string | null }) {
  if (error) return <Trouble>{error}</Trouble>;
  if (!looked) return null;
  if (looked.trouble) return <Trouble>{`${looked.trouble} ${looked.mend ?? ''}`}</Trouble>;
  const parts = [
    looked.fresh === 0 ? 'nothing new' : `${plural(looked.fresh, 'new item')}`,
    ...(looked.changed > 0 ? [`${looked.changed} changed`] : []),
    ...(looked.leftOut > 0 ? [`${looked.leftOut} left out`] : []),
  ];
  return <DoneHere>Looked: {parts.join(', ')}.</DoneHere>;
}

/** The visits to a source, newest first. */
export function Looks({ source, now }: { source: string; now: number }) {
  const looks = useQuery(read.looks(source)).data?.looks ?? [];
  if (looks.length === 0) return null;
  return (
    <section aria-label="Looks">
      <Head title="Looks" right={plural(looks.length, 'look')} />
      <ul className="text-small">
        {looks.slice(0, 8).map((look) => (
          <li key={look.id} className="border-b border-rule-soft py-1">
            <span className="fig text-ink-3">{moment(look.atDesk, now)}</span>{' '}
            {look.trouble ? (
              <span className="text-red">{look.trouble}</span>
            ) : look.pipeline ? (
              look.taken === 0 ? (
                `${look.pipeline}: nothing new`
              ) : (
                `${look.pipeline} took ${look.taken}`
              )
            ) : (
              `${look.fresh === 0 ? 'nothing new' : `${look.fresh} new`}${look.changed > 0 ? `, ${look.changed} changed` : ''}`
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Why an item is not offered, in words. */
export function leftOutWords(leftOut: string, detail: string): string {
  switch (leftOut) {
    case 'filtered':
      return `has “${detail}”`;
    case 'before the start':
      return 'was there before the start';
    case 'near repeat':
      return `near repeat of ${detail}`;
    case 'by hand':
      return 'left out by hand';
    case 'to confirm':
      return 'waits for your approval';
    default:
      return detail || leftOut;
  }
}

export type Settings<Kind extends SourceSettings['kind']> = Extract<SourceSettings, { kind: Kind }>;
