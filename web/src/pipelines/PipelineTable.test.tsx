// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { expect, test } from 'vitest';
import { onScreen } from '../testing/onScreen.tsx';
import { id, NOW, pipeline } from '../testing/samples.ts';
import { PipelineTable } from './PipelineTable.tsx';

const ROWS = [
  pipeline({ id: id('a'), name: 'Strings', counts: { waiting: 4 }, microsEach: 9_000, isOn: true }),
  pipeline({ id: id('b'), name: 'Bows', counts: { waiting: 12, stopped: 2 }, microsEach: null }),
  pipeline({ id: id('c'), name: 'Rosin', counts: { waiting: 0, held: 1 }, microsEach: 20_000, nextLook: NOW }),
];
const names = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).getAllByRole('link')[0]!.textContent);
const head = (name: string) => screen.getByRole('columnheader', { name });

function shown() {
  return onScreen(<PipelineTable rows={ROWS} now={NOW} onNew={() => undefined} />);
}

test('pipelines stand as they were made until a column is pressed', () => {
  shown();
  expect(names()).toEqual(['Strings', 'Bows', 'Rosin']);
  expect(head('waiting').getAttribute('aria-sort')).toBe('none');
});

test('figures are looked at from the most on, then from the least, then as they were', async () => {
  const { hands } = shown();
  const press = () => hands.click(within(head('waiting')).getByRole('button'));
  await press();
  expect(names()).toEqual(['Bows', 'Strings', 'Rosin']);
  expect(head('waiting').getAttribute('aria-sort')).toBe('descending');
  await press();
  expect(names()).toEqual(['Rosin', 'Strings', 'Bows']);
  await press();
  expect(names()).toEqual(['Strings', 'Bows', 'Rosin']);
});

test('names are read from A on, and what has no figure stands last whichever way', async () => {
  const { hands } = shown();
  await hands.click(within(head('Pipeline')).getByRole('button'));
  expect(names()).toEqual(['Bows', 'Rosin', 'Strings']);
  const each = within(head('€ each')).getByRole('button');
  await hands.click(each);
  expect(names()).toEqual(['Rosin', 'Strings', 'Bows']);
  await hands.click(each);
  expect(names()).toEqual(['Strings', 'Rosin', 'Bows']);
});

test('keys go through the rows as they stand', async () => {
  const { hands } = shown();
  await hands.keyboard('jj');
  expect(screen.getAllByRole('row').findIndex((row) => row.getAttribute('aria-selected') === 'true')).toBe(2);
  await hands.keyboard('k');
  expect(screen.getAllByRole('row').findIndex((row) => row.getAttribute('aria-selected') === 'true')).toBe(1);
});
