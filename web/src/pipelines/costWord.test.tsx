// @vitest-environment jsdom
import type { Estimate } from '@grivo/contract';
import type { ProcedureDocument } from '@grivo/core';
import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';
import { onScreen } from '../testing/onScreen.tsx';
import { id, procedure, service } from '../testing/samples.ts';
import { CostWord } from './CostWord.tsx';
import { servedBy } from './ServiceChoice.tsx';

const [CHEAP, DEAR] = [id('c'), id('d')];
const SERVICES = [
  service({ id: CHEAP, name: 'Cheap Quill', role: 'writer', used: true }),
  service({ id: DEAR, name: 'Dear Quill', role: 'writer', used: false }),
];
const by = (own: string, micros: number) => ({ service: own, micros, fromMicros: micros / 2, toMicros: micros * 2 });
const ESTIMATE: Estimate = {
  micros: 30_000,
  fromMicros: 15_000,
  toMicros: 60_000,
  byPrice: 1,
  steps: [
    { step: 's1', role: 'writer', service: CHEAP, named: false, by: [by(CHEAP, 10_000), by(DEAR, 100_000)] },
    { step: 's2', role: 'writer', service: DEAR, named: true, by: [by(CHEAP, 2_000), by(DEAR, 20_000)] },
  ],
};

const shown = (estimate: Estimate | null = ESTIMATE) => {
  const edit = vi.fn();
  onScreen(
    <CostWord says="about 0.03 €" estimate={estimate} document={procedure('take')} services={SERVICES} edit={edit} />,
  );
  return edit;
};

it('tells which service takes what of it, and how far it is a guess', async () => {
  shown();
  await userEvent.click(screen.getByRole('button', { name: 'What it costs: about 0.03 €' }));
  const rows = within(screen.getByRole('table')).getAllByRole('row');
  expect(rows.map((row) => row.textContent)).toEqual(['Dear Quill1 step0.02 €', 'Cheap Quill1 step0.01 €']);
  expect(screen.getByText(/nine in ten from 0\.01 to 0\.06 €|nine in ten from 0\.02 to 0\.06 €/)).toBeDefined();
  expect(screen.getByText(/^One step has not run here often enough/)).toBeDefined();
});

it('sets writers side by side for all steps that name none, and takes the one that is pressed', async () => {
  const edit = shown();
  await userEvent.click(screen.getByRole('button', { name: /What it costs/ }));
  const choices = screen.getAllByRole('radio');
  expect(choices.map((choice) => choice.textContent)).toEqual([
    'Cheap Quillabout 0.03 € a brief',
    'Dear Quillabout 0.12 € a brief',
  ]);
  expect(choices[0]!.getAttribute('aria-checked')).toBe('true');
  await userEvent.click(choices[1]!);
  const before = procedure('take');
  expect((edit.mock.calls[0]![0] as (now: ProcedureDocument) => ProcedureDocument)(before)).toEqual({
    ...before,
    services: { writer: DEAR },
  });
});

it('is plain words where nothing is known of it yet', () => {
  shown(null);
  expect(screen.queryByRole('button')).toBeNull();
  expect(screen.getByText('about 0.03 €')).toBeDefined();
});

it('a procedure that names no service any more says nothing of services', () => {
  const named = servedBy(procedure('take'), 'writer', DEAR);
  expect(named.services).toEqual({ writer: DEAR });
  expect('services' in servedBy(named, 'writer', '')).toBe(false);
});
