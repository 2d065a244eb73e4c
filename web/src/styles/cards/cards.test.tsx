// @vitest-environment jsdom
import type { CardSamples, HouseStyleWhole } from '@grivo/contract';
import { type CardDocument, newCard, PLAIN_STYLE } from '@grivo/core';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Navigate, Route, Routes } from 'react-router';
import { beforeEach, describe, expect, it } from 'vitest';
import { queryClient } from '../../api/queries.ts';
import { type Answer, type Asked, onScreen } from '../../testing/onScreen.tsx';
import { id, lane, slots } from '../../testing/samples.ts';
import StylePage from '../StylePage.tsx';

/** jsdom has no pointers to hold. */
Element.prototype.setPointerCapture ??= () => undefined;

const S = id('s');
let made = 0;
let style: string;
beforeEach(() => {
  queryClient.setDefaultOptions({ queries: { retry: false } });
  // What is not kept outlasts a page; each test has a style of its own.
  style = `${S.slice(0, -2)}${String(made++).padStart(2, '0')}`;
});

const whole = (cards: CardDocument[], rev = 3): HouseStyleWhole => ({
  id: style,
  name: 'Workshop voice',
  note: '',
  version: rev,
  rev,
  archived: false,
  labels: [],
  document: { ...PLAIN_STYLE, cards },
  usedBy: [],
  texts: 0,
  samples: [],
  learnt: null,
  sample: null,
});

/** What the server would draw, in short: the sizes follow the card. */
const drawn = ({ body }: Asked): CardSamples => {
  const { card } = body as { card: CardDocument };
  const problems =
    card.texts[1] && card.texts[1].from > 200
      ? [{ text: 1, stops: true, sentence: 'It does not fit its box.', mend: 'Allow smaller letters.' }]
      : [];
  return {
    madeUp: false,
    samples: ['Wax', 'Why bees swarm in May'].map((title) => ({
      title,
      blog: 'Bee notes',
      language: 'en',
      svg: `<svg xmlns="http://www.w3.org/2000/svg"><title>${title}</title></svg>`,
      texts: card.texts.map(({ to }) => ({ size: to, lines: [title] })),
      problems,
    })),
  };
};

function shown(cards: CardDocument[], more: Record<string, Answer> = {}) {
  const puts: CardDocument[][] = [];
  let now = whole(cards);
  const view = onScreen(
    <Routes>
      <Route path="/styles/:id" element={<StylePage />} />
      <Route path="/" element={<Navigate to={`/styles/${style}?show=cards`} />} />
    </Routes>,
    {
      [`GET /styles/${style}`]: () => now,
      [`PUT /styles/${style}`]: ({ body }) => {
        const { document } = body as { document: HouseStyleWhole['document'] };
        puts.push(document.cards);
        now = { ...whole(document.cards, now.rev + 1), document };
        return now;
      },
      [`POST /styles/${style}/cards/drawn`]: drawn,
      'GET /slots?days=7': slots(lane([], {})),
      'GET /labels': { labels: [] },
      ...more,
    },
  );
  return { ...view, puts };
}
const titleBox = () => screen.findByRole('button', { name: /^Text {{ title }}, at/ });

