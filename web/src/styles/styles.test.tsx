// @vitest-environment jsdom
import type { HouseStyle, HouseStyleWhole, StyleSample, StyleText } from '@grivo/contract';
import { FIGURE_NAMES, PLAIN_STYLE } from '@grivo/core';
import { screen, waitFor, within } from '@testing-library/react';
import { Navigate, Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { blog, id, lane, slots } from '../testing/samples.ts';
import { readWords, writtenWords } from './houseWords.ts';
import StylePage from './StylePage.tsx';
import Styles from './Styles.tsx';
import { linesOf } from './styleLines.ts';

const S = id('s');
beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

const style = (change: Partial<HouseStyleWhole> = {}): HouseStyleWhole => ({
  id: S,
  name: 'Workshop voice',
  note: '',
  version: 3,
  rev: 3,
  archived: false,
  labels: [],
  document: PLAIN_STYLE,
  usedBy: [],
  texts: 0,
  samples: [],
  learnt: null,
  sample: null,
  ...change,
});
const line = ({ samples: _, learnt: __, sample: ___, ...rest }: HouseStyleWhole): HouseStyle => rest;

describe('words as people type them', () => {
  it('are read line by line, and come back as they were', () => {
    const text = 'brine: salt water, salty water\n\n crock : pot ; vessel';
    const read = readWords(text);
    expect(read).toEqual({
      ok: true,
      words: [
        { use: 'brine', not: ['salt water', 'salty water'] },
        { use: 'crock', not: ['pot', 'vessel'] },
      ],
    });
    if (read.ok) expect(readWords(writtenWords(read.words))).toEqual(read);
  });

  it.each([
    ['brine', /Line 1: what we say, a colon/],
    ['brine:', /Line 1/],
    [': pot', /Line 1/],
    ['a: b\nc: B', /Line 2: “B” is already said as “a”/],
    ['pot: Pot', /would stand for itself/],
    [`a: ${'x'.repeat(81)}`, /at most 80 letters/],
  ])('%s is told wrong, with its line', (text, problem) => {
    expect(readWords(text)).toEqual({ ok: false, problem: expect.stringMatching(problem) });
  });

  it('every part of a style has lines of its own to be told apart by', () => {
    const document = {
      ...PLAIN_STYLE,
      voice: 'Dry. Brief.',
      ranges: { sentence: { from: 6, to: 18 } },
      words: [{ use: 'brine', not: ['salt water'] }],
      standing: [{ at: 'after a section' as const, section: 2, markup: false, texts: ['Ours.'] }],
      call: { before: 'Stuck?', button: 'Ask', address: '/ask', size: 'medium' as const, side: 'left' as const },
    };
    expect(linesOf('voice', document)).toEqual(['Dry.', 'Brief.']);
    expect(linesOf('ranges', document)).toEqual(['words in a sentence 6 to 18']);
    expect(linesOf('words', document)).toEqual(['“brine”, not “salt water”']);
    expect(linesOf('standing', document)).toEqual(['after section 2: Ours.']);
    expect(linesOf('call', document)).toEqual(['Stuck? ‘Ask’ to /ask, medium, left']);
    expect(linesOf('links', document)).toContain('as many links as the step says');
  });
});

describe('all house styles', () => {
  const shown = (styles: HouseStyle[], more: Record<string, Answer> = {}) =>
    onScreen(<Styles />, { 'GET /styles': { styles }, 'GET /labels': { labels: [] }, ...more });

  it('each says what it was learnt from, what it holds and who keeps to it; without any, the first is offered', async () => {
    shown([
      line(
        style({
          texts: 7,
          usedBy: [{ noun: 'blog', id: id('b'), name: 'Bowed', says: 'all its articles' }],
          document: { ...PLAIN_STYLE, facts: ['True.'], never: ['luxury'] },
        }),
      ),
      line(style({ id: id('t'), name: 'Away', archived: true })),
    ]);
    const row = (await screen.findByRole('link', { name: 'Workshop voice' })).closest('li')!;
    expect(row.textContent).toContain('for Bowed');
    expect(row.textContent).toContain('learnt from 7 texts');
    expect(row.textContent).toContain('1 word, 1 fact');
    expect(screen.queryByText('Away')).toBeNull();
    expect(screen.getByRole('button', { name: '1 archived' })).toBeTruthy();
  });

  it('a name that is taken is told at its field', async () => {
    const { hands } = shown([], { 'POST /styles': () => new Problem(409, 'There is a house style ‘Bench’ already.') });
    await hands.click(await screen.findByRole('button', { name: 'Make the first' }));
    await hands.type(screen.getByLabelText('Its name'), 'Bench');
    await hands.click(screen.getByRole('button', { name: 'Make it' }));
    expect(await screen.findByText(/already/)).toBeTruthy();
  });
});

describe('a house style', () => {
  const shown = (it: HouseStyleWhole, more: Record<string, Answer> = {}, at = `/styles/${S}`) =>
    onScreen(
      <Routes>
        <Route path="/styles/:id" element={<StylePage />} />
        <Route path="/" element={<Navigate to={at} />} />
      </Routes>,
      {
        [`GET /styles/${S}`]: it,
        'GET /styles': { styles: [line(it)] },
        'GET /blogs': { blogs: [blog({ id: id('b'), name: 'Bowed' })] },
        'GET /slots?days=7': slots(lane([], {})),
        'GET /labels': { labels: [] },
        ...more,
      },
    );

  it('one word is put by itself, on what is there; what somebody else changed meanwhile stays', async () => {
    const theirs = style({ rev: 9, version: 9, document: { ...PLAIN_STYLE, never: ['luxury'] } });
    const sent: unknown[] = [];
    const { hands } = shown(style(), {
      [`PUT /styles/${S}`]: ({ body }) => {
        sent.push(body);
        return sent.length === 1
          ? new Problem(412, 'Somebody else has changed this.', theirs)
          : { ...theirs, rev: 10, version: 10, document: (body as { document: HouseStyle['document'] }).document };
      },
    });
    await hands.click(await screen.findByRole('button', { name: /^Who it speaks as/ }));
    await hands.click(screen.getByRole('radio', { name: /as “we”/ }));
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]).toMatchObject({ document: { person: 'first person plural', never: ['luxury'] } });
    expect(await screen.findByText('version 10')).toBeTruthy();
  });

  it('the same words changed by somebody else are told, and theirs stand', async () => {
    const theirs = style({ rev: 9, version: 9, document: { ...PLAIN_STYLE, person: 'third person' } });
    const { hands } = shown(style(), {
      [`PUT /styles/${S}`]: () => new Problem(412, 'Changed.', theirs),
    });
    await hands.click(await screen.findByRole('button', { name: /^Who it speaks as/ }));
    await hands.click(screen.getByRole('radio', { name: /as “we”/ }));
    expect(await screen.findByText(/Somebody else changed the same words meanwhile/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Who it speaks as: of the matter alone' })).toBeTruthy();
  });

  const changed = (it: HouseStyleWhole) => {
    let now = it;
    const sent: HouseStyle['document'][] = [];
    const answers: Record<string, Answer> = {
      [`PUT /styles/${S}`]: ({ body }) => {
        const { document } = body as { document: HouseStyle['document'] };
        sent.push(document);
        now = { ...now, rev: now.rev + 1, version: now.version + 1, document };
        return now;
      },
      [`GET /styles/${S}`]: () => now,
    };
    return { sent, answers };
  };

  it('words of parts are said otherwise, and go back to the shipped wording', async () => {
    const it = changed(style());
    const { hands } = shown(style(), it.answers);
    await hands.click(await screen.findByRole('button', { name: /^Words where an article folds/ }));
    const field = screen.getByRole('textbox', { name: 'Words where an article folds' });
    await hands.clear(field);
    await hands.type(field, 'Go on');
    await hands.click(screen.getByRole('button', { name: /Set it/ }));
    await waitFor(() => expect(it.sent.at(-1)?.wording).toEqual({ readOn: 'Go on' }));
    await hands.click(await screen.findByRole('button', { name: /^Words where an article folds: Go on/ }));
    await hands.click(screen.getByRole('button', { name: 'Back to the shipped wording' }));
    await waitFor(() => expect(it.sent.at(-1)?.wording).toEqual({}));
    expect(await screen.findByRole('button', { name: /^Words where an article folds: Read on/ })).toBeTruthy();
  });

  it('an article closes with a link, and has markup of the owner’s own, as typed', async () => {
    const it = changed(style());
    const { hands } = shown(style(), it.answers);
    await hands.click(await screen.findByRole('button', { name: 'Close with a link' }));
    await hands.type(screen.getByLabelText('Words of the link'), 'All we wrote');
    await hands.type(screen.getByLabelText(/Where it leads/), '/all');
    await hands.click(screen.getByRole('button', { name: 'Keep it' }));
    await waitFor(() =>
      expect(it.sent.at(-1)?.closingLink).toEqual({ before: '', words: 'All we wrote', address: '/all' }),
    );
    await hands.click(await screen.findByRole('button', { name: 'Add markup of your own' }));
    await waitFor(() => expect(it.sent.at(-1)?.standing).toMatchObject([{ markup: true }]));
    await hands.click(await screen.findByRole('button', { name: /^The text/ }));
    const field = screen.getByRole('textbox', { name: 'The markup' });
    await hands.clear(field);
    await hands.click(field);
    await hands.paste('<p>\n  <b>Ours</b>\n</p>');
    await hands.click(screen.getByRole('button', { name: /Set it/ }));
    await waitFor(() => expect(it.sent.at(-1)?.standing[0]?.texts).toEqual(['<p>\n  <b>Ours</b>\n</p>']));
  });

  it('its sample is written anew after a change where that is wished, once the changes are over', async () => {
    const sample: StyleSample = {
      heading: 'Smoke',
      paragraphs: ['One.'],
      version: 2,
      atDesk: 0,
      micros: 900_000,
      words: 1,
      reworded: [],
      outside: [],
    };
    const text: StyleText = {
      id: id('x'),
      name: 'Smoke',
      address: '',
      language: 'en',
      words: 90,
      sentences: 9,
      figures: Object.fromEntries(FIGURE_NAMES.map((name) => [name, 1])) as StyleText['figures'],
      addedDesk: 0,
    };
    const { hands, asked } = shown(style({ samples: [text], sample }), {
      [`POST /styles/${S}/sample`]: { ...sample, version: 3 },
    });
    expect(await screen.findByText(/Written in version 2/)).toBeTruthy();
    await hands.click(screen.getByRole('checkbox', { name: 'Write it anew after each change' }));
    await waitFor(() => expect(asked.filter(({ path }) => path.endsWith('/sample'))).toHaveLength(1));
    await hands.click(screen.getByRole('checkbox', { name: 'Write it anew after each change' }));
  });

  it('a text that is not taken stays as it was typed, with what is wrong', async () => {
    const { hands } = shown(
      style(),
      { [`POST /styles/${S}/texts`]: () => new Problem(422, 'It has fewer than 40 words.') },
      `/styles/${S}?show=texts`,
    );
    const box = await screen.findByLabelText('The text');
    await hands.type(box, 'A scrap.');
    await hands.click(screen.getByRole('button', { name: 'Give it' }));
    expect(await screen.findByText(/fewer than 40 words/)).toBeTruthy();
    expect((box as HTMLTextAreaElement).value).toBe('A scrap.');
  });

  it('one that is gone leads back to all', async () => {
    shown(style(), { [`GET /styles/${S}`]: () => new Problem(404, 'There is no such house style.') });
    expect(await screen.findByRole('link', { name: 'All house styles' })).toBeTruthy();
  });

  it('a version says what it took out and what it put in', async () => {
    const version = (n: number, never: string[]) => ({
      n,
      atDesk: 0,
      by: 'Ada',
      document: { ...PLAIN_STYLE, never },
    });
    shown(
      style(),
      {
        [`GET /styles/${S}/versions`]: {
          versions: [version(3, ['cheap']), version(2, ['luxury']), version(1, [])],
        },
      },
      `/styles/${S}?show=versions`,
    );
    const third = (await screen.findByText('Version 3')).closest('li')!;
    expect(within(third).getByText('“luxury”').tagName).toBe('S');
    expect(within(third).getByText('“cheap”').tagName).not.toBe('S');
    expect(screen.getAllByRole('button', { name: 'Bring it back' })).toHaveLength(2);
  });
});
