import { describe, expect, it } from 'vitest';
import { Together } from './together.ts';

/** Work that ends when it is told to. */
function held() {
  const ends: ((value: unknown) => void)[] = [];
  return { work: () => new Promise<unknown>((resolve) => ends.push(resolve)), ends };
}

describe('those who ask at the same moment', () => {
  it('get what was worked out once', async () => {
    const together = new Together();
    const { work, ends } = held();
    const [one, two] = [together.answer('/today', work), together.answer('/today', work)];
    expect(ends.length).toBe(1);
    ends[0]!({ out: 3 });
    expect([await one, await two]).toEqual(['{"out":3}', '{"out":3}']);
  });

  it('get each their own where they ask for other things', async () => {
    const together = new Together();
    const { work, ends } = held();
    const both = [together.answer('/today', work), together.answer('/today?label=a', work)];
    ends[0]!(1);
    ends[1]!(2);
    expect(await Promise.all(both)).toEqual(['1', '2']);
  });

  it('who asks after a change is not given what was begun before it', async () => {
    const together = new Together();
    const { work, ends } = held();
    const before = together.answer('/today', work);
    together.changed();
    const after = together.answer('/today', work);
    expect(ends.length).toBe(2);
    ends[1]!('new');
    expect(await after).toBe('"new"');
    ends[0]!('old');
    expect(await before).toBe('"old"');
    // The late end of the older one has not taken the newer one's place away, nor kept its own.
    void together.answer('/today', work);
    expect(ends.length).toBe(3);
  });

  it('nothing is kept once it was given', async () => {
    const together = new Together();
    let asked = 0;
    const work = () => Promise.resolve(++asked);
    expect(await together.answer('/today', work)).toBe('1');
    expect(await together.answer('/today', work)).toBe('2');
  });

  it('a fault is everybody’s, and the next asks anew', async () => {
    const together = new Together();
    const fails = () => Promise.reject(new Error('away'));
    const both = [together.answer('/today', fails), together.answer('/today', fails)];
    expect((await Promise.allSettled(both)).map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    expect(await together.answer('/today', () => Promise.resolve(1))).toBe('1');
  });
});
