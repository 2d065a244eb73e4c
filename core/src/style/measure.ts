import type { ArticleDocument } from '../article/block.ts';
import type { ArticleMeasure } from '../article/measure.ts';
import { comparedWithStyle } from './compare.ts';
import type { HouseStyleDocument } from './document.ts';
import { FIGURES } from './figures.ts';

/** How far an article is from its house style, as one of its measures: the points that are off, the first of them named. */
export function styleMeasure(
  document: ArticleDocument,
  { name, document: style }: { name: string; document: HouseStyleDocument },
): ArticleMeasure {
  const { figures, unwanted, person } = comparedWithStyle(document, style);
  const points = [
    ...unwanted.map(({ block, words, instead }) => ({
      says: instead === null ? `‘${words}’ is never said` : `‘${words}’ is said as ‘${instead}’`,
      place: block,
    })),
    ...(person === null ? [] : [{ says: person, place: null }]),
    ...figures.flatMap(({ name: figure, value, range, within, mend, place }) =>
      within === false && range
        ? [{ says: `${FIGURES[figure].says}: ${value}, not ${range.from} to ${range.to}. ${mend}`, place }]
        : [],
    ),
  ];
  return {
    name: 'House style',
    value: points.length,
    least: null,
    most: 0,
    unit: points.length === 1 ? 'point off' : 'points off',
    says: points[0]?.says ?? `as ‘${name}’ has it`,
    place: points[0]?.place ?? null,
  };
}
