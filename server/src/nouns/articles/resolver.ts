import { type ArticleDocument, linkedArticles, type Resolve } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { chartPictures } from './charts.ts';
import { addressesOf } from './repository.ts';

/**
 * How the derived forms of an article find what lies outside it: our other articles where they are published,
 * and its charts as pictures.
 * @param file where its pictures are
 */
export async function resolverFor(
  db: Sql,
  document: Pick<ArticleDocument, 'body'> & Partial<Pick<ArticleDocument, 'language'>>,
  file: Resolve['file'],
): Promise<Resolve> {
  const addresses = await addressesOf(db, linkedArticles(document));
  const charts = await chartPictures(db, document);
  return { file, article: (id) => addresses.get(id) ?? null, chart: (id) => charts.get(id) ?? null };
}
