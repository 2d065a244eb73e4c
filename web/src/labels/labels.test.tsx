// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import { useArchived } from '../keeping/useArchived.tsx';
import { onScreen, Problem } from '../testing/onScreen.tsx';
import { Carried } from './Carried.tsx';
import { LabelChoice } from './LabelChoice.tsx';
import { LabelTicks } from './LabelTicks.tsx';
import { NoneCarries } from './NoneCarries.tsx';

const id = (letter: string) => letter.repeat(20);
const LABELS = {
  labels: [
    { id: id('a'), name: 'Bows', on: { blog: 0, source: 1, pipeline: 2, style: 0, article: 0 } },
    { id: id('b'), name: 'Strings', on: { blog: 1, source: 0, pipeline: 0, style: 0, article: 0 } },
  ],
};
const READ = { 'GET /labels': LABELS };
const thing = (labels: string[]) => (
  <LabelTicks noun="pipeline" it={{ id: id('t'), labels }} onLeave={() => undefined} />
);

test('what a thing carries is ticked, and a tick is sent once for each press, in order', async () => {
  const { asked, hands } = onScreen(thing([id('a')]), {
    ...READ,
    [`POST /labels/${id('a')}/on`]: () => undefined,
    [`POST /labels/${id('b')}/on`]: () => undefined,
  });
  const bows = await screen.findByRole('checkbox', { name: 'Bows' });
  expect(bows.getAttribute('aria-checked')).toBe('true');
  const strings = screen.getByRole('checkbox', { name: 'Strings' });
  expect(strings.getAttribute('aria-checked')).toBe('false');
  await hands.click(strings);
  await hands.click(bows);
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked).toEqual([
    { method: 'POST', path: `/labels/${id('b')}/on`, body: { noun: 'pipeline', id: id('t'), on: true } },
    { method: 'POST', path: `/labels/${id('a')}/on`, body: { noun: 'pipeline', id: id('t'), on: false } },
  ]);
});

test('a press shows at once, before anything has answered, and is taken back when it is refused', async () => {
  let refuse: (problem: Problem) => void = () => undefined;
  const { hands } = onScreen(thing([]), {
    ...READ,
    [`POST /labels/${id('a')}/on`]: () => new Promise<Problem>((resolve) => (refuse = resolve)),
  });
  const bows = await screen.findByRole('checkbox', { name: 'Bows' });
  await hands.click(bows);
  expect(bows.getAttribute('aria-checked')).toBe('true');
  refuse(new Problem(404, 'There is no such label.'));
  expect((await screen.findByRole('alert')).textContent).toContain('There is no such label.');
  await waitFor(() => expect(bows.getAttribute('aria-checked')).toBe('false'));
});

test('a new label is made and put on; one that is there already is said to be', async () => {
  const { asked, hands } = onScreen(thing([]), {
    ...READ,
    'POST /labels': ({ body }: { body: unknown }) =>
      (body as { name: string }).name === 'Bows'
        ? new Problem(409, 'There is a label ‘Bows’ already.')
        : { id: id('c') },
    [`POST /labels/${id('c')}/on`]: () => undefined,
  });
  const field = await screen.findByLabelText('A new label');
  const make = screen.getByRole('button', { name: 'Make it and put it on' });
  expect((make as HTMLButtonElement).disabled).toBe(true);
  await hands.type(field, 'Bows');
  await hands.click(make);
  expect((await screen.findByRole('alert')).textContent).toContain('There is a label ‘Bows’ already.');
  expect((field as HTMLInputElement).value).toBe('Bows');
  await hands.clear(field);
  await hands.type(field, '  Pegs ');
  await hands.keyboard('{Enter}');
  await waitFor(() => expect(asked.at(-1)).toMatchObject({ path: `/labels/${id('c')}/on`, body: { on: true } }));
  expect(asked.find(({ body }) => (body as { name?: string }).name === 'Pegs')).toBeDefined();
  await waitFor(() => expect((field as HTMLInputElement).value).toBe(''));
});

test('what is shown is everything, until a label is chosen; then its name stands there, also for whoever comes back', async () => {
  const { hands, unmount } = onScreen(<LabelChoice />, READ);
  await hands.click(await screen.findByRole('button', { name: /everything/ }));
  expect(screen.getByText('2 pipelines, 1 source, 0 blogs')).toBeDefined();
  await hands.click(screen.getByText('only Bows'));
  await screen.findByRole('button', { name: /only Bows/ });
  expect(localStorage.getItem('grivo.label')).toBe(id('a'));
  unmount();
  onScreen(<LabelChoice />, READ);
  await screen.findByRole('button', { name: /only Bows/ });
  await hands.click(screen.getByRole('button', { name: /only Bows/ }));
  await hands.click(screen.getByText('everything'));
  await screen.findByRole('button', { name: /everything/ });
  expect(localStorage.getItem('grivo.label')).toBeNull();
});

test('while there is no label there is nothing to choose', async () => {
  const { container } = onScreen(<LabelChoice />, { 'GET /labels': { labels: [] } });
  await waitFor(() => expect(fetch).toHaveBeenCalled());
  expect(container.textContent).toBe('');
});

function Rows() {
  const all = [
    { name: 'Guides', archived: false, labels: [id('a')] },
    { name: 'News', archived: false, labels: [] },
    { name: 'Old guides', archived: true, labels: [id('a')] },
  ];
  const { rows, words } = useArchived(all);
  return (
    <>
      <LabelChoice />
      {words}
      <ul>
        {rows?.map(({ name, labels }) => (
          <li key={name}>
            {name} <Carried labels={labels} />
          </li>
        ))}
      </ul>
      {rows?.length === 0 ? <NoneCarries what="pipeline">There is none yet.</NoneCarries> : null}
    </>
  );
}

test('a list shows what carries the label, of that what is not archived, and says so when nothing does', async () => {
  const { hands } = onScreen(<Rows />, READ);
  const shown = () => screen.queryAllByRole('listitem').map((row) => row.textContent);
  await waitFor(() => expect(shown()).toEqual(['Guides Bows', 'News ']));
  await hands.click(await screen.findByRole('button', { name: /everything/ }));
  await hands.click(screen.getByText('only Bows'));
  await waitFor(() => expect(shown()).toEqual(['Guides Bows']));
  await hands.click(screen.getByRole('button', { name: '1 archived' }));
  expect(shown()).toEqual(['Guides Bows', 'Old guides Bows']);
  await hands.click(screen.getByRole('button', { name: /only Bows/ }));
  await hands.click(screen.getByText('only Strings'));
  await screen.findByText('No pipeline carries the label ‘Strings’.');
  await hands.click(screen.getByRole('button', { name: 'Show everything' }));
  await waitFor(() => expect(shown()).toHaveLength(3));
});

test('a label that is gone hides nothing', async () => {
  localStorage.setItem('grivo.label', id('z'));
  onScreen(<Rows />, READ);
  await waitFor(() => expect(screen.queryAllByRole('listitem')).toHaveLength(2));
  await screen.findByRole('button', { name: /everything/ });
});
