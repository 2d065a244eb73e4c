import { lazy, Suspense, useRef, useState } from 'react';
import type { FieldTextHandle } from './FieldText.tsx';

/** Read when the first long text is opened: it is larger than the page around it. */
const FieldText = lazy(() => import('./FieldText.tsx'));

/**
 * A long instruction in one's own words. Fields stand in double braces; those that exist are offered and put in at the
 * caret, and what is wrong is said while typing.
 */
export function InstructionEditor({
  value,
  label,
  fields,
  problemOf,
  hint = 'The writer gets this word for word; fields in double braces are filled in for each brief.',
  onChange,
}: {
  value: string;
  label: string;
  /** Fields that can be used here, with what each holds. */
  fields: readonly { name: string; says: string }[];
  /** What is wrong with a text, null when nothing is. */
  problemOf: (text: string) => string | null;
  /** What becomes of the text. */
  hint?: string | undefined;
  onChange: (value: string) => void;
}) {
  const [text, setText] = useState(value);
  const area = useRef<FieldTextHandle>(null);
  const problem = problemOf(text);
  const set = (next: string) => {
    setText(next);
    onChange(next);
  };
  return (
    <div className="w-[26rem] max-w-full">
      <Suspense fallback={<div className="field-text text-proc text-ink-3">{value}</div>}>
        <FieldText ref={area} value={value} label={label} fields={fields} wrong={problem !== null} onChange={set} />
      </Suspense>
      <p role="status" className={`min-h-5 pt-1 text-small ${problem ? 'text-red' : 'text-ink-3'}`}>
        {problem ?? hint}
      </p>
      {fields.length > 0 ? (
        <ul className="flex max-h-28 flex-wrap gap-x-3 gap-y-1 overflow-auto pt-2 text-small" aria-label="Fields">
          {fields.map(({ name, says }) => (
            <li key={name}>
              <button type="button" className="act quiet" title={says} onClick={() => area.current?.insert(name)}>
                {name}
              </button>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
