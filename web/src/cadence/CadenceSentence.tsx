import { type Blog, type BlogMoves, ChangedBlog } from '@grivo/contract';
import { type CadenceRule, shortfallWords } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { useWords } from '../api/useWords.ts';
import { Button, ChoiceWord, ListEditor, NumberOnce, Trouble, Word } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { clock, clockFrom, dayLong } from '../words/time.ts';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** A blog's rule as a sentence. What is finished keeps its moment until somebody says that it moves. */
export function CadenceSentence({ blog }: { blog: Blog }) {
  const [moves, setMoves] = useState<BlogMoves['moves']>([]);
  const {
    words: rule,
    error,
    put,
  } = useWords<CadenceRule>(blog.cadence, async (cadence) => {
    const { blogs, moves } = await call('PATCH', `/blogs/${blog.id}`, { body: { cadence }, answer: ChangedBlog });
    setMoves(moves);
    queryClient.setQueryData(['blogs'], { blogs });
    for (const key of ['slots', 'today', 'articles']) void queryClient.invalidateQueries({ queryKey: [key] });
  });
  const short = shortfallWords(rule);
  return (
    <span className="text-proc">
      <RateWords rule={rule} put={put} />, <WhenWords rule={rule} put={put} />, at least{' '}
      <Word
        label="Gap"
        editor={(close) => (
          <NumberOnce
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
      apart, from{' '}
      <Word
        label="First day"
        editor={(close) => <DayEditor value={rule.start} onPut={(start) => put({ start })} close={close} />}
      >
        {dayWords(rule.start)}
      </Word>{' '}
      on,{' '}
      <Word label="Pauses" editor={() => <PausesEditor value={rule.pauses} onChange={(pauses) => put({ pauses })} />}>
        {rule.pauses.length === 0 ? 'without pauses' : `except ${rule.pauses.map(pauseWords).join(', ')}`}
      </Word>
      {short ? <span className="block text-small text-red">{short}</span> : null}
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
      {moves.length > 0 ? <Moves blog={blog} moves={moves} done={() => setMoves([])} /> : null}
    </span>
  );
}

interface RuleProps {
  rule: CadenceRule;
  put: (next: Partial<CadenceRule>) => void;
}

type Span = 'day' | 'week' | 'month' | 'hours' | 'minutes';

const SPANS: { value: Span; says: string; does: string }[] = [
  { value: 'day', says: 'day', does: 'so many every permitted day' },
  { value: 'week', says: 'week', does: 'spread over Monday to Sunday' },
  { value: 'month', says: 'month', does: 'spread over the calendar month' },
  { value: 'hours', says: 'hours', does: 'one every so many hours' },
  { value: 'minutes', says: 'minutes', does: 'one every so many minutes' },
];

/** How many in what time. */
function RateWords({ rule: { rate }, put }: RuleProps) {
  const counted = rate.kind === 'count';
  return (
    <>
      <Word
        label="How many"
        editor={(close) => (
          <NumberOnce
            value={rate.n}
            least={1}
            most={counted ? 96 : 1_440}
            unit={counted ? 'articles' : rate.unit}
            onPut={(n) => put({ rate: { ...rate, n } })}
            close={close}
          />
        )}
      >
        {counted ? `${rate.n}` : `one every ${rate.n}`}
      </Word>
      {counted ? ' a ' : ' '}
      <ChoiceWord
        label="In what time"
        value={counted ? rate.per : rate.unit}
        options={SPANS}
        onChoose={(span) =>
          put({
            rate:
              span === 'hours' || span === 'minutes'
                ? { kind: 'every', n: rate.n, unit: span }
                : { kind: 'count', n: Math.min(96, rate.n), per: span },
          })
        }
      />
    </>
  );
}

/** On which days, between which hours, in which time zone. */
function WhenWords({ rule: { days, hours, zone }, put }: RuleProps) {
  return (
    <>
      <Word
        label="Days"
        editor={() => (
          <ListEditor
            value={days.map(String)}
            options={DAYS.map((says, i) => ({ value: String(i + 1), says }))}
            onChange={(next) => {
              if (next.length > 0) put({ days: next.map(Number) });
            }}
          />
        )}
      >
        {daysWords(days)}
      </Word>{' '}
      between{' '}
      <Word
        label="From"
        editor={(close) => (
          <ClockEditor value={hours.from} onPut={(from) => put({ hours: { ...hours, from } })} close={close} />
        )}
      >
        {hours.from}
      </Word>{' '}
      and{' '}
      <Word
        label="To"
        editor={(close) => (
          <ClockEditor value={hours.to} onPut={(to) => put({ hours: { ...hours, to } })} close={close} />
        )}
      >
        {hours.to}
      </Word>{' '}
      <Word
        label="Time zone"
        editor={(close) => <ZoneEditor value={zone} onPut={(next) => put({ zone: next })} close={close} />}
      >
        {zone}
      </Word>
    </>
  );
}

function ClockEditor({ value, onPut, close }: { value: string; onPut: (text: string) => void; close: () => void }) {
  const [text, setText] = useState(value);
  const read = clockFrom(text);
  const well = read !== null;
  return (
    <form
      className="w-56"
      onSubmit={(event) => {
        event.preventDefault();
        if (read === null) return;
        if (read !== value) onPut(read);
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
      {well ? null : <p className="pt-1 text-small text-red">A time as 8:30, 8 or 4 pm.</p>}
      <button type="submit" className="btn line brackets mt-2">
        Set it
      </button>
    </form>
  );
}

/** What finished articles would do by the new rule; they move only when it is said. */
function Moves({ blog, moves, done }: { blog: Blog; moves: BlogMoves['moves']; done: () => void }) {
  const move = useMutation({
    mutationFn: () => call('PATCH', `/blogs/${blog.id}`, { body: { move: true }, answer: ChangedBlog }),
    onSuccess: ({ blogs }) => {
      queryClient.setQueryData(['blogs'], { blogs });
      for (const key of ['slots', 'today', 'articles']) void queryClient.invalidateQueries({ queryKey: [key] });
      done();
    },
  });
  const zone = blog.cadence.zone;
  return (
    <span className="mt-2 block border-l-2 border-l-blue pl-3 text-small leading-5">
      {plural(moves.length, 'finished article')} {moves.length === 1 ? 'keeps its moment' : 'keep their moments'}. By
      the new cadence {moves.length === 1 ? 'it' : 'they'} would go out at other times:
      {moves.slice(0, 5).map(({ article, title, from, to }) => (
        <span key={article} className="block">
          <span className="work">{title}</span>: {dayLong(from, zone)} {clock(from, zone)} → {dayLong(to, zone)}{' '}
          {clock(to, zone)}
        </span>
      ))}
      {moves.length > 5 ? <span className="block text-ink-3">and {moves.length - 5} more</span> : null}
      <Button look="word" busy={move.isPending ? 'Moving' : null} onClick={() => move.mutate()}>
        {moves.length === 1 ? 'Move it' : 'Move them'}
      </Button>{' '}
      or{' '}
      <Button look="word" onClick={done}>
        {moves.length === 1 ? 'leave it where it is' : 'leave them where they are'}
      </Button>
      {move.isError ? <Trouble>{inWords(move.error)}</Trouble> : null}
    </span>
  );
}

function ZoneEditor({ value, onPut, close }: { value: string; onPut: (zone: string) => void; close: () => void }) {
  const [text, setText] = useState(value);
  const zones = useMemo(() => Intl.supportedValuesOf('timeZone'), []);
  const known = zones.includes(text) || text === 'UTC';
  return (
    <form
      className="w-64"
      onSubmit={(event) => {
        event.preventDefault();
        if (!known) return;
        if (text !== value) onPut(text);
        close();
      }}
    >
      <input
        className="field"
        list="zones"
        aria-label="Time zone"
        aria-invalid={!known}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <datalist id="zones">
        {zones.map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
      {known ? null : <p className="pt-1 text-small text-red">A place as Europe/Dublin; begin to type it.</p>}
      <button type="submit" className="btn line brackets mt-2">
        Set it
      </button>
    </form>
  );
}

function DayEditor({ value, onPut, close }: { value: string; onPut: (day: string) => void; close: () => void }) {
  const [day, setDay] = useState(value);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (day === '') return;
        if (day !== value) onPut(day);
        close();
      }}
    >
      <input
        type="date"
        className="field fig"
        aria-label="Day"
        required
        value={day}
        onChange={(event) => setDay(event.target.value)}
      />
      <button type="submit" className="btn line brackets mt-2">
        Set it
      </button>
    </form>
  );
}

type Pause = CadenceRule['pauses'][number];

function PausesEditor({ value, onChange }: { value: readonly Pause[]; onChange: (pauses: Pause[]) => void }) {
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const well = from !== '' && (to === '' || to >= from);
  return (
    <form
      className="w-80"
      onSubmit={(event) => {
        event.preventDefault();
        if (!well) return;
        onChange([...value, { from, to: to || from }].sort((a, b) => (a.from < b.from ? -1 : 1)));
        setFrom('');
        setTo('');
      }}
    >
      <ul>
        {value.map((pause) => (
          <li key={`${pause.from} ${pause.to}`} className="flex min-h-6 items-center justify-between gap-3 text-small">
            {pauseWords(pause)}
            <Button look="word" onClick={() => onChange(value.filter((one) => one !== pause))}>
              Take it out
            </Button>
          </li>
        ))}
      </ul>
      <div className="grid grid-cols-2 gap-3 pt-2">
        <input
          type="date"
          className="field fig"
          aria-label="First day of the pause"
          value={from}
          onChange={(event) => setFrom(event.target.value)}
        />
        <input
          type="date"
          className="field fig"
          aria-label="Last day of the pause"
          value={to}
          onChange={(event) => setTo(event.target.value)}
        />
      </div>
      {to !== '' && from !== '' && to < from ? (
        <p className="pt-1 text-small text-red">The last day comes before the first.</p>
      ) : null}
      <button type="submit" className="btn line brackets mt-2" disabled={!well}>
        Add a pause
      </button>
    </form>
  );
}

const dayWords = (day: string) =>
  new Date(`${day}T12:00:00Z`).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  });
const pauseWords = ({ from, to }: Pause) => (from === to ? dayWords(from) : `${dayWords(from)} to ${dayWords(to)}`);

function daysWords(days: readonly number[]): string {
  const sorted = [...days].sort((a, b) => a - b);
  if (sorted.length === 7) return 'every day';
  const run = sorted.every((day, i) => i === 0 || day === sorted[i - 1]! + 1);
  return run && sorted.length > 2
    ? `${DAYS[sorted[0]! - 1]} to ${DAYS[sorted.at(-1)! - 1]}`
    : sorted.map((day) => DAYS[day - 1]).join(', ');
}
