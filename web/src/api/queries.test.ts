import { QueryObserver } from '@tanstack/react-query';
import { afterEach, expect, test } from 'vitest';
import { queryClient, touched } from './queries.ts';

afterEach(() => queryClient.clear());

/** A read whose answers come when they are let go, each with what stood at the server when it was asked. */
function slowly() {
  let stands = 'in work';
  const waiting: (() => void)[] = [];
  const observer = new QueryObserver(queryClient, {
    queryKey: ['brief', 'b1'],
    queryFn: () => {
      const answer = stands;
      return new Promise<string>((resolve) => waiting.push(() => resolve(answer)));
    },
    retry: false,
  });
  return {
    observer,
    asked: () => waiting.length,
    change: (next: string) => (stands = next),
    async answer() {
      waiting.at(-1)!();
      await new Promise((resolve) => setTimeout(resolve, 5));
    },
  };
}

test('a change that comes while the first answer is on its way is read', async () => {
  const { observer, asked, change, answer } = slowly();
  const end = observer.subscribe(() => undefined);
  change('out');
  touched('brief', 'b1');
  await answer();
  expect(observer.getCurrentResult().data).toBe('in work');
  expect(asked()).toBe(2);
  await answer();
  expect(observer.getCurrentResult().data).toBe('out');
  // Once is enough.
  expect([asked(), observer.getCurrentResult().fetchStatus]).toEqual([2, 'idle']);
  end();
});

test('a later answer on its way is asked for anew, and several changes are read once', async () => {
  const { observer, asked, change, answer } = slowly();
  const end = observer.subscribe(() => undefined);
  await answer();
  touched('brief', 'b1');
  change('held');
  touched('brief', 'b1');
  expect(asked()).toBe(3);
  await answer();
  expect([observer.getCurrentResult().data, asked()]).toEqual(['held', 3]);
  end();
});

test('what cannot be read the first time is no fault of the change', async () => {
  const observer = new QueryObserver(queryClient, {
    queryKey: ['brief', 'b2'],
    queryFn: () => Promise.reject(new Error('gone')),
    retry: false,
  });
  const end = observer.subscribe(() => undefined);
  await expect(queryClient.invalidateQueries({ queryKey: ['brief', 'b2'] })).resolves.toBeUndefined();
  expect(observer.getCurrentResult().error?.message).toBe('gone');
  end();
});
