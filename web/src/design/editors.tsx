import { type ReactNode, useState } from 'react';
import { Button } from './Button.tsx';
import { Handle } from './Handle.tsx';
import { Tick } from './Tick.tsx';

/** The small editors that hang from a word. Each gives its value as soon as it is one, and says what is wrong otherwise. */

interface NumberProps {
  value: number | null;
  least: number;
  most: number;
  unit?: string;
  /** What it is called to give no number; then null can be chosen. */
  none?: string | undefined;
  consequence?: ReactNode;
  onChange: (value: number | null) => void;
  label: string;
}

const numberIn = (text: string) => Number(text.replace(/[\s,]/g, ''));

/** A number with handle and ruler; the figure can be typed. */
export function NumberEditor({ value, least, most, unit = '', none, consequence, onChange, label }: NumberProps) {
  const [text, setText] = useState(value === null ? '' : String(value));
  const isWell = (some: string) =>
    some.trim() !== '' && Number.isInteger(numberIn(some)) && numberIn(some) >= least && numberIn(some) <= most;
  const well = isWell(text);
  // A scale that reaches to the utmost would be useless for common values.
  const top =
    most - least <= 20 ? most : Math.min(most, Math.max(niceTop((value ?? Math.max(least, 30)) * 2), least + 1));
  const step = top - least > 400 ? 50 : 1;
  return (
    <div className="w-64">
      <Handle
        value={well ? numberIn(text) : (value ?? least)}
        from={least}
        to={top}
        step={step}
        label={label}
        onChange={(next) => {
          setText(String(next));
          onChange(next);
        }}
      />
      <div className="flex items-baseline gap-2 pt-3">
        <input
          className="field fig !w-20 !bg-marker-wash"
          aria-label={`${label}, typed`}
          aria-invalid={!well && text.trim() !== '' ? true : undefined}
          value={text}
          inputMode="numeric"
          onChange={(event) => {
            setText(event.target.value);
            if (isWell(event.target.value)) onChange(numberIn(event.target.value));
          }}
        />
        <span className="text-small text-ink-3">{unit}</span>
        {none ? (
          <Button
            look="quiet"
            className="ml-auto"
            onClick={() => {
              setText('');
              onChange(null);
            }}
          >
            {none}
          </Button>
        ) : null}
      </div>
      {!well && text.trim() !== '' ? (
        <p className="pt-1 text-small text-red">
          A whole number from {least.toLocaleString('en-GB')} to {most.toLocaleString('en-GB')}.
        </p>
      ) : consequence ? (
        <p className="pt-2 text-small text-ink-2">{consequence}</p>
      ) : null}
    </div>
  );
}

function niceTop(n: number): number {
  const magnitude = 10 ** Math.max(0, Math.floor(Math.log10(Math.max(1, n))));
  return Math.ceil(n / magnitude) * magnitude;
}

export function RangeEditor({
  value,
  least,
  most,
  unit = '',
  onChange,
  label,
}: {
  value: { from: number; to: number };
  least: number;
  most: number;
  unit?: string;
  onChange: (value: { from: number; to: number }) => void;
  label: string;
}) {
  const [from, setFrom] = useState(String(value.from));
  const [to, setTo] = useState(String(value.to));
  const read = (f: string, t: string) => {
    const [a, b] = [Number(f), Number(t)];
    const well =
      Number.isInteger(a) && Number.isInteger(b) && f !== '' && t !== '' && a >= least && b <= most && a <= b;
    return well ? { from: a, to: b } : null;
  };
  const now = read(from, to);
  return (
    <div className="w-64">
      <div className="flex items-baseline gap-2">
        <input
          className="field fig !w-20"
          aria-label={`${label}, from`}
          value={from}
          onChange={(event) => {
            setFrom(event.target.value);
            const next = read(event.target.value, to);
            if (next) onChange(next);
          }}
        />
        to
        <input
          className="field fig !w-20"
          aria-label={`${label}, to`}
          value={to}
          onChange={(event) => {
            setTo(event.target.value);
            const next = read(from, event.target.value);
            if (next) onChange(next);
          }}
        />
        <span className="text-small text-ink-3">{unit}</span>
      </div>
      {now ? null : (
        <p className="pt-1 text-small text-red">
          Two whole numbers from {least} to {most.toLocaleString('en-GB')}, the first not above the second.
        </p>
      )}
    </div>
  );
}

export function ListEditor({
  value,
  options,
  onChange,
}: {
  value: readonly string[];
  options: readonly { value: string; says: string }[];
  onChange: (value: string[]) => void;
}) {
  return (
    <ul className="grid grid-cols-2 gap-x-4 gap-y-1">
      {options.map((option) => (
        <li key={option.value}>
          <Tick
            label={option.says}
            state={value.includes(option.value)}
            onChange={(on) =>
              onChange(options.map((o) => o.value).filter((v) => (v === option.value ? on : value.includes(v))))
            }
          >
            {option.says}
          </Tick>
        </li>
      ))}
      {options.length === 0 ? <li className="col-span-2 text-ink-3">There is none yet.</li> : null}
    </ul>
  );
}

export function TextEditor({
  value,
  label,
  hint,
  onChange,
  onDone,
}: {
  value: string;
  label: string;
  hint?: string;
  onChange: (value: string) => void;
  onDone: () => void;
}) {
  const [text, setText] = useState(value);
  return (
    <div className="w-80">
      <textarea
        className="field"
        rows={2}
        aria-label={label}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          onChange(event.target.value);
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && !event.shiftKey) {
            event.preventDefault();
            onDone();
          }
        }}
      />
      {hint ? <p className="pt-1 text-small text-ink-3">{hint}</p> : null}
    </div>
  );
}
