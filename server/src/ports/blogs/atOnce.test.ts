import { expect, it } from 'vitest';
import { AtOnce } from './atOnce.ts';

const pause = (ms: number) => new Promise((then) => setTimeout(then, ms));

it('a few at a time and in order, each blog by itself, also where some fail', async () => {
  const turns = new AtOnce();
  const most = { a: 0, b: 0 };
  const now = { a: 0, b: 0 };
  const begun: number[] = [];
  const act = (blog: 'a' | 'b', n: number) => () =>
    turns.do(blog, blog === 'a' ? 3 : 1, async () => {
      if (blog === 'a') begun.push(n);
      most[blog] = Math.max(most[blog], ++now[blog]);
      await pause(3);
      now[blog]--;
      if (n % 4 === 0) throw new Error('refused');
      return n;
    });
  const ends = await Promise.allSettled(Array.from({ length: 20 }, (_, n) => [act('a', n)(), act('b', n)()]).flat());
  expect(most).toEqual({ a: 3, b: 1 });
  expect(begun).toEqual(Array.from({ length: 20 }, (_, n) => n));
  expect(ends.filter(({ status }) => status === 'rejected')).toHaveLength(10);
  // Nobody holds a place any more.
  expect(await turns.do('a', 1, async () => 'free')).toBe('free');
});

it('what somebody looks on at goes before all that wait', async () => {
  const turns = new AtOnce();
  const order: string[] = [];
  const act = (name: string, first = false) => turns.do('a', 1, async () => void order.push(name), first);
  await Promise.all([act('one'), act('two'), act('three'), act('by hand', true)]);
  expect(order).toEqual(['one', 'by hand', 'two', 'three']);
});
