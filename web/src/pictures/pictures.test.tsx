// @vitest-environment jsdom
import type { Picture, Pictures, PictureWhole } from '@grivo/contract';
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { id } from '../testing/samples.ts';
import { PickPicture } from './PickPicture.tsx';
import PicturesPage from './Pictures.tsx';
import { Redraw } from './Redraw.tsx';
import { sizeInWords, wordsOfName } from './usePictures.ts';

const A = 'a'.repeat(64);
const B = 'b'.repeat(64);
const picture = (change: Partial<Picture> = {}): Picture => ({
  file: A,
  kind: 'drawn',
  words: 'Four pegs in a row',
  credit: '',
  origin: 'Pegs and paint',
  cost: 80_000,
  width: 1_600,
  height: 1_067,
  bytes: 214_000,
  uses: 2,
  rev: 3,
  ...change,
});
const own = picture({ file: B, kind: 'own', words: 'A cello', uses: 0, cost: 0, origin: '', rev: 1 });
const list = (pictures: Picture[], change: Partial<Pictures> = {}): Pictures => ({
  pictures,
  next: null,
  sums: { pictures: 2, unused: 1, cost: 80_000, bytes: 428_000 },
  ...change,
});
const whole = (one: Picture, change: Partial<PictureWhole> = {}): PictureWhole => ({
  picture: one,
  usedIn: [],
  alike: [],
  ...change,
});
const show = (answers: Record<string, Answer> = {}) =>
  onScreen(<PicturesPage />, {
    'GET /pictures?find=&from=0': list([picture(), own]),
    [`GET /pictures/${A}`]: whole(picture(), {
      usedIn: [{ article: id('x'), title: 'Fitting a peg', standing: 'out', isLead: true }],
      alike: [{ file: B, words: 'A cello', share: 0.953 }],
    }),
    [`GET /pictures/${B}`]: whole(own),
    ...answers,
  });

describe('the library of pictures', () => {
  it('says how many there are, what they cost and where each stands', async () => {
    show();
    expect(await screen.findByText(/2 pictures, 0\.08 € spent on drawing, 428 kB; 1 used nowhere/)).toBeTruthy();
    const thumb = screen.getByRole('button', { name: /^Four pegs in a row/ });
    expect(thumb.textContent).toContain('in 2 articles');
    expect(await screen.findByRole('link', { name: 'Fitting a peg' })).toBeTruthy();
    expect(screen.getByText('at its head')).toBeTruthy();
    expect(screen.getByText('95 %')).toBeTruthy();
    expect(screen.getByText(/It stays in the library while an article has it/)).toBeTruthy();
  });

  it('one that is used nowhere is taken out, after a question', async () => {
    const { hands, asked } = show({ [`DELETE /pictures/${B}`]: () => undefined });
    await hands.click(await screen.findByRole('button', { name: /^A cello/, pressed: false }));
    await hands.click(await screen.findByRole('button', { name: 'Take it out of the library' }));
    await hands.click(within(await screen.findByRole('alertdialog')).getByRole('button', { name: 'Take it out' }));
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ method: 'DELETE', path: `/pictures/${B}` }));
  });

  it('its words are kept from what was read; somebody else having changed them is told', async () => {
    const { hands, asked } = show({
      [`PATCH /pictures/${A}`]: () => new Problem(412, 'Somebody else has changed this picture since you opened it.'),
    });
    const words = await screen.findByLabelText('What is seen');
    await hands.clear(words);
    await hands.type(words, 'Five pegs');
    await hands.click(screen.getByRole('button', { name: 'Keep the words' }));
    await waitFor(() =>
      expect(asked.at(-1)).toMatchObject({ method: 'PATCH', body: { words: 'Five pegs', credit: '' } }),
    );
  });

  it('files are brought in, and one that is no picture is told with what would mend it', async () => {
    let n = 0;
    const { hands } = show({
      'POST /uploads?mime=application/octet-stream': () => ({ file: String(++n).repeat(64), bytes: 9 }),
      'POST /pictures': ({ body }) =>
        (body as { words: string }).words === 'Peg box'
          ? { file: B, isNew: true }
          : new Problem(422, 'The file cannot be used: it is no picture that can be read.'),
    });
    const input = (await screen.findByLabelText('Bring in pictures')) as HTMLInputElement;
    await hands.upload(input, new File(['x'], 'peg_box.png', { type: 'image/png' }));
    expect(await screen.findByText(/1 picture brought in/)).toBeTruthy();
    await hands.upload(input, new File(['y'], 'notes.png', { type: 'image/png' }));
    expect((await screen.findAllByText(/it is no picture that can be read/)).length).toBeGreaterThan(0);
  });

  it('an empty one says how it fills; a search without a find says that', async () => {
    show({
      'GET /pictures?find=&from=0': list([], { sums: { pictures: 0, unused: 0, cost: 0, bytes: 0 } }),
    });
    expect(await screen.findByText(/No picture yet. Drop files here/)).toBeTruthy();
  });
});

