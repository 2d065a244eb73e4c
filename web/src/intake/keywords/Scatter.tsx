import { OPPORTUNITY } from '@grivo/core';
import type { Chart } from 'chart.js';
import { type PointerEvent, type RefObject, useEffect, useMemo, useRef } from 'react';
import { Head } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';
import { isInside, type Point } from './lasso.ts';
import { equalOf, putDots, scatterOn } from './scatterChart.ts';
import { type Dot, type Drawn, placeOf } from './scatterDrawing.ts';
import type { Unit } from './units.ts';

/** Shorter ways of the pointer are a press. */
const LEAST_WAY = 6;

interface ScatterProps {
  units: readonly Unit[];
  ticked: ReadonlySet<string>;
  takeable: (unit: Unit) => boolean;
  formula: string;
  /** What the points are. */
  what: 'group' | 'phrase';
  onSelect: (ids: string[]) => void;
  onPoint: (id: string) => void;
}

/**
 * How often each is searched for against how hard it is to be found for it. A line drawn round some ticks them; what the
 * list shows as ticked is ticked here.
 */
export default function Scatter(props: ScatterProps) {
  const { units, formula, what } = props;
  const known = useMemo(
    () => units.filter(({ volume, difficulty }) => volume !== null && volume > 0 && difficulty !== null),
    [units],
  );
  const canvas = useRef<HTMLCanvasElement>(null);
  const { chart, drawn } = useScatter(canvas, known, props);
  const lasso = useLasso(known, chart, drawn, props);
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
          {...lasso}
        />
      </div>
      <p className="flex justify-between text-small text-ink-3">
        <span>draw a line round some to tick them</span>
        <span>difficulty</span>
      </p>
    </section>
  );
}

type ChartRef = RefObject<Chart<'scatter', Dot[]> | null>;

/** The chart, its points as the list has them. */
function useScatter(
  canvas: RefObject<HTMLCanvasElement | null>,
  known: readonly Unit[],
  { ticked, takeable, formula }: ScatterProps,
) {
  const chart: ChartRef = useRef(null);
  const drawn = useRef<Drawn>({ dots: [], line: [], equal: [], says: '' });
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
    const made = scatterOn(canvas.current, () => drawn.current);
    chart.current = made;
    return () => {
      chart.current = null;
      made.destroy();
    };
  }, [canvas]);
  useEffect(() => {
    if (!chart.current) return;
    drawn.current = { ...drawn.current, dots, equal: formula === OPPORTUNITY && dots.length > 1 ? equalOf(dots) : [] };
    putDots(chart.current, dots);
  }, [dots, formula]);
  return { chart, drawn };
}

/** A line drawn round points by pointer; a mere press points at one. */
function useLasso(
  known: readonly Unit[],
  chart: ChartRef,
  drawn: RefObject<Drawn>,
  { takeable, onSelect, onPoint }: ScatterProps,
) {
  const at = ({ nativeEvent }: PointerEvent): Point => ({ x: nativeEvent.offsetX, y: nativeEvent.offsetY });
  const way = useRef(0);
  const draw = (line: readonly Point[], says: string) => {
    drawn.current = { ...drawn.current, line, says };
    chart.current?.draw();
  };
  const place = (unit: Unit) => placeOf(chart.current!, { x: unit.difficulty!, y: unit.volume! });
  const inside = (line: readonly Point[]) => known.filter((unit) => isInside(place(unit), line));
  const press = ({ x, y }: Point) => {
    draw([], '');
    const near = known.find((unit) => {
      const there = place(unit);
      return Math.abs(there.x - x) < 8 && Math.abs(there.y - y) < 10;
    });
    if (near) onPoint(near.id);
  };
  return {
    onPointerDown: (event: PointerEvent) => {
      if (event.button !== 0) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      way.current = 0;
      draw([at(event)], '');
    },
    onPointerMove: (event: PointerEvent) => {
      const { line } = drawn.current;
      if (event.buttons !== 1 || line.length === 0) return;
      const [last, next] = [line.at(-1)!, at(event)];
      way.current += Math.hypot(next.x - last.x, next.y - last.y);
      const longer = [...line, next];
      draw(longer, `${inside(longer).length} inside`);
    },
    onPointerUp: (event: PointerEvent) => {
      if (way.current < LEAST_WAY) return press(at(event));
      const { line } = drawn.current;
      const all = inside(line);
      const open = all.filter(takeable);
      const left = all.length - open.length;
      draw(line, `${open.length} ticked${left > 0 ? `; ${left} made or covered left alone` : ''}`);
      onSelect(open.map(({ id }) => id));
    },
  };
}
