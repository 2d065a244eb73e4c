import type { Article } from '@grivo/contract';

/** Measures that have a column of their own in the list, by their letter. */
export const COLUMNS = [
  { letter: 'W', name: 'Length' },
  { letter: 'G', name: 'Reading grade' },
  { letter: 'K', name: 'Key phrase' },
  { letter: 'E', name: 'Evidence' },
  { letter: 'S', name: 'Against the sources' },
] as const;

const CELL = 15;
const HEIGHT = 12;

/** Five measures at a glance: a stroke beside the middle where one is under or over its range. All that is out is said in words. */
export function Measured({ outOfRange }: Pick<Article, 'outOfRange'>) {
  if (outOfRange === null) return <span className="text-right text-small text-ink-3">…</span>;
  const says =
    outOfRange.length === 0
      ? 'all measures in range'
      : outOfRange
          .map(({ name, value, unit, side }) => `${name} ${value}${unit ? ` ${unit}` : ''}, ${side}`)
          .join('; ');
  return (
    <svg
      role="img"
      aria-label={says}
      width={CELL * COLUMNS.length}
      height={HEIGHT}
      className="justify-self-end"
      shapeRendering="crispEdges"
    >
      <title>{says}</title>
      {COLUMNS.map(({ letter, name }, i) => {
        const side = outOfRange.find((one) => one.name === name)?.side;
        const middle = i * CELL + 7;
        return side ? (
          <g key={letter} className="text-red">
            <rect x={side === 'under' ? i * CELL + 3 : middle} y={7} width={4} height={1} fill="currentColor" />
            <rect x={i * CELL + (side === 'under' ? 2 : 11)} y={1} width={2} height={9} fill="currentColor" />
          </g>
        ) : (
          <g key={letter} className="text-graphite">
            <rect x={i * CELL + 2} y={8} width={11} height={1} fill="currentColor" opacity={0.45} />
            <rect x={middle} y={5} width={1} height={4} fill="currentColor" />
          </g>
        );
      })}
    </svg>
  );
}
