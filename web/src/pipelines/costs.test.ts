import type { Estimate } from '@grivo/contract';
import { expect, test } from 'vitest';
import { byService, stepBy, wholeBy } from './costs.ts';

const by = (service: string, micros: number) => ({ service, micros, fromMicros: micros / 2, toMicros: micros * 2 });
/** Two steps by whichever writer, one that names its own, and a picture. */
const ESTIMATE: Estimate = {
  micros: 0,
  fromMicros: 0,
  toMicros: 0,
  byPrice: 0,
  steps: [
    { step: 's1', role: 'writer', service: 'cheap', named: false, by: [by('cheap', 10), by('dear', 100)] },
    { step: 's2', role: 'writer', service: 'cheap', named: false, by: [by('cheap', 20), by('dear', 200)] },
    { step: 's3', role: 'writer', service: 'dear', named: true, by: [by('cheap', 40), by('dear', 400)] },
    { step: 's4', role: 'illustrator', service: 'drawer', named: false, by: [by('drawer', 1_000)] },
    { step: 's5', role: 'look-up', service: 'pages', named: false, by: [by('pages', 0)] },
    { step: 's6', role: 'transcriber', service: null, named: false, by: [] },
  ],
};

test('with another writer only those steps change that name none', () => {
  expect(wholeBy(ESTIMATE, 'writer', 'cheap')).toEqual({ micros: 1_430, fromMicros: 715, toMicros: 2_860 });
  expect(wholeBy(ESTIMATE, 'writer', 'dear').micros).toBe(1_700);
  expect(wholeBy(ESTIMATE, 'illustrator', 'drawer').micros).toBe(1_430);
});

test('a step by each, and nothing of what is no paid step or is not there', () => {
  expect(stepBy(ESTIMATE, 's3', 'cheap')?.micros).toBe(40);
  expect([stepBy(ESTIMATE, 's9', 'cheap'), stepBy(ESTIMATE, 's3', 'nobody')]).toEqual([null, null]);
});

test('each service with its steps, the dearest first, none that takes nothing', () => {
  expect(byService(ESTIMATE).map(({ service, steps, cost }) => [service, steps, cost.micros])).toEqual([
    ['drawer', 1, 1_000],
    ['dear', 1, 400],
    ['cheap', 2, 30],
  ]);
});
