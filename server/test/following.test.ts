import { stepKinds as k, type Step } from '@grivo/core';
import { expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { sourceOf } = intakeAt(() => desk);

test('what follows a blog takes what went out at once, not when its next look is due', async () => {
  const { ask, w } = desk;
  const made = async (name: string, steps: Step[]) =>
    (await ask<{ id: string }>('POST', '/pipelines', { name, document: { grivo: 1, language: 'en', steps } })).body.id;
  const asked = await sourceOf({ kind: 'requests' }, 'Asked at the bench');
  const first = await made('Bench notes', [
    { ...k.take.fresh('s1'), sources: [asked] },
    { ...k['lay out'].fresh('s2'), body: '{{ text }}', title: '{{ subject }}' },
    { ...k.publish.fresh('s3'), blog: w.blog, when: 'at once' },
  ]);
  const out = await sourceOf({ kind: 'publications', blogs: [w.blog], startFrom: { at: 'now' } }, 'What went out');
  const elsewhere = await sourceOf({ kind: 'publications', blogs: ['nowhere0000000000000'.slice(0, 20)] }, 'Elsewhere');
  const following = async (name: string, source: string) => {
    const id = await made(name, [
      { ...k.take.fresh('s1'), sources: [source], everyMinutes: 7 * 1_440 },
      { ...k.vary.fresh('s2'), for: 'a field', as: 'said' },
    ]);
    await ask('POST', `/pipelines/${id}/on`);
    return id;
  };
  const follows = await following('Says it on', out);
  const other = await following('Follows another blog', elsewhere);
  const briefsOf = async (pipeline: string) =>
    (
      await w.product.ground.db.rows<{ subject: string }>('SELECT subject FROM brief WHERE pipeline = ?', [pipeline])
    ).map(({ subject }) => subject);
  // The look at switching on is over, and the next a week away.
  const dueOf = async (pipeline: string) =>
    Number(
      (
        await w.product.ground.db.rows<{ due: string }>(
          "SELECT due_desk AS due FROM schedule WHERE kind = 'look' AND ref = ?",
          [pipeline],
        )
      )[0]!.due,
    );
  await expect
    .poll(async () => (await dueOf(follows)) > w.product.ground.desk.now() + 86_400_000, { timeout: 20_000 })
    .toBe(true);
  await expect
    .poll(async () => (await dueOf(other)) > w.product.ground.desk.now() + 86_400_000, { timeout: 20_000 })
    .toBe(true);
  expect(await briefsOf(follows)).toEqual([]);
  const otherDue = await dueOf(other);
  await ask('POST', `/sources/${asked}/requests`, {
    subject: 'How a sound post is set',
    notes:
      'The post of spruce stands a little behind the foot of the bridge. It is set with a bent iron through the hole.',
  });
  const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${first}/take`, {})).body;
  await w.settled(briefs, ['out']);
  await expect.poll(() => briefsOf(follows), { timeout: 20_000 }).toEqual(['How a sound post is set']);
  expect(await dueOf(other)).toBe(otherDue);
});
