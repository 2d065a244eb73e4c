import type { Chart, Table } from '../article/block.ts';
import { plainInline } from '../article/inline.ts';
import type { Series } from '../series/series.ts';

const WORDS: Record<string, { to: string; and: string; chart: string }> = {
  en: { to: 'to', and: 'and', chart: 'Chart' },
  de: { to: 'bis', and: 'und', chart: 'Diagramm' },
};
const wordsIn = (language: string) => WORDS[language.slice(0, 2)] ?? WORDS['en']!;

/** What a series is called: what its figures are of, what is counted or the unit it is measured in. */
const nameOf = ({ unit, what = '' }: Series): string => [what, unit].filter((word) => word !== '').join(', ');

/** A unit that is a sign or a few letters is no word to begin a caption with. */
const isSign = (name: string): boolean => name.length <= 3 || !/^\p{L}/u.test(name);

const says = (language: string) => {
  const format = new Intl.NumberFormat(language, { maximumFractionDigits: 3 });
  return (value: number) => format.format(value);
};

/** All figures of a chart in words, for whoever does not see it: 'jars: 2021 140, 2022 180, 2023 231'. */
export function chartInWords({ labels, series }: Pick<Chart, 'labels' | 'series'>, language: string): string {
  const figure = says(language);
  return series
    .map(({ name, values }) => {
      const figures = labels.map((label, i) => `${label} ${figure(values[i]!)}`).join(', ');
      return name === '' ? figures : `${name}: ${figures}`;
    })
    .join('; ');
}

/** What a series is about in a line: 'Jars: 2021 to 2023'. */
export function seriesCaption(series: Series, language: string): string {
  const { to, and } = wordsIn(language);
  const { labels, ordered } = series;
  const span = ordered
    ? `${labels[0]} ${to} ${labels.at(-1)}`
    : `${labels.slice(0, -1).join(', ')} ${and} ${labels.at(-1)}`;
  const name = nameOf(series);
  if (name === '') return span;
  return isSign(name) ? `In ${name}: ${span}` : `${name.charAt(0).toUpperCase()}${name.slice(1)}: ${span}`;
}

/** A series as a chart: what has an order of its own as a line, names as bars. */
export function chartOf(series: Series, id: string, language: string): Chart {
  const { labels, values, ordered } = series;
  const data = { labels, series: [{ name: nameOf(series), values }] };
  return {
    type: 'chart',
    id,
    form: ordered ? 'line' : 'bar',
    ...data,
    caption: plainInline(seriesCaption(series, language)),
    alternative: `${wordsIn(language).chart}: ${chartInWords(data, language)}`,
  };
}

/** The same as a table. */
export function tableOf(series: Series, id: string, language: string): Table {
  const figure = says(language);
  return {
    type: 'table',
    id,
    caption: plainInline(seriesCaption(series, language)),
    head: [[], plainInline(nameOf(series))],
    rows: series.labels.map((label, i) => [plainInline(label), plainInline(figure(series.values[i]!))]),
  };
}
