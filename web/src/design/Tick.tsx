import { type ReactNode, useId } from 'react';

/**
 * Off, on, or some of those it stands for. A plain button: long lists draw some hundreds of them in a jump, and a dressed
 * checkbox each took as long as the rest of the row.
 */
export function Tick({
  state,
  onChange,
  label,
  children,
}: {
  state: boolean | 'some';
  onChange: (on: boolean, press: { shiftKey: boolean }) => void;
  label: string;
  /** Words beside it; pressing them ticks as well. */
  children?: ReactNode;
}) {
  const id = useId();
  const box = (
    <button
      id={id}
      type="button"
      role="checkbox"
      className="tick"
      aria-checked={state === 'some' ? 'mixed' : state}
      data-state={state === 'some' ? 'indeterminate' : state ? 'checked' : 'unchecked'}
      aria-label={label}
      onClick={(event) => onChange(state !== true, event)}
      onKeyDown={(event) => {
        // As of a box to be ticked: the space bar does it, Enter belongs to the form.
        if (event.key === 'Enter') event.preventDefault();
      }}
    />
  );
  return children === undefined ? (
    box
  ) : (
    <label htmlFor={id} className="inline-flex min-h-6 min-w-0 cursor-pointer items-center gap-2">
      {box}
      {children}
    </label>
  );
}
