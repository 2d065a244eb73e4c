import type { Article, ArticleSources, ArticleWhole, BriefWhole, Hold } from '@grivo/contract';
import { measuresOf, type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import type { z } from 'zod';
import { noteGlances } from '../src/nouns/articles/glance.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';

let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((desk) => ({ w, ask } = desk));

const k = stepKinds;
const KILN = [
  'A kiln is packed from the back to the front, and the door is bricked up last of all.',
  'Heavy pots stand low, and plates lie on their rims so that they do not warp.',
  'Nothing may touch its neighbour, since glaze runs before it sets for good.',
  'The first hundred degrees are taken slowly, so that all the water can leave.',
  'A cone that bends tells how much heat the clay has taken, better than any dial.',
  'It is opened when a hand can be held inside, and not an hour before that.',
];
const OVEN = [
  'Bread wants a floor that has drunk heat for the better part of a morning.',
  'Ash is swept aside, and a damp cloth takes what the broom has left behind.',
  'Loaves go in with a flick of the wrist, seam side down, touching nobody.',
  'A little steam in the first minutes keeps the crust soft enough to rise.',
];

/** A brief whose article says these sentences, checked and then published. */
async function brief(title: string, sentences: readonly string[], change: object = {}): Promise<string> {
  const body = sentences.join('\n\n');
  const pipeline = await w.pipeline([title], (all) => [
    all[0]!,
    { ...k['lay out'].fresh('s2'), body, title, reads: 'plain text' } as Step,
    {
      ...k.check.fresh('s3'),
      words: { from: 1, to: 900 },
      figures: false,
      alone: false,
      again: 0,
      ...change,
    } as Step,
    { ...k.publish.fresh('s9'), when: 'at once', blog: w.blog } as Step,
  ]);
  const [made] = await w.take(pipeline);
  return made!;
}
const settled = async (id: string, standing: 'out' | 'held' | 'set aside') => {
  await w.settled([id], [standing]);
  await noteGlances(w.product.ground);
};
const held = async (id: string) => {
  const { holds } = (await ask<{ holds: Hold[] }>('GET', '/holds')).body;
  return holds.find((hold) => hold.brief === id)!.proposed!['check'] as {
    own: number;
    failing: string[];
    alike: { here: string; there: string; in: string; article: string | null }[];
  };
};

test('an article that repeats one of ours is held, with both texts side by side; another is not', async () => {
  const first = await brief('Packing a kiln', KILN);
  await settled(first, 'out');
  const second = await brief('How a kiln is packed', [...KILN.slice(0, 4), ...OVEN.slice(0, 2)]);
  await settled(second, 'held');
  const check = await held(second);
  expect(check.own).toBeGreaterThan(50);
  expect(check.own).toBeLessThan(90);
  expect(check.failing).toEqual([
    `${check.own} % stands word for word in other articles of ours, most of it in ‘Packing a kiln’; less than 25 % is wanted`,
  ]);
  expect(check.alike.map(({ here }) => here).sort()).toEqual([...KILN.slice(0, 4)].sort());
  const [article] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [first]);
  for (const one of check.alike)
    expect(one).toMatchObject({ there: one.here, in: 'Packing a kiln', article: article!.id });
  const other = await brief('A floor for bread', OVEN.slice(2));
  await settled(other, 'out');
});

test('its page shows how much of it stands in others of ours, against what its check lets pass', async () => {
  const [second] = await w.product.ground.db.rows<{ id: string }>(
    "SELECT a.id FROM article a WHERE a.title = 'How a kiln is packed'",
  );
  const { body } = await ask<ArticleWhole>('GET', `/articles/${second!.id}`);
  const measured = body.measures.find(({ name }) => name === 'Likeness to our articles')!;
  expect(measured).toMatchObject({ most: 25, says: expect.stringContaining('in ‘Packing a kiln’') });
  expect(measured.value).toBeGreaterThan(50);
  // What the page reckons while it is typed at is the same.
  const { body: against } = await ask<z.infer<typeof ArticleSources>>('GET', `/articles/${second!.id}/sources`);
  const live = measuresOf(body.document, against.sources, undefined, against.beside).measures;
  expect(live.find(({ name }) => name === 'Likeness to our articles')).toEqual(measured);
  const { articles } = (await ask<{ articles: Article[] }>('GET', `/articles?mark=Likeness%20to%20our%20articles`))
    .body;
  expect(articles.map(({ id }) => id)).toEqual([second!.id]);
});

test('one that waits to go out counts already; one that was set aside does not count any more', async () => {
  const waiting = await brief('Opening the door', [...OVEN].reverse().concat(KILN.slice(4)), { own: null });
  await settled(waiting, 'out');
  const again = await brief('Opening it again', [...KILN.slice(4), ...OVEN]);
  await settled(again, 'held');
  const both = (await held(again)).alike.map(({ in: where }) => where);
  expect(new Set(both).size).toBeGreaterThanOrEqual(1);
  await ask('POST', `/briefs/${again}/set-aside`, {});
  await w.settled([again], ['set aside']);
  await noteGlances(w.product.ground);
  const titles = async (id: string) => (await held(id)).alike.map(({ in: where }) => where);
  const third = await brief('And once more', [...KILN.slice(4), ...OVEN]);
  await settled(third, 'held');
  expect(await titles(third)).not.toContain('Opening it again');
});

test('where nobody asks for it, it is not looked at; set aside, it says why', async () => {
  const open = await brief('A kiln, whatever others say', KILN, { own: null });
  await settled(open, 'out');
  const aside = await brief('A kiln, set aside', KILN, { otherwise: 'set it aside' });
  await settled(aside, 'set aside');
  expect(JSON.stringify((await ask<BriefWhole>('GET', `/briefs/${aside}`)).body)).toMatch(
    /100 % stands word for word in other articles of ours/,
  );
});
