import type { ArticleWhole } from '@grivo/contract';
import { stepKinds } from '@grivo/core';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { connected, ownWriter, writtenBy } from './ground/ownWriter.ts';
import { LENIENT } from './ground/world.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});

/** Said as the passages of the small web say it, in other words where nothing is counted. */
const TRUE = ['Salt is weighed, and cabbage is weighed, before one is rubbed into the other.'];
/** What no page says. */
const FALSE = 'Rub 413 grams of salt into each kilo of cabbage.';

let writer: Awaited<ReturnType<typeof ownWriter>>;
let service = '';
beforeAll(async () => {
  writer = await ownWriter(TRUE);
  service = await connected(desk, writer.address);
});
afterAll(() => writer.close());
beforeEach(() => writer.forget());

const check = { ...stepKinds.check.fresh('s5'), ...LENIENT, words: { from: 1, to: 2_000 } };
const altered = (right: string) => ({ content: right.replace(TRUE[0]!, FALSE) });
const whole = async (id: string) => (await desk.ask<ArticleWhole>('GET', `/articles/${id}`)).body;
const checked = async (brief: string) =>
  (
    await desk.w.product.ground.db.rows<{ fields: { check?: { failing: string[] } } }>(
      `SELECT o.proposed AS fields FROM step_run r JOIN output o ON o.step_run = r.id WHERE r.brief = ? AND r.kind = 'check' ORDER BY r.round`,
      [brief],
    )
  ).map(
    ({ fields }) => (typeof fields === 'string' ? (JSON.parse(fields) as typeof fields) : fields).check?.failing ?? [],
  );

describe('what a writer says that its sources do not', () => {
  test('is marked in its article with its words, also where no check looks', async () => {
    writer.instead.push(altered, altered);
    const { article, standing } = await writtenBy(desk, service);
    expect(standing).toBe('out');
    const { doubts, measures, document } = await whole(article!);
    expect(doubts.map(({ kind, words }) => [kind, words])).toContainEqual(['figure', '413 grams']);
    const at = document.body.find(({ id }) => id === doubts[0]!.block)!;
    expect(JSON.stringify(at)).toContain('413 grams');
    expect(measures.find(({ name }) => name === 'Against the sources')).toMatchObject({
      value: doubts.length,
      most: 0,
    });
  });

  test('is written again by the check, and goes out when it is said as it is', async () => {
    writer.instead.push(altered, altered);
    const { standing, text, brief } = await writtenBy(desk, service, check);
    expect(standing).toBe('out');
    expect(text).toContain(TRUE[0]);
    expect(text).not.toContain('413');
    const [first, second] = await checked(brief);
    expect(first).toContainEqual(expect.stringContaining('‘413 grams’ stands in no source'));
    expect(second).toEqual([]);
  });

  test('said twice it ends as the step says, with the words in the reason', async () => {
    for (let i = 0; i < 8; i++) writer.instead.push(altered);
    const { standing, brief } = await writtenBy(desk, service, check);
    expect(standing).toBe('set aside');
    const today = await desk.ask<{ needs: { kind: string; why?: string }[] }>('GET', '/today');
    expect(today.body.needs).toContainEqual(
      expect.objectContaining({ kind: 'aside', id: brief, why: expect.stringContaining('413 grams') }),
    );
  });

  test('is let through by a check that was told so, and marked all the same', async () => {
    writer.instead.push(altered, altered);
    const { standing, article } = await writtenBy(desk, service, { ...check, figures: false });
    expect(standing).toBe('out');
    expect((await whole(article!)).doubts).not.toEqual([]);
  });
});

test('what is said as it stands there is not doubted', async () => {
  const { article, standing } = await writtenBy(desk, service, check);
  expect(standing).toBe('out');
  expect((await whole(article!)).doubts).toEqual([]);
});
