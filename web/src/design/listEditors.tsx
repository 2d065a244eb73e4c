import { type ReactNode, useState } from 'react';
import { Button } from './Button.tsx';

/** Values of one's own, one a line. */
export function ValuesEditor({
  value,
  label,
  most,
  hint = '',
  more,
  onChange,
}: {
  value: readonly string[];
  label: string;
  most: number;
  /** What a line is, where that needs saying. */
  hint?: string;
  /** What else can be done with the lines; it may add some. */
  more?: (lines: readonly string[], add: (texts: readonly string[]) => void) => ReactNode;
  onChange: (value: string[]) => void;
}) {
  const [text, setText] = useState(value.join('\n'));
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  return (
    <div className="w-[26rem] max-w-full">
      <textarea
        className="field"
        rows={Math.min(10, Math.max(3, lines.length + 1))}
        aria-label={label}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          const next = event.target.value
            .split('\n')
            .map((line) => line.trim())
            .filter((line) => line !== '');
          if (next.length <= most) onChange(next);
        }}
      />
      <p className={`pt-1 text-small ${lines.length > most ? 'text-red' : 'text-ink-3'}`}>
        {lines.length > most
          ? `At most ${most}; there are ${lines.length}.`
          : `One a line${hint === '' ? '.' : `, ${hint}`}`}
      </p>
      {more?.(lines, (texts) => {
        const next = [...lines, ...texts].slice(0, most);
        setText(next.join('\n'));
        onChange(next);
      })}
    </div>
  );
}

/** Texts by names, such as what a routine is given. */
export function RecordEditor({
  value,
  names,
  onChange,
}: {
  value: Readonly<Record<string, string>>;
  names: readonly { name: string; says: string }[];
  onChange: (value: Record<string, string>) => void;
}) {
  const [texts, setTexts] = useState<Record<string, string>>({ ...value });
  if (names.length === 0) return <p className="text-ink-3">It takes nothing.</p>;
  return (
    <div className="flex w-80 flex-col gap-3">
      {names.map(({ name, says }) => (
        <label key={name} className="text-small">
          {says}
          <input
            className="field"
            value={texts[name] ?? ''}
            onChange={(event) => {
              const next = { ...texts, [name]: event.target.value };
              setTexts(next);
              onChange(Object.fromEntries(Object.entries(next).filter(([, text]) => text !== '')));
            }}
          />
        </label>
      ))}
      <p className="text-small text-ink-3">Fields in double braces, as {'{{ subject }}'}.</p>
    </div>
  );
}

export interface TestLine {
  field: string;
  is: string;
  value: string;
}

/** What a branch depends on: tests on fields, all of them or any. */
export function TestsEditor({
  value,
  join,
  kinds,
  fields,
  onChange,
  onJoin,
}: {
  value: readonly TestLine[];
  join: string;
  kinds: readonly string[];
  fields: readonly string[];
  onChange: (value: TestLine[]) => void;
  onJoin: (join: string) => void;
}) {
  const [tests, setTests] = useState<TestLine[]>([...value]);
  const set = (next: TestLine[]) => {
    setTests(next);
    onChange(next);
  };
  const put = (at: number, change: Partial<TestLine>) =>
    set(tests.map((test, i) => (i === at ? { ...test, ...change } : test)));
  return (
    <div className="w-[26rem] max-w-full">
      {tests.map((test, i) => (
        <OneTest
          key={i}
          n={i + 1}
          test={test}
          kinds={kinds}
          onChange={(change) => put(i, change)}
          onOut={tests.length > 1 ? () => set(tests.filter((_, at) => at !== i)) : null}
        />
      ))}
      <datalist id="fields-here">
        {fields.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
      <div className="flex gap-4 text-small">
        <Button
          look="quiet"
          onClick={() => set([...tests, { field: fields[0] ?? 'subject', is: 'filled', value: '' }])}
        >
          one more
        </Button>
        {tests.length > 1 ? (
          <span className="text-ink-2">
            They hold when{' '}
            <button type="button" className="act quiet" onClick={() => onJoin(join === 'all' ? 'any' : 'all')}>
              {join === 'all' ? 'all hold' : 'any holds'}
            </button>
          </span>
        ) : null}
      </div>
    </div>
  );
}

function OneTest({
  n,
  test,
  kinds,
  onChange,
  onOut,
}: {
  n: number;
  test: TestLine;
  kinds: readonly string[];
  onChange: (change: Partial<TestLine>) => void;
  onOut: (() => void) | null;
}) {
  return (
    <div className="flex flex-wrap items-end gap-2 pb-2">
      <input
        className="field !w-40"
        list="fields-here"
        aria-label={`Field ${n}`}
        value={test.field}
        onChange={(event) => onChange({ field: event.target.value.trim() })}
      />
      <select
        className="field !w-32"
        aria-label={`Is ${n}`}
        value={test.is}
        onChange={(event) => onChange({ is: event.target.value })}
      >
        {kinds.map((kind) => (
          <option key={kind}>{kind}</option>
        ))}
      </select>
      {test.is === 'filled' || test.is === 'empty' ? null : (
        <input
          className="field !w-24"
          aria-label={`Compared with ${n}`}
          value={test.value}
          onChange={(event) => onChange({ value: event.target.value })}
        />
      )}
      {onOut ? (
        <Button look="quiet" onClick={onOut}>
          out
        </Button>
      ) : null}
    </div>
  );
}

/** An expression over fields, with the functions there are. */
export function ExpressionEditor({
  value,
  label,
  problemOf,
  functions,
  fields,
  onChange,
}: {
  value: string;
  label: string;
  problemOf: (text: string) => string | null;
  functions: readonly { call: string; says: string }[];
  fields: readonly string[];
  onChange: (value: string) => void;
}) {
  const [text, setText] = useState(value);
  const problem = problemOf(text);
  const set = (next: string) => {
    setText(next);
    onChange(next);
  };
  return (
    <div className="w-[26rem] max-w-full">
      <textarea
        className="field font-mono"
        rows={3}
        aria-label={label}
        aria-invalid={problem ? true : undefined}
        spellCheck={false}
        value={text}
        onChange={(event) => set(event.target.value)}
      />
      <p role="status" className={`min-h-5 pt-1 text-small ${problem ? 'text-red' : 'text-ink-3'}`}>
        {problem ?? `Fields here: ${fields.join(', ') || 'none'}.`}
      </p>
      <dl
        className="mt-1 grid max-h-40 grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-x-3 overflow-auto border-t border-rule-soft pt-2 text-small"
        tabIndex={0}
      >
        {functions.map(({ call, says }) => (
          <div key={call} className="contents">
            <dt className="truncate font-mono" title={call}>
              {call}
            </dt>
            <dd className="text-ink-2">{says}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
