import { useRef, useState } from 'react';

/**
 * A long instruction in one's own words. Fields stand in double braces; those that exist are offered and put in at the
 * caret, and what is wrong is said while typing.
 */
export function InstructionEditor({
  value,
  label,
  fields,
  problemOf,
  onChange,
}: {
  value: string;
  label: string;
  /** Fields that can be used here, with what each holds. */
  fields: readonly { name: string; says: string }[];
  /** What is wrong with a text, null when nothing is. */
  problemOf: (text: string) => string | null;
  onChange: (value: string) => void;
}) {
  const [text, setText] = useState(value);
  const area = useRef<HTMLTextAreaElement>(null);
  const problem = problemOf(text);
  const set = (next: string) => {
    setText(next);
    onChange(next);
  };
  const insert = (name: string) => {
    const { selectionStart: from, selectionEnd: to } = area.current ?? {
      selectionStart: text.length,
      selectionEnd: text.length,
    };
    const field = `{{ ${name} }}`;
    set(text.slice(0, from) + field + text.slice(to));
    requestAnimationFrame(() => {
      area.current?.focus();
      area.current?.setSelectionRange(from + field.length, from + field.length);
    });
  };
  return (
    <div className="w-[26rem] max-w-full">
      <textarea
        ref={area}
        className="field !text-proc"
        rows={6}
        aria-label={label}
        aria-invalid={problem ? true : undefined}
        value={text}
        onChange={(event) => set(event.target.value)}
      />
      <p role="status" className={`min-h-5 pt-1 text-small ${problem ? 'text-red' : 'text-ink-3'}`}>
        {problem ?? 'Said to the writer as it stands; fields in double braces are filled for each brief.'}
      </p>
      {fields.length > 0 ? (
        <ul className="flex max-h-28 flex-wrap gap-x-3 gap-y-1 overflow-auto pt-2 text-small" aria-label="Fields">
          {fields.map(({ name, says }) => (
            <li key={name}>
              <button type="button" className="act quiet" title={says} onClick={() => insert(name)}>
                {name}
              </button>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
