import { type ArticleDocument, linkedArticles, type Resolve } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { addressesOf } from './repository.ts';

/**
 * How the derived forms of an article find what lies outside it: our other articles where they are published.
 * @param file where its pictures are
 */
export async function resolverFor(
  db: Sql,
  document: Pick<ArticleDocument, 'body'>,
  file: Resolve['file'],
): Promise<Resolve> {
  const addresses = await addressesOf(db, linkedArticles(document));
  return { file, article: (id) => addresses.get(id) ?? null };
}
