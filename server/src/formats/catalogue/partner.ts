import { SourceSettings } from '@grivo/contract';
import { z } from 'zod';
import type { Sql } from '../../ground/store/database.ts';
import { partnerLinkOf } from './product.ts';

type Fields = Readonly<Record<string, unknown>>;

const Product = z.object({ link: z.string(), product: z.object({ id: z.string().catch('') }) });
const Gathered = z.array(z.looseObject({}));

const isProduct = (fields: Fields) => Product.safeParse(fields).success;

/**
 * The fields of a brief with the partner's link as its catalogue is set now: a pattern or an id that was given after the
 * catalogue was looked at counts for what was found before, too.
 */
export async function withPartnerLinks(sql: Sql, brief: string, fields: Fields): Promise<Fields> {
  const items = Gathered.safeParse(fields['items']).data;
  if (!isProduct(fields) && !items?.some(isProduct)) return fields;
  const rows = await sql.rows<{ settings: unknown }>(
    "SELECT DISTINCT s.settings FROM brief_item b JOIN item i ON i.id = b.item JOIN source s ON s.id = i.source WHERE b.brief = ? AND s.kind = 'catalogue' LIMIT 2",
    [brief],
  );
  // Of products from several catalogues nobody knows whose is whose: they keep the links they came with.
  const settings = rows.length === 1 ? SourceSettings.parse(rows[0]!.settings) : null;
  if (settings?.kind !== 'catalogue') return fields;
  const linked = (one: Fields): Fields => {
    const read = Product.safeParse(one);
    if (!read.success) return one;
    const { link, product } = read.data;
    // Items of before have no id to put in: their links stay.
    if (product.id === '' && settings.partnerLink.includes('{id}')) return one;
    return { ...one, partnerLink: partnerLinkOf({ id: product.id, link }, settings) };
  };
  return { ...linked(fields), ...(items ? { items: items.map(linked) } : {}) };
}
