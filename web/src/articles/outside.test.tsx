// @vitest-environment jsdom
import type { ArticleWhole, OutsideShown } from '@grivo/contract';
import { compareWords, EMPTY_ARTICLE } from '@grivo/core';
import { fireEvent, screen, within } from '@testing-library/react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { articleWhole, id } from '../testing/samples.ts';
import OutsidePage from './outside/OutsidePage.tsx';

const A = id('a');
const P = id('p');
const paragraph = (name: string, text: string) => ({ type: 'paragraph' as const, id: name, content: [{ text }] });
const DOCUMENT = {
  ...EMPTY_ARTICLE,
  title: 'Rehairing',
  body: [paragraph('x', 'Comb it wet.'), paragraph('y', 'Let it dry.'), paragraph('z', 'Tighten it.')],
};
const SHOWN: OutsideShown = {
  kind: 'changed',
  digest: 'd1',
  title: { ours: 'Rehairing', theirs: 'Rehairing a bow' },
  places: [
    {
      changed: true,
      blocks: ['x'],
      words: compareWords('Comb it wet.', 'Comb it dry.'),
      put: [paragraph('t', 'Comb it dry.')],
      others: 0,
    },
    { changed: false, blocks: ['y', 'z'] },
    { changed: true, blocks: [], words: compareWords('', 'Ask us.'), put: [paragraph('u', 'Ask us.')], others: 1 },
  ],
  document: DOCUMENT,
  newer: false,
  acts: [
    { act: 'published', at: '2026-05-01T07:00:00.000Z' },
    { act: 'updated', at: '2026-05-02T07:00:00.000Z' },
    { act: 'changed there', at: '2026-05-04T07:00:00.000Z' },
  ],
};
const article = (): ArticleWhole =>
  articleWhole({
    id: A,
    document: DOCUMENT,
    publications: [
      {
        id: P,
        blog: id('b'),
        blogName: 'Bowed',
        state: 'live',
        address: 'https://bowed.example/rehairing',
        outDesk: 0,
        as: 'live',
        datedDesk: null,
        newest: true,
        underWay: null,
        outside: { kind: 'changed', at: '2026-05-04T07:00:00.000Z' },
        can: ['update', 'withdraw'],
      },
    ],
  });
const PATH = `/articles/${A}/publications/${P}/outside`;
const AT = `/articles/${A}/outside/${P}`;
function Here() {
  return <output aria-label="here">{useLocation().pathname}</output>;
}
const Shown = () => (
  <>
    <Routes>
      <Route path="/articles/:id/outside/:publication" element={<OutsidePage />} />
      <Route path="/articles/:id" element={null} />
      <Route path="*" element={<Navigate to={AT} replace />} />
    </Routes>
    <Here />
  </>
);
const here = () => screen.getByRole('status', { name: 'here' }).textContent;
const said = () =>
  screen
    .getAllByRole('status')
    .map(({ textContent }) => textContent)
    .join(' ');
const opened = (shown: OutsideShown = SHOWN, more: Record<string, Answer> = {}) =>
  onScreen(<Shown />, { [`GET /articles/${A}`]: article(), [`GET ${PATH}`]: shown, ...more });
const press = (...keys: string[]) => {
  for (const key of keys) fireEvent.keyDown(window, { key, ctrlKey: key === 'Enter' });
};
beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

describe('what somebody changed on a blog', () => {
  it('what was done there stands in a line, ours in ink and theirs as what waits', async () => {
    opened();
    const line = await screen.findByRole('list', { name: 'What was done there' });
    expect(
      within(line)
        .getAllByRole('listitem')
        .map(({ textContent }) => textContent),
    ).toEqual([
      expect.stringMatching(/published/),
      expect.stringMatching(/changed by us/),
      expect.stringMatching(/changed there/),
    ]);
  });

  it('stands beside ours, what is the same folded away, and is settled place by place by keys', async () => {
    const { asked, hands } = opened(SHOWN, { [`POST ${PATH}`]: { done: true } });
    await screen.findByRole('region', { name: 'The title' });
    expect(screen.getByText(/2 parts are the same/)).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Unfold' }));
    expect(screen.getByText('Tighten it.')).toBeDefined();
    expect(screen.getByText(/cannot be taken over/)).toBeDefined();
    const send = () => screen.getByRole('button', { name: /Send it to Bowed|Take it into ours/ }) as HTMLButtonElement;
    expect(send().disabled).toBe(true);
    // The title cannot be two.
    press('b', 'o', 'j', 'b', 'j', 't');
    expect(said()).toContain('1 as theirs, 1 as ours and 1 both');
    expect(send().disabled).toBe(false);
    press('Enter');
    await expect
      .poll(() => asked.at(-1)?.path === PATH && asked.at(-1)?.body)
      .toMatchObject({
        digest: 'd1',
        title: 'ours',
        choices: ['both', 'theirs'],
      });
    await expect.poll(here).toBe(`/articles/${A}`);
  });

  it('all of theirs is taken without sending anything, and the last choice can be taken back', async () => {
    const { hands } = opened();
    await hands.click(await screen.findByRole('button', { name: /Take all theirs/ }));
    expect(screen.getByRole('button', { name: /Take it into ours/ })).toBeDefined();
    press('z');
    expect(said()).toContain('3 places still to choose');
    await hands.click(screen.getByRole('button', { name: /Put all ours back/ }));
    expect(screen.getByRole('button', { name: /Send it to Bowed/ })).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'take it off again' }));
    expect(said()).toContain('3 as ours');
  });

  it('that changed again is said, with a way to look again; what was chosen is not done', async () => {
    const { hands } = opened(SHOWN, {
      [`POST ${PATH}`]: () => new Problem(412, 'It was changed again since you looked.'),
    });
    await hands.click(await screen.findByRole('button', { name: /Take all theirs/ }));
    press('Enter');
    await screen.findByText(/changed again since you looked/);
    expect(screen.getByRole('button', { name: 'Look again' })).toBeDefined();
  });

  it('that is gone stays gone when that is said, and what is as it was asks for nothing', async () => {
    const gone = opened({ ...SHOWN, kind: 'gone', title: null, places: [] }, { [`POST ${PATH}`]: { done: true } });
    await gone.hands.click(await screen.findByRole('button', { name: 'It stays removed' }));
    await expect.poll(() => gone.asked.at(-1)?.body ?? gone.asked.at(-2)?.body).toMatchObject({ choices: [] });
  });

  it('as it was sent says so', async () => {
    opened({ ...SHOWN, kind: 'same', title: null, places: [] });
    await screen.findByText(/shows it as it was sent/);
  });

  it('that cannot be looked at says why', async () => {
    onScreen(<Shown />, {
      [`GET /articles/${A}`]: article(),
      [`GET ${PATH}`]: new Problem(502, 'Bowed does not take connections.'),
    });
    await screen.findByText(/does not take connections/);
  });
});
