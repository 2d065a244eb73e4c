import { describe, expect, it } from 'vitest';
import type { Ground } from '../ground/ground.ts';
import { Lease } from './lease.ts';

/** A ground whose clock stands still, so that asking and renewing fall into the same millisecond. */
function stillGround() {
  const said: unknown[][] = [];
  const clock = { ms: 1_000_000 };
  const ground = {
    now: () => clock.ms,
    ids: () => 'w1',
    log: { warn: () => undefined },
    db: {
      run: async (_text: string, parameters: unknown[]) => {
        said.push(parameters);
        return 1;
      },
    },
  } as unknown as Ground;
  return { ground, said, clock };
}

describe('a lease', () => {
  it('outlasts a call longer than itself by renewing for longer, also within one millisecond', async () => {
    const { ground, said } = stillGround();
    const lease = new Lease(ground, 'both', '127.0.0.1:1', 15);
    await lease.take();
    expect(await lease.outlasts(60_000)).toBe(true);
    expect(said.at(-1)?.[0]).toBeGreaterThanOrEqual(61);
    await lease.giveBack();
  });

  it('renews once for steps that ask one after the other', async () => {
    const { ground, said, clock } = stillGround();
    const lease = new Lease(ground, 'both', '127.0.0.1:1', 15);
    await lease.take();
    await lease.outlasts(30_000);
    const before = said.length;
    clock.ms += 5_000;
    expect(await lease.outlasts(30_000)).toBe(true);
    expect(said.length).toBe(before);
    await lease.giveBack();
  });

  it('is lost when the row is no longer held, and then outlasts nothing', async () => {
    const { ground } = stillGround();
    const lease = new Lease(ground, 'both', '127.0.0.1:1', 15);
    await lease.take();
    ground.db.run = async () => 0;
    expect(await lease.outlasts(60_000)).toBe(false);
    expect(lease.signal.aborted).toBe(true);
  });
});
