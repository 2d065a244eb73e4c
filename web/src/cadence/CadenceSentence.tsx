import { type Blog, Blogs } from '@grivo/contract';
import type { CadenceRule } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { ChoiceEditor, ListEditor, NumberEditor, Trouble, Word } from '../design/index.ts';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** A blog's rule as a sentence; every changed word places again what no person has placed. */
export function CadenceSentence({ blog }: { blog: Blog }) {
  const rule = blog.cadence;
  const change = useMutation({
    mutationFn: (cadence: CadenceRule) =>
      call('PUT', `/blogs/${blog.id}`, { body: { cadence }, rev: blog.rev, answer: Blogs }),
    onSuccess: (blogs) => {
      queryClient.setQueryData(['blogs'], blogs);
      for (const key of ['slots', 'today', 'articles']) void queryClient.invalidateQueries({ queryKey: [key] });
    },
    onError: () => void queryClient.invalidateQueries({ queryKey: ['blogs'] }),
  });
  const put = (part: Partial<CadenceRule>) => change.mutate({ ...rule, ...part });
  const { rate } = rule;
  const often = rate.kind === 'count' ? `${rate.n}` : `one every ${rate.n}`;
  return (
    <span className="text-proc">
      <Word
        label="How many"
        editor={(close) => (
          <Once
            value={rate.n}
            least={1}
            most={rate.kind === 'count' ? 96 : 1_440}
            unit={rate.kind === 'count' ? 'articles' : rate.unit}
            onPut={(n) => put({ rate: { ...rate, n } })}
            close={close}
          />
        )}
      >
        {often}
      </Word>
      {rate.kind === 'count' ? ' a ' : ' '}
      <Word
        label="In what time"
        editor={(close) => (
          <ChoiceEditor
            value={rate.kind === 'count' ? rate.per : rate.unit}
            options={[
              { value: 'day', says: 'day', does: 'so many every permitted day' },
              { value: 'week', says: 'week', does: 'spread over Monday to Sunday' },
              { value: 'month', says: 'month', does: 'spread over the calendar month' },
              { value: 'hours', says: 'hours', does: 'one every so many hours' },
              { value: 'minutes', says: 'minutes', does: 'one every so many minutes' },
            ]}
            onChoose={(value) => {
              put({
                rate:
                  value === 'hours' || value === 'minutes'
                    ? { kind: 'every', n: rate.n, unit: value }
                    : { kind: 'count', n: Math.min(96, rate.n), per: value as 'day' | 'week' | 'month' },
              });
              close();
            }}
          />
        )}
      >
        {rate.kind === 'count' ? rate.per : rate.unit}
      </Word>
      ,{' '}
      <Word
        label="Days"
        editor={() => (
          <ListEditor
            value={rule.days.map(String)}
            options={DAYS.map((says, i) => ({ value: String(i + 1), says }))}
            onChange={(days) => {
              if (days.length > 0) put({ days: days.map(Number) });
            }}
          />
        )}
      >
        {daysWords(rule.days)}
      </Word>{' '}
      between{' '}
      <Word
        label="From"
        editor={(close) => (
          <ClockEditor
            value={rule.hours.from}
            onPut={(from) => put({ hours: { ...rule.hours, from } })}
            close={close}
          />
        )}
      >
        {rule.hours.from}
      </Word>{' '}
      and{' '}
      <Word
        label="To"
        editor={(close) => (
          <ClockEditor value={rule.hours.to} onPut={(to) => put({ hours: { ...rule.hours, to } })} close={close} />
        )}
      >
        {rule.hours.to}
      </Word>{' '}
      {rule.zone}, at least{' '}
      <Word
        label="Gap"
        editor={(close) => (
          <Once
            value={rule.gapMinutes}
            least={0}
            most={44_640}
            unit="minutes"
            onPut={(gapMinutes) => put({ gapMinutes })}
            close={close}
          />
        )}
      >
        {rule.gapMinutes % 60 === 0 ? `${rule.gapMinutes / 60} h` : `${rule.gapMinutes} min`}
      </Word>{' '}
      apart
      {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
    </span>
  );
}

/** A number that is put only when its editor is left, so that a drag places once. */
function Once({
  value,
  least,
  most,
  unit,
  onPut,
  close,
}: {
  value: number;
  least: number;
  most: number;
  unit: string;
  onPut: (n: number) => void;
  close: () => void;
}) {
  const [now, setNow] = useState(value);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (now !== value) onPut(now);
        close();
      }}
    >
      <NumberEditor
        label={unit}
        value={now}
        least={least}
        most={most}
        unit={unit}
        onChange={(n) => n !== null && setNow(n)}
      />
      <button type="submit" className="btn line brackets mt-2">
        Set it
      </button>
    </form>
  );
}

function ClockEditor({ value, onPut, close }: { value: string; onPut: (text: string) => void; close: () => void }) {
  const [text, setText] = useState(value);
  const well = /^(?:[01]\d|2[0-3]):[0-5]\d$|^24:00$/.test(text);
  return (
    <form
      className="w-56"
      onSubmit={(event) => {
        event.preventDefault();
        if (!well) return;
        if (text !== value) onPut(text);
        close();
      }}
    >
      <input
        className="field fig"
        aria-label="Time"
        aria-invalid={!well}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {well ? null : <p className="pt-1 text-small text-red">A time as 08:30.</p>}
      <button type="submit" className="btn line brackets mt-2">
        Set it
      </button>
    </form>
  );
}

function daysWords(days: readonly number[]): string {
  const sorted = [...days].sort((a, b) => a - b);
  if (sorted.length === 7) return 'every day';
  const run = sorted.every((day, i) => i === 0 || day === sorted[i - 1]! + 1);
  return run && sorted.length > 2
    ? `${DAYS[sorted[0]! - 1]} to ${DAYS[sorted.at(-1)! - 1]}`
    : sorted.map((day) => DAYS[day - 1]).join(', ');
}
