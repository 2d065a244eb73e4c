import type { Chart } from '../article/block.ts';

export type ChartData = Pick<Chart, 'form' | 'labels' | 'series'>;

/** Where everything of a chart stands, in pixels of its drawing; whoever draws it draws this. */
export interface ChartPlan {
  width: number;
  height: number;
  /** Lines across at round figures, each with what it says. */
  ticks: { at: number; says: string }[];
  /** Whether ticks are places along the width (bars lie) or along the height. */
  lies: boolean;
  /** Whether the points of a series are joined by a line. */
  joined: boolean;
  labels: { text: string; x: number; y: number; align: 'start' | 'middle' | 'end' }[];
  series: {
    name: string;
    colour: string;
    bars: { x: number; y: number; width: number; height: number; value: number }[];
    points: { x: number; y: number; value: number }[];
  }[];
  /** What each figure says, beside its bar or point. */
  figures: { text: string; x: number; y: number; align: 'start' | 'middle' | 'end' }[];
  /** Names of the series, where there is more than one. */
  key: { text: string; colour: string; x: number; y: number }[];
  /** Lines of the ground: the axis. */
  frame: { x1: number; y1: number; x2: number; y2: number }[];
}

export const CHART_COLOURS = ['#2f5a5d', '#b8642f', '#6f7d2a', '#7d5a94', '#3f6ea8', '#8a3b3b'] as const;
export const CHART_INK = '#0d2a2d';
export const CHART_RULE = '#c3d0d0';
export const CHART_TEXT = 15;

const WIDTH = 720;
const PLOT_HEIGHT = 300;
const LETTER = CHART_TEXT * 0.56;
const ROW = 22;
const BETWEEN_ROWS = 14;
const MOST_FIGURES = 24;
/** Labels that stand side by side get so many letters each at least. */
const LEAST_LABEL = 4;

/** Round figures from nought to a highest one, four to seven of them (after Heckbert, Nice numbers for graph labels, 1990). */
export function roundTicks(lowest: number, highest: number): number[] {
  const from = Math.min(0, lowest);
  const to = Math.max(0, highest);
  const span = to - from < 1e-9 ? 1 : to - from;
  const rough = span / 5;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 2.5, 5, 10].map((n) => n * power).find((n) => n >= rough * 0.999)!;
  const first = Math.floor(from / step + 1e-9);
  const last = Math.max(first + 1, Math.ceil(to / step - 1e-9));
  return Array.from({ length: last - first + 1 }, (_, i) => Number(((first + i) * step).toPrecision(12)));
}

const saying = (language: string) => {
  const format = new Intl.NumberFormat(language, { maximumFractionDigits: 3 });
  return (value: number) => format.format(value);
};

/** Plans a chart: bars lie below each other with their labels before them; lines and dots run along the width. */
export function chartPlan(data: ChartData, language: string): ChartPlan {
  return data.form === 'bar' ? lying(data, language) : running(data, language);
}

const valuesOf = ({ series }: ChartData): number[] => series.flatMap(({ values }) => values);
const colourOf = (n: number): string => CHART_COLOURS[n % CHART_COLOURS.length]!;

function keyOf({ series }: ChartData, left: number): ChartPlan['key'] {
  if (series.length < 2) return [];
  let x = left;
  return series.map(({ name }, n) => {
    const entry = { text: name, colour: colourOf(n), x, y: CHART_TEXT };
    x += name.length * LETTER + 40;
    return entry;
  });
}

function lying(data: ChartData, language: string): ChartPlan {
  const { labels, series } = data;
  const says = saying(language);
  const longest = Math.max(...labels.map(({ length }) => length));
  const left = Math.min(WIDTH * 0.42, longest * LETTER + 14);
  const ticks = roundTicks(Math.min(...valuesOf(data)), Math.max(...valuesOf(data)));
  const furthest = Math.max(...valuesOf(data).map((value) => says(value).length));
  const right = WIDTH - Math.max(24, furthest * LETTER + 12);
  const [low, high] = [ticks[0]!, ticks.at(-1)!];
  const x = (value: number) => left + ((value - low) / (high - low)) * (right - left);
  const key = keyOf(data, left);
  const top = key.length > 0 ? 34 : 8;
  const band = series.length * ROW + BETWEEN_ROWS;
  const bottom = top + labels.length * band;
  return {
    width: WIDTH,
    height: bottom + 30,
    lies: true,
    joined: false,
    ticks: ticks.map((tick) => ({ at: x(tick), says: says(tick) })),
    labels: labels.map((text, i) => ({
      text,
      x: left - 10,
      y: top + i * band + (series.length * ROW) / 2 + CHART_TEXT * 0.36 + BETWEEN_ROWS / 2,
      align: 'end',
    })),
    series: series.map(({ name, values }, n) => ({
      name,
      colour: colourOf(n),
      points: [],
      bars: values.map((value, i) => ({
        x: Math.min(x(0), x(value)),
        y: top + i * band + n * ROW + BETWEEN_ROWS / 2 + 2,
        width: Math.abs(x(value) - x(0)),
        height: ROW - 4,
        value,
      })),
    })),
    figures:
      labels.length * series.length > MOST_FIGURES
        ? []
        : series.flatMap(({ values }, n) =>
            values.map((value, i) => ({
              text: says(value),
              x: Math.max(x(0), x(value)) + 6,
              y: top + i * band + n * ROW + BETWEEN_ROWS / 2 + ROW / 2 + CHART_TEXT * 0.36,
              align: 'start' as const,
            })),
          ),
    key,
    frame: [{ x1: x(0), y1: top, x2: x(0), y2: bottom }],
  };
}

