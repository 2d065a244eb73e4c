import { randomBytes } from 'node:crypto';
import type { Failure } from '@grivo/core';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { assemble, type Product } from '../src/api/product.ts';
import { Breakers } from '../src/engine/breakers.ts';
import { openIncident, releaseIncident } from '../src/engine/incidents.ts';
import { Permits } from '../src/engine/permits.ts';
import { reap } from '../src/engine/reaper.ts';
import type { Database } from '../src/ground/store/database.ts';
import { createService } from '../src/ports/services/repository.ts';
import { testDatabaseUrl } from './ground/world.ts';

let product: Product;
let service: string;
beforeAll(async () => {
  product = await assemble({ databaseUrl: await testDatabaseUrl(), secretKey: randomBytes(32) });
  const { ground, secrets, tools } = product;
  service = await createService(ground, secrets, {
    role: 'writer',
    name: 'The writer',
    address: 'https://quill.example',
    model: 'quill',
    secret: null,
    price: { microsPerThousandIn: 1, microsPerThousandOut: 1, microsPerPicture: 0, microsPerMinute: 0 },
    permits: 4,
    timeLimitMs: 1_000,
  });
  await tools.services.refresh();
});
afterAll(() => product.close());
const db = () => product.ground.db;
const held = async (by?: string) =>
  Number(
    (
      await db().rows<{ n: number }>(
        `SELECT COUNT(*) AS n FROM permit WHERE ${by ? 'holder = ?' : 'holder IS NOT NULL'}`,
        by ? [by] : [],
      )
    )[0]!.n,
  );

/** The database as a worker sees it whose line breaks: before the statement arrives, or before its answer does. */
function breaking(): { db: Database; breaks: 'never' | 'before' | 'after' } {
  const one = { breaks: 'never' as 'never' | 'before' | 'after', db: db() };
  const lost = () => Object.assign(new Error('Connection lost'), { code: 'PROTOCOL_CONNECTION_LOST' });
  one.db = new Proxy(db(), {
    get(target, name) {
      const own = Reflect.get(target, name) as unknown;
      if (name !== 'run') return typeof own === 'function' ? own.bind(target) : own;
      return async (text: string, parameters: unknown[]) => {
        if (one.breaks === 'before') throw lost();
        const rows = await target.run(text, parameters);
        if (one.breaks === 'after') throw lost();
        return rows;
      };
    },
  });
  return one;
}

describe('permits', () => {
  let clock = 0;
  const worker = (name: string, over = db()) =>
    new Permits(
      over,
      product.tools.services,
      () => name,
      () => clock,
    );
  beforeEach(() => db().run('DELETE FROM permit'));

  test('two workers never have more between them than the service takes at once', async () => {
    const [one, two] = [worker('one'), worker('two')];
    const lent = await Promise.all([one.use(service, 3), two.use(service, 3), one.use(service, 2)]);
    let together = lent.reduce((a, b) => a + b);
    expect(together).toBeGreaterThan(0);
    // Whoever came while others took them gets what is left at the next look.
    for (let look = 0; look < 6; look++) {
      together += await (look % 2 === 0 ? one : two).use(service, 4);
      expect(together).toBeLessThanOrEqual(4);
      clock += 500;
      await Promise.all([one.freeIdle(), two.freeIdle()]);
    }
    expect(together).toBe(4);
    expect(await held()).toBe(4);
  });

  test('what lies idle is lent again without asking, and is free for others only after a while', async () => {
    const [one, two] = [worker('one'), worker('two')];
    expect(await one.use(service, 4)).toBe(4);
    expect(one.tryUse(service)).toBe(false);
    one.giveBack(service, 2);
    expect(one.tryUse(service)).toBe(true);
    expect(await one.freeIdle()).toBe(false);
    expect(await two.use(service, 1)).toBe(0);
    clock += 500;
    expect(await one.freeIdle()).toBe(true);
    expect(await held('one')).toBe(3);
    expect(await two.use(service, 2)).toBe(1);
  });

  test('when it ends a worker frees what is idle at once', async () => {
    const one = worker('one');
    await one.use(service, 3);
    one.giveBack(service, 3);
    expect(await one.freeIdle(true)).toBe(true);
    expect(await held()).toBe(0);
  });

  const limitTo = async (permits: number) => {
    await db().run('UPDATE service SET permits = ? WHERE id = ?', [permits, service]);
    await product.tools.services.refresh();
  };

  test('a limit that is lowered holds for the next call, and raised again it has its rows again', async () => {
    const [one, two] = [worker('one'), worker('two')];
    await one.use(service, 4);
    one.giveBack(service, 4);
    await one.freeIdle(true);
    await limitTo(2);
    expect(await one.use(service, 4)).toBe(2);
    expect(await two.use(service, 4)).toBe(0);
    await limitTo(4);
    expect(await two.use(service, 4)).toBe(2);
  });

  test('a worker that never rests comes down to a lowered limit too: what ends above it is not begun again', async () => {
    const one = worker('one');
    expect(await one.use(service, 4)).toBe(4);
    await limitTo(3);
    await one.reconcile();
    one.giveBack(service);
    expect(one.tryUse(service)).toBe(false);
    one.giveBack(service);
    expect(one.tryUse(service)).toBe(true);
    expect(await held()).toBe(3);
    await limitTo(4);
  });

  test('a line that broke before the statement arrived leaves the worker with what it believed', async () => {
    const line = breaking();
    const one = worker('one', line.db);
    await one.use(service, 2);
    line.breaks = 'before';
    await expect(one.use(service, 2)).rejects.toThrow('Connection lost');
    line.breaks = 'never';
    await one.reconcile();
    expect(await held('one')).toBe(2);
    one.giveBack(service, 2);
    expect(await one.use(service, 4)).toBe(4);
  });

  test('an answer that was lost leaves rows the worker does not know of; comparing finds them', async () => {
    const line = breaking();
    const one = worker('one', line.db);
    await one.use(service, 1);
    line.breaks = 'after';
    await expect(one.use(service, 3)).rejects.toThrow('Connection lost');
    line.breaks = 'never';
    expect(await held('one')).toBe(4);
    expect(one.tryUse(service)).toBe(false);
    await one.reconcile();
    expect(Array.from({ length: 4 }, () => one.tryUse(service))).toEqual([true, true, true, false]);
  });

  test('a lost answer to freeing them: others have the rows, and the worker does not lend them again', async () => {
    const line = breaking();
    const one = worker('one', line.db);
    await one.use(service, 4);
    one.giveBack(service, 4);
    line.breaks = 'after';
    await expect(one.freeIdle(true)).rejects.toThrow('Connection lost');
    expect(await worker('two').use(service, 4)).toBe(4);
    expect(one.tryUse(service)).toBe(false);
    line.breaks = 'never';
    await one.reconcile();
    expect(one.tryUse(service)).toBe(false);
  });

  test('a worker of a new name begins with nothing', async () => {
    const one = worker('one');
    await one.use(service, 2);
    one.giveBack(service, 2);
    one.forget();
    expect(one.tryUse(service)).toBe(false);
  });

  test('a service nobody knows has none', async () => {
    expect(await worker('one').use('nobody', 1)).toBe(0);
  });
});

