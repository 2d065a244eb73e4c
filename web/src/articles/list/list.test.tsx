// @vitest-environment jsdom
import type { Article } from '@grivo/contract';
import { screen, waitFor, within } from '@testing-library/react';
import { useLocation } from 'react-router';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { queryClient } from '../../api/queries.ts';
import { type Answer, onScreen, Problem } from '../../testing/onScreen.tsx';
import { article, blog, HOUR, id, NOW, pipeline, slots, source } from '../../testing/samples.ts';
import Articles from './Articles.tsx';
import { grouped } from './grouped.ts';
import { wordsIn } from './wanted.ts';

/** Where the screen has gone. */
function Here() {
  const { pathname, search } = useLocation();
  return <output aria-label="here">{pathname + search}</output>;
}
const here = () => screen.getByRole('status', { name: 'here' }).textContent;

const DAY = 24 * HOUR;
const list: Article[] = [
  article('c', 'Bridges that lean', { dueDesk: NOW - DAY, standing: 'in work' }),
  article('a', 'Gut or steel', { dueDesk: NOW + DAY, standing: 'held' }),
  article('i', '', { standing: 'held', words: 1 }),
  article('g', 'Pegs that slip', { standing: 'draft', outDesk: NOW - DAY }),
  article('d', 'Rosin in winter', {
    outDesk: NOW - 2 * DAY,
    standing: 'out',
    blog: id('e'),
    outOfRange: [{ name: 'Reading grade', value: 13.1, unit: '', side: 'over' }],
  }),
  article('f', 'Frets by hand', { outDesk: NOW - 3 * DAY, standing: 'out', outOfRange: null }),
];

/** Answers as the server does: by standing, by words of the title, in pages of `size`. */
function pages(size = 200) {
  return ({ path }: { path: string }) => {
    const asks = new URLSearchParams(path.split('?')[1]);
    const words = asks.get('q') ?? '';
    const fitting = list.filter(
      (one) =>
        (!asks.has('standing') || one.standing === asks.get('standing')) &&
        (!asks.has('blog') || one.blog === asks.get('blog')) &&
        one.title.toLowerCase().includes(words),
    );
    const from = Number(asks.get('before') ?? 0);
    const to = from + Math.min(size, Number(asks.get('limit')));
    return { articles: fitting.slice(from, to), next: to < fitting.length ? String(to) : null };
  };
}

const shown = (more: Record<string, Answer> = {}) =>
  onScreen(
    <>
      <Articles />
      <Here />
    </>,
    {
      'GET /articles/count*': ({ path }) => ({ shown: path.includes('?') ? 1 : 6, all: 6, held: 2 }),
      'GET /articles?*': pages(),
      'GET /blogs': { blogs: [blog(), blog({ id: id('e'), name: 'Plucked strings of the north', out: 1 })] },
      'GET /pipelines': { pipelines: [pipeline()] },
      'GET /sources': { sources: [source({ name: 'Makers of strings' })] },
      'GET /slots?days=7': slots(),
      'GET /labels': { labels: [] },
      'GET /lists': { lists: [] },
      ...more,
    },
  );
const titles = () =>
  within(screen.getByRole('group', { name: 'Articles' }))
    .getAllByRole('link')
    .map((one) => one.textContent);

beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

