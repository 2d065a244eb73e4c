import type { Source } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Empty, Loading, Trouble } from '../design/index.ts';
import { useArchived } from '../keeping/useArchived.tsx';
import { Carried } from '../labels/Carried.tsx';
import { NoneCarries } from '../labels/NoneCarries.tsx';
import { useNow } from '../shell/useNow.ts';
import { count, counted, plural } from '../words/figures.ts';
import { SOURCES } from '../words/sources.ts';
import { moment } from '../words/time.ts';
import { AddSource } from './AddSource.tsx';

/** All sources: what each holds, how much of it was taken, when it was looked at last, and what went wrong. */
export default function Intake() {
  const sources = useQuery(read.sources());
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const [search, setSearch] = useSearchParams();
  const adding = search.get('new');
  const { rows, words: archived } = useArchived(sources.data?.sources);
  return (
    <>
      <div className="flex h-[68px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Intake</h1>
        <span className="text-ink-3">
          {rows
            ? `${plural(rows.length, 'source')}, ${plural(
                rows.reduce((sum, row) => sum + row.items, 0),
                'item',
              )}`
            : ''}
        </span>
        {archived}
        <Button className="ml-auto" onClick={() => setSearch(adding !== null ? {} : { new: '' })}>
          {adding !== null ? 'Not now' : 'Add a source'}
        </Button>
      </div>
      {adding !== null ? <AddSource kind={adding} /> : null}
      <div className="-mx-8 border-t border-ink px-8">
        {sources.isPending ? <Loading /> : null}
        {sources.isError ? <Trouble>{inWords(sources.error)}</Trouble> : null}
        {rows?.length === 0 && adding === null ? (
          <NoneCarries what="source">
            <Empty
              next={
                <Button look="word" onClick={() => setSearch({ new: '' })}>
                  Add a source
                </Button>
              }
            >
              Nothing to write about yet.
            </Empty>
          </NoneCarries>
        ) : null}
        <ul>
          {rows?.map((row) => (
            <SourceLine key={row.id} row={row} now={now} />
          ))}
        </ul>
      </div>
    </>
  );
}

function SourceLine({ row, now }: { row: Source; now: number }) {
  const { says, one, many } = SOURCES[row.kind];
  const open = Math.max(0, row.items - row.taken - row.leftOut);
  return (
    <li className="row grid min-h-12 grid-cols-[minmax(0,1fr)_110px_260px_230px_190px] items-center max-[1100px]:grid-cols-[minmax(0,1fr)_100px_130px_200px_170px] gap-x-3 py-1">
      <Link to={`/intake/${row.id}`} className="brackets w-fit max-w-full truncate text-proc font-medium">
        {row.name}
      </Link>
      <span className="text-small text-ink-3">
        <Carried labels={row.labels} before=" · " />
        {says}
      </span>
      <span className="flex items-center gap-3 text-small">
        <span className="relative block h-2 w-28 border border-rule-strong max-[1100px]:hidden">
          <span
            className="absolute inset-y-0 left-0 bg-ink"
            style={{ width: `${row.items === 0 ? 0 : (row.taken / row.items) * 100}%` }}
          />
        </span>
        {counted(row.taken)} of {counted(row.items)} taken
      </span>
      <span className="text-small text-ink-3">
        {plural(open, one, many)} to take{row.leftOut > 0 ? `, ${count(row.leftOut)} left out` : ''}
      </span>
      {row.trouble ? (
        <span className="text-small text-red">{row.trouble}</span>
      ) : (
        <span className="fig text-right text-ink-3">
          {row.kind === 'hook' || row.kind === 'requests'
            ? ''
            : row.lastLook === null
              ? 'never looked at'
              : `looked ${moment(row.lastLook, now)}`}
        </span>
      )}
    </li>
  );
}
