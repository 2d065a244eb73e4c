import type { BriefWhole, Hold, Today } from '@grivo/contract';
import { type Step, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { createBlog } from '../src/nouns/blogs/create.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { DAILY } from './ground/world.ts';

let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((desk) => ({ w, ask } = desk));

const k = stepKinds;
/** Checked for nothing but its subject, and out at once. */
const out = (blog: string, change: object = {}): Step[] => [
  {
    ...k.check.fresh('s8'),
    words: { from: 1, to: 900 },
    likeness: null,
    own: null,
    figures: false,
    again: 1,
    ...change,
  } as Step,
  { ...k.publish.fresh('s9'), when: 'at once', blog } as Step,
];
/** Briefs whose article is a sentence that costs nothing. */
async function laidOut(subjects: string[], { blog = w.blog, check = {} } = {}): Promise<string[]> {
  const body = 'A blade is drawn over the stone, heel first.';
  const pipeline = await w.pipeline(subjects, (all) => [
    all[0]!,
    { ...k['lay out'].fresh('s2'), body, title: 'On {{ subject }}', reads: 'plain text' } as Step,
    ...out(blog, check),
  ]);
  return w.take(pipeline);
}
const whole = async (brief: string) => (await ask<BriefWhole>('GET', `/briefs/${brief}`)).body;
const checked = async (brief: string) => {
  const { holds } = (await ask<{ holds: Hold[] }>('GET', '/holds')).body;
  return holds.find((hold) => hold.brief === brief)!.proposed!['check'] as {
    failing: string[];
    ours: { brief: string };
  };
};
const many = (act: string, briefs: readonly string[]) => ask('POST', '/briefs/many', { do: act, briefs });
const paid = () => w.standIns.received().calls.filter(({ what }) => what === 'text').length;

test('a second brief on one subject ends before anything is paid for, however it is put; brought back it goes on to the blog', async () => {
  const looked = (subjects: string[]) =>
    w.pipeline(subjects, (all) => [
      all[0]!,
      k['look up'].fresh('s2'),
      k.outline.fresh('s3'),
      { ...k.write.fresh('s4'), words: 200 } as Step,
      k.title.fresh('s5'),
      ...out(w.blog),
    ]);
  const [first] = await w.take(await looked(['how to shred cabbage']));
  await w.settled([first!], ['out']);
  const before = paid();
  // Another pipeline, the same blog, other words.
  const [second, third] = await w.take(await looked(['shredding cabbages', 'how long does sauerkraut last']));
  await w.settled([second!], ['set aside']);
  await w.settled([third!], ['out']);
  const { runs } = await whole(second!);
  const run = runs.find(({ kind }) => kind === 'look up')!;
  expect(run.gave).toMatchObject({ ours: { brief: first, subject: 'how to shred cabbage' } });
  const [told] = await w.product.ground.db.rows<{ outcome: object }>('SELECT outcome FROM step_run WHERE id = ?', [
    run.id,
  ]);
  expect(told!.outcome).toEqual({
    kind: 'set aside',
    why: expect.stringMatching(/^An article of ours is on the same subject already: ‘.+’\.$/),
    code: 'ours-already',
  });
  // On Today it stands apart from what was set aside for another reason.
  const { needs } = (await ask<Today>('GET', '/today')).body;
  expect(needs.filter(({ kind }) => kind === 'aside')).toMatchObject([{ briefs: [second], step: 'look up' }]);
  expect(paid()).toBeGreaterThan(before);
  const written = paid();
  await many('bring back', [second!]);
  // A person has decided; the check does not ask again.
  await w.settled([second!], ['out']);
  expect(paid()).toBeGreaterThan(written);
});

test.each([
  ['stop it', 'stopped'],
  ['hold it for me', 'held'],
] as const)('what becomes of it is said in the step: %s', async (otherwise, standing) => {
  const pipeline = await w.pipeline(['cabbage shredding'], (all) => [
    all[0]!,
    { ...k['look up'].fresh('s2'), otherwise } as Step,
    ...out(w.blog),
  ]);
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], [standing]);
  await many('set aside', [brief!]);
});

test('of two on their way at once exactly one goes out; the other is held, and is not written again', async () => {
  const [[first], [second]] = await Promise.all([
    laidOut(['how to sharpen a scythe']),
    laidOut(['sharpening scythes properly']),
  ]);
  const ends = await w.settled([first!, second!], ['out', 'held']);
  expect([...ends.values()].sort()).toEqual(['held', 'out']);
  const other = ends.get(first!) === 'out' ? second! : first!;
  const check = await checked(other);
  expect(check.failing).toEqual([
    expect.stringMatching(
      /^(?:An article of ours|Another brief of this blog) is on the same subject(?: already)?: ‘.+scythe.*’$/,
    ),
  ]);
  expect(check.ours.brief).toBe(other === first ? second : first);
  expect((await whole(other)).runs.filter(({ kind }) => kind === 'check')).toHaveLength(1);
  await many('set aside', [other]);
});

test('what was set aside or taken back is in nobody’s way, nor is another blog, another question, or a trial', async () => {
  const [first] = await laidOut(['how to hone a razor']);
  await w.settled([first!], ['out']);
  const site = w.standIns.blog('kitchen');
  const kitchen = await createBlog(w.product.tools, {
    name: 'Crockhaven Kitchen',
    address: site.address,
    endpoint: site.endpoint,
    secret: site.token,
    language: 'en',
    cadence: DAILY,
    timeLimitMs: 1_000,
  });
  if (kitchen.kind !== 'made') throw new Error(kitchen.problem);
  const [there] = await laidOut(['honing a razor'], { blog: kitchen.id });
  await w.settled([there!], ['out']);
  const [asks] = await laidOut(['how often to hone a razor']);
  await w.settled([asks!], ['out']);
  const [again] = await laidOut(['honing razors']);
  await w.settled([again!], ['held']);
  await many('set aside', [again!]);
  const [article] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [first]);
  await w.product.ground.db.run("UPDATE article SET out_as = 'withdrawn' WHERE id = ?", [article!.id]);
  const [anew] = await laidOut(['razors: how to hone them']);
  await w.settled([anew!], ['out']);
  const [more] = await laidOut(['hone a razor'], { check: { alone: false } });
  await w.settled([more!], ['out']);
});
