import { CadenceRule } from '@grivo/core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { claimTurn, placeArticle } from '../src/nouns/publishing/placements.ts';
import { ensurePublication, publicationOf } from '../src/nouns/publishing/publications.ts';
import { type World, world } from './ground/world.ts';

let w: World;
let blog: string;
let gap: number;
beforeAll(async () => {
  w = await world();
  blog = w.blog;
  const [row] = await w.product.ground.db.rows<{ cadence: unknown }>('SELECT cadence FROM blog WHERE id = ?', [blog]);
  gap = CadenceRule.parse(row!.cadence).gapMinutes * 60_000;
});
afterAll(() => w.close());

async function article(): Promise<string> {
  const { db, ids } = w.product.ground;
  const id = ids();
  await db.run("INSERT INTO article (id, brief, line, family, language) VALUES (?, ?, '', ?, 'en')", [id, id, id]);
  return id;
}

test('many that are placed at once each have a slot of their own, the gap apart, and keep it', async () => {
  const articles = await Promise.all(Array.from({ length: 12 }, article));
  const place = () => Promise.all(articles.map((id) => placeArticle(w.product.ground, id, blog)));
  const slots = await place();
  const inOrder = slots.map((slot) => slot!).sort((a, b) => a - b);
  for (const [i, slot] of inOrder.entries()) if (i > 0) expect(slot - inOrder[i - 1]!).toBeGreaterThanOrEqual(gap);
  expect(await place()).toEqual(slots);
  expect(await placeArticle(w.product.ground, await article(), 'no such blog')).toBeNull();
});

test('of two that go out at once one waits out the gap, and who has begun is not kept back', async () => {
  const { ground } = w.product;
  const [one, other] = await Promise.all(
    [await article(), await article()].map(async (id) => (await ensurePublication(ground, id, blog, 'live')).id),
  );
  const now = ground.desk.now();
  const answers = await Promise.all([claimTurn(ground, one!, blog, now), claimTurn(ground, other!, blog, now)]);
  const waits = answers.filter((answer) => answer !== null);
  expect(waits).toEqual([now + gap]);
  const [first, second] = answers[0] === null ? [one!, other!] : [other!, one!];
  expect((await publicationOf(ground.db, first))?.state).toBe('creating');
  expect((await publicationOf(ground.db, second))?.state).toBe('planned');
});
