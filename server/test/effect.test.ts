import { afterAll, beforeAll, expect, test } from 'vitest';
import type { StepContext } from '../src/engine/performer.ts';
import type { Ground } from '../src/ground/ground.ts';
import { effect, type Intended } from '../src/ports/intents/effect.ts';
import { type World, world } from './ground/world.ts';

let w: World;
beforeAll(async () => {
  w = await world();
});
afterAll(() => w.close());

const TIME_LIMIT_MS = 2_000;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** The product's ground whose transactions take so much longer, as while the database is away. */
function slow(ms: number): Ground {
  const { ground } = w.product;
  const db = new Proxy(ground.db, {
    get(of, name) {
      if (name === 'transaction')
        return async (...given: Parameters<typeof of.transaction>) => {
          const value = await of.transaction(...given);
          await pause(ms);
          return value;
        };
      const value = of[name as keyof typeof of] as unknown;
      return typeof value === 'function' ? value.bind(of) : value;
    },
  });
  return { ...ground, db };
}

const contextOf = (outlasts: () => boolean | Promise<boolean>) =>
  ({ run: { id: 'r'.repeat(20) }, leaseOutlasts: async () => outlasts() }) as unknown as StepContext;

let n = 0;
/** An act that tells how long others would still wait before they look, when its call is made. */
function act() {
  const waits: number[] = [];
  const key = `test/${++n}`;
  const intended: Intended<string> = {
    key,
    kind: 'create',
    service: 'blog',
    timeLimitMs: TIME_LIMIT_MS,
    call: async () => {
      const [row] = await w.product.ground.db.rows<{ ms: number }>(
        'SELECT TIMESTAMPDIFF(MICROSECOND, UTC_TIMESTAMP(3), due_at) / 1000 AS ms FROM intent WHERE key_ = ?',
        [key],
      );
      waits.push(Number(row!.ms));
      return { kind: 'done', value: 'done' };
    },
    find: async () => ({ ok: true, value: null }),
  };
  return { intended, waits, key };
}

test('nobody looks before the other side can have acted, however long writing the intent took', async () => {
  for (const ms of [0, 700, 1_600]) {
    const { intended, waits } = act();
    expect(
      await effect(
        slow(ms),
        contextOf(() => true),
        intended,
      ),
    ).toEqual({ kind: 'done', value: 'done' });
    expect(waits).toHaveLength(1);
    expect(waits[0]).toBeGreaterThan(TIME_LIMIT_MS);
  }
});

test('a worker whose lease would end meanwhile does not call', async () => {
  const { intended, waits } = act();
  let asked = 0;
  const done = await effect(
    slow(700),
    contextOf(() => ++asked === 1),
    intended,
  );
  expect(done.kind).toBe('later');
  expect(waits).toEqual([]);
});

test('a worker whose intent was taken over meanwhile does not call', async () => {
  const { intended, waits, key } = act();
  const { db } = w.product.ground;
  let asked = 0;
  const done = await effect(
    slow(700),
    contextOf(async () => {
      if (++asked === 2) await db.run('UPDATE intent SET token = ? WHERE key_ = ?', ['o'.repeat(20), key]);
      return true;
    }),
    intended,
  );
  expect(done.kind).toBe('later');
  expect(waits).toEqual([]);
});
