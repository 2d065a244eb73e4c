import type { ManyArticles } from '@grivo/contract';
import { wordsOf } from '@grivo/core';
import type { ArticleRow } from '../articles/repository.ts';
import { hangsOnArticle } from '../keeping/article.ts';
import { putLabel } from '../labels/repository.ts';
import { clearBriefs } from '../pipelines/clear.ts';
import { actByHand, publicationAt, publicationsOf } from '../publishing/byHand.ts';
import type { OutsidePorts } from '../publishing/outside.ts';
import { moveToFreeSlot } from '../publishing/slots.ts';
import type { DoneToOne } from './decide.ts';

/** Longer than any blog may take to answer. */
const TIME_LIMIT_MS = 120_000;

/** What is done to each. */
type Each<A> = A extends unknown ? Omit<A, 'articles'> : never;
export type OneAct = Exclude<Each<ManyArticles>, { do: 'put' }>;

/** Does one thing to one of several articles. */
export async function doToArticle(ports: OutsidePorts, act: OneAct, article: ArticleRow): Promise<DoneToOne> {
  switch (act.do) {
    case 'remove':
      return remove(ports, article);
    case 'move': {
      const why = await moveToFreeSlot(ports.ground, article.id, act.from);
      return why === null ? { done: true } : { done: false, why };
    }
    case 'label':
      await putLabel(ports.ground, act.label, { noun: 'article', id: article.id, on: act.on });
      return { done: true };
    default:
      return onItsBlogs(ports, act.do, article);
  }
}

/** Brings the newest text of an article to the blogs that do not show it yet, or takes it from all it is on. */
async function onItsBlogs(ports: OutsidePorts, act: 'update' | 'withdraw', article: ArticleRow): Promise<DoneToOne> {
  if (article.current === null) return { done: false, why: 'It has no text yet.' };
  const lines = await publicationsOf(ports, article.id, article.current);
  const there = lines.filter(({ state }) => state === 'live' || state === 'draft');
  if (there.length === 0) return { done: false, why: 'It is on no blog.' };
  const wanting = act === 'update' ? there.filter(({ newest }) => newest === false) : there;
  if (wanting.length === 0) return { done: false, why: 'Its blogs show the newest text already.' };
  for (const { id, blogName, can } of wanting) {
    if (!can.includes(act)) return { done: false, why: `${blogName} cannot do this to posts that are there.` };
    const row = await publicationAt(ports.ground.db, article.id, id);
    if (!row) continue;
    const acted = await actByHand(ports, row, act, article.current, AbortSignal.timeout(TIME_LIMIT_MS));
    if (acted.kind === 'later')
      return {
        done: false,
        why: `${blogName} has not said yet what it did. It is asked again, and nothing is done twice.`,
      };
    if (acted.kind === 'failed') {
      const { sentence, mend } = wordsOf(acted.failure);
      return { done: false, why: `${blogName}: ${sentence} ${mend}` };
    }
  }
  return { done: true };
}

/** Takes an article out of the store that has ended, with its posts and the brief it was made from. */
async function remove(ports: OutsidePorts, { id, brief }: ArticleRow): Promise<DoneToOne> {
  const { unless } = await hangsOnArticle(ports.ground.db, brief, id);
  if (unless.length > 0) return { done: false, why: unless.join(' ') };
  const { kept } = await clearBriefs(ports, [brief]);
  return kept.length === 0
    ? { done: true }
    : { done: false, why: kept.map(({ address, said }) => `${address} could not be taken away: ${said}.`).join(' ') };
}
