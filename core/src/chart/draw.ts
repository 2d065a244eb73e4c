import { type Face, isSet, px } from '../drawing/type.ts';
import { CHART_INK, CHART_RULE, CHART_TEXT, type ChartPlan } from './plan.ts';

const MARGIN = 16;

/**
 * A chart as a drawing (SVG 2) with letters as outlines, so that it looks the same wherever it is shown. Letters no face has
 * are left out; the table that stands with every chart has them.
 */
export function drawChart(plan: ChartPlan, face: Face): string {
  const { width, height } = plan;
  const text = (words: string, x: number, y: number, align: 'start' | 'middle' | 'end', colour = CHART_INK) => {
    const line = face.set(words, false);
    if (!isSet(line)) return '';
    const scale = CHART_TEXT / 1_000;
    const shift = align === 'start' ? 0 : (align === 'middle' ? 0.5 : 1) * line.advance * scale;
    return `<path fill="${colour}" transform="translate(${px(x - shift)} ${px(y)}) scale(${scale})" d="${line.outline}"/>`;
  };
  const line = (x1: number, y1: number, x2: number, y2: number, colour: string) =>
    `<path d="M${px(x1)} ${px(y1)}L${px(x2)} ${px(y2)}" stroke="${colour}" fill="none"/>`;
  const [top, bottom] = [plan.key.length > 0 ? 34 : 8, height - 30];
  const parts = [
    ...plan.ticks.flatMap(({ at, says }) =>
      plan.lies
        ? [line(at, top, at, bottom, CHART_RULE), text(says, at, bottom + 20, 'middle')]
        : [line(plan.frame[0]!.x1, at, width - 8, at, CHART_RULE), text(says, plan.frame[0]!.x1 - 8, at + 5, 'end')],
    ),
    ...plan.series.flatMap(({ bars, points, colour }) => [
      ...bars.map(
        (bar) =>
          `<rect x="${px(bar.x)}" y="${px(bar.y)}" width="${px(bar.width)}" height="${px(bar.height)}" fill="${colour}"/>`,
      ),
      ...points.map(({ x, y }) => `<circle cx="${px(x)}" cy="${px(y)}" r="4.5" fill="${colour}"/>`),
      ...(points.length > 1 && plan.joined
        ? [
            `<path d="M${points.map(({ x, y }) => `${px(x)} ${px(y)}`).join('L')}" stroke="${colour}" stroke-width="2" fill="none"/>`,
          ]
        : []),
    ]),
    ...plan.frame.map(({ x1, y1, x2, y2 }) => line(x1, y1, x2, y2, CHART_INK)),
    ...[...plan.labels, ...plan.figures].map(({ text: words, x, y, align }) => text(words, x, y, align)),
    ...plan.key.flatMap(({ text: words, colour, x, y }) => [
      `<rect x="${px(x)}" y="${px(y - 11)}" width="12" height="12" fill="${colour}"/>`,
      text(words, x + 18, y, 'start'),
    ]),
  ];
  const box = [-MARGIN, -MARGIN, width + 2 * MARGIN, height + 2 * MARGIN];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${box[2]}" height="${box[3]}" viewBox="${box.join(' ')}"><rect x="${box[0]}" y="${box[1]}" width="${box[2]}" height="${box[3]}" fill="#ffffff"/>${parts.join('')}</svg>`;
}