describe('the list', () => {
  it('has what comes, then drafts, then what is out by its week, each heading with how many', async () => {
    shown();
    await screen.findByText('Gut or steel');
    expect(titles()).toEqual([
      'Bridges that lean',
      'Gut or steel',
      'no title yet',
      'Pegs that slip',
      'Rosin in winter',
      'Frets by hand',
    ]);
    await screen.findByText('6 shown of 6');
    expect(screen.getByText('Out, week of 27 Apr').textContent).toContain('2');
  });

  it('is narrowed by a source and by what was paid, and its address says so', async () => {
    const { hands } = shown();
    await screen.findByText('Gut or steel');
    await hands.click(await screen.findByRole('button', { name: /^Sources/ }));
    await hands.click(screen.getByRole('radio', { name: 'Makers of strings' }));
    await hands.click(screen.getByRole('button', { name: /^Cost/ }));
    await hands.click(screen.getByRole('radio', { name: /^that cost 0\.25/ }));
    expect(here()).toMatch(/source=\w{20}&cost=250000/);
  });

  it('marks an article whose slot has passed, and says of one that it has none', async () => {
    shown();
    const late = (await screen.findByText('Bridges that lean')).closest('.row') as HTMLElement;
    expect(within(late).getByText(/^Sun 3/).className).toContain('text-red');
    const none = screen.getByText('no title yet').closest('.row') as HTMLElement;
    expect(within(none).getByText('no slot')).toBeDefined();
  });

  it('says in words what is out of range, and leaves open what was not looked at', async () => {
    shown();
    const row = (await screen.findByText('Rosin in winter')).closest('.row') as HTMLElement;
    expect(within(row).getByRole('img', { name: 'Reading grade 13.1, over' })).toBeDefined();
    const other = screen.getByText('Frets by hand').closest('.row') as HTMLElement;
    expect(within(other).queryByRole('img', { name: /range/ })).toBeNull();
    expect(
      within(screen.getByText('Gut or steel').closest('.row') as HTMLElement).getByRole('img', {
        name: 'all measures in range',
      }),
    ).toBeDefined();
  });

  it('is read on where its pages end, and has each article once', async () => {
    shown({ 'GET /articles?*': pages(2) });
    await screen.findByText('Frets by hand');
    expect(titles()).toHaveLength(6);
  });

  it('goes from row to row by keys, and opens one', async () => {
    const { hands } = shown();
    await screen.findByText('Gut or steel');
    await hands.keyboard('jjk{Enter}');
    await waitFor(() => expect(here()).toBe(`/articles/${id('a')}`));
  });

  it('with none at all leads to the pipelines', async () => {
    shown({ 'GET /articles?*': { articles: [], next: null } });
    await screen.findByText('No article yet.');
    expect(screen.getByRole('link', { name: 'See the pipelines' }).getAttribute('href')).toBe('/pipelines');
  });

  it('says that it cannot be read', async () => {
    shown({ 'GET /articles?*': () => new Problem(503, 'The database does not answer.') });
    await screen.findByText(/The database does not answer/);
  });
});

describe('its sentence', () => {
  it('is kept in the address, and asks for what all of its words say', async () => {
    const { hands } = shown();
    await screen.findByText('Gut or steel');
    await hands.click(screen.getByRole('button', { name: /^Standing/ }));
    await hands.click(screen.getByRole('radio', { name: /^out/ }));
    await waitFor(() => expect(titles()).toEqual(['Rosin in winter', 'Frets by hand']));
    await hands.click(screen.getByRole('button', { name: /^Blogs/ }));
    await hands.click(screen.getByRole('radio', { name: /^Plucked/ }));
    await waitFor(() => expect(titles()).toEqual(['Rosin in winter']));
    expect(here()).toBe(`/?standing=out&blog=${id('e')}`);
    await hands.type(screen.getByRole('searchbox', { name: 'Words in articles' }), 'frets');
    await screen.findByText('No article fits this.');
    expect(here()).toContain('q=frets');
    expect(screen.getByRole('button', { name: /^Order: the best fit first/ })).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Clear' }));
    await waitFor(() => expect(titles()).toEqual(['Rosin in winter']));
  });

  it('leaves away what it does not understand of an address', () => {
    const words = (search: string) => String(wordsIn(new URLSearchParams(search)));
    expect(words('standing=out&colour=red')).toBe('standing=out');
    expect(words('standing=gone&blog=x&days=-1&mark=Length&order=fit')).toBe('mark=Length');
    expect(words(`q=${'x'.repeat(300)}&order=slot`)).toBe('order=slot');
  });

  it('is kept by a name, opened again, renamed and forgotten', async () => {
    const lists = [{ id: id('l'), name: 'To mend', wanted: 'mark=any' }];
    const { hands, asked } = shown({
      'GET /lists': { lists },
      'POST /lists': { id: id('m') },
      [`PATCH /lists/${id('l')}`]: {},
      [`DELETE /lists/${id('l')}`]: {},
    });
    await hands.click(await screen.findByRole('button', { name: /^Kept lists/ }));
    await hands.click(screen.getByRole('button', { name: 'To mend' }));
    await waitFor(() => expect(here()).toBe('/?mark=any'));
    await hands.click(screen.getByRole('button', { name: 'Kept lists: To mend' }));
    await hands.click(screen.getByRole('button', { name: 'Rename To mend' }));
    await hands.clear(screen.getByRole('textbox', { name: 'Another name for To mend' }));
    await hands.type(screen.getByRole('textbox', { name: 'Another name for To mend' }), 'Weak ones{Enter}');
    await hands.click(await screen.findByRole('button', { name: 'Forget To mend' }));
    await hands.type(screen.getByRole('textbox', { name: 'Keep what is shown as' }), 'Marked{Enter}');
    await waitFor(() => expect(asked.map(({ method }) => method)).toEqual(['PATCH', 'DELETE', 'POST']));
    expect(asked.map(({ body }) => body)).toEqual([
      { name: 'Weak ones' },
      undefined,
      { name: 'Marked', wanted: 'mark=any' },
    ]);
  });
});

