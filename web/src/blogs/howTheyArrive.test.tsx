// @vitest-environment jsdom
import type { PipelineWhole } from '@grivo/contract';
import { type ProcedureDocument, stepKinds } from '@grivo/core';
import { screen, waitFor } from '@testing-library/react';
import { beforeEach, expect, it } from 'vitest';
import { queryClient } from '../api/queries.ts';
import { onScreen, Problem } from '../testing/onScreen.tsx';
import { blog, id, pipelineWhole } from '../testing/samples.ts';
import { HowTheyArrive } from './HowTheyArrive.tsx';

const P = id('l');
const B = id('b');
const publish = { ...stepKinds.publish.fresh('s2'), blog: B };
const document: ProcedureDocument = {
  grivo: 1,
  language: 'en',
  steps: [
    stepKinds.take.fresh('s1'),
    { ...stepKinds.when.fresh('w1'), holds: [publish], otherwise: [{ ...publish, id: 's3', blog: id('x') }] },
  ] as ProcedureDocument['steps'],
};
const feeding = [{ id: P, name: 'Bows', says: 'Publish to Bowed at once as a live post' }];
const whole = (rev = 7, as: ProcedureDocument = document): PipelineWhole => pipelineWhole(as, { id: P, rev });
const lists = {
  'GET /blogs': { blogs: [blog()] },
  'GET /sources': { sources: [] },
  'GET /routines': { routines: [] },
  'GET /services': { services: [] },
  'GET /destinations': { destinations: [] },
  'GET /styles': { styles: [] },
};
/** The step of a saved document. */
const saved = (body: unknown) => {
  const [, when] = (body as { document: { steps: { holds: Record<string, unknown>[] }[] } }).document.steps;
  return when!.holds[0]!;
};

beforeEach(() => queryClient.setDefaultOptions({ queries: { retry: false } }));

it('words are changed in place, each saved upon the one before, and taken back together', async () => {
  let rev = 7;
  const { hands, asked } = onScreen(<HowTheyArrive blog={B} feeding={feeding} />, {
    ...lists,
    [`GET /pipelines/${P}`]: () => whole(),
    [`PUT /pipelines/${P}`]: ({ body }) => whole(++rev, (body as { document: ProcedureDocument }).document),
  });
  await hands.click(await screen.findByRole('button', { name: /^publish, when/ }));
  await hands.click(await screen.findByRole('radio', { name: /^at once/ }));
  await hands.click(await screen.findByRole('button', { name: /^publish, as/ }));
  await hands.click(await screen.findByRole('radio', { name: /^draft/ }));
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked.map(({ body }) => [saved(body)['when'], saved(body)['as']])).toEqual([
    ['at once', 'live'],
    ['at once', 'draft'],
  ]);
  await hands.click(await screen.findByRole('button', { name: 'Take it back' }));
  await waitFor(() => expect(asked).toHaveLength(3));
  expect(saved(asked[2]!.body)).toMatchObject({ when: 'next free slot', as: 'live' });
  await waitFor(() => expect(screen.queryByRole('button', { name: 'Take it back' })).toBeNull());
});

it('what somebody else saved meanwhile is shown, and not written over', async () => {
  let theirs = whole();
  const { hands } = onScreen(<HowTheyArrive blog={B} feeding={feeding} />, {
    ...lists,
    [`GET /pipelines/${P}`]: () => theirs,
    [`PUT /pipelines/${P}`]: () => {
      const steps = document.steps.map((one) =>
        one.kind === 'when' ? { ...one, holds: [{ ...publish, as: 'draft' }] } : one,
      ) as ProcedureDocument['steps'];
      theirs = whole(8, { ...document, steps });
      return new Problem(412, 'Somebody else changed it meanwhile.', theirs);
    },
  });
  await hands.click(await screen.findByRole('button', { name: /^publish, when/ }));
  await hands.click(await screen.findByRole('radio', { name: /^at once/ }));
  await screen.findByText(/Somebody else changed it meanwhile/);
  await waitFor(() => expect(screen.getByRole('button', { name: /^publish, as/ }).textContent).toContain('draft'));
  expect(screen.getByRole('button', { name: /^publish, when/ }).textContent).toContain('next free slot');
});

it('what it could say more is offered when it is asked for', async () => {
  const { hands } = onScreen(<HowTheyArrive blog={B} feeding={feeding} />, {
    ...lists,
    [`GET /pipelines/${P}`]: whole(),
  });
  await screen.findByRole('button', { name: /^publish, when/ });
  expect(screen.queryByText('categories')).toBeNull();
  await hands.click(screen.getByRole('button', { name: 'Say more' }));
  expect(screen.getByText('categories')).toBeDefined();
});