describe('cards of a house style', () => {
  it('without one says what a card is for, and makes the first', async () => {
    const { hands, puts } = shown([]);
    expect(await screen.findByText(/picture with the title of the article set into it/)).toBeTruthy();
    await hands.click(screen.getByRole('button', { name: 'Make the first card' }));
    await waitFor(() => expect(puts.at(-1)?.map(({ name }) => name)).toEqual(['Title and blog']));
    expect(await screen.findByText('2 of our titles, short to long')).toBeTruthy();
    await hands.click(screen.getByRole('button', { name: 'Make another' }));
    await waitFor(() => expect(puts.at(-1)?.map(({ name }) => name)).toEqual(['Title and blog', 'Title and blog 2']));
  });

  it('a text is moved and sized by keys, and nothing is kept until it is said', async () => {
    const { hands, puts } = shown([newCard('Plain')]);
    const box = await titleBox();
    fireEvent.keyDown(box, { key: 'ArrowDown' });
    fireEvent.keyDown(await titleBox(), { key: 'ArrowLeft', shiftKey: true });
    expect(await screen.findByText('2 changes not kept yet')).toBeTruthy();
    expect((await titleBox()).getAttribute('aria-label')).toContain('at 80, 190, 1030 × 390');
    expect(puts).toEqual([]);
    await hands.click(screen.getByRole('button', { name: 'Undo' }));
    expect(await screen.findByText('1 change not kept yet')).toBeTruthy();
    await hands.click(screen.getByRole('button', { name: /^Keep as version 4/ }));
    await waitFor(() => expect(puts[0]?.[0]?.texts[1]?.box).toEqual({ x: 80, y: 190, width: 1_040, height: 390 }));
    expect(await screen.findByText('kept, version 4')).toBeTruthy();
  });

  it('is changed by the words of its sentence, and a figure that cannot be is told', async () => {
    const { hands } = shown([newCard('Plain')]);
    await hands.click(await titleBox());
    await hands.click(screen.getByRole('button', { name: 'Smallest size: 40' }));
    const field = screen.getByRole('spinbutton', { name: 'Smallest size' });
    await hands.clear(field);
    await hands.type(field, '300');
    expect(screen.getByText('A whole number from 12 to 104.')).toBeTruthy();
    expect(screen.getByRole('button', { name: /^Set it/ }).hasAttribute('disabled')).toBe(true);
    await hands.keyboard('{Escape}');
    await hands.click(screen.getByRole('button', { name: 'Largest size: 104' }));
    await hands.clear(screen.getByRole('spinbutton'));
    await hands.type(screen.getByRole('spinbutton'), '400{Enter}');
    await hands.click(await screen.findByRole('button', { name: 'Smallest size: 40' }));
    await hands.clear(screen.getByRole('spinbutton'));
    await hands.type(screen.getByRole('spinbutton'), '300{Enter}');
    expect(await screen.findByText(/2 titles of these do not fit/)).toBeTruthy();
    await hands.click(screen.getByRole('button', { name: 'Give them up' }));
    expect(await screen.findByText('kept, version 3')).toBeTruthy();
    await waitFor(() => expect(screen.queryByText(/do not fit/)).toBeNull());
  });

  it('a colour is typed, and one that is none is told', async () => {
    const { hands } = shown([newCard('Plain')]);
    await hands.click(await screen.findByRole('button', { name: 'Ground: #e4ede8' }));
    const field = screen.getByRole('textbox', { name: 'Ground, as #rrggbb' });
    await hands.clear(field);
    await hands.type(field, 'sea');
    expect(screen.getByText('A colour is written as #2f5a5d.')).toBeTruthy();
    await hands.clear(field);
    await hands.type(field, 'ABCDEF{Enter}');
    expect(await screen.findByRole('button', { name: 'Ground: #abcdef' })).toBeTruthy();
  });

  it('something is added, picked and taken out; the only text cannot be', async () => {
    const one = { ...newCard('Plain'), texts: [newCard('Plain').texts[1]!], areas: [] };
    const { hands } = shown([one]);
    await hands.click(await titleBox());
    expect(screen.getByRole('button', { name: 'Take it out' }).hasAttribute('disabled')).toBe(true);
    await hands.click(screen.getByRole('button', { name: 'a rule or band' }));
    expect((await screen.findByRole('button', { name: /^Area 1, at/ })).getAttribute('aria-pressed')).toBe('true');
    await hands.click(screen.getByRole('button', { name: 'Take it out' }));
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Area 1/ })).toBeNull());
  });

  it('titles are shown with size and lines; one of them stands large; a file of it can be saved once all is kept', async () => {
    const { hands } = shown([newCard('Plain')]);
    const titles = await screen.findByRole('region', { name: 'The card with titles of ours' });
    expect(await within(titles).findByText('3 characters, 104 px, 1 line')).toBeTruthy();
    await hands.click(within(titles).getByRole('button', { name: /^Wax/ }));
    const large = screen.getByRole('img', { name: 'The card as it is drawn' }) as HTMLImageElement;
    expect(decodeURIComponent(large.src)).toContain('<title>Wax</title>');
    const file = screen.getByRole('link', { name: 'Save this one as a file' });
    expect(file.getAttribute('href')).toBe(
      `/api/styles/${style}/cards/Plain/file?title=Wax&blog=Bee+notes&language=en`,
    );
    fireEvent.keyDown(await titleBox(), { key: 'ArrowUp' });
    await waitFor(() => expect(screen.queryByRole('link', { name: 'Save this one as a file' })).toBeNull());
  });

  it('is copied, renamed to a name no other has, and removed', async () => {
    const { hands, puts } = shown([newCard('Plain'), newCard('Wide')]);
    await titleBox();
    await hands.click(screen.getAllByRole('button', { name: 'copy it' }).at(-1)!);
    await waitFor(() => expect(puts.at(-1)?.map(({ name }) => name)).toEqual(['Plain', 'Wide', 'Plain, copy']));
    await hands.click(screen.getByRole('button', { name: 'Name of the card: rename' }));
    const field = screen.getByRole('textbox', { name: 'Name of the card' });
    await hands.clear(field);
    await hands.type(field, 'Wide{Enter}');
    await waitFor(() => expect(puts.at(-1)?.map(({ name }) => name)).toEqual(['Plain', 'Wide', 'Wide 2']));
    await hands.click(await screen.findByRole('button', { name: 'remove it' }));
    await waitFor(() => expect(puts.at(-1)?.map(({ name }) => name)).toEqual(['Plain', 'Wide']));
  });
});
