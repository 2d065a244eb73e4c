import type { Hold, Past } from '@grivo/contract';
import { type Step, stepKinds } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { LENIENT } from './ground/world.ts';

let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((desk) => ({ w, ask } = desk));

const k = stepKinds;
const holdOf = async (brief: string) => (await ask<{ holds: Hold[] }>('GET', `/briefs/${brief}/holds`)).body.holds[0]!;
const say = (brief: string, run: string, change: object) =>
  ask('POST', `/briefs/${brief}/holds/${run}`, { decide: 'pass', change });
const textOf = async (brief: string, run: string) =>
  (await ask<{ text: string | null }>('GET', `/briefs/${brief}/holds/${run}/text`)).body.text;

async function heldBrief(keyword: string, change: (steps: Step[]) => Step[]): Promise<string> {
  const [brief] = await w.take(await w.pipeline([keyword], change));
  await w.settled([brief!], ['held']);
  return brief!;
}

describe('the text of a held step', () => {
  test('is edited by a person: what is untouched keeps what it rests on, and the new text goes out', async () => {
    const brief = await heldBrief('kahm yeast or mould', ([take, look, outline, write, title, , , , publish]) => [
      take!,
      look!,
      outline!,
      { ...write!, hold: true },
      title!,
      publish!,
    ]);
    const { run, kind } = await holdOf(brief);
    expect(kind).toBe('write');
    const [before] = await w.product.ground.db.rows<{ id: string; current: string }>(
      'SELECT a.id, r.id AS current FROM article a JOIN article_revision r ON r.article = a.id WHERE a.brief = ?',
      [brief],
    );
    const document = await readRevision(w.product.ground.db, before!.current);
    const text = await textOf(brief, run);
    expect(text).toContain('## ');
    const empty = await say(brief, run, { text: ' \n ' });
    expect([empty.status, empty.problem.detail]).toEqual([422, '‘text’: nothing is left of it.']);
    const wrong = await say(brief, run, { text: `${text}\n\n::picture[None]{#b99}` });
    expect(wrong.status).toBe(422);
    expect(wrong.problem.detail).toMatch(/^‘text’: line \d+: The article has no picture ‘b99’\.$/);
    const added = 'Ines wipes the film off with a clean cloth every other day.';
    expect((await say(brief, run, { text: `${text}\n\n${added}` })).status).toBe(204);
    await w.settled([brief], ['out']);
    const [after] = await w.product.ground.db.rows<{ current: string; address: string; by: string }>(
      `SELECT a.current, p.address, (SELECT by_person FROM article_revision WHERE article = a.id AND by_person IS NOT NULL) AS \`by\`
       FROM article a JOIN publication p ON p.article = a.id WHERE a.brief = ?`,
      [brief],
    );
    expect(after!.by).not.toBeNull();
    expect(await (await fetch(after!.address)).text()).toContain(added);
    const now = await readRevision(w.product.ground.db, after!.current);
    const rested = document.body.filter((block) => block.type === 'paragraph' && (block.evidence?.length ?? 0) > 0);
    expect(rested.length).toBeGreaterThan(2);
    for (const block of rested) expect(now.body).toContainEqual(block);
    const own = now.body.find((block) => block.type === 'paragraph' && block.content[0]?.text === added);
    expect(own).toBeDefined();
    expect(own!.evidence).toBeUndefined();
  });

  test('in a branch it becomes the branch’s own article, and the main one stays as it was', async () => {
    const body = 'Weigh the salt.\n\nPress the cabbage.';
    const brief = await heldBrief('salted plums', ([take]) => [
      take!,
      { ...k['lay out'].fresh('s2'), body, title: 'Salted plums', reads: 'Markdown' as const },
      { ...k.meanwhile.fresh('s3'), steps: [k.hold.fresh('s4')] },
    ]);
    const { run } = await holdOf(brief);
    expect(await textOf(brief, run)).toBe('Weigh the salt.\n\nPress the cabbage.\n'.trim());
    expect((await say(brief, run, { text: 'Weigh the salt twice.\n\nPress the cabbage.' })).status).toBe(204);
    await w.settled([brief], ['out']);
    const rows = await w.product.ground.db.rows<{ line: string; current: string }>(
      'SELECT line, current FROM article WHERE brief = ? ORDER BY line',
      [brief],
    );
    const texts = await Promise.all(
      rows.map(async ({ line, current }) => [
        line,
        (await readRevision(w.product.ground.db, current)).body.map((block) =>
          block.type === 'paragraph' ? block.content[0]!.text : '',
        ),
      ]),
    );
    expect(texts).toEqual([
      ['', ['Weigh the salt.', 'Press the cabbage.']],
      ['s3', ['Weigh the salt twice.', 'Press the cabbage.']],
    ]);
  });

  test('a step before there is an article has none', async () => {
    const brief = await heldBrief('beet kvass', ([take]) => [take!, k.hold.fresh('s2')]);
    const { run } = await holdOf(brief);
    expect(await textOf(brief, run)).toBeNull();
    const refused = await say(brief, run, { text: 'Something' });
    expect([refused.status, refused.problem.detail]).toEqual([
      422,
      '‘text’: the step has no article that could be changed.',
    ]);
  });
});

describe('what other words would have done', () => {
  test('is told from past briefs: lengths of titles, and which way a branch would go', async () => {
    const body = 'Weigh the salt.\n\nPress the cabbage.';
    const pipeline = await w.pipeline(['plums', 'apples in brine', 'beans'], ([take]) => [
      take!,
      { ...k['work out'].fresh('s2'), as: 'size', expression: 'length(subject)' },
      {
        ...k.when.fresh('s3'),
        tests: [{ field: 'size', is: 'above', value: '5' }],
        holds: [k.wait.fresh('s4')],
      },
      { ...k['lay out'].fresh('s5'), body, title: '', reads: 'Markdown' as const },
      { ...k.check.fresh('s6'), ...LENIENT, words: { from: 1, to: 900 } },
    ]);
    const briefs = await w.take(pipeline);
    await expect
      .poll(async () => (await ask<Past>('GET', `/pipelines/${pipeline}/past/s3`)).body.seen.length)
      .toBe(briefs.length);
    const { seen } = (await ask<Past>('GET', `/pipelines/${pipeline}/past/s3`)).body;
    const filter = k.when.pastFilter!;
    const asked = (value: string, field = 'size') =>
      seen.map((one) => filter.holds({ ...k.when.fresh('s3'), tests: [{ field, is: 'above', value }] }, one));
    expect(asked('5').filter(Boolean)).toHaveLength(1);
    expect(asked('4').filter(Boolean)).toHaveLength(3);
    expect(asked('4', 'weight')).toEqual([null, null, null]);
  });
});
