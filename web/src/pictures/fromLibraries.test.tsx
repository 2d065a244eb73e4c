// @vitest-environment jsdom
import type { FoundPictures, Picture } from '@grivo/contract';
import { screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { id } from '../testing/samples.ts';
import { DrawCard } from './DrawCard.tsx';
import { FromLibraries } from './FromLibraries.tsx';

beforeEach(() => {
  queryClient.setDefaultOptions({ queries: { retry: false } });
  queryClient.clear();
});

const L = id('l');
const picture: Picture = {
  file: 'b'.repeat(64),
  kind: 'library',
  words: 'A hive in an orchard',
  credit: 'Ada Wells',
  origin: 'https://library.example/1',
  cost: 0,
  width: 1_200,
  height: 800,
  bytes: 9_000,
  uses: 0,
  rev: 1,
};
const found: FoundPictures = {
  libraries: [
    {
      id: L,
      name: 'Harbour Light',
      problem: null,
      pictures: [
        {
          id: 'p1',
          shows: 'A hive in an orchard',
          credit: 'Ada Wells',
          thumb: 'data:image/webp;base64,AA',
          isUsed: false,
        },
        { id: 'p2', shows: 'A smoker', credit: '', thumb: 'data:image/webp;base64,AA', isUsed: true },
      ],
    },
    { id: id('m'), name: 'Plain View', problem: 'Plain View cannot be reached.', pictures: [] },
    { id: id('n'), name: 'Old Town', problem: null, pictures: [] },
  ],
};

function shown(words: string, answers: Record<string, Answer> = {}) {
  const onPick = vi.fn();
  return { ...onScreen(<FromLibraries words={words} onPick={onPick} />, answers), onPick };
}

describe('pictures of libraries', () => {
  it('are looked for once it is said what they should show', async () => {
    shown('  ');
    const button = await screen.findByRole('button', { name: /say first what it should show/ });
    expect(button.hasAttribute('disabled')).toBe(true);
  });

  it('are shown with whose they are, what is ours already and which library is down, and brought in by one press', async () => {
    const { hands, onPick, asked } = shown('hive', {
      'GET /libraries/pictures?words=hive': found,
      [`POST /libraries/${L}/pictures`]: picture,
    });
    await hands.click(await screen.findByRole('button', { name: 'Look for “hive” in picture libraries' }));
    expect(await screen.findByText('Ada Wells')).toBeTruthy();
    expect(screen.getByText('ours already')).toBeTruthy();
    expect(screen.getByText('Plain View cannot be reached.')).toBeTruthy();
    expect(screen.getByText('It has none of this.')).toBeTruthy();
    await hands.click(screen.getByRole('button', { name: /A hive in an orchard/ }));
    await waitFor(() => expect(onPick).toHaveBeenCalledWith(picture));
    expect(asked).toMatchObject([{ body: { words: 'hive', picture: 'p1' } }]);
  });

  it('that cannot be brought say so, and nothing is picked', async () => {
    const { hands, onPick } = shown('hive', {
      'GET /libraries/pictures?words=hive': found,
      [`POST /libraries/${L}/pictures`]: () => new Problem(502, 'It cannot be brought: it answers 404.'),
    });
    await hands.click(await screen.findByRole('button', { name: /Look for/ }));
    await hands.click(await screen.findByRole('button', { name: /A smoker/ }));
    expect(await screen.findByText(/it answers 404/)).toBeTruthy();
    expect(onPick).not.toHaveBeenCalled();
  });

  it('without a library it is said who connects one', async () => {
    const { hands } = shown('hive', { 'GET /libraries/pictures?words=hive': { libraries: [] } });
    await hands.click(await screen.findByRole('button', { name: /Look for/ }));
    expect(await screen.findByText(/No picture library is connected/)).toBeTruthy();
  });
});

describe('a card for an article', () => {
  const A = id('a');
  it('is drawn by the press of its name, or a plain one where the house style has none', async () => {
    const onPick = vi.fn();
    const { hands, asked } = onScreen(<DrawCard article={A} onPick={onPick} />, {
      [`GET /articles/${A}/cards`]: { cards: ['Wide', 'Tall'] },
      [`POST /articles/${A}/card`]: { ...picture, kind: 'card' },
    });
    await hands.click(await screen.findByRole('button', { name: '‘Tall’' }));
    await waitFor(() => expect(onPick).toHaveBeenCalled());
    expect(asked).toMatchObject([{ body: { card: 'Tall' } }]);
  });

  it('that does not fit says what would mend it', async () => {
    const { hands } = onScreen(<DrawCard article={A} onPick={() => undefined} />, {
      [`GET /articles/${A}/cards`]: { cards: [] },
      [`POST /articles/${A}/card`]: () => new Problem(422, '‘A long title’ does not fit its box.'),
    });
    await hands.click(await screen.findByRole('button', { name: 'a plain one' }));
    expect(await screen.findByText(/does not fit its box/)).toBeTruthy();
  });
});
