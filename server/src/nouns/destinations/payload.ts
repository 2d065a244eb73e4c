import { articleHtml, articleMarkdown, articleWords } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { sentFiles } from '../articles/inTexts.ts';
import { addressesOf, readRevision } from '../articles/repository.ts';
import { resolverFor } from '../articles/resolver.ts';

/** What a program is told of an article, as it stands, and of the brief it was made from. */
export async function articlePayload(
  sql: Sql,
  given: { id: string; revision: string },
  brief: { id: string; subject: string },
) {
  const document = await readRevision(sql, given.revision);
  const addresses = await addressesOf(sql, [given.id]);
  const files = await sentFiles(sql, document);
  const resolve = await resolverFor(sql, document, (digest) => files.get(digest) ?? '');
  const first = document.body.find((block) => block.type === 'figure');
  return {
    type: 'article' as const,
    brief,
    article: {
      id: given.id,
      title: document.title,
      language: document.language,
      description: document.description,
      slug: document.slug,
      keyPhrase: document.keyPhrase,
      keywords: document.keywords,
      hashtags: document.hashtags,
      words: articleWords(document),
      address: addresses.get(given.id) ?? null,
      picture: (first && files.get(first.file)) ?? null,
      markdown: articleMarkdown(document, resolve),
      html: articleHtml(document, resolve),
    },
  };
}
