import type { CatalogueColumns, CatalogueSettings } from '@grivo/contract';
import { excludedBy, fold } from '@grivo/core';
import { plain } from '../documents/plain.ts';
import { resolved } from '../documents/resolved.ts';
import type { Record_ } from './records.ts';

export interface Product {
  id: string;
  name: string;
  link: string | null;
  category: string;
  language: string;
  /** Null where there is none that can be read. */
  price: number | null;
  /** As it is written, with its currency. */
  priceText: string;
  popularity: number | null;
  description: string;
  picture: string | null;
}

/** A figure out of text people wrote: '€ 1.299,00', '49.00 EUR', '1,299'. */
export function figureOf(text: string): number | null {
  const digits =
    /\d[\d.,'\u00a0\u202f ]*/
      .exec(text)?.[0]
      .replace(/['\u00a0\u202f ]/g, '')
      .replace(/(?<![.,])[.,]+$/, '') ?? '';
  if (digits === '') return null;
  const comma = digits.lastIndexOf(',');
  const point = digits.lastIndexOf('.');
  const mark = Math.max(comma, point);
  // The last mark parts off cents when at most two figures follow it, or when the other mark comes before.
  const isDecimal = mark >= 0 && (digits.length - mark - 1 <= 2 || (comma >= 0 && point >= 0));
  const value = isDecimal
    ? Number(`${digits.slice(0, mark).replace(/[.,]/g, '')}.${digits.slice(mark + 1)}`)
    : Number(digits.replace(/[.,]/g, ''));
  return Number.isFinite(value) ? value : null;
}

export function productOf(record: Record_, columns: CatalogueColumns, base: string): Product {
  const said = (column: keyof CatalogueColumns) => {
    const name = columns[column];
    return name === null ? '' : (record[name] ?? '').trim();
  };
  const link = resolved(said('link'), base);
  const name = plain(said('name')).slice(0, 300);
  return {
    id: said('id') || (link ?? name),
    name,
    link,
    category: plain(said('category')).slice(0, 200),
    language: said('language').slice(0, 2).toLowerCase(),
    price: figureOf(said('price')),
    priceText: said('price').slice(0, 60),
    popularity: figureOf(said('popularity')),
    description: plain(said('description')).slice(0, 5_000),
    picture: resolved(said('picture'), base),
  };
}

/** The link of a product with the partner's id in it. */
export function partnerLinkOf(
  product: Pick<Product, 'id' | 'link'>,
  { partnerLink, partner }: Pick<CatalogueSettings, 'partnerLink' | 'partner'>,
): string | null {
  if (partnerLink === '' || product.link === null) return product.link;
  const whole = partnerLink.replace(/\{(link|id|partner)\}/g, (_all, word: string, at: number) => {
    const value = word === 'link' ? product.link! : word === 'id' ? product.id : partner;
    // A link at the beginning is one itself; within another it is a value of it.
    return at === 0 && word === 'link' ? value : encodeURIComponent(value);
  });
  // A link that has a question already goes on with it.
  const [head = '', ...questions] = whole.split('?');
  const joined = partnerLink.startsWith('{link}') && questions.length > 1 ? `${head}?${questions.join('&')}` : whole;
  return resolved(joined, product.link);
}

/** Why a product does not pass what the catalogue asks for; null when it does. */
export function refusedFor(product: Product, settings: CatalogueSettings): string | null {
  const { categories, languages, price } = settings;
  // Before the limit is counted: what is left out by its name takes nobody's place.
  const word = excludedBy(product.name, settings.exclude);
  if (word !== null) return word;
  const own = fold(product.category);
  if (categories.length > 0 && !categories.some((one) => own.includes(fold(one).trim())))
    return `category ${product.category || 'not said'}`;
  if (languages.length > 0 && product.language !== '' && !languages.includes(product.language))
    return `language ${product.language}`;
  if (price.from !== null && (product.price ?? 0) < price.from)
    return `price ${product.priceText || 'not said'}, below ${price.from}`;
  if (price.to !== null && (product.price ?? Number.POSITIVE_INFINITY) > price.to)
    return `price ${product.priceText || 'not said'}, above ${price.to}`;
  return null;
}

/** Products in the order asked for; those of which the figure is not known come last, categories take turns if they are to. */
export function ordered<T extends { product: Product }>(
  all: readonly T[],
  { order, spread }: Pick<CatalogueSettings, 'order' | 'spread'>,
): T[] {
  const key = ({ product }: T): number => {
    switch (order) {
      case 'as listed':
        return 0;
      case 'most popular':
        return -(product.popularity ?? Number.NEGATIVE_INFINITY);
      case 'cheapest':
        return product.price ?? Number.POSITIVE_INFINITY;
      case 'dearest':
        return -(product.price ?? Number.NEGATIVE_INFINITY);
    }
  };
  const sorted = all
    .map((one) => ({ one, by: key(one) }))
    .sort((a, b) => (a.by === b.by ? 0 : a.by - b.by))
    .map(({ one }) => one);
  if (!spread) return sorted;
  const turns = new Map<string, T[]>();
  for (const one of sorted) turns.set(one.product.category, [...(turns.get(one.product.category) ?? []), one]);
  const out: T[] = [];
  for (let n = 0; out.length < sorted.length; n++)
    for (const own of turns.values()) {
      const next = own[n];
      if (next) out.push(next);
    }
  return out;
}
