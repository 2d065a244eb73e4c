/**
 * Off, on, or some of those it stands for. A plain button: long lists draw some hundreds of them in a jump, and a dressed
 * checkbox each took as long as the rest of the row.
 */
export function Tick({
  state,
  onChange,
  label,
}: {
  state: boolean | 'some';
  onChange: (on: boolean, press: { shiftKey: boolean }) => void;
  label: string;
}) {
  return (
    <button
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
}
