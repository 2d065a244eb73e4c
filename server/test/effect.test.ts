import { afterAll, beforeAll, expect, test } from 'vitest';
import type { StepContext } from '../src/engine/performer.ts';
import type { Ground } from '../src/ground/ground.ts';
import { AtOnce } from '../src/ports/blogs/atOnce.ts';
import { effect, type Intended, type Turn } from '../src/ports/intents/effect.ts';
import { type World, world } from './ground/world.ts';

let w: World;
beforeAll(async () => {
  w = await world();
});
afterAll(() => w.close());

const TIME_LIMIT_MS = 2_000;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** The product's ground whose writing of an intent takes so much longer, as while the database is away. */
function slow(ms: number): Ground {
  const { ground } = w.product;
  const db = new Proxy(ground.db, {
    get(of, name) {
      if (name === 'settle')
        return async (...given: Parameters<typeof of.settle>) => {
          const value = await of.settle(...given);
          await pause(ms);
          return value;
        };
      const value = of[name as keyof typeof of] as unknown;
      return typeof value === 'function' ? value.bind(of) : value;
    },
  });
  return { ...ground, db };
}

const contextOf = (outlasts: () => boolean | Promise<boolean>, signal = new AbortController().signal) =>
  ({ run: { id: 'r'.repeat(20) }, signal, leaseOutlasts: async () => outlasts() }) as unknown as StepContext;

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
    ).toEqual({ kind: 'done', value: 'done', recorded: true });
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

test('until it is its turn nothing is written; given up meanwhile, nothing is called', async () => {
  const { ground } = w.product;
  const giveUp = new AbortController();
  const { intended, waits, key } = act();
  const [first, second] = [new AbortController().signal, giveUp.signal].map((signal) => contextOf(() => true, signal));
  const turns = new AtOnce();
  let goOn = () => {};
  const busy = turns.do('blog', 1, () => new Promise<void>((end) => (goOn = end)));
  const turn: Turn = (act, isFirst) => turns.do('blog', 1, act, isFirst);
  const all = [effect(ground, first!, { ...intended, turn }), effect(ground, second!, { ...act().intended, turn })];
  await pause(300);
  expect(await ground.db.rows('SELECT 1 FROM intent WHERE key_ = ?', [key])).toEqual([]);
  giveUp.abort();
  goOn();
  await busy;
  expect(await Promise.all(all)).toEqual([
    { kind: 'done', value: 'done', recorded: true },
    { kind: 'later', inMs: 0 },
  ]);
  expect(waits).toHaveLength(1);
});

test('an intent that was written into a cut line is found again, and the call made once', async () => {
  const { ground } = w.product;
  const { intended, waits } = act();
  let cut = true;
  const db = new Proxy(ground.db, {
    get(of, name) {
      // Written, and the answer lost.
      if (name === 'run')
        return async (...given: Parameters<typeof of.run>) => {
          const done = await of.run(...given);
          if (cut && given[0].startsWith('INSERT IGNORE INTO intent')) {
            cut = false;
            throw Object.assign(new Error('the line was cut'), { code: 'ECONNRESET' });
          }
          return done;
        };
      return Reflect.get(of, name, name === 'settle' ? db : of) as unknown;
    },
  });
  const done = await effect(
    { ...ground, db },
    contextOf(() => true),
    intended,
  );
  expect([done, cut, waits.length]).toEqual([{ kind: 'done', value: 'done', recorded: true }, false, 1]);
});