describe('several at once', () => {
  it('are picked by the space bar, as a range and all; what fits them is offered', async () => {
    const { hands } = shown();
    await screen.findByText('Gut or steel');
    // The row of before is kept.
    await hands.keyboard('kkk ');
    expect(screen.getByText(/^1 picked, 900 words/)).toBeDefined();
    expect(screen.queryByRole('button', { name: /^Pass/ })).toBeNull();
    await hands.keyboard('{Shift>}');
    await hands.click(screen.getByRole('checkbox', { name: 'Pick Pegs that slip' }));
    await hands.keyboard('{/Shift}');
    expect(screen.getByText(/^4 picked, 2,701 words/)).toBeDefined();
    expect(screen.getByRole('button', { name: 'Pass 2 P' })).toBeDefined();
    expect(screen.getByRole('button', { name: 'Set aside (3)' })).toBeDefined();
    expect(screen.getByRole('button', { name: 'Update on blogs (1)' })).toBeDefined();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Remove…' }).disabled).toBe(true);
    await hands.keyboard('a');
    await screen.findByText(/^6 picked/);
    await hands.keyboard('{Escape}');
    expect(screen.queryByText(/picked/)).toBeNull();
  });

  it('are passed by one key, and what was left says why', async () => {
    const { hands, asked } = shown({
      'POST /articles/decide': {
        done: 1,
        left: [{ id: id('i'), title: '', why: 'Somebody else decided on it meanwhile.' }],
      },
    });
    await screen.findByText('Gut or steel');
    await hands.keyboard('ap');
    const came = await screen.findByRole('group', { name: 'What came of it' });
    expect(came.textContent).toContain('Passing: 1 article done, 1 left as it is.');
    expect(came.textContent).toContain('no title yet: Somebody else decided on it meanwhile.');
    expect(asked).toEqual([
      { method: 'POST', path: '/articles/decide', body: { articles: [id('a'), id('i')], decide: 'pass' } },
    ]);
    await hands.click(screen.getByRole('button', { name: 'Seen' }));
    expect(screen.queryByRole('group', { name: 'What came of it' })).toBeNull();
  });

  it('are sent back with a note; taken back only once that was asked', async () => {
    const { hands, asked } = shown({
      'POST /articles/decide': { done: 2, left: [] },
      'POST /articles/many': { done: 3, left: [] },
    });
    await screen.findByText('Gut or steel');
    await hands.keyboard('ab');
    await hands.type(
      screen.getByRole('textbox', { name: /^What is to be done differently in all 2/ }),
      'shorter{Enter}',
    );
    await screen.findByText(/Sending back: 2 articles done/);
    await hands.click(screen.getByRole('button', { name: 'Take back… (3)' }));
    expect(asked).toHaveLength(1);
    await hands.click(screen.getByRole('button', { name: 'Take back' }));
    await screen.findByText(/Taking back: 3 articles done/);
    expect(asked.map(({ body }) => body)).toEqual([
      { articles: [id('a'), id('i')], decide: 'send back', note: 'shorter' },
      { articles: [id('g'), id('d'), id('f')], do: 'withdraw' },
    ]);
  });

  it('those to come are moved to free slots, and all of them are labelled', async () => {
    const label = { id: id('l'), name: 'Strings', on: { blog: 0, source: 0, pipeline: 0, style: 0, article: 0 } };
    const { hands, asked } = shown({
      'GET /labels': { labels: [label] },
      'POST /articles/many': { done: 2, left: [] },
    });
    await screen.findByText('Gut or steel');
    await hands.keyboard('a');
    await hands.click(await screen.findByRole('button', { name: /^Move to slots/ }));
    await hands.click(screen.getByRole('radio', { name: /^those in a week/ }));
    await screen.findByText(/Moving: 2 articles done/);
    await hands.click(screen.getByRole('button', { name: /^Label them/ }));
    await hands.click(screen.getByRole('radio', { name: /^put ‘Strings’ on/ }));
    await screen.findByText(/Labelling: 2 articles done/);
    const [moved, labelled] = asked.map(({ body }) => body as { from?: number; articles: string[] });
    expect(moved).toMatchObject({ articles: [id('c'), id('a')], do: 'move' });
    expect(Math.abs(moved!.from! - NOW - 7 * DAY)).toBeLessThan(HOUR);
    expect(labelled).toMatchObject({ do: 'label', label: id('l'), on: true });
    expect(labelled!.articles).toHaveLength(6);
  });

  it('are put in other words one by one, at a price that is said before', async () => {
    const { hands, asked } = shown({
      'POST /articles/many/price': { micros: 1_230_000 },
      'POST /articles/many': { done: 1, left: [] },
    });
    await screen.findByText('Gut or steel');
    await hands.keyboard('a');
    await hands.click(screen.getByRole('button', { name: /^Put in other words/ }));
    await screen.findByText(/^About 1\.23 € for all of them/);
    await hands.click(screen.getByRole('radio', { name: /^freely/ }));
    await screen.findByText(/Putting in other words: 6 articles done/);
    const puts = asked
      .filter(({ path }) => path === '/articles/many')
      .map(({ body }) => body as { articles: string[] });
    expect(puts.map(({ articles }) => articles.length)).toEqual([1, 1, 1, 1, 1, 1]);
    expect(puts[0]).toMatchObject({ do: 'put', degree: 'freely' });
  });

  it('that an answer did not come is said, with how many were not come to', async () => {
    const { hands } = shown({ 'POST /articles/decide': () => new Problem(503, 'The database is away.') });
    await screen.findByText('Gut or steel');
    await hands.keyboard('ap');
    await screen.findByText('The database is away. Try.');
    expect(screen.getByText(/Passing: 0 articles done, 2 not come to/)).toBeDefined();
  });
});

it('of the last heading it is not said how many stand under it while there are more', () => {
  const heads = (whole: boolean) =>
    grouped(list, whole, true).flatMap((line) => (line.kind === 'head' ? [line.n] : []));
  expect(heads(true)).toEqual([3, 1, 2]);
  expect(heads(false)).toEqual([3, 1, null]);
  expect(grouped(list, true, false).every(({ kind }) => kind === 'article')).toBe(true);
  expect(grouped([], false, true)).toEqual([]);
});
vi.setConfig({ testTimeout: 60_000 });
