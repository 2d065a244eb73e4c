// @vitest-environment jsdom
import type { BlogLinks, Clicks, Forwards, Pages, Rule, RulesTried } from '@grivo/contract';
import { screen, waitFor, within } from '@testing-library/react';
import { Navigate, Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../../api/queries.ts';
import { type Answer, onScreen, Problem } from '../../testing/onScreen.tsx';
import { blog, id, slots } from '../../testing/samples.ts';
import LinksPage from './LinksPage.tsx';
import { mendedInWords, shortAddress, times } from './useLinks.ts';

const B = blog().id;
beforeEach(() => {
  queryClient.clear();
  queryClient.setDefaultOptions({ queries: { retry: false } });
});

const rule = (change: Partial<Rule> = {}): Rule => ({
  id: id('r'),
  blog: B,
  words: 'violin string',
  address: 'https://gut.example/strings',
  most: 2,
  placing: 'spread',
  after: 0,
  forms: true,
  anyCase: true,
  sponsored: true,
  placed: 7,
  rev: 4,
  ...change,
});
const links = (change: Partial<BlogLinks> = {}): BlogLinks => ({
  stand: {
    links: 12,
    articles: 5,
    answers: 9,
    dead: 1,
    moved: 1,
    unsure: 1,
    waiting: 0,
    lookedAt: '2026-03-02T08:00:00.000Z',
  },
  dead: [
    {
      address: 'https://old.example/bow',
      state: 'dead',
      reason: 'is not there',
      since: '2026-03-01T08:00:00.000Z',
      articles: [
        { id: id('a'), title: 'Rehairing a bow', anchor: 'bow hair' },
        { id: id('c'), title: 'Rosin', anchor: 'rosin' },
      ],
      replacement: { address: 'https://new.example/bow', why: 'the same page, elsewhere now' },
    },
    {
      address: 'https://old.example/pegs',
      state: 'moved',
      reason: 'moved for good',
      since: '2026-03-01T08:00:00.000Z',
      articles: [{ id: id('a'), title: 'Rehairing a bow', anchor: 'pegs' }],
      replacement: null,
    },
  ],
  addresses: [
    { id: id('k'), blog: B, kind: 'own', address: 'https://shop.example/ask', goodFor: 'orders', links: 3, rev: 1 },
    { id: id('m'), blog: null, kind: 'outside', address: 'https://lab.example', goodFor: 'varnish', links: 0, rev: 2 },
  ],
  ...change,
});
const forwards: Forwards = {
  to: [
    {
      article: id('n'),
      title: 'Gut strings',
      from: [
        {
          article: id('o'),
          title: 'An old one',
          block: 'b1',
          anchor: 'gut strings',
          sentence: 'Then gut strings were dear.',
        },
      ],
    },
  ],
};
const tried: RulesTried = {
  article: id('a'),
  title: 'Rehairing a bow',
  texts: [
    {
      kind: 'text',
      parts: [
        { text: 'A ', placed: false },
        { text: 'violin string', placed: true },
      ],
      notes: [
        { words: 'violin string', says: '1 of 2, sponsored', placed: true },
        { words: 'violin strings', says: 'in a heading, left alone', placed: false },
      ],
    },
  ],
  placed: 1,
  alone: 1,
};
const pages: Pages = {
  pages: [{ id: '0'.repeat(64), address: 'https://blog.example/x', title: 'A page', isOurs: false, isBarred: false }],
  total: 1,
  next: null,
};

const clicks = (change: Partial<Clicks> = {}): Clicks => ({
  counts: false,
  can: true,
  left: 0,
  days: [
    { day: '2026-03-01', times: 0 },
    { day: '2026-03-02', times: 0 },
  ],
  links: [],
  articles: [],
  ...change,
});

const show = (answers: Record<string, Answer> = {}) =>
  onScreen(
    <Routes>
      <Route path="/blogs/:id/links" element={<LinksPage />} />
      <Route path="/" element={<Navigate to={`/blogs/${B}/links`} />} />
    </Routes>,
    {
      'GET /blogs': { blogs: [blog()] },
      'GET /slots?days=14': slots(),
      'GET /articles?*': { articles: [], next: null },
      [`GET /blogs/${B}/links`]: links(),
      [`GET /blogs/${B}/links/rules?find=&from=0`]: { rules: [rule()], total: 1, found: 1, next: null },
      [`GET /blogs/${B}/links/forward`]: forwards,
      [`GET /blogs/${B}/clicks`]: clicks(),
      [`GET /blogs/${B}/links/try`]: tried,
      [`GET /blogs/${B}/links/pages?find=`]: pages,
      ...answers,
    },
  );

describe('the links of a blog', () => {
  it('say how they stand, which are dead since when and what would take their place', async () => {
    show();
    expect(await screen.findByText(/9 addresses answer/)).toBeTruthy();
    expect(screen.getByText('1 is dead')).toBeTruthy();
    expect(screen.getByText('1 moved for good')).toBeTruthy();
    expect(screen.getByText('12 links in 5 live articles')).toBeTruthy();
    const dead = screen.getByText('old.example/bow').closest('li')!;
    expect(dead.textContent).toMatch(/is not there, since/);
    expect(dead.textContent).toContain('the same page, elsewhere now');
    const moved = screen.getByText('old.example/pegs').closest('li')!;
    expect(within(moved).queryByRole('button', { name: 'Mend' })).toBeNull();
    expect(moved.textContent).toContain('nothing found; choose an address');
  });

  it('are mended one by one; what was done and what was left is said', async () => {
    const { hands, asked } = show({
      [`POST /blogs/${B}/links/mend`]: {
        articles: 2,
        updated: 1,
        left: [{ article: id('c'), title: 'Rosin', why: 'somebody changed the post on the blog; settle that first' }],
      },
    });
    const dead = (await screen.findByText('old.example/bow')).closest('li')!;
    await hands.click(within(dead).getByRole('button', { name: /in 2 articles/ }));
    expect(within(dead).getByRole('link', { name: 'Rosin' })).toBeTruthy();
    await hands.click(within(dead).getByRole('button', { name: 'Mend' }));
    expect(await screen.findByText(/2 articles changed here, 1 post brought up to date/)).toBeTruthy();
    expect(screen.getByText(/settle that first/)).toBeTruthy();
    expect(asked.at(-1)).toMatchObject({ body: { from: 'https://old.example/bow', to: 'https://new.example/bow' } });
  });

  it('taking one off is asked about first', async () => {
    const { hands, asked } = show({ [`POST /blogs/${B}/links/mend`]: { articles: 1, updated: 1, left: [] } });
    const moved = (await screen.findByText('old.example/pegs')).closest('li')!;
    await hands.click(within(moved).getByRole('button', { name: 'Take it off' }));
    const asks = await screen.findByRole('alertdialog');
    expect(asked).toEqual([]);
    await hands.click(within(asks).getByRole('button', { name: 'Take it off' }));
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ body: { from: 'https://old.example/pegs', to: null } }));
  });

  it('with none dead and nothing read says so', async () => {
    show({
      [`GET /blogs/${B}/links`]: links({
        dead: [],
        addresses: [],
        stand: { links: 0, articles: 0, answers: 0, dead: 0, moved: 0, unsure: 0, waiting: 0, lookedAt: null },
      }),
      [`GET /blogs/${B}/links/rules?find=&from=0`]: { rules: [], total: 0, found: 0, next: null },
      [`GET /blogs/${B}/links/forward`]: { to: [] },
      [`GET /blogs/${B}/links/try`]: () => new Problem(404, 'No article.'),
      [`GET /blogs/${B}/links/pages?find=`]: { pages: [], total: 0, next: null },
    });
    expect(await screen.findByText(/No live article here has a link yet/)).toBeTruthy();
    expect(await screen.findByText('No link of a live article is known to be dead.')).toBeTruthy();
    expect(await screen.findByText(/A rule links words wherever/)).toBeTruthy();
    expect(await screen.findByText(/Nothing is on .* yet to try the rules on/)).toBeTruthy();
    expect(await screen.findByText(/None is known/)).toBeTruthy();
  });
});