it('another picture is found by what it shows, and taken by one press', async () => {
  const onPick = vi.fn();
  const { hands } = onScreen(<PickPicture says="Take another picture" onPick={onPick} />, {
    'GET /pictures?find=&from=0': list([picture(), own]),
    'GET /pictures?find=cello&from=0': list([own]),
  });
  await hands.click(await screen.findByRole('button', { name: /Another picture/ }));
  await hands.type(screen.getByLabelText('Find by what it shows'), 'cello');
  await waitFor(() => expect(screen.queryByRole('button', { name: /^Four pegs in a row/ })).toBeNull());
  await hands.click(screen.getByRole('button', { name: /^A cello/ }));
  expect(onPick).toHaveBeenCalledWith(own);
});

it('a picture is redrawn with a note: the price before, both beside each other, used by one press', async () => {
  const onUse = vi.fn();
  const { hands, asked } = onScreen(<Redraw article={id('x')} file={A} shows="Four pegs" onUse={onUse} />, {
    'GET /redraw/price': { micros: 80_000 },
    [`POST /articles/${id('x')}/redraw`]: { picture: own, micros: 80_000 },
  });
  expect(await screen.findByText('about 0.08 €')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Redraw it' })).toHaveProperty('disabled', true);
  await hands.type(screen.getByLabelText('Redraw it with a note'), 'five of them');
  await hands.click(screen.getByRole('button', { name: 'Redraw it' }));
  expect(await screen.findByText('As it is')).toBeTruthy();
  expect(asked.at(-1)).toMatchObject({ body: { shows: 'Four pegs', note: 'five of them', again: 0 } });
  await hands.click(screen.getByRole('button', { name: 'Redraw again' }));
  await waitFor(() => expect(asked.at(-1)).toMatchObject({ body: { again: 1 } }));
  await hands.click(await screen.findByRole('button', { name: 'Use the redrawn one' }));
  expect(onUse).toHaveBeenCalledWith(own);
  expect(screen.queryByText('As it is')).toBeNull();
});

it('a proofreader picks among pictures, and is offered neither files nor drawings', async () => {
  const proofreader = { id: id('p'), email: 'bo@strings.example', name: 'Bo', role: 'proofreader' };
  const { hands } = onScreen(
    <>
      <PickPicture says="Take another picture" onPick={vi.fn()} />
      <Redraw article={id('x')} file={A} shows="" onUse={vi.fn()} />
    </>,
    { 'GET /session': proofreader, 'GET /redraw/price': { micros: 1 }, 'GET /pictures?find=&from=0': list([own]) },
  );
  await hands.click(await screen.findByRole('button', { name: /Another picture/ }));
  expect(await screen.findByRole('button', { name: /^A cello/ })).toBeTruthy();
  expect(screen.queryByLabelText('Bring in a file')).toBeNull();
  expect(screen.queryByLabelText('Redraw it with a note')).toBeNull();
});

it('names of files and sizes read as people say them', () => {
  expect(wordsOfName('peg_box-2.jpg')).toBe('Peg box 2');
  expect(wordsOfName('.png')).toBe('');
  expect([sizeInWords(300), sizeInWords(214_000), sizeInWords(2_340_000)]).toEqual(['1 kB', '214 kB', '2.3 MB']);
});
