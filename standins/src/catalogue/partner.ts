import { Router } from 'express';
import type { Troubles } from '../ground/trouble.ts';
import { escaped } from '../web/pages.ts';

/** A product of the partner's list, with the text on its page; a broken one has a page without text. */
export interface PartnerProduct {
  id: string;
  name: string;
  category: string;
  price: string;
  popularity: string;
  language: string;
  text: string;
  broken: boolean;
}

export interface PartnerShop {
  slug: string;
  name: string;
  products: readonly PartnerProduct[];
}

const COLUMNS = ['id', 'title', 'link', 'product_type', 'language', 'price', 'popularity', 'summary'] as const;

function cellsOf(shop: PartnerShop, product: PartnerProduct, origin: string): string[] {
  const link = `${origin}/partner/${shop.slug}/${product.id}`;
  const summary = product.text.split('. ')[0] ?? '';
  return [
    product.id,
    product.name,
    link,
    product.category,
    product.language,
    `${product.price} EUR`,
    product.popularity,
    summary,
  ];
}

const quoted = (cell: string): string => (/[",\n]/.test(cell) ? `"${cell.replace(/"/g, '""')}"` : cell);

/** A shop that gives partners its list of products as CSV, XML and JSON, with a page behind each. */
export function partnerShops(shops: readonly PartnerShop[], troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const shopOf = (slug: unknown) => shops.find((shop) => shop.slug === slug);
  const gone = {
    status: 404,
    type: 'text/html',
    body: '<!doctype html><title>Not found</title><p>There is no such page.',
  };
  router.get(
    '/partner/:shop/list.:form',
    troubles.around('web', (request) => {
      const shop = shopOf(request.params['shop']);
      if (!shop) return gone;
      const rows = shop.products.map((product) => cellsOf(shop, product, origin()));
      switch (request.params['form']) {
        case 'csv':
          return {
            status: 200,
            type: 'text/csv',
            body: [[...COLUMNS], ...rows].map((row) => row.map(quoted).join(',')).join('\r\n'),
          };
        case 'json':
          return {
            status: 200,
            body: {
              shop: shop.name,
              products: rows.map((row) => Object.fromEntries(COLUMNS.map((name, i) => [name, row[i]]))),
            },
          };
        case 'xml':
          return {
            status: 200,
            type: 'application/xml',
            body: `<?xml version="1.0"?><catalogue shop="${escaped(shop.name)}">${rows.map((row) => `<product>${COLUMNS.map((name, i) => `<${name}>${escaped(row[i]!)}</${name}>`).join('')}</product>`).join('\n')}</catalogue>`,
          };
        default:
          return gone;
      }
    }),
  );
  router.get(
    '/partner/:shop/:id',
    troubles.around('web', (request) => {
      const shop = shopOf(request.params['shop']);
      const product = shop?.products.find(({ id }) => id === request.params['id']);
      if (!shop || !product) return gone;
      const text = product.broken ? '<div class="loading"></div>' : `<p>${escaped(product.text)}</p>`;
      return {
        status: 200,
        type: 'text/html',
        body: `<!doctype html><html lang="${product.language}"><head><meta charset="utf-8"><title>${escaped(product.name)} | ${escaped(shop.name)}</title></head><body><header><a href="/">${escaped(shop.name)}</a><nav><a href="#">Basket</a></nav></header><main><article><h1>${escaped(product.name)}</h1>${text}</article></main><footer>${escaped(shop.name)}</footer></body></html>`,
      };
    }),
  );
  return router;
}
