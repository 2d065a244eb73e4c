// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { onScreen } from '../testing/onScreen.tsx';
import { blog, id } from '../testing/samples.ts';
import { ChangedHere } from './ChangedHere.tsx';

const B = id('b');
beforeEach(() => {
  queryClient.clear();
  queryClient.setDefaultOptions({ queries: { retry: false } });
});
const post = (n: number) => ({ publication: id(`p${n}`), article: id(`a${n}`), title: `Bow ${n}` });

it('nothing is asked where nothing was changed', async () => {
  onScreen(<ChangedHere blog={blog()} />, { [`GET /blogs/${B}/behind`]: { posts: [] } });
  await screen.findByText('0');
  expect(screen.queryByRole('button', { name: /there$/ })).toBeNull();
});

it('what was changed is listed and brought at one press; what was left says why', async () => {
  let posts = [post(1), post(2)];
  const { hands, asked } = onScreen(<ChangedHere blog={blog()} />, {
    [`GET /blogs/${B}/behind`]: () => ({ posts }),
    'POST /articles/many': () => {
      posts = [post(2)];
      return { done: 1, left: [{ id: id('a2'), title: 'Bow 2', why: 'somebody changed the post there' }] };
    },
  });
  expect((await screen.findByRole('link', { name: 'Bow 1' })).getAttribute('href')).toBe(`/articles/${id('a1')}`);
  await hands.click(screen.getByRole('button', { name: 'Bring all 2 there' }));
  await screen.findByText('Bow 2: somebody changed the post there');
  expect(asked[0]!.body).toEqual({ articles: [id('a1'), id('a2')], do: 'update' });
  await waitFor(() => expect(screen.queryByRole('link', { name: 'Bow 1' })).toBeNull());
  expect(screen.getByRole('button', { name: 'Bring it there' })).toBeDefined();
});

it('a long list shows how many more there are', async () => {
  const posts = Array.from({ length: 11 }, (_, i) => post(i));
  onScreen(<ChangedHere blog={blog()} />, { [`GET /blogs/${B}/behind`]: { posts } });
  expect(await screen.findByText('and 3 more')).toBeDefined();
});

it('what becomes of changes is a word', async () => {
  const { hands, asked } = onScreen(<ChangedHere blog={blog()} />, {
    [`GET /blogs/${B}/behind`]: { posts: [] },
    [`PATCH /blogs/${B}`]: { blogs: [blog()], moves: [] },
  });
  await hands.click(await screen.findByRole('button', { name: /What becomes of changes/ }));
  await hands.click(await screen.findByRole('radio', { name: /when it is small/ }));
  await waitFor(() => expect(asked[0]?.body).toEqual({ updates: 'small' }));
});
