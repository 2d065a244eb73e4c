// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import { Only } from '../design/index.ts';
import { onScreen, Problem } from '../testing/onScreen.tsx';
import { ArticleActs } from './ArticleActs.tsx';

const ID = 'a'.repeat(20);
const AT = `/articles/${ID}/share`;
const SHARED = {
  address: 'https://grivo.example/read/abc',
  endsDesk: Date.parse('2026-12-28T12:00:00Z'),
  comments: false,
  seen: 3,
};

test('it is not shared until that is said; then its address, its end and how often it was read stand there', async () => {
  let now: object | null = null;
  const { asked, hands } = onScreen(<ArticleActs id={ID} labels={[]} />, {
    [`GET ${AT}`]: () => ({ share: now }),
    [`POST ${AT}`]: () => {
      now = SHARED;
      return { share: now };
    },
    [`DELETE ${AT}`]: () => {
      now = null;
      return undefined;
    },
  });
  await hands.click(screen.getByRole('button', { name: 'Share it…' }));
  await screen.findByText(/Makes an address at which anybody who has it/);
  expect(asked).toEqual([]);
  await hands.click(screen.getByRole('button', { name: 'Share it' }));
  await screen.findByText(SHARED.address);
  expect(asked[0]).toMatchObject({ method: 'POST', body: { days: 30 } });
  expect(screen.getByText(/until Mon,? 28 Dec/).textContent).toContain('read 3 times so far');
  await hands.click(screen.getByRole('button', { name: /30 days/ }));
  await hands.click(screen.getByText('as long as you leave it'));
  await hands.click(screen.getByRole('button', { name: 'Share it anew' }));
  await waitFor(() => expect(asked.at(-1)).toMatchObject({ method: 'POST', body: { days: null } }));
  await hands.click(screen.getByRole('button', { name: 'Take it back' }));
  await waitFor(() => expect(screen.queryByText(SHARED.address)).toBeNull());
  expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: AT });
});

test('it is told to one of the destinations, and what came of it is said, well or not', async () => {
  const destination = {
    id: 'd'.repeat(20),
    kind: 'mail',
    name: 'Ada',
    address: 'a@b.example',
    note: '',
    rev: 1,
    test: null,
  };
  let well = false;
  const { asked, hands } = onScreen(<ArticleActs id={ID} labels={[]} />, {
    'GET /destinations': { destinations: [destination] },
    [`POST /articles/${ID}/tell`]: () => ({
      line: well
        ? { tried: 'Told ‘Ada’', came: 'The mail server took it', well, change: null, ms: 3 }
        : { tried: 'Told ‘Ada’', came: 'No mail server.', well, change: 'Set one up.', ms: 3 },
    }),
  });
  await hands.click(screen.getByRole('button', { name: 'Tell somebody…' }));
  const tell = await screen.findByRole('button', { name: 'Tell ‘Ada’' });
  await hands.click(tell);
  await screen.findByText(/No mail server\./);
  expect(screen.getByText(/Set one up/)).toBeDefined();
  well = true;
  await hands.click(tell);
  await screen.findByText('The mail server took it');
  expect(asked.map(({ body }) => body)).toEqual([{ destination: destination.id }, { destination: destination.id }]);
});

test('where nobody can be told, that is said with where to change it', async () => {
  const { hands } = onScreen(<ArticleActs id={ID} labels={[]} />, { 'GET /destinations': { destinations: [] } });
  await hands.click(screen.getByRole('button', { name: 'Tell somebody…' }));
  await screen.findByText(/There is nobody to tell yet/);
  expect(screen.getByRole('link', { name: 'settings' }).getAttribute('href')).toBe('/settings');
});

test('who only reads may neither share nor tell', () => {
  onScreen(
    <Only if={false}>
      <ArticleActs id={ID} labels={[]} />
    </Only>,
  );
  expect(screen.queryByRole('button', { name: 'Share it…' })).toBeNull();
  expect(screen.queryByRole('button', { name: 'Tell somebody…' })).toBeNull();
});

test('what hangs on it is said before it is removed, and why it cannot be', async () => {
  const hangs = { name: 'Caring for strings', with: ['1 post'], unless: [] as string[] };
  const { asked, hands } = onScreen(<ArticleActs id={ID} labels={[]} />, {
    [`GET /articles/${ID}/hangs`]: () => hangs,
    [`DELETE /articles/${ID}`]: new Problem(502, 'The blog keeps it.'),
  });
  await hands.click(screen.getByRole('button', { name: 'Remove it…' }));
  await screen.findByText(/1 post/);
  await hands.click(screen.getAllByRole('button', { name: /^Remove/ }).at(-1)!);
  await screen.findByText(/The blog keeps it/);
  expect(asked).toEqual([{ method: 'DELETE', path: `/articles/${ID}`, body: undefined }]);
});