describe('rules', () => {
  it('are sentences whose words are changed from what was read', async () => {
    const { hands, asked } = show({ [`PUT /link-rules/${id('r')}`]: rule({ sponsored: false, rev: 5 }) });
    await hands.click(await screen.findByRole('button', { name: 'violin string' }));
    expect(screen.getByText(/Never in a heading/).textContent).toMatch(
      /Link violin string and its forms, in capitals or not, to https:\/\/gut\.example\/strings, at most twice an article, spread over the text from the beginning/,
    );
    await hands.click(screen.getByRole('button', { name: 'Marked: marked as sponsored' }));
    await hands.click(await screen.findByRole('radio', { name: /a plain link/ }));
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({ method: 'PUT', body: { words: 'violin string', sponsored: false } }),
    );
  });

  it('a new one needs words and an address, and what is no address is told at the field', async () => {
    const { hands, asked } = show({ 'POST /link-rules': { id: id('q') } });
    await hands.type(await screen.findByLabelText('Words'), 'rosin');
    await hands.type(screen.getByLabelText('Lead to'), 'gut.example');
    await hands.click(screen.getByRole('button', { name: 'Add a rule' }));
    expect(await screen.findByText(/begins with https/)).toBeTruthy();
    expect(asked).toEqual([]);
    await hands.clear(screen.getByLabelText('Lead to'));
    await hands.type(screen.getByLabelText('Lead to'), 'https://gut.example/rosin');
    await hands.click(screen.getByRole('button', { name: 'Add a rule' }));
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({ body: { words: 'rosin', address: 'https://gut.example/rosin', blog: B } }),
    );
  });

  it('show what they make of an article, and what they leave alone', async () => {
    show();
    expect(await screen.findByText('1 link placed, 1 word left alone')).toBeTruthy();
    expect(screen.getByText(/in a heading, left alone/)).toBeTruthy();
  });
});

