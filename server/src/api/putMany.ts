import { type Degree, type Micros, pressedWords } from '@grivo/core';
import { isBusy, saveEdit } from '../nouns/articles/edits.ts';
import { type ArticleRow, readRevision } from '../nouns/articles/repository.ts';
import { madeBy } from '../nouns/articles/revisions.ts';
import { namer } from '../nouns/incidents/words.ts';
import type { DoneToOne } from '../nouns/proofing/decide.ts';
import { styleOfBrief } from '../nouns/styles/meant.ts';
import type { ServiceRow } from '../ports/services/entity.ts';
import { type Putting, putArticle, putPrice } from '../steps/writing/putting.ts';
import type { Product } from './product.ts';

/** The longest a writer is waited for, in milliseconds; an article is put in some calls. */
const LONGEST_MS = 180_000;

async function howFor({ ground }: Product, article: ArticleRow, degree: Degree): Promise<Putting> {
  const style = await styleOfBrief(ground.db, article.brief);
  return { degree, keep: [], instruction: '', style: style?.document ?? null };
}

/** About what it costs to put an article in other words; nothing while it has no text. */
export async function putCosts(
  product: Product,
  service: ServiceRow,
  article: ArticleRow,
  degree: Degree,
): Promise<Micros> {
  if (article.current === null) return 0;
  const document = await readRevision(product.ground.db, article.current);
  return putPrice(service, document, await howFor(product, article, degree));
}

/** Puts an article in other words as its newest revision: what it was stands among them, and what is out stays as it is. */
export async function putOne(
  product: Product,
  service: ServiceRow,
  article: ArticleRow,
  { degree, person }: { degree: Degree; person: string },
): Promise<DoneToOne> {
  const { ground, tools } = product;
  if (article.current === null) return { done: false, why: 'It has no text yet.' };
  if (await isBusy(ground.db, article.brief)) return { done: false, why: 'A step is at it just now.' };
  const document = await readRevision(ground.db, article.current);
  const put = await putArticle(tools, service, document, await howFor(product, article, degree), {
    stepRun: (await madeBy(ground.db, article.id)) ?? ground.ids(),
    draw: 0,
    signal: AbortSignal.timeout(LONGEST_MS),
  });
  if (!put.ok) {
    const { sentence, mend } = pressedWords(put.failure, await namer(ground.db));
    return { done: false, why: `${sentence} ${mend}` };
  }
  const { body, replaced, left, of } = put.value;
  if (left === of)
    return { done: false, why: 'Nothing of it could be said otherwise without losing a figure, a name or a link.' };
  const { replaced: _, ...rest } = document;
  const saved = await saveEdit(ground, {
    article: article.id,
    base: article.current,
    document: { ...rest, body, ...(replaced ? { replaced } : {}) },
    person,
    sitting: `put-${ground.ids()}`,
  });
  if (saved.kind === 'overtaken') return { done: false, why: 'Somebody else changed it meanwhile.' };
  if (saved.kind === 'busy') return { done: false, why: 'A step is at it just now.' };
  return { done: true };
}
