/** A baseline with ticks; the grey bar is the range, the ink stroke the value, broken and red when out of it. */
export function Ruler({
  value,
  from,
  to,
  least = null,
  most = null,
  label,
}: {
  value: number;
  from: number;
  to: number;
  least?: number | null;
  most?: number | null;
  label: string;
}) {
  const at = (n: number) => `${Math.max(0, Math.min(1, (n - from) / (to - from || 1))) * 100}%`;
  const out = (least !== null && value < least) || (most !== null && value > most);
  return (
    <div role="img" aria-label={label} className="relative h-4 w-full">
      {least !== null || most !== null ? (
        <span
          className="absolute top-1 h-1.5 bg-rule"
          style={{ left: at(least ?? from), right: `calc(100% - ${at(most ?? to)})` }}
        />
      ) : null}
      <span className="absolute inset-x-0 top-3 h-px bg-rule-strong" />
      {[0, 0.25, 0.5, 0.75, 1].map((t) => (
        <span
          key={t}
          className="absolute top-2.5 h-1 w-px bg-rule-strong"
          style={{ left: `calc(${t * 100}% - 0.5px)` }}
        />
      ))}
      {out ? (
        <span
          className="absolute top-0 h-4 w-[2.5px]"
          style={{
            left: `calc(${at(value)} - 1px)`,
            background: 'linear-gradient(var(--color-red) 0 6px, transparent 6px 9px, var(--color-red) 9px)',
          }}
        />
      ) : (
        <span className="absolute top-0 h-4 w-[2.5px] bg-ink" style={{ left: `calc(${at(value)} - 1px)` }} />
      )}
    </div>
  );
}
