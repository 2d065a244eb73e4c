import { OPPORTUNITY } from '@grivo/core';
import { Chart, LinearScale, LogarithmicScale, PointElement, ScatterController, Tooltip } from 'chart.js';
import { type PointerEvent, useEffect, useMemo, useRef } from 'react';
import { Head } from '../../design/index.ts';
import { count, plural } from '../../words/figures.ts';
import { isInside, type Point } from './lasso.ts';
import { type Dot, type Drawn, drawing, placeOf } from './scatterDrawing.ts';
import type { Unit } from './units.ts';

Chart.register(ScatterController, PointElement, LinearScale, LogarithmicScale, Tooltip);

const TICKS = new Set([1, 2, 5].flatMap((n) => [1, 10, 100, 1_000, 10_000, 100_000, 1_000_000].map((ten) => n * ten)));
const MOST_EQUAL = 4;
/** Shorter ways of the pointer are a press. */
const LEAST_WAY = 6;

/** Lines of equal opportunity that lie among the points: 1, 2 or 5 with noughts, a few of them. */
function equalOf(dots: readonly Dot[]): number[] {
  const promises = dots.map(({ x, y }) => (y * (100 - x)) / 100);
  const [least, most] = [Math.min(...promises), Math.max(...promises)];
  const among = [...TICKS].filter((tick) => tick > least && tick < most * 1.2).sort((a, b) => a - b);
  const step = Math.ceil(among.length / MOST_EQUAL);
  return among.filter((_, i) => (among.length - 1 - i) % step === 0);
}

/**
 * How often each is searched for against how hard it is to be found for it. A line drawn round some ticks them; what the
 * list shows as ticked is ticked here.
 */
export default function Scatter({
  units,
  ticked,
  takeable,
  formula,
  what,
  onSelect,
  onPoint,
}: {
  units: readonly Unit[];
  ticked: ReadonlySet<string>;
  takeable: (unit: Unit) => boolean;
  formula: string;
  /** What the points are. */
  what: 'group' | 'phrase';
  onSelect: (ids: string[]) => void;
  onPoint: (id: string) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const chart = useRef<Chart<'scatter', Dot[]> | null>(null);
  const drawn = useRef<Drawn>({ dots: [], line: [], equal: [], says: '' });
  const known = useMemo(
    () => units.filter(({ volume, difficulty }) => volume !== null && volume > 0 && difficulty !== null),
    [units],
  );
  const dots = useMemo(
    () =>
      known.map(
        (unit): Dot => ({
          id: unit.id,
          says: unit.head.subject,
          x: unit.difficulty!,
          y: unit.volume!,
          state: ticked.has(unit.id) ? 'ticked' : takeable(unit) ? 'open' : 'made',
        }),
      ),
    [known, ticked, takeable],
  );
  useEffect(() => {
    if (!canvas.current) return;
    const style = getComputedStyle(document.documentElement);
    const colour = (name: string) => style.getPropertyValue(`--color-${name}`).trim();
    const axis = {
      grid: { display: false },
      border: { color: colour('rule-strong') },
      ticks: { color: colour('ink-3'), font: { family: 'Spline Sans Mono Variable, monospace', size: 11.5 } },
    };
    const made = new Chart<'scatter', Dot[]>(canvas.current, {
      type: 'scatter',
      data: { datasets: [{ data: [], pointRadius: 0, pointHitRadius: 8 }] },
      options: {
        animation: false,
        maintainAspectRatio: false,
        layout: { padding: { top: 8, right: 4 } },
        scales: {
          x: { ...axis, type: 'linear', min: 0, max: 100, ticks: { ...axis.ticks, stepSize: 20 } },
          y: {
            ...axis,
            type: 'logarithmic',
            afterBuildTicks: (scale) => {
              scale.ticks = scale.ticks.filter(({ value }) => TICKS.has(value));
            },
            ticks: { ...axis.ticks, callback: (value) => count(Number(value)) },
          },
        },
        plugins: {
          tooltip: {
            displayColors: false,
            callbacks: {
              label: ({ raw }) => {
                const { says, x, y } = raw as Dot;
                return `${says}: ${count(y)} a month, difficulty ${x}`;
              },
            },
          },
        },
      },
      plugins: [drawing(() => drawn.current)],
    });
    chart.current = made;
    return () => {
      chart.current = null;
      made.destroy();
    };
  }, []);
  useEffect(() => {
    const made = chart.current;
    if (!made) return;
    drawn.current = { ...drawn.current, dots, equal: formula === OPPORTUNITY && dots.length > 1 ? equalOf(dots) : [] };
    const volumes = dots.map(({ y }) => y);
    const y = made.options.scales!['y']!;
    y.min = Math.max(1, Math.min(...volumes, 100) * 0.7);
    y.max = Math.max(...volumes, 1_000) * 1.5;
    made.options.scales!['x']!.max = Math.min(100, Math.ceil(Math.max(...dots.map(({ x }) => x), 60) / 20) * 20 + 10);
    made.data.datasets[0]!.data = dots;
    made.update('none');
  }, [dots, formula]);
  const at = ({ nativeEvent }: PointerEvent): Point => ({ x: nativeEvent.offsetX, y: nativeEvent.offsetY });
  const way = useRef(0);
  const draw = (line: readonly Point[], says: string) => {
    drawn.current = { ...drawn.current, line, says };
    chart.current?.draw();
  };
  const inside = (line: readonly Point[]) =>
    known.filter((unit) => isInside(placeOf(chart.current!, { x: unit.difficulty!, y: unit.volume! }), line));
  return (
    <section aria-label="Volume against difficulty">
      <Head
        title="Volume against difficulty"
        right={formula === OPPORTUNITY ? 'dotted: equal opportunity' : undefined}
      />
      <p className="pt-1 text-small text-ink-3">searches a month</p>
      <div className="relative h-[290px] touch-none">
        <canvas
          ref={canvas}
          role="img"
          aria-label={`${plural(known.length, what)} by searches a month and difficulty; the list beside says the same`}
          onPointerDown={(event) => {
            if (event.button !== 0) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            way.current = 0;
            draw([at(event)], '');
          }}
          onPointerMove={(event) => {
            const { line } = drawn.current;
            if (event.buttons !== 1 || line.length === 0) return;
            const [last, next] = [line.at(-1)!, at(event)];
            way.current += Math.hypot(next.x - last.x, next.y - last.y);
            const longer = [...line, next];
            draw(longer, `${inside(longer).length} inside`);
          }}
          onPointerUp={(event) => {
            const { line } = drawn.current;
            if (way.current < LEAST_WAY) {
              draw([], '');
              const { x, y } = at(event);
              const near = known.find((unit) => {
                const place = placeOf(chart.current!, { x: unit.difficulty!, y: unit.volume! });
                return Math.abs(place.x - x) < 8 && Math.abs(place.y - y) < 10;
              });
              if (near) onPoint(near.id);
              return;
            }
            const all = inside(line);
            const open = all.filter(takeable);
            const left = all.length - open.length;
            draw(line, `${open.length} ticked${left > 0 ? `; ${left} made or covered left alone` : ''}`);
            onSelect(open.map(({ id }) => id));
          }}
        />
      </div>
      <p className="flex justify-between text-small text-ink-3">
        <span>draw a line round some to tick them</span>
        <span>difficulty</span>
      </p>
    </section>
  );
}
