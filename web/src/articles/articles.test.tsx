// @vitest-environment jsdom
import type { ArticleWhole } from '@grivo/contract';
import { type Block, EMPTY_ARTICLE } from '@grivo/core';
import { screen, waitFor, within } from '@testing-library/react';
import { Navigate, Route, Routes, useLocation } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { articleWhole, HOUR, id, NOW, slots } from '../testing/samples.ts';
import ArticlePage from './ArticlePage.tsx';
import { Page } from './Page.tsx';
import { fileName } from './SaveCopy.tsx';

/** Where the screen has gone. */
function Here() {
  return <output aria-label="here">{useLocation().pathname}</output>;
}
const here = () => screen.getByRole('status', { name: 'here' }).textContent;

const passage = (letter: string, text: string, change = {}) => ({
  id: letter,
  text,
  title: 'The luthier’s year',
  place: 'page 3',
  address: 'https://year.example/3',
  ...change,
});
const LONG =
  'Gut strings answer the bow sooner than steel does, and they go out of tune with every change of the weather in the hall.';
const rests = (passage: string) => ({ passage, digest: '' });
const body: Block[] = [
  { type: 'heading', id: 'h1', level: 2, text: 'How they answer' },
  {
    type: 'paragraph',
    id: 'p1',
    content: [{ text: 'Gut answers sooner; it lasts 3 months.' }],
    evidence: [rests('m1'), rests('m2')],
  },
  { type: 'paragraph', id: 'p2', content: [{ text: 'It costs 40 euros.' }], evidence: [] },
  {
    type: 'list',
    id: 'l1',
    ordered: false,
    items: [[{ text: 'Steel holds.' }]],
    evidence: [rests('m2')],
  },
];
const whole = (change: Partial<ArticleWhole> = {}): ArticleWhole =>
  articleWhole({
    document: {
      ...EMPTY_ARTICLE,
      title: 'Gut or steel',
      description: 'Which string answers sooner.',
      hashtags: ['#strings'],
      body,
    },
    passages: [passage('m1', LONG), passage('m2', 'Steel holds its tuning.', { place: '01:48', address: '' })],
    measures: [
      { name: 'Words', value: 420, least: 500, most: 900, unit: 'words', says: 'as the outline asks', place: null },
      { name: 'Readability', value: 61, least: null, most: null, unit: '', says: 'easy', place: null },
    ],
    doubts: [{ block: 'p2', kind: 'figure', words: '40 euros' }],
    ...change,
  });

describe('the page of an article', () => {
  it('beside a paragraph stands what it rests on, in short until it is looked at', async () => {
    const picked = vi.fn();
    const { hands } = onScreen(<Page article={whole()} at={null} onAt={picked} />);
    const row = document.getElementById('block-p1')!;
    expect(within(row).getByText(/^“Gut strings answer the bow sooner/).textContent).toMatch(/…”$/);
    expect(within(row).getByText('and 1 passage more')).toBeDefined();
    expect(within(row).getByRole('link').getAttribute('href')).toBe('https://year.example/3');
    await hands.click(within(row).getByText(/Gut answers sooner/));
    expect(picked).toHaveBeenCalledWith('p1');
  });

  it('looked at, every passage stands there whole; what is nowhere on the web leads nowhere', () => {
    onScreen(<Page article={whole()} at="p1" onAt={() => undefined} />);
    const row = document.getElementById('block-p1')!;
    expect(within(row).getByText(`“${LONG}”`)).toBeDefined();
    expect(within(row).getByText('01:48')).toBeDefined();
    expect(within(row).getAllByRole('link')).toHaveLength(1);
  });

  it('a figure that no source holds is said at its paragraph, and what rests on nothing too', () => {
    onScreen(<Page article={whole()} at={null} onAt={() => undefined} />);
    const row = document.getElementById('block-p2')!;
    expect(within(row).getByText('‘40 euros’ stands in no source')).toBeDefined();
    expect(within(row).getByText('rests on nothing')).toBeDefined();
    expect(document.getElementById('block-h1')!.textContent).toBe('How they answer');
  });

  it('what whoever cannot see the lead picture is told stands beside the title', () => {
    const lead: Block = {
      type: 'figure',
      id: 'lead',
      file: 'f'.repeat(64),
      width: 1_200,
      height: 800,
      alternative: 'Two pegs beside a bridge.',
      lead: true,
    };
    const { document: doc } = whole();
    onScreen(
      <Page article={whole({ document: { ...doc, body: [lead, ...body] } })} at={null} onAt={() => undefined} />,
    );
    expect(screen.getByText('alternative text: Two pegs beside a bridge.')).toBeDefined();
    expect(screen.getByAltText('Two pegs beside a bridge.')).toBeDefined();
  });

  it('an article without sources says so once', () => {
    onScreen(<Page article={whole({ passages: [], doubts: [] })} at={null} onAt={() => undefined} />);
    expect(screen.getByText('nothing in this article rests on a source')).toBeDefined();
  });
});

