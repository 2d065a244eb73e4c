// @vitest-environment jsdom
import type { Pings } from '@grivo/contract';
import { screen, waitFor } from '@testing-library/react';
import { Navigate, Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { blog, id } from '../testing/samples.ts';
import Approved from './connect/Approved.tsx';
import { PingsOf } from './Pings.tsx';

const B = id('b');
beforeEach(() => {
  queryClient.clear();
  queryClient.setDefaultOptions({ queries: { retry: false } });
});

const NONE: Pings = {
  search: '',
  code: 'c0de',
  codeAt: 'https://bowed.example/c0de.txt',
  codeFound: null,
  hub: '',
  feed: '',
  standings: [],
  list: null,
};

describe('whom the news of a blog are told to', () => {
  const shown = (pings: Partial<Pings> = {}, more: Record<string, Answer> = {}) =>
    onScreen(<PingsOf blog={blog()} />, { [`GET /blogs/${B}/pings`]: { ...NONE, ...pings }, ...more });

  it('nobody at first; an address is typed in place, and what the search engine asks for is said', async () => {
    const { hands, asked } = shown(
      {},
      { [`PATCH /blogs/${B}/pings`]: { ...NONE, search: 'https://find.example/tell', codeFound: false } },
    );
    await screen.findByText(/is told by IndexNow/);
    await hands.click(screen.getByRole('button', { name: /Search engine that is told/ }));
    await hands.type(screen.getByRole('textbox', { name: 'Search engine that is told' }), 'find.example/tell{Enter}');
    await screen.findByText('https://find.example/tell');
    expect(asked.find(({ method }) => method === 'PATCH')!.body).toEqual({ search: 'https://find.example/tell' });
    const asks = screen.getByText(/Put a text file there/).textContent!;
    expect(asks).toContain('https://bowed.example/c0de.txt');
    expect(asks).toContain('c0de');
  });

  it('what was told, what is on the way and what was in vain, told again at one press', async () => {
    const refused = {
      kind: 'search' as const,
      told: 3,
      waiting: 1,
      refused: 2,
      lastAt: '2026-11-20T08:00:00.000Z',
      said: 'it answered 400',
    };
    const { hands } = shown(
      { search: 'https://find.example', codeFound: true, standings: [refused] },
      { [`POST /blogs/${B}/pings/again`]: { ...NONE, standings: [{ ...refused, refused: 0, said: '', waiting: 3 }] } },
    );
    const line = await screen.findByText(/^The search engine: told of 3 articles/);
    expect(line.textContent).toContain('; 1 on the way; 2 in vain: it answered 400.');
    expect(screen.getByText(/The blog shows the text/)).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Tell it again' }));
    await screen.findByText(/; 3 on the way\./);
  });

  it('a hub without a feed is said to be told of none', async () => {
    shown({ hub: 'https://hub.example' });
    expect(await screen.findByText(/names no feed/)).toBeDefined();
  });

  it('the list for other sites is switched on and taken back', async () => {
    const list = { json: 'https://grivo.example/listed/x.json', html: 'https://grivo.example/listed/x.html' };
    let on = false;
    const { hands } = shown(
      {},
      {
        [`PUT /blogs/${B}/list`]: () => {
          on = !on;
          return { ...NONE, list: on ? list : null };
        },
      },
    );
    await hands.click(await screen.findByRole('button', { name: 'Let other sites read the list of our articles' }));
    expect((await screen.findByRole('link', { name: 'JSON Feed' })).getAttribute('href')).toBe(list.json);
    await hands.click(screen.getByRole('button', { name: 'Take these addresses back' }));
    await screen.findByRole('button', { name: 'Let other sites read the list of our articles' });
  });
});

/** The page with the address the browser came back to. */
const Back = ({ query }: { query: string }) => (
  <Routes>
    <Route path="/blogs/approved" element={<Approved />} />
    <Route path="/" element={<Navigate to={`/blogs/approved${query}`} />} />
  </Routes>
);

describe('back from a blog whose owner was asked', () => {
  it('takes what came back to the blog once, and says what the test came to', async () => {
    const { asked } = onScreen(<Back query="?state=s1&code=c1&iss=https%3A%2F%2Fblog.example%2F" />, {
      'POST /blogs/approvals/end': { id: B, joined: false, lines: [] },
    });
    await screen.findByText('The blog is connected.', { exact: false });
    const ends = asked.filter(({ method }) => method === 'POST');
    expect(ends.map(({ body }) => body)).toEqual([
      { state: 's1', code: 'c1', error: '', iss: 'https://blog.example/' },
    ]);
  });

  it('what was refused says why, and leads back', async () => {
    onScreen(<Back query="?state=s1&error=access_denied" />, {
      'POST /blogs/approvals/end': () => new Problem(422, 'It was refused at the blog.'),
    });
    await waitFor(() => screen.getByText(/It was refused at the blog\./));
    expect(screen.getByRole('link', { name: 'Back to the blogs' }).getAttribute('href')).toBe('/blogs');
  });
});
