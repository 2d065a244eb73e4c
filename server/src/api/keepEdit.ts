import type { ArticleEdit, ArticleSaved } from '@grivo/contract';
import type { ArticleDocument } from '@grivo/core';
import type { z } from 'zod';
import { filesThere } from '../ground/files/repository.ts';
import { pictureFiles } from '../nouns/articles/charts.ts';
import { answeredBy, saveEdit } from '../nouns/articles/edits.ts';
import { readRevision } from '../nouns/articles/repository.ts';
import { BUSY } from './articles.ts';
import { problem } from './problem.ts';
import type { Product } from './product.ts';

/** Keeps what a person made of an article, in whatever form they did it. */
export async function keepEdit(
  { ground, bell }: Product,
  article: { id: string; current: string },
  edit: z.infer<typeof ArticleEdit>,
  person: { id: string; name: string; role: string },
): Promise<z.infer<typeof ArticleSaved>> {
  const before = await readRevision(ground.db, article.current);
  await refuseUnfit(ground.db, edit.document, before, person.role);
  const edited = await saveEdit(ground, {
    article: article.id,
    person: person.id,
    ...edit,
    document: answeredBy(edit.document, before, person.name),
  });
  if (edited.kind === 'busy') throw problem(409, 'A step is at it', BUSY, 'What you typed is kept here meanwhile.');
  if (edited.kind === 'overtaken')
    throw problem(
      412,
      'Changed meanwhile',
      'Somebody else changed this article since you read it.',
      'Read it again and bring both together; nothing of yours was taken.',
    );
  bell.ring({ kind: 'event' });
  return { revision: edited.revision, document: edited.document };
}

/** @throws what a document holds that cannot stand in an article, or that this person may not put there */
async function refuseUnfit(
  db: Product['ground']['db'],
  { body }: ArticleDocument,
  before: ArticleDocument,
  role: string,
): Promise<void> {
  const ids = new Set<string>();
  for (const { id } of body) {
    if (ids.has(id))
      throw problem(422, 'Does not fit', `Two blocks are called ‘${id}’.`, 'Give each block an id of its own.');
    ids.add(id);
  }
  const files = [...new Set(body.flatMap(pictureFiles))];
  const there = await filesThere(db, files);
  const lacking = files.find((file) => !there.has(file));
  if (lacking)
    throw problem(422, 'No such picture', `There is no file ‘${lacking.slice(0, 12)}…’.`, 'Upload the picture first.');
  const markup = (document: Pick<ArticleDocument, 'body'>) =>
    document.body.flatMap((block) => (block.type === "owner's markup" ? [block.markup] : []));
  const known = new Set(markup(before));
  if (role === 'proofreader' && markup({ body }).some((one) => !known.has(one)))
    throw problem(
      403,
      'Not yours to do',
      'Markup of your own is put in by editors.',
      'Ask an editor, or leave it out.',
    );
}
