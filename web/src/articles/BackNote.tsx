import { useState } from 'react';
import { Button } from '../design/index.ts';

/** What is to be done differently, before articles are sent back; it stays as typed until they are. */
export function BackNote({
  asks = 'What is to be done differently',
  busy = false,
  onLeave,
  onSend,
}: {
  asks?: string;
  busy?: boolean;
  onLeave: () => void;
  onSend: (note: string) => void;
}) {
  const [typed, setTyped] = useState('');
  const note = typed.trim();
  return (
    <form
      className="flex items-center gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (note !== '') onSend(note);
      }}
      onKeyDown={(event) => event.key === 'Escape' && onLeave()}
    >
      <label className="flex flex-1 items-baseline gap-2 whitespace-nowrap">
        {asks}
        <input
          className="field flex-1"
          // biome-ignore lint/a11y/noAutofocus: it was asked for just now
          autoFocus
          maxLength={2_000}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
      </label>
      <Button look="solid" anyone type="submit" disabled={note === ''} busy={busy ? 'Sending' : null}>
        Send back
      </Button>
      <Button look="quiet" anyone hint="Esc" onClick={onLeave}>
        Not after all
      </Button>
    </form>
  );
}
