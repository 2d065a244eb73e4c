import type { Pipeline } from '@grivo/contract';
import {
  createColumnHelper,
  createSortedRowModel,
  type Header,
  rowSortingFeature,
  sortFn_basic,
  sortFn_text,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { Mark } from '../design/index.ts';
import { Carried } from '../labels/Carried.tsx';
import { useViewKeys } from '../shell/keys.ts';
import { amount, counted } from '../words/figures.ts';
import { moment } from '../words/time.ts';

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { basic: sortFn_basic, text: sortFn_text },
});
const column = createColumnHelper<typeof features, Pipeline>();

/** How wide each column is, and whether it holds figures. */
const LOOKS: Record<string, string> = {
  name: 'w-[28%] max-[1100px]:w-[21%]',
  on: 'w-[44px]',
  next: 'w-[132px]',
  last: '',
  waiting: 'w-[60px] text-right',
  'in work': 'w-[60px] text-right',
  held: 'w-[52px] text-right',
  ready: 'w-[60px] text-right',
  stopped: 'w-[64px] text-right',
  month: 'w-[84px] text-right',
  each: 'w-[64px] text-right',
};

/** Figures are looked at from the most on. */
const figures = { sortFn: 'basic', sortDescFirst: true, sortUndefined: 'last' } as const;

const columns = column.columns([
  column.accessor('name', {
    id: 'name',
    header: 'Pipeline',
    sortFn: 'text',
    cell: ({ row }) => <Named it={row.original} />,
  }),
  column.accessor((row) => Number(row.isOn), {
    ...figures,
    id: 'on',
    header: 'It is',
    cell: ({ row }) => (row.original.isOn ? 'on' : <None>off</None>),
  }),
  column.accessor((row) => row.nextLook ?? undefined, {
    id: 'next',
    header: 'Looks next',
    sortFn: 'basic',
    sortUndefined: 'last',
  }),
  column.accessor((row) => row.lastOut?.at, { ...figures, id: 'last', header: 'Last out' }),
  column.accessor((row) => row.counts.waiting, {
    ...figures,
    id: 'waiting',
    header: 'waiting',
    cell: ({ getValue }) => <Count n={getValue()} />,
  }),
  column.accessor((row) => row.counts['in work'], {
    ...figures,
    id: 'in work',
    header: 'in work',
    cell: ({ getValue }) => <Count n={getValue()} />,
  }),
  column.accessor((row) => row.counts.held, {
    ...figures,
    id: 'held',
    header: 'held',
    cell: ({ getValue }) => <Count n={getValue()} mark="wait" />,
  }),
  column.accessor((row) => row.counts.ready, {
    ...figures,
    id: 'ready',
    header: 'ready',
    cell: ({ getValue }) => <Count n={getValue()} />,
  }),
  column.accessor((row) => row.counts.stopped, {
    ...figures,
    id: 'stopped',
    header: 'stopped',
    cell: ({ getValue }) => <Count n={getValue()} mark="stop" />,
  }),
  column.accessor('outThisMonth', {
    ...figures,
    id: 'month',
    header: 'this month',
    cell: ({ getValue }) => <Count n={getValue()} />,
  }),
  column.accessor((row) => row.microsEach ?? undefined, {
    ...figures,
    id: 'each',
    header: '€ each',
    cell: ({ getValue }) => (getValue() === undefined ? '' : amount(getValue()!)),
  }),
]);

/** Pipelines as rows, in the order of whichever column is pressed; as they were made until one is. */
export function PipelineTable({ rows, now, onNew }: { rows: readonly Pipeline[]; now: number; onNew: () => void }) {
  const table = useTable({ features, columns, data: rows, getRowId: ({ id }) => id });
  const [at, setAt] = useState(-1);
  const go = useNavigate();
  const shown = table.getRowModel().rows;
  const put = (n: number) => setAt(Math.max(0, Math.min(shown.length - 1, n)));
  const chosen = shown[at]?.original;
  useViewKeys({
    j: () => put(at + 1),
    k: () => put(at - 1),
    Enter: chosen ? () => void go(`/pipelines/${chosen.id}`) : null,
    n: onNew,
  });
  return (
    <table className="w-full table-fixed">
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id} className="h-8 border-b border-rule text-left text-small text-ink-3">
            {group.headers.map((header) => (
              <HeadCell key={header.id} header={header} />
            ))}
          </tr>
        ))}
      </thead>
      <tbody>
        {shown.map((row, i) => (
          <tr
            key={row.id}
            aria-selected={i === at}
            className={`row h-12 align-middle ${i === at ? 'brackets bracketed picked' : ''}`}
          >
            {row.getAllCells().map((cell) => (
              <td key={cell.id} className={cellLook(cell.column.id)}>
                {cell.column.id === 'next' ? (
                  <Next at={row.original.nextLook} now={now} />
                ) : cell.column.id === 'last' ? (
                  <Last out={row.original.lastOut} now={now} />
                ) : (
                  <table.FlexRender cell={cell} />
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function cellLook(id: string): string {
  if (id === 'name' || id === 'last') return 'pr-4';
  return LOOKS[id]?.includes('text-right') ? 'fig text-right' : id === 'next' ? 'fig' : '';
}

const SORTED = { asc: 'ascending', desc: 'descending' } as const;

function HeadCell({ header: { column } }: { header: Header<typeof features, Pipeline, unknown> }) {
  const sorted = column.getIsSorted();
  return (
    <th className={`font-normal ${LOOKS[column.id]}`} aria-sort={sorted ? SORTED[sorted] : 'none'}>
      <button
        type="button"
        className={`brackets min-h-6 whitespace-nowrap ${sorted ? 'hl hl-full text-ink' : ''}`}
        title={`In the order of ‘${String(column.columnDef.header)}’`}
        onClick={column.getToggleSortingHandler()}
      >
        {String(column.columnDef.header)}
      </button>
    </th>
  );
}

function None({ children }: { children: string }) {
  return <span className="text-ink-3">{children}</span>;
}

function Named({ it }: { it: Pipeline }) {
  return (
    <>
      <Link to={`/pipelines/${it.id}`} className="brackets block truncate text-proc font-medium">
        {it.name}
      </Link>
      <span className="block truncate text-small text-ink-3">
        <Carried labels={it.labels} before=" · " />
        {it.kinds.join(', ')}
      </span>
    </>
  );
}

function Next({ at, now }: { at: number | null; now: number }) {
  return at === null ? <None>when asked</None> : moment(at, now);
}

function Last({ out, now }: { out: Pipeline['lastOut']; now: number }) {
  if (!out) return <None>nothing yet</None>;
  return (
    <>
      <Link to={`/articles/${out.article}`} className="work brackets block truncate leading-6">
        {out.title}
      </Link>
      <span className="fig block truncate text-ink-3">{moment(out.at, now)}</span>
    </>
  );
}

function Count({ n, mark }: { n: number; mark?: 'wait' | 'stop' }) {
  if (n === 0) return <None>0</None>;
  return (
    <span className={mark === 'stop' ? 'text-red' : ''}>
      {mark ? <Mark state={mark} /> : null} {counted(n)}
    </span>
  );
}
