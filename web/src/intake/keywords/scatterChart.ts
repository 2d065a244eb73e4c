import { Chart, LinearScale, LogarithmicScale, PointElement, ScatterController, Tooltip } from 'chart.js';
import { count } from '../../words/figures.ts';
import { type Dot, type Drawn, drawing } from './scatterDrawing.ts';

Chart.register(ScatterController, PointElement, LinearScale, LogarithmicScale, Tooltip);

/** 1, 2 and 5 with noughts. */
export const TICKS: ReadonlySet<number> = new Set(
  [1, 2, 5].flatMap((n) => [1, 10, 100, 1_000, 10_000, 100_000, 1_000_000].map((ten) => n * ten)),
);
const MOST_EQUAL = 4;

/** Lines of equal opportunity that lie among the points: 1, 2 or 5 with noughts, a few of them. */
export function equalOf(dots: readonly Dot[]): number[] {
  const promises = dots.map(({ x, y }) => (y * (100 - x)) / 100);
  const [least, most] = [Math.min(...promises), Math.max(...promises)];
  const among = [...TICKS].filter((tick) => tick > least && tick < most * 1.2).sort((a, b) => a - b);
  const step = Math.ceil(among.length / MOST_EQUAL);
  return among.filter((_, i) => (among.length - 1 - i) % step === 0);
}

/** An empty chart of volume by difficulty. */
export function scatterOn(canvas: HTMLCanvasElement, drawn: () => Drawn): Chart<'scatter', Dot[]> {
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string) => style.getPropertyValue(`--color-${name}`).trim();
  const axis = {
    grid: { display: false },
    border: { color: colour('rule-strong') },
    ticks: { color: colour('ink-3'), font: { family: 'Spline Sans Mono Variable, monospace', size: 11.5 } },
  };
  return new Chart<'scatter', Dot[]>(canvas, {
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
    plugins: [drawing(drawn)],
  });
}

/** Puts points on it, its scales as wide as they need. */
export function putDots(chart: Chart<'scatter', Dot[]>, dots: Dot[]): void {
  const volumes = dots.map(({ y }) => y);
  const y = chart.options.scales!['y']!;
  y.min = Math.max(1, Math.min(...volumes, 100) * 0.7);
  y.max = Math.max(...volumes, 1_000) * 1.5;
  chart.options.scales!['x']!.max = Math.min(100, Math.ceil(Math.max(...dots.map(({ x }) => x), 60) / 20) * 20 + 10);
  chart.data.datasets[0]!.data = dots;
  chart.update('none');
}
