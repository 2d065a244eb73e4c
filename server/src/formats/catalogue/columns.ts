import type { CatalogueColumns } from '@grivo/contract';
import { fold } from '@grivo/core';
import type { Record_ } from './records.ts';

/** Names lists give their columns, by what they say; the first that is there counts. */
const NAMES: { readonly [Column in keyof CatalogueColumns]: readonly string[] } = {
  id: ['id', 'sku', 'productid', 'itemid', 'articlenumber', 'gtin', 'ean', 'mpn', 'artikelnummer'],
  name: ['name', 'title', 'productname', 'producttitle', 'product', 'bezeichnung', 'titel'],
  link: ['link', 'url', 'producturl', 'productlink', 'address', 'deeplink', 'landingpage', 'href'],
  category: ['category', 'categories', 'producttype', 'type', 'kind', 'group', 'department', 'kategorie'],
  language: ['language', 'lang', 'locale', 'sprache'],
  price: ['price', 'saleprice', 'priceamount', 'amount', 'cost', 'preis'],
  popularity: ['popularity', 'rank', 'sales', 'sold', 'rating', 'score', 'gravity', 'beliebtheit'],
  description: ['description', 'summary', 'text', 'longdescription', 'shortdescription', 'beschreibung'],
  picture: ['picture', 'image', 'imagelink', 'imageurl', 'photo', 'thumbnail', 'bild'],
};

const bare = (name: string): string => fold(name).replace(/[^a-z0-9]/g, '');

/** Columns of the first records, as far as their names tell what they say: by the whole name, else by its last part. */
export function guessColumns(records: readonly Record_[]): CatalogueColumns {
  const there = [...new Set(records.slice(0, 200).flatMap((record) => Object.keys(record)))];
  const whole = new Map(there.map((name) => [bare(name), name] as const).reverse());
  const last = new Map(there.map((name) => [bare(name.split('.').at(-1)!), name] as const).reverse());
  const find = (names: readonly string[]): string | null => {
    for (const map of [whole, last])
      for (const name of names) {
        const found = map.get(name);
        if (found !== undefined) return found;
      }
    return null;
  };
  return Object.fromEntries(Object.entries(NAMES).map(([column, names]) => [column, find(names)])) as CatalogueColumns;
}
