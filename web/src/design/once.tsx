import { type ReactNode, useState } from 'react';
import { Button } from './Button.tsx';
import { NumberEditor } from './editors.tsx';
import { Word } from './Word.tsx';

/** A number that is put only when its editor is left, so that a drag places once. */
export function NumberOnce({
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

/** A line of text that counts once it is confirmed. */
export function TextOnce({
  label,
  value,
  hint,
  onPut,
  close,
}: {
  label: string;
  value: string;
  hint?: string;
  onPut: (text: string) => void;
  close: () => void;
}) {
  const [text, setText] = useState(value);
  return (
    <form
      className="w-80"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== value) onPut(text.trim());
        close();
      }}
    >
      <input
        className="field w-full"
        aria-label={label}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {hint ? <p className="pt-1 text-small text-ink-3">{hint}</p> : null}
      <div className="pt-2">
        <Button look="line" type="submit" hint="Enter">
          Set it
        </Button>
      </div>
    </form>
  );
}

/** A word of a sentence that is a line of text. */
export function TextWord({
  children,
  ...text
}: { children: ReactNode } & Omit<Parameters<typeof TextOnce>[0], 'close'>) {
  return (
    <Word label={text.label} editor={(close) => <TextOnce {...text} close={close} />}>
      {children}
    </Word>
  );
}

/** Several lines that count once they are confirmed: a text, or things one a line. */
export function LinesOnce({
  label,
  value,
  hint,
  rows = 5,
  problemOf = () => null,
  more,
  onPut,
  close,
}: {
  label: string;
  value: string;
  hint?: string;
  rows?: number;
  /** What is wrong with it, in a sentence. */
  problemOf?: (text: string) => string | null;
  /** What else can be done with what is typed; it may add to it. */
  more?: (text: string, add: (lines: readonly string[]) => void) => ReactNode;
  onPut: (text: string) => void;
  close: () => void;
}) {
  const [text, setText] = useState(value);
  const wrong = problemOf(text);
  return (
    <form
      className="w-[26rem] max-w-full"
      onSubmit={(event) => {
        event.preventDefault();
        if (wrong) return;
        if (text.trim() !== value) onPut(text.trim());
        close();
      }}
    >
      <textarea
        className="field w-full"
        rows={rows}
        aria-label={label}
        aria-invalid={wrong ? true : undefined}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) event.currentTarget.form?.requestSubmit();
        }}
      />
      {wrong ? <p className="pt-1 text-small text-red">{wrong}</p> : null}
      {hint && !wrong ? <p className="pt-1 text-small text-ink-3">{hint}</p> : null}
      {more?.(text, (lines) => setText((now) => [now.trimEnd(), ...lines].filter((line) => line !== '').join('\n')))}
      <div className="pt-2">
        <Button look="line" type="submit" hint="Ctrl Enter" disabled={wrong !== null}>
          Set it
        </Button>
      </div>
    </form>
  );
}
