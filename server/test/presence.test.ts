import type { AlsoHere } from '@grivo/contract';
import { expect, test } from 'vitest';
import { articleTitled } from './ground/articles.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';

let desk: Desk;
atTheDesk((one) => {
  desk = one;
});

test('who has an article open is told to the others, each once, until they leave or are heard of no more', async () => {
  const { ask, w, http } = desk;
  const { body } = await ask<{ id: string }>('POST', '/articles', {
    blog: w.blog,
    title: 'A strap with two holes',
    text: 'One is a spare.',
  });
  await w.settled([body.id], ['held']);
  const { id } = await articleTitled(ask, 'A strap with two holes');
  const proofreader = await http.as('proofreader');
  const here = async (who: typeof ask, page: string, more: object = {}) =>
    (await who<{ others: AlsoHere[] }>('POST', `/articles/${id}/here`, { page, block: null, editing: false, ...more }))
      .body.others;
  const news = async () => {
    const rows = await w.product.ground.db.rows("SELECT 1 FROM event WHERE noun = 'presence' AND noun_id = ?", [id]);
    return rows.length;
  };
  expect(await here(ask, 'one')).toEqual([]);
  // The others hear of who comes and where they go, and of nothing that stays as it was.
  expect(await news()).toBe(1);
  await here(ask, 'one');
  expect(await news()).toBe(1);
  await here(ask, 'one', { block: 'b1' });
  await here(ask, 'one');
  expect(await news()).toBe(3);
  expect(await here(proofreader, 'two', { block: 'b1', editing: true })).toEqual([
    { name: 'editor', block: null, editing: false, me: false },
  ]);
  // One person on two pages is one person, and where they edit counts.
  await here(proofreader, 'three');
  expect(await here(ask, 'one')).toEqual([{ name: 'proofreader', block: 'b1', editing: true, me: false }]);
  expect(await here(ask, 'four')).toContainEqual({ name: 'editor', block: null, editing: false, me: true });
  for (const page of ['two', 'four']) await here(proofreader, page, { leaves: true });
  const before = await news();
  await here(proofreader, 'two', { leaves: true });
  expect(await news()).toBe(before);
  expect(await here(ask, 'one')).toEqual([{ name: 'proofreader', block: null, editing: false, me: false }]);
  await w.product.ground.db.run('UPDATE presence SET seen_at = seen_at - INTERVAL 26 SECOND WHERE page = ?', ['three']);
  expect(await here(ask, 'one')).toEqual([]);
  expect(
    (await ask('POST', `/articles/${'z'.repeat(20)}/here`, { page: 'x', block: null, editing: false })).status,
  ).toBe(404);
  expect((await ask('POST', `/articles/${id}/here`, { page: '../x', block: null, editing: false })).status).toBe(422);
});
