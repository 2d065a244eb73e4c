import type { CatalogueSettings } from '@grivo/contract';
import { guessColumns } from '../../catalogue/columns.ts';
import { openCatalogue } from '../../catalogue/open.ts';
import { ordered, type Product, partnerLinkOf, productOf, refusedFor } from '../../catalogue/product.ts';
import { MOST_RECORDS, type Record_ } from '../../catalogue/records.ts';
import type { Found, SourceReader } from '../kind.ts';

/** Products of a partner's list, those that pass in the order asked for, the others with what speaks against them. */
export const catalogue: SourceReader<'catalogue'> = {
  async look(ports, source, signal) {
    const opened = await openCatalogue(ports, source.settings, signal);
    if (!opened.ok)
      return {
        ok: false,
        failure: { code: 'source-unreadable', source: source.id, reason: opened.problem, mend: opened.mend },
      };
    const settings = { ...source.settings, columns: source.settings.columns ?? guessColumns(opened.records) };
    const found = foundProducts(opened.records, settings, opened.base);
    const isCut = opened.records.length >= MOST_RECORDS;
    return {
      ok: true,
      whole: !isCut,
      partly: isCut
        ? {
            code: 'source-unreadable',
            source: source.id,
            reason: `only its first ${MOST_RECORDS.toLocaleString('en-GB')} products are read`,
            mend: 'Part it into several lists.',
          }
        : null,
      ...(source.settings.columns === null ? { settings } : {}),
      entries: (async function* () {
        yield found;
      })(),
    };
  },
};

/** The items of a list: first those that pass, in their order, then those that do not. */
export function foundProducts(
  records: readonly Record_[],
  settings: CatalogueSettings & { columns: NonNullable<CatalogueSettings['columns']> },
  base: string,
): Found[] {
  const all = records.map((record, n) => {
    const product = productOf(record, settings.columns, base);
    const unusable = product.name === '' ? `entry ${n + 1}: no name` : product.link === null ? 'no address' : null;
    return { record, n, product, unusable, refused: unusable === null ? refusedFor(product, settings) : null };
  });
  const passing = ordered(
    all.filter((one) => one.unusable === null && one.refused === null),
    settings,
  );
  const most = settings.most ?? passing.length;
  return [
    ...passing.slice(0, most).map((one) => foundOf(one, settings, null)),
    ...passing
      .slice(most)
      .map((one) => foundOf(one, settings, { reason: 'filtered', detail: `beyond the first ${most}` })),
    ...all.flatMap((one): Found[] => {
      if (one.unusable !== null) return [foundOf(one, settings, { reason: 'unusable', detail: one.unusable })];
      return one.refused === null ? [] : [foundOf(one, settings, { reason: 'filtered', detail: one.refused })];
    }),
  ];
}

function foundOf(
  { record, n, product }: { record: Record_; n: number; product: Product },
  settings: CatalogueSettings,
  leftOut: Found['leftOut'],
): Found {
  const link = product.link;
  return {
    identity: product.id === '' ? `entry ${n + 1}` : product.id,
    subject: product.name || `entry ${n + 1}`,
    content: JSON.stringify(record),
    fields: () => ({
      ...(link === null ? {} : { link, partnerLink: partnerLinkOf(product, settings) }),
      about: [product.category, product.priceText].filter((part) => part !== '').join(', '),
      row: record,
      product: {
        name: product.name,
        category: product.category,
        price: product.price,
        popularity: product.popularity,
        description: product.description,
        picture: product.picture,
      },
    }),
    publishedDesk: null,
    leftOut,
  };
}