describe('what may be linked to', () => {
  it('older articles lead forward, or are let go', async () => {
    const { hands, asked } = show({ [`POST /blogs/${B}/links/forward`]: { articles: 1, updated: 1, left: [] } });
    await hands.click(await screen.findByRole('button', { name: 'Link: An old one to Gut strings' }));
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({
        body: { article: id('o'), block: 'b1', anchor: 'gut strings', to: id('n') },
      }),
    );
    await hands.click(screen.getByRole('button', { name: 'Not this: An old one' }));
    expect(await screen.findByText(/No older article says/)).toBeTruthy();
  });

  it('addresses are kept with what they are good for, changed there, and removed', async () => {
    const { hands, asked } = show({
      'POST /kept-addresses': { id: id('z') },
      [`PUT /kept-addresses/${id('k')}`]: () => undefined,
      [`DELETE /kept-addresses/${id('m')}`]: () => undefined,
    });
    await hands.click(await screen.findByRole('button', { name: 'What it is good for: orders' }));
    await hands.clear(screen.getByLabelText('What it is good for'));
    await hands.type(screen.getByLabelText('What it is good for'), 'orders, repairs{Enter}');
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ method: 'PUT', body: { goodFor: 'orders, repairs' } }));
    await hands.click(screen.getByRole('button', { name: 'Remove: lab.example' }));
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ method: 'DELETE' }));
  });

  it('a page is barred by one press', async () => {
    const { hands, asked } = show({ [`POST /blogs/${B}/links/pages`]: () => undefined });
    await hands.click(await screen.findByRole('button', { name: 'Never link to it: A page' }));
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ body: { barred: true } }));
  });
});

it('numbers and addresses read as people say them', () => {
  expect([times(1), times(2), times(5)]).toEqual(['once', 'twice', '5 times']);
  expect(shortAddress('https://www.gut.example/a/')).toBe('gut.example/a');
  expect(shortAddress('https://gut.example/strings/of/silk?partner=7', 24)).toBe('gut.example/…/silk');
  expect(mendedInWords({ articles: 3, updated: 3, left: [] })).toBe('3 articles changed, here and on the blog.');
  expect(mendedInWords({ articles: 0, updated: 0, left: [] })).toBe('Nothing was left to change.');
});

describe('links that are followed', () => {
  const counted = clicks({
    counts: true,
    days: [
      { day: '2026-03-01', times: 3 },
      { day: '2026-03-02', times: 1 },
    ],
    links: [{ address: 'https://gut.example/strings', times: 4, articles: 2 }],
    articles: [
      { id: id('a'), title: 'Rehairing a bow', times: 3 },
      { id: id('n'), title: 'Gut strings', times: 1 },
    ],
  });

  it('are not counted until it is said, which says what it means; posts still to be brought are told', async () => {
    const { hands, asked } = show({
      [`PUT /blogs/${B}/clicks`]: clicks({ counts: true, left: 3 }),
    });
    await hands.click(await screen.findByRole('button', { name: /Whether links are counted/ }));
    expect(screen.getByText(/nothing is kept of who follows it/)).toBeTruthy();
    await hands.click(screen.getByRole('radio', { name: /counted when they are followed/ }));
    await waitFor(() => expect(asked).toEqual([{ method: 'PUT', path: `/blogs/${B}/clicks`, body: { counts: true } }]));
    expect(await screen.findByText(/3 posts are still to be brought to this/)).toBeTruthy();
    expect(screen.getByText(/Nobody has followed one yet/)).toBeTruthy();
  });

  it('are told by day, by where they lead and by article, and of one article alone', async () => {
    const { hands } = show({
      [`GET /blogs/${B}/clicks`]: counted,
      [`GET /blogs/${B}/clicks?article=${id('n')}`]: {
        ...counted,
        days: [{ day: '2026-03-02', times: 1 }],
        links: [{ address: 'https://gut.example/strings', times: 1, articles: 1 }],
        articles: [counted.articles[1]!],
      },
    });
    expect(await screen.findByText('4 times in 30 days')).toBeTruthy();
    expect(screen.getByRole('img', { name: 'By day. 2026-03-01: 3, 2026-03-02: 1' })).toBeTruthy();
    expect(screen.getByText('gut.example/strings', { selector: 'a' }).closest('li')!.textContent).toContain(
      'in 2 articles4',
    );
    await hands.click(screen.getByRole('button', { name: 'only this: Gut strings' }));
    expect(await screen.findByText('1 time in 30 days')).toBeTruthy();
    await hands.click(screen.getByRole('button', { name: 'show all' }));
    expect(await screen.findByText('4 times in 30 days')).toBeTruthy();
  });

  it('cannot be counted where nobody knows where readers reach it, and that is said', async () => {
    show({ [`GET /blogs/${B}/clicks`]: clicks({ can: false }) });
    expect(await screen.findByText(/once whoever runs Grivo has said where readers reach it/)).toBeTruthy();
  });
});
