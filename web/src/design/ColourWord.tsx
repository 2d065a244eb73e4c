import { useState } from 'react';
import { Button } from './Button.tsx';
import { Word } from './Word.tsx';

const COLOUR = /^#[0-9a-f]{6}$/i;

/** A colour in a sentence, chosen by eye or typed. */
export function ColourWord({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (colour: string) => void;
}) {
  return (
    <Word label={label} editor={(close) => <ColourEditor label={label} value={value} onPut={onChange} close={close} />}>
      <span
        aria-hidden
        className="mr-1.5 inline-block size-3 border border-ink align-[-1px]"
        style={{ background: value }}
      />
      {value}
    </Word>
  );
}

function ColourEditor({
  label,
  value,
  onPut,
  close,
}: {
  label: string;
  value: string;
  onPut: (colour: string) => void;
  close: () => void;
}) {
  const [text, setText] = useState(value);
  const typed = text.trim().startsWith('#') ? text.trim() : `#${text.trim()}`;
  const right = COLOUR.test(typed);
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        if (!right) return;
        onPut(typed.toLowerCase());
        close();
      }}
    >
      <span className="flex items-center gap-3">
        <input
          type="color"
          aria-label={`${label}, by eye`}
          className="h-9 w-14 border border-ink bg-transparent"
          value={right ? typed : value}
          onChange={(event) => setText(event.target.value)}
        />
        <input
          className="field w-32"
          aria-label={`${label}, as #rrggbb`}
          aria-invalid={right ? undefined : true}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </span>
      {right ? null : <p className="pt-1 text-small text-red">A colour is written as #2f5a5d.</p>}
      <div className="pt-2">
        <Button look="line" type="submit" hint="Enter" disabled={!right}>
          Set it
        </Button>
      </div>
    </form>
  );
}