/** A label as a figure it begins with: '18 °C', '2021'; null where not all of them are such. */
function figuresOfLabels(labels: readonly string[]): number[] | null {
  const figures = labels.map((label) => {
    const found = /^(?:[\p{L}.]+ )?(-?\d[\d.,]*)(?: ?[^\d]{0,12})?$/u.exec(label.trim())?.[1];
    return found === undefined ? Number.NaN : Number(found.replace(/,(?=\d{3}\b)/g, '').replace(',', '.'));
  });
  return figures.every(Number.isFinite) && new Set(figures).size === figures.length ? figures : null;
}

function running(data: ChartData, language: string): ChartPlan {
  const { labels, series } = data;
  const says = saying(language);
  const ticks = roundTicks(Math.min(...valuesOf(data)), Math.max(...valuesOf(data)));
  const left = Math.max(...ticks.map((tick) => says(tick).length)) * LETTER + 16;
  const key = keyOf(data, left);
  const top = (key.length > 0 ? 34 : 8) + CHART_TEXT;
  const bottom = top + PLOT_HEIGHT;
  const right = WIDTH - 28;
  const [low, high] = [ticks[0]!, ticks.at(-1)!];
  const y = (value: number) => bottom - ((value - low) / (high - low)) * PLOT_HEIGHT;
  const xs = placesOf(labels, left + 24, right - 24);
  const every = Math.max(1, Math.ceil((labels.length * LEAST_LABEL * LETTER * 2) / (right - left)));
  const isFull = series.length * labels.length > MOST_FIGURES || series.length > 1;
  return {
    width: WIDTH,
    height: bottom + 34,
    lies: false,
    joined: data.form === 'line',
    ticks: ticks.map((tick) => ({ at: y(tick), says: says(tick) })),
    labels: labels.flatMap((text, i) =>
      i % every === 0 ? [{ text: cut(text, xs, i), x: xs[i]!, y: bottom + 22, align: 'middle' as const }] : [],
    ),
    series: series.map(({ name, values }, n) => ({
      name,
      colour: colourOf(n),
      bars: [],
      points: values.map((value, i) => ({ x: xs[i]!, y: y(value), value })).sort((a, b) => a.x - b.x),
    })),
    figures: isFull
      ? []
      : series.flatMap(({ values }) =>
          values.map((value, i) => ({ text: says(value), x: xs[i]!, y: y(value) - 11, align: 'middle' as const })),
        ),
    key,
    frame: [{ x1: left, y1: y(0), x2: WIDTH - 8, y2: y(0) }],
  };
}

/** Places along the width: by what labels measure where they do, else side by side. */
function placesOf(labels: readonly string[], from: number, to: number): number[] {
  const figures = figuresOfLabels(labels);
  if (labels.length === 1) return [(from + to) / 2];
  if (!figures) return labels.map((_, i) => from + (i / (labels.length - 1)) * (to - from));
  const [least, most] = [Math.min(...figures), Math.max(...figures)];
  return figures.map((figure) => from + ((figure - least) / (most - least)) * (to - from));
}

/** A label no wider than the room to the next one. */
function cut(text: string, xs: readonly number[], i: number): string {
  const room = Math.min(...xs.flatMap((x, n) => (n === i ? [] : [Math.abs(x - xs[i]!)])), WIDTH);
  const letters = Math.max(LEAST_LABEL, Math.floor(room / LETTER));
  return text.length <= letters ? text : `${text.slice(0, letters - 1)}…`;
}
