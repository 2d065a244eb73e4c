import type { Chart, Plugin } from 'chart.js';
import { type Point, placeLabel } from './lasso.ts';

/** A unit as a point of the scatter. */
export interface Dot extends Point {
  id: string;
  says: string;
  /** Whether it can be taken, is ticked, or has its article. */
  state: 'open' | 'ticked' | 'made';
}

export interface Drawn {
  dots: readonly Dot[];
  /** The line round what is selected, in pixels of the canvas. */
  line: readonly Point[];
  /** Opportunities whose places are joined by dotted lines; empty where the formula is another. */
  equal: readonly number[];
  /** What is said beside the line. */
  says: string;
}

const MARK = { width: 6, height: 12 };
const MOST_LABELS = 14;

function ink(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(`--color-${name}`).trim();
}

/** Draws marks in the state code, lines of equal opportunity, the line round a selection, and labels where there is room. */
export function drawing(now: () => Drawn): Plugin<'scatter'> {
  return {
    id: 'marks',
    beforeDatasetsDraw(chart) {
      const { ctx } = chart;
      ctx.save();
      selection(chart, now().line);
      equalLines(chart, now().equal);
      ctx.restore();
    },
    afterDatasetsDraw(chart) {
      const { ctx } = chart;
      const { dots, line, says } = now();
      ctx.save();
      for (const dot of dots) mark(chart, dot);
      labels(chart, dots);
      if (line.length > 2) said(chart, line, says);
      ctx.restore();
    },
  };
}

export function placeOf(chart: Chart, { x, y }: Point): Point {
  return { x: chart.scales['x']!.getPixelForValue(x), y: chart.scales['y']!.getPixelForValue(y) };
}

function mark(chart: Chart, dot: Dot): void {
  const { ctx } = chart;
  const { x, y } = placeOf(chart, dot);
  const [left, top] = [x - MARK.width / 2, y - MARK.height / 2];
  if (dot.state === 'ticked') {
    ctx.fillStyle = ink('marker');
    ctx.beginPath();
    ctx.moveTo(left - 5, top - 2);
    ctx.lineTo(left + 12, top - 4);
    ctx.lineTo(left + 13, top + 15);
    ctx.lineTo(left - 4, top + 17);
    ctx.fill();
  }
  if (dot.state === 'made') {
    ctx.fillStyle = ink('ink');
    ctx.fillRect(left, top, MARK.width, MARK.height);
    return;
  }
  ctx.setLineDash([1, 1.4]);
  ctx.strokeStyle = dot.state === 'ticked' ? ink('ink') : ink('graphite');
  ctx.strokeRect(left + 0.5, top + 0.5, MARK.width - 1, MARK.height - 1);
  ctx.setLineDash([]);
}

/** The ticked first, then the ones most searched for, as many as find room. */
function labels(chart: Chart, dots: readonly Dot[]): void {
  const { ctx, chartArea } = chart;
  const room = {
    x: chartArea.left,
    y: chartArea.top,
    width: chartArea.width,
    height: chartArea.height,
  };
  const marks = dots.map((dot) => {
    const { x, y } = placeOf(chart, dot);
    return { x: x - 5, y: y - 8, width: 10, height: 16 };
  });
  const taken: typeof marks = [];
  ctx.font = `12px ${ink('font') || 'Schibsted Grotesk Variable'}, sans-serif`;
  ctx.textBaseline = 'middle';
  const first = dots.toSorted(
    (a, b) => Number(b.state === 'ticked') - Number(a.state === 'ticked') || b.y - a.y || (a.id < b.id ? -1 : 1),
  );
  for (const dot of first) {
    if (taken.length >= MOST_LABELS) return;
    const at = placeOf(chart, dot);
    const size = { width: ctx.measureText(dot.says).width, height: 15 };
    const others = marks.filter((_, i) => dots[i] !== dot);
    const box = placeLabel(at, size, [...taken, ...others], room);
    if (!box) continue;
    taken.push(box);
    ctx.lineWidth = 4;
    ctx.lineJoin = 'round';
    ctx.strokeStyle = ink('sheet');
    ctx.strokeText(dot.says, box.x, at.y);
    ctx.fillStyle = dot.state === 'ticked' ? ink('ink') : ink('ink-3');
    ctx.fillText(dot.says, box.x, at.y);
  }
  ctx.lineWidth = 1;
}

function equalLines(chart: Chart, equal: readonly number[]): void {
  const { ctx, chartArea } = chart;
  const x = chart.scales['x']!;
  ctx.strokeStyle = ink('graphite-soft');
  ctx.fillStyle = ink('ink-3');
  ctx.font = '11.5px Spline Sans Mono Variable, monospace';
  ctx.textAlign = 'right';
  ctx.setLineDash([1, 3]);
  for (const promise of equal) {
    ctx.beginPath();
    let end: Point | null = null;
    for (let difficulty = x.min; difficulty <= x.max; difficulty++) {
      const at = placeOf(chart, { x: difficulty, y: (promise * 100) / Math.max(1, 100 - difficulty) });
      if (at.y < chartArea.top || at.y > chartArea.bottom) continue;
      if (end === null) ctx.moveTo(at.x, at.y);
      else ctx.lineTo(at.x, at.y);
      end = at;
    }
    ctx.stroke();
    if (end !== null)
      ctx.fillText(promise.toLocaleString('en-GB'), end.x, end.y + (end.y - chartArea.top < 14 ? 12 : -6));
  }
  ctx.setLineDash([]);
  ctx.textAlign = 'left';
}

function selection(chart: Chart, line: readonly Point[]): void {
  if (line.length < 2) return;
  const { ctx } = chart;
  ctx.beginPath();
  for (const [i, { x, y }] of line.entries()) {
    if (i === 0) ctx.moveTo(x, y);
    else ctx.lineTo(x, y);
  }
  ctx.closePath();
  ctx.fillStyle = ink('marker-wash');
  ctx.fill();
  ctx.lineJoin = 'round';
  ctx.strokeStyle = ink('marker-edge');
  ctx.stroke();
}

function said(chart: Chart, line: readonly Point[], says: string): void {
  const { ctx, chartArea } = chart;
  const lowest = line.reduce((low, point) => (point.y > low.y ? point : low));
  ctx.font = '12px Schibsted Grotesk Variable, sans-serif';
  const width = ctx.measureText(says).width;
  const x = Math.min(lowest.x + 6, chartArea.right - width - 4);
  const y = Math.min(lowest.y + 14, chartArea.bottom - 10);
  ctx.fillStyle = ink('sheet');
  ctx.fillRect(x - 3, y - 9, width + 6, 18);
  ctx.fillStyle = ink('ink');
  ctx.textBaseline = 'middle';
  ctx.fillText(says, x, y);
}