describe('an article by itself', () => {
  const A = id('a');
  const shown = (one: ArticleWhole | Problem = whole(), more: Record<string, Answer> = {}) => {
    return onScreen(
      <>
        <Routes>
          <Route path="/articles/:id" element={<ArticlePage />} />
          <Route path="/" element={<Navigate to={`/articles/${A}`} />} />
        </Routes>
        <Here />
      </>,
      {
        [`GET /articles/${A}`]: one instanceof Problem ? () => one : one,
        [`GET /articles/${A}/neighbours`]: { newer: null, older: id('o') },
        [`GET /articles/${id('o')}`]: whole({ id: id('o'), title: 'Older' }),
        [`GET /articles/${id('o')}/neighbours`]: { newer: A, older: null },
        'GET /slots?days=7': slots(),
        'GET /labels': { labels: [] },
        ...more,
      },
    );
  };
  beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

  it('says how much rests on evidence, what is out of its range, and which figures nobody said', async () => {
    const { hands } = shown();
    const aside = await screen.findByRole('complementary', { name: 'Measures' });
    expect(within(aside).getByText('0 of 1 in range')).toBeDefined();
    expect(within(aside).getByText('Words').className).toContain('text-red');
    expect(within(aside).getByText('Readability').className).not.toContain('text-red');
    const led = vi.fn();
    document.getElementById('block-p2')!.scrollIntoView = led;
    await hands.click(within(aside).getByRole('button', { name: '‘40 euros’ stands in no source' }));
    expect(led).toHaveBeenCalled();
  });

  it('keys go from paragraph to paragraph, and to the article before and after', async () => {
    const { hands } = shown();
    await screen.findByText('Gut answers sooner; it lasts 3 months.');
    await hands.keyboard('j');
    expect(within(document.getElementById('block-p1')!).getByText(`“${LONG}”`)).toBeDefined();
    await hands.keyboard('jk');
    expect(within(document.getElementById('block-p1')!).getByText(`“${LONG}”`)).toBeDefined();
    await hands.keyboard('[[');
    expect(here()).toBe(`/articles/${A}`);
    await hands.keyboard(']');
    await waitFor(() => expect(here()).toBe(`/articles/${id('o')}`));
  });

  it('one that its blog keeps until a moment leads there for its owner alone', async () => {
    shown(whole({ standing: 'ready', address: 'https://bowed.example/gut' }));
    expect(await screen.findByRole('link', { name: 'Open it there, for the owner of the blog' })).toBeDefined();
  });

  it('an article that is out says since when and leads there; one that waits says when it goes', async () => {
    const { unmount } = shown(
      whole({ standing: 'out', outDesk: NOW - 24 * HOUR, address: 'https://bowed.example/gut' }),
    );
    await screen.findByText(/^since Sun 3 May 08:00/);
    expect(screen.getByRole('link', { name: 'Open it on the blog' }).getAttribute('href')).toBe(
      'https://bowed.example/gut',
    );
    unmount();
    queryClient.clear();
    shown(whole({ dueDesk: NOW + 24 * HOUR }));
    await screen.findByText(/^goes out Tue 5 May/);
    expect(screen.queryByRole('link', { name: /Open it/ })).toBeNull();
  });

  it('one that cannot be read says why', async () => {
    shown(new Problem(404, 'There is no such article.'));
    await screen.findByText(/There is no such article/);
  });
});

describe('the name of a file', () => {
  it.each([
    ['Gut or steel?', 'gut-or-steel'],
    ['Über Saiten: ein Jahr', 'über-saiten-ein-jahr'],
    ['…', 'article'],
  ])('%s becomes %s', (title, name) => expect(fileName(title)).toBe(name));
});
