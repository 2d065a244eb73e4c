import { Past } from '@grivo/contract';
import { columnsOf, kindOf, type Step } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { call } from '../api/call.ts';
import { count } from '../words/figures.ts';

const COLUMNS = 11;

interface PastFiguresProps {
  pipeline: string;
  step: Step;
  field: string;
}

/** What a value of a word would have done on past briefs: each a mark on a scale, ink where it passes, grey where not. */
export function PastFigures({ pipeline, step, field }: PastFiguresProps) {
  const { past, pastFilter } = kindOf(step);
  const measure = past?.find((one) => one.field === field);
  const filter = pastFilter?.field === field ? pastFilter : undefined;
  const { data } = useQuery({
    queryKey: ['past', pipeline, step.id],
    queryFn: () => call('GET', `/pipelines/${pipeline}/past/${step.id}`, { answer: Past }),
    enabled: measure !== undefined || filter !== undefined,
    staleTime: 30_000,
  });
  if (filter && data) return <Parted ways={data.seen.map((seen) => filter.holds(step, seen))} />;
  const figures = data?.past[field];
  if (!measure || !figures) return null;
  if (figures.length === 0)
    return (
      <p className="pt-2 text-small text-ink-3">No brief has reached this step yet, so its effect cannot be shown.</p>
    );
  const [from, to] = step.kind === 'judge' ? [0, COLUMNS] : scaleOf(figures);
  const columns = columnsOf(figures, from, to, COLUMNS);
  const passing = figures.filter((figure) => measure.passes(step, figure)).length;
  const now = (step as unknown as Record<string, unknown>)[field];
  const nearby =
    typeof now === 'number'
      ? [now - 1, now + 1]
          .filter((value) => value >= from && value < to)
          .map((value) => [value, figures.filter((one) => measure.passes({ ...step, [field]: value }, one)).length])
      : [];
  return (
    <div className="pt-3">
      <Columns
        columns={columns}
        says={`${passing} of the last ${figures.length} ${measure.of} would pass`}
        passes={(figure) => measure.passes(step, figure)}
      />
      <div className="flex">
        {columns.map((_, i) => (
          <span key={i} className="fig flex-1 text-center text-ink-3">
            {step.kind === 'judge'
              ? i
              : i % 5 === 0
                ? count(Math.round(from + ((to - from) / COLUMNS) * (i + 0.5)))
                : ''}
          </span>
        ))}
      </div>
      <p className="pt-1 text-small">
        Of the last {figures.length} {measure.of} <b className="font-semibold">{passing}</b>{' '}
        {passing === 1 ? 'passes' : 'pass'}
        {nearby.map(([value, many]) => `; at ${value}, ${many} would`).join('')}.
      </p>
    </div>
  );
}

/** Each figure a mark in its column. */
function Columns({
  columns,
  says,
  passes,
}: {
  columns: readonly (readonly number[])[];
  says: string;
  passes: (figure: number) => boolean;
}) {
  const tallest = Math.max(...columns.map((column) => column.length));
  return (
    <div role="img" aria-label={says} className="flex h-12 items-end border-b border-rule-strong">
      {columns.map((column, i) => (
        <span key={i} className="flex flex-1 flex-col-reverse gap-px px-1.5">
          {column.map((figure, n) => (
            <span
              key={n}
              className={passes(figure) ? 'bg-ink' : 'bg-graphite-soft'}
              style={{ height: Math.max(1, Math.min(4, 44 / tallest - 1)) }}
            />
          ))}
        </span>
      ))}
    </div>
  );
}

/** How many past briefs would go which way. */
function Parted({ ways }: { ways: readonly (boolean | null)[] }) {
  const known = ways.filter((way) => way !== null);
  if (known.length === 0)
    return (
      <p className="pt-2 text-small text-ink-3">
        {ways.length === 0
          ? 'No brief has reached this step yet, so its effect cannot be shown.'
          : 'Past briefs were not asked this, so its effect cannot be shown.'}
      </p>
    );
  const first = known.filter(Boolean).length;
  return (
    <div className="pt-3">
      <div className="flex h-2 gap-px" aria-hidden>
        {known.map((_, i) => (
          <span key={i} className={`flex-1 ${i < first ? 'bg-ink' : 'bg-graphite-soft'}`} />
        ))}
      </div>
      <p className="pt-1 text-small">
        Of the last {known.length} briefs <b className="font-semibold">{first}</b> would go the first way,{' '}
        {known.length - first} otherwise.
      </p>
    </div>
  );
}

/** A little around the least and the most. */
function scaleOf(figures: readonly number[]): [number, number] {
  const least = Math.min(...figures);
  const most = Math.max(...figures);
  const around = Math.max(5, (most - least) * 0.1);
  return [Math.max(0, least - around), most + around];
}
