import { type FormEvent, useState } from 'react';
import { Button } from './Button.tsx';
import { Field } from './Field.tsx';

/** Making something that needs only a name to begin with. */
export function NameForm({
  does,
  busy,
  wrong,
  onName,
}: {
  does: string;
  busy: boolean;
  wrong: string | null;
  onName: (name: string) => void;
}) {
  const [name, setName] = useState('');
  return (
    <form
      className="flex items-end gap-4 pb-4"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        onName(name);
      }}
    >
      <div className="w-80">
        <Field
          label="Its name"
          required
          autoFocus
          value={name}
          onChange={(event) => setName(event.target.value)}
          wrong={wrong}
        />
      </div>
      <Button look="solid" type="submit" busy={busy ? 'Making' : null}>
        {does}
      </Button>
    </form>
  );
}
