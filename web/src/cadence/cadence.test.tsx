// @vitest-environment jsdom
import type { Blog, BlogMoves, Slot } from '@grivo/contract';
import { screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { blog, cadence, HOUR, id, lane, NOW, slot, slots } from '../testing/samples.ts';
import Cadence from './Cadence.tsx';
import { CadenceSentence } from './CadenceSentence.tsx';

const B = id('b');
const PATH = `/blogs/${B}`;

describe('the sentence of a cadence', () => {
  function shown(change: Partial<Blog> = {}, moves: BlogMoves['moves'] = []) {
    const one = blog(change);
    return onScreen(<CadenceSentence blog={one} />, { [`PATCH ${PATH}`]: { blogs: [one], moves } });
  }
  const word = (name: RegExp) => screen.getByRole('button', { name });

  it('says the whole rule, and that a blog without pauses has none', () => {
    const { container } = shown();
    expect(container.textContent).toBe(
      '5 a week, Mon to Fri between 08:00 and 10:00 Europe/Dublin, at least 4 h apart, from 1 Jan 2024 on, without pauses',
    );
  });

  it('a gap that is no whole hour is said in minutes, days that are no run one by one', () => {
    const { container } = shown({
      cadence: { ...cadence, gapMinutes: 95, days: [1, 3], pauses: [{ from: '2026-06-01', to: '2026-06-01' }] },
    });
    expect(container.textContent).toContain('Mon, Wed between');
    expect(container.textContent).toContain('at least 95 min apart');
    expect(container.textContent).toContain('except 1 Jun 2026');
  });

  it('only the word that is changed is sent, so that what others change meanwhile stays', async () => {
    const { asked, hands } = shown();
    await hands.click(word(/^How many: 5/));
    const field = screen.getByRole('textbox', { name: 'articles, typed' });
    await hands.clear(field);
    await hands.type(field, '7{Enter}');
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).toMatchObject({
      method: 'PATCH',
      path: PATH,
      body: { cadence: { rate: { kind: 'count', n: 7, per: 'week' } } },
    });
    expect(Object.keys((asked[0]!.body as { cadence: object }).cadence)).toEqual(['rate']);
  });

  it('from so many a week to one every so many hours, the number stays', async () => {
    const { asked, hands } = shown();
    await hands.click(word(/^In what time/));
    await hands.click(screen.getByRole('radio', { name: /hours/ }));
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({ body: { cadence: { rate: { kind: 'every', n: 5, unit: 'hours' } } } }),
    );
  });

  it('a time that is none is not set, and the way to type one is said', async () => {
    const { asked, hands } = shown();
    await hands.click(word(/^From/));
    const field = screen.getByRole('textbox', { name: 'Time' });
    await hands.clear(field);
    await hands.type(field, 'soon{Enter}');
    expect(screen.getByText('A time as 8:30, 8 or 4 pm.')).toBeDefined();
    expect(asked).toEqual([]);
    await hands.clear(field);
    await hands.type(field, '7 am{Enter}');
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({ body: { cadence: { hours: { from: '07:00', to: '10:00' } } } }),
    );
  });

  it('a place that is no time zone is not set', async () => {
    const { asked, hands } = shown();
    await hands.click(word(/^Time zone/));
    const field = screen.getByRole('combobox', { name: 'Time zone' });
    await hands.clear(field);
    await hands.type(field, 'Atlantis{Enter}');
    expect(screen.getByText(/A place as Europe\/Dublin/)).toBeDefined();
    expect(asked).toEqual([]);
    await hands.clear(field);
    await hands.type(field, 'Europe/Lisbon{Enter}');
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ body: { cadence: { zone: 'Europe/Lisbon' } } }));
  });

  it('a pause that ends before it begins cannot be added; pauses stand by their first day', async () => {
    const { asked, hands } = shown({ cadence: { ...cadence, pauses: [{ from: '2026-12-24', to: '2027-01-02' }] } });
    await hands.click(word(/^Pauses/));
    const from = screen.getByLabelText('First day of the pause');
    const to = screen.getByLabelText('Last day of the pause');
    await hands.type(from, '2026-08-10');
    await hands.type(to, '2026-08-03');
    expect(screen.getByText('The last day comes before the first.')).toBeDefined();
    expect((screen.getByRole('button', { name: 'Add a pause' }) as HTMLButtonElement).disabled).toBe(true);
    await hands.clear(to);
    await hands.type(to, '2026-08-21');
    await hands.click(screen.getByRole('button', { name: 'Add a pause' }));
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({
        body: {
          cadence: {
            pauses: [
              { from: '2026-08-10', to: '2026-08-21' },
              { from: '2026-12-24', to: '2027-01-02' },
            ],
          },
        },
      }),
    );
  });

  it('the last day cannot be taken away: a cadence without days would never publish', async () => {
    const { asked, hands } = shown({ cadence: { ...cadence, days: [2] } });
    await hands.click(word(/^Days/));
    await hands.click(screen.getByRole('checkbox', { name: 'Tue' }));
    await hands.keyboard('{Escape}');
    expect(asked).toEqual([]);
  });

  it('finished articles keep their moments until it is said that they move', async () => {
    const moves = Array.from({ length: 7 }, (_, i) => ({
      article: id(String(i)),
      title: `Strings, part ${i + 1}`,
      from: NOW + i * 24 * HOUR,
      to: NOW + (i + 1) * 24 * HOUR,
    }));
    const { asked, hands } = shown({}, moves);
    await hands.click(word(/^In what time/));
    await hands.click(screen.getByRole('radio', { name: /^day/ }));
    await screen.findByText(/7 finished articles keep their moments/);
    expect(screen.getByText('and 2 more')).toBeDefined();
    expect(screen.getByText('Strings, part 1').parentElement!.textContent).toContain('Mon 4 May 09:00');
    await hands.click(screen.getByRole('button', { name: 'Move them' }));
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ method: 'PATCH', body: { move: true } }));
    await waitFor(() => expect(screen.queryByText(/keep their moments/)).toBeNull());
  });

  it('a change that is refused is said, and the rule stays as it was', async () => {
    const one = blog();
    const { hands, container } = onScreen(<CadenceSentence blog={one} />, {
      [`PATCH ${PATH}`]: () => new Problem(422, 'Two hours hold at most four articles.'),
    });
    await hands.click(word(/^In what time/));
    await hands.click(screen.getByRole('radio', { name: /^day/ }));
    await screen.findByText(/Two hours hold at most four articles/);
    expect(container.textContent).toContain('5 a week');
  });
});

