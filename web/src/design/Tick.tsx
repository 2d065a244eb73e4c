import { Checkbox } from 'radix-ui';

/** Off, on, or some of those it stands for. */
export function Tick({
  state,
  onChange,
  label,
}: {
  state: boolean | 'some';
  onChange: (on: boolean) => void;
  label: string;
}) {
  return (
    <Checkbox.Root
      className="tick"
      checked={state === 'some' ? 'indeterminate' : state}
      onCheckedChange={(value) => onChange(value === true)}
      aria-label={label}
    />
  );
}
