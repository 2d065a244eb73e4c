import type { CatalogueSettings } from '@grivo/contract';
import { ordered, type Product, partnerLinkOf, productOf, refusedFor } from './product.ts';
import type { FoundProduct } from './read.ts';
import type { Record_ } from './records.ts';

/** What a product brings along is made only when it is asked for. */
type Found = Omit<FoundProduct, 'fields'> & { fields: () => Record<string, unknown> };

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
        id: product.id,
        name: product.name,
        category: product.category,
        price: product.price,
        popularity: product.popularity,
        description: product.description,
        picture: product.picture,
      },
    }),
    leftOut,
  };
}