describe('the chart of the cadence', () => {
  const MONDAY = Date.parse('2026-05-04T00:00:00Z');
  const A = id('a');
  const filled = (hours: number, letter: string, title: string, change: Partial<Slot> = {}) =>
    slot(hours, { standing: 'ready', article: id(letter), title, ...change });
  const own = [filled(24, 'a', 'Gut or steel'), slot(48), slot(72), filled(96, 'c', 'Rosin in winter')];

  function shown(answers: Record<string, Answer> = {}, given: Slot[] = own) {
    const four = { ...slots(lane(given)), from: MONDAY, to: MONDAY + 28 * 24 * HOUR };
    return onScreen(<Cadence />, {
      'GET /slots?days=7': slots(lane(given)),
      [`GET /slots?days=28&from=${MONDAY}`]: four,
      'GET /blogs': { blogs: [blog()] },
      'GET /labels': { labels: [] },
      ...answers,
    });
  }
  beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

  it('counts how the slots stand and lists what the marks show', async () => {
    const { hands } = shown();
    await screen.findByRole('region', { name: 'Bowed' });
    expect(screen.getByText('2 ready').parentElement!.textContent).toContain('2 empty');
    await hands.click(screen.getByText('2 articles of these weeks, as a list'));
    const rows = within(screen.getByRole('region', { name: 'Bowed' })).getAllByRole('listitem');
    expect(rows.map((row) => row.textContent)).toEqual([
      'Tue 5 May 09:00Gut or steel',
      'Fri 8 May 09:00Rosin in winter',
    ]);
  });

  it('arrow keys put an article in the next free slot, and Z takes it back', async () => {
    const { asked, hands } = shown({ [`PUT /articles/${A}/slot`]: {} });
    const mark = await screen.findByRole('button', { name: /^Gut or steel/ });
    mark.focus();
    await hands.keyboard('{ArrowRight}');
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]!.body).toEqual({ blog: B, at: NOW + 48 * HOUR, force: false });
    mark.blur();
    await hands.keyboard('z');
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(asked[1]!.body).toEqual({ blog: B, at: NOW + 24 * HOUR, force: true });
  });

  it('there is no free slot before the first article, so nothing is asked', async () => {
    const { asked, hands } = shown();
    (await screen.findByRole('button', { name: /^Gut or steel/ })).focus();
    await hands.keyboard('{ArrowLeft}');
    expect(asked).toEqual([]);
  });

  it('what only a rule is against may be allowed once; what is not possible may not', async () => {
    let status = 422;
    const { asked, hands } = shown({
      [`PUT /articles/${A}/slot`]: ({ body }) =>
        (body as { force: boolean }).force ? {} : new Problem(status, 'The gap of four hours is not kept.'),
    });
    const mark = await screen.findByRole('button', { name: /^Gut or steel/ });
    mark.focus();
    await hands.keyboard('{ArrowRight}');
    await screen.findByText(/The gap of four hours is not kept/);
    await hands.click(screen.getByRole('button', { name: 'Allow it once' }));
    await waitFor(() => expect(asked.at(-1)!.body).toMatchObject({ force: true }));
    await waitFor(() => expect(screen.queryByText(/The gap of four hours/)).toBeNull());
    status = 409;
    mark.focus();
    await hands.keyboard('{ArrowRight}');
    await screen.findByText(/The gap of four hours is not kept/);
    expect(screen.queryByRole('button', { name: 'Allow it once' })).toBeNull();
    await hands.click(screen.getByRole('button', { name: 'leave it' }));
    expect(screen.queryByText(/The gap of four hours/)).toBeNull();
  });

  it('a slot that breaks a rule says which', async () => {
    shown({}, [
      filled(24, 'a', 'Gut or steel', { faults: ['outside the hours', 'less than 4 h after the one before'] }),
    ]);
    await screen.findByText('Gut or steel: outside the hours; less than 4 h after the one before.');
  });

  it('a blog that runs dry within four days says so loudly', async () => {
    const dry = lane(own, { dryFrom: NOW + 3 * 24 * HOUR });
    shown({ [`GET /slots?days=28&from=${MONDAY}`]: { ...slots(dry), from: MONDAY, to: MONDAY + 28 * 24 * HOUR } });
    expect((await screen.findByText('dry from Thu 7 May')).className).toContain('font-bold');
  });

  it('other weeks are read when they are asked for, and there is a way back', async () => {
    const later = MONDAY + 7 * 24 * HOUR;
    const { hands } = shown({
      [`GET /slots?days=28&from=${later}`]: { ...slots(lane([])), from: later, to: later + 28 * 24 * HOUR },
    });
    await screen.findByText('Mon 4 May to Sun 31 May');
    expect(screen.queryByRole('button', { name: 'This week' })).toBeNull();
    await hands.click(screen.getByRole('button', { name: 'Later' }));
    await screen.findByText('Mon 11 May to Sun 7 Jun');
    await hands.click(screen.getByRole('button', { name: 'This week' }));
    await screen.findByText('Mon 4 May to Sun 31 May');
  });

  it('without a blog there is the way to connect one', async () => {
    shown({ [`GET /slots?days=28&from=${MONDAY}`]: { ...slots(), from: MONDAY, to: MONDAY + 28 * 24 * HOUR } });
    const link = await screen.findByRole('link', { name: 'Connect a blog' });
    expect(link.getAttribute('href')).toBe('/blogs?new');
  });

  it('slots that cannot be read say why', async () => {
    shown({ [`GET /slots?days=28&from=${MONDAY}`]: () => new Problem(503, 'The database does not answer.') });
    await screen.findByText(/The database does not answer/);
  });
});
