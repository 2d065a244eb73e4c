import { useState } from 'react';
import { Button, Word } from '../../design/index.ts';

/** A whole number in a sentence, typed: places and sizes on a card are known to the pixel. */
export function FigureWord({
  label,
  value,
  least,
  most,
  unit = '',
  onPut,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  unit?: string;
  onPut: (n: number) => void;
}) {
  return (
    <Word
      label={label}
      editor={(close) => (
        <FigureEditor label={label} value={value} least={least} most={most} unit={unit} onPut={onPut} close={close} />
      )}
    >
      {value.toLocaleString('en')}
      {unit === '%' ? ' %' : ''}
    </Word>
  );
}

function FigureEditor({
  label,
  value,
  least,
  most,
  unit,
  onPut,
  close,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  unit: string;
  onPut: (n: number) => void;
  close: () => void;
}) {
  const [text, setText] = useState(String(value));
  const n = Number(text);
  const right = text.trim() !== '' && Number.isInteger(n) && n >= least && n <= most;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (!right) return;
        if (n !== value) onPut(n);
        close();
      }}
    >
      <span className="flex items-baseline gap-2">
        <input
          type="number"
          className="field w-28"
          aria-label={label}
          aria-invalid={right ? undefined : true}
          min={least}
          max={most}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        {unit}
      </span>
      {right ? null : (
        <p className="pt-1 text-small text-red">
          A whole number from {least.toLocaleString('en')} to {most.toLocaleString('en')}.
        </p>
      )}
      <div className="pt-2">
        <Button look="line" type="submit" hint="Enter" disabled={!right}>
          Set it
        </Button>
      </div>
    </form>
  );
}
