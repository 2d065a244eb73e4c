import { Slider } from 'radix-ui';

/** A handle on a scale: dragged, moved by keys, or the figure typed beside it. */
export function Handle({
  value,
  from,
  to,
  step,
  label,
  onChange,
}: {
  value: number;
  from: number;
  to: number;
  step: number;
  label: string;
  onChange: (value: number) => void;
}) {
  return (
    <Slider.Root
      className="relative block h-10 cursor-ew-resize touch-none"
      min={from}
      max={to}
      step={step}
      value={[Math.max(from, Math.min(to, value))]}
      onValueChange={([next]) => onChange(next!)}
    >
      <span className="absolute inset-x-0 top-6 h-px bg-rule-strong" />
      {Array.from({ length: 7 }, (_, i) => i / 6).map((t) => (
        <span
          key={t}
          className="absolute top-5 h-1.5 w-px bg-rule-strong"
          style={{ left: `calc(${t * 100}% - 0.5px)` }}
        />
      ))}
      <span className="fig absolute left-0 top-7 text-ink-3">{from.toLocaleString('en-GB')}</span>
      <span className="fig absolute right-0 top-7 text-ink-3">{to.toLocaleString('en-GB')}</span>
      <Slider.Thumb aria-label={label} className="brackets relative block h-6 w-[9px]">
        <span className="absolute top-0 block h-[9px] w-[9px] border border-ink bg-marker" />
        <span className="absolute left-1 top-2 block h-4 w-px bg-ink" />
      </Slider.Thumb>
    </Slider.Root>
  );
}
