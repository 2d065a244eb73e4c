import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { type Series, seriesIn, seriesInRows } from './series.ts';

interface Judged {
  language: string;
  text: string;
  /** Null where there is none. */
  points: { label: string; value: number }[] | null;
}

/** Made-up passages with the series a reader finds in each, or none. */
function judged(file: string): Judged[] {
  return readFileSync(join(import.meta.dirname, 'judged', file), 'utf8')
    .trim()
    .split('\n\n')
    .map((block) => {
      const [passage, points] = block.split('\n');
      const [language, text] = passage!.split('\t');
      return {
        language: language!,
        text: text!,
        points:
          points === '-'
            ? null
            : points!.split('; ').map((point) => {
                const [label, value] = point.split('=');
                return { label: label!, value: Number(value) };
              }),
      };
    });
}

const found = ({ text, language }: Judged): Series[] =>
  text.includes(' // ') ? seriesInRows(text.split(' // ')) : seriesIn(text, language);

/** Whether a series has these values beside labels that say these words and at most two more. */
function agrees({ labels, values }: Series, points: NonNullable<Judged['points']>): boolean {
  return (
    labels.length === points.length &&
    points.every(({ label, value }, n) => {
      const says = labels[n]!.toLowerCase();
      const more = says.split(' ').length - label.split(' ').length;
      return values[n] === value && says.includes(label.toLowerCase()) && more <= 3;
    })
  );
}

function judge(file: string) {
  const all = judged(file);
  const wrong = all.filter((one) => {
    const series = found(one);
    return one.points === null ? series.length > 0 : series.length !== 1 || !agrees(series[0]!, one.points);
  });
  return { many: all.length, wrong, invented: wrong.filter(({ points }) => points === null) };
}

test('series are found in passages, and none where there is none', () => {
  const { many, wrong, invented } = judge('passages-a.txt');
  expect(wrong.map((one) => [one.text, found(one)])).toEqual([]);
  expect(invented).toEqual([]);
  expect(many).toBe(60);
});

test('the same in passages kept for the last run', () => {
  const { many, wrong, invented } = judge('passages-b.txt');
  expect(invented).toEqual([]);
  expect(wrong.length).toBeLessThanOrEqual(3);
  expect(many).toBe(40);
});
