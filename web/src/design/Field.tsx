import { type InputHTMLAttributes, type ReactNode, type TextareaHTMLAttributes, useId } from 'react';

interface Around {
  label: string;
  /** What is wrong with what stands in it, and what would mend it. */
  wrong?: string | null | undefined;
  hint?: ReactNode;
}

/** A field with its name, its hint, and what is wrong at its own place. */
export function Field({ label, wrong, hint, ...rest }: Around & InputHTMLAttributes<HTMLInputElement>) {
  const id = useId();
  return (
    <Framed id={id} label={label} wrong={wrong} hint={hint}>
      <input {...attributes(id, wrong, hint)} {...rest} />
    </Framed>
  );
}

export function TextArea({ label, wrong, hint, ...rest }: Around & TextareaHTMLAttributes<HTMLTextAreaElement>) {
  const id = useId();
  return (
    <Framed id={id} label={label} wrong={wrong} hint={hint}>
      <textarea {...attributes(id, wrong, hint)} {...rest} />
    </Framed>
  );
}

/** What ties a field to the words under it. */
function attributes(id: string, wrong: Around['wrong'], hint: ReactNode) {
  return {
    id,
    className: 'field',
    'aria-invalid': wrong ? true : undefined,
    'aria-describedby': wrong || hint ? `${id}-said` : undefined,
  };
}

function Framed({ id, label, wrong, hint, children }: Around & { id: string; children: ReactNode }) {
  return (
    <div className="flex flex-col">
      <label htmlFor={id} className="text-small text-ink-3">
        {label}
      </label>
      {children}
      {wrong || hint ? (
        <p id={`${id}-said`} className={`pt-1 text-small ${wrong ? 'text-red' : 'text-ink-3'}`}>
          {wrong ?? hint}
        </p>
      ) : null}
    </div>
  );
}
