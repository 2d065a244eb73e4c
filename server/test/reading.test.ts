import { MOST_COUNTED } from '@grivo/contract';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { countEach } from '../src/ground/store/counted.ts';
import { changeWrite, tellChange } from '../src/ground/store/event.ts';
import { isAny, isThere } from '../src/ground/store/there.ts';
import { beginOnce, forgetRequest, keepAnswered, keptRequest } from '../src/nouns/people/once.ts';
import { type World, world } from './ground/world.ts';

let w: World;
const db = () => w.product.ground.db;
beforeAll(async () => {
  w = await world();
});
afterAll(() => w.close());

describe('counts', () => {
  const item = (source: string) => ({ key: source, from: 'item WHERE source = ?', parameters: [source] });
  const fill = (source: string, many: number) =>
    db().run(
      `INSERT INTO item (id, source, identity, content_digest, subject, fields) SELECT CONCAT(?, LPAD(seq, 18, '0')), ?, SHA2(CONCAT(?, seq), 256), SHA2(seq, 256), 'x', '{}' FROM seq_1_to_${many}`,
      [source.slice(0, 2), source, source],
    );

  test('of many kinds come in one go, each its own, none where there are none', async () => {
    const [a, b, none] = ['aa', 'bb', 'cc'].map((two) => two.repeat(10)) as [string, string, string];
    await fill(a, 3);
    await fill(b, 7);
    expect(await countEach(db(), [item(a), item(b), item(none)])).toEqual(
      new Map([
        [a, 3],
        [b, 7],
        [none, 0],
      ]),
    );
    expect(await countEach(db(), [])).toEqual(new Map());
  });

  test('go as far as one more than is read, however many there are', async () => {
    const many = 'dd'.repeat(10);
    await fill(many, MOST_COUNTED + 500);
    expect((await countEach(db(), [item(many)])).get(many)).toBe(MOST_COUNTED + 1);
    await db().run('DELETE FROM item WHERE source = ? LIMIT 501', [many]);
    // For some seconds it is not counted again; what had fewer always is.
    expect((await countEach(db(), [item(many)])).get(many)).toBe(MOST_COUNTED + 1);
    const later = performance.now() + 3_001;
    const clock = vi.spyOn(performance, 'now').mockImplementation(() => later);
    expect((await countEach(db(), [item(many)])).get(many)).toBe(MOST_COUNTED - 1);
    clock.mockRestore();
    await db().run('DELETE FROM item WHERE source = ? LIMIT 10', [many]);
    expect((await countEach(db(), [item(many)])).get(many)).toBe(MOST_COUNTED - 11);
  });

  test('of more kinds than one statement asks for are all there', async () => {
    const wanted = Array.from({ length: 500 }, (_, n) => ({
      key: String(n),
      from: 'item WHERE source = ? AND subject = ?',
      parameters: ['aa'.repeat(10), n % 2 ? 'x' : 'y'],
    }));
    const counts = await countEach(db(), wanted);
    expect(counts.size).toBe(500);
    expect([counts.get('498'), counts.get('499')]).toEqual([0, 3]);
  });
});

test('what is told to have changed is one hint, by itself or with what a step writes', async () => {
  const { ids } = w.product.ground;
  const heard = async (id: string) =>
    (await db().rows<{ noun: string }>('SELECT noun FROM event WHERE noun_id = ?', [id])).map(({ noun }) => noun);
  const [one, two] = [ids(), ids()];
  await tellChange(db(), w.product.ground, 'label', one);
  const { text, parameters } = changeWrite(ids, 'destination', two);
  await db().run(text, parameters);
  expect([await heard(one), await heard(two)]).toEqual([['label'], ['destination']]);
});

test('a thing is there by its id and its kind, and any is any', async () => {
  expect(await isThere(db(), 'blog', w.blog)).toBe(true);
  expect(await isThere(db(), 'source', w.blog)).toBe(false);
  expect(await isAny(db(), 'blog')).toBe(true);
  expect(await isAny(db(), 'routine')).toBe(false);
});

describe('a request that is made once', () => {
  const person = 'p'.repeat(20);

  test('is begun by one of two that come at once, and kept with its answer', async () => {
    const both = await Promise.all([beginOnce(db(), person, 'k1', 'r'), beginOnce(db(), person, 'k1', 'r')]);
    expect(both.sort()).toEqual([false, true]);
    expect(await keptRequest(db(), person, 'k1')).toMatchObject({ request: 'r', status: null, late: 0 });
    await keepAnswered(db(), person, 'k1', { status: 201, body: { id: 'x' } });
    expect(await keptRequest(db(), person, 'k1')).toMatchObject({ status: 201, body: { id: 'x' } });
    await keepAnswered(db(), person, 'k1', { status: 204, body: null });
    expect(await keptRequest(db(), person, 'k1')).toMatchObject({ status: 204, body: null });
  });

  test('belongs to who made it, and may be made again once it is forgotten', async () => {
    await beginOnce(db(), person, 'k2', 'r');
    expect(await keptRequest(db(), 'q'.repeat(20), 'k2')).toBeNull();
    await forgetRequest(db(), person, 'k2');
    expect(await keptRequest(db(), person, 'k2')).toBeNull();
    expect(await beginOnce(db(), person, 'k2', 'r')).toBe(true);
  });

  test('that was begun long ago and never answered is late', async () => {
    await beginOnce(db(), person, 'k3', 'r');
    await db().run('UPDATE idempotency SET at = DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 HOUR) WHERE key_ = ?', ['k3']);
    expect(await keptRequest(db(), person, 'k3')).toMatchObject({ late: 1 });
  });
});