describe('what is known to be wrong with a service', () => {
  const refused: Failure = { code: 'key-refused', message: 'no', service: '' } as unknown as Failure;
  const failure = (): Failure => ({ ...refused, service }) as Failure;
  beforeEach(() => db().run('DELETE FROM incident'));
  const known = async () => {
    const breakers = new Breakers(db());
    await breakers.refresh();
    return breakers;
  };

  test('one cause is one incident, however many meet it at once', async () => {
    const many = await Promise.all(
      Array.from({ length: 8 }, (_, i) => openIncident(product.ground, failure(), `r${i}`)),
    );
    expect(new Set(many).size).toBe(1);
    expect((await known()).at(service)).toMatchObject({ incident: many[0], failure: { code: 'key-refused' } });
    expect((await known()).at(null)).toBeNull();
    expect((await known()).at('another')).toBeNull();
  });

  test('closed, it keeps nobody any more; the same cause met later is another', async () => {
    const first = await openIncident(product.ground, failure(), 'r1');
    await releaseIncident(product.ground, first!);
    expect((await known()).at(service)).toBeNull();
    const second = await openIncident(product.ground, failure(), 'r2');
    expect(second).not.toBe(first);
    expect((await known()).at(service)?.incident).toBe(second);
  });

  test('once a call was answered it keeps nobody, until the cause is met again', async () => {
    const incident = await openIncident(product.ground, failure(), 'r1');
    const breakers = await known();
    await breakers.foundWell(service);
    expect(breakers.at(service)).toBeNull();
    expect(await openIncident(product.ground, failure(), 'r2')).toBe(incident);
    await breakers.refresh();
    expect(breakers.at(service)?.incident).toBe(incident);
  });

  test('a reply that one brief could not use says nothing about the service', async () => {
    const malformed = { code: 'malformed', message: 'no JSON', service } as unknown as Failure;
    await openIncident(product.ground, malformed, 'r1');
    expect((await known()).at(service)).toBeNull();
  });
});

describe('what dead workers held', () => {
  const worker = (id: string, seconds: number) =>
    db().run(
      "INSERT INTO worker (id, role, address, lease_until) VALUES (?, 'worker', 'here', DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND))",
      [id, seconds],
    );
  beforeEach(async () => {
    await db().run('DELETE FROM permit');
    await db().run('DELETE FROM worker');
    await db().run('INSERT INTO permit (service, n, holder) VALUES ?', [
      [
        [service, 1, 'dead'],
        [service, 2, 'alive'],
        [service, 3, 'unknown'],
      ],
    ]);
    await worker('dead', -5);
    await worker('alive', 60);
  });

  test('comes back; what the living hold stays with them', async () => {
    await reap(product.ground);
    expect([await held('dead'), await held('alive'), await held('unknown')]).toEqual([0, 1, 0]);
    expect((await db().rows<{ id: string }>('SELECT id FROM worker')).map(({ id }) => id)).toEqual(['alive']);
  });

  test('two who give it back at once do it once', async () => {
    await Promise.all([reap(product.ground), reap(product.ground), reap(product.ground)]);
    expect(await held()).toBe(1);
  });

  test('a worker that renews its lease in the last moment keeps what it has', async () => {
    await db().run("UPDATE worker SET lease_until = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL 9 SECOND) WHERE id = 'dead'");
    await reap(product.ground);
    expect(await held('dead')).toBe(1);
  });
});
