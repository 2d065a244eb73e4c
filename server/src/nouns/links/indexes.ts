import { LinkIndex } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { addressesFor, asPages } from './addresses.ts';
import { linkPages, pagesStamp } from './pages.ts';

/** Blogs whose index is kept at hand; one of 50,000 pages takes some 100 MB. */
const MOST_KEPT = 8;

interface Kept {
  stamp: string;
  index: LinkIndex;
}

const indexes = new WeakMap<object, Map<string, Kept>>();

/**
 * The pages of a blog, and addresses of ours kept for linking, ready to be asked what fits texts of a language. Made anew when
 * one of them came, changed or was barred.
 * @param of what it is kept with, one for each process
 */
export async function linkIndexOf(of: { db: Sql }, blog: string, language: string): Promise<LinkIndex> {
  const kept = indexes.get(of) ?? new Map<string, Kept>();
  indexes.set(of, kept);
  const key = `${blog} ${language.slice(0, 2)}`;
  const own = asPages((await addressesFor(of.db, blog)).filter(({ kind }) => kind === 'own'));
  const stamp = `${await pagesStamp(of.db, blog)} ${JSON.stringify(own)}`;
  const known = kept.get(key);
  if (known?.stamp === stamp) return known.index;
  const index = new LinkIndex([...own, ...(await linkPages(of.db, blog))], language);
  kept.delete(key);
  kept.set(key, { stamp, index });
  if (kept.size > MOST_KEPT) kept.delete(kept.keys().next().value!);
  return index;
}
