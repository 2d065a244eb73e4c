// @vitest-environment jsdom
import { screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import { onScreen, Problem } from '../testing/onScreen.tsx';
import { KeepMenu } from './KeepMenu.tsx';

const ID = 'k'.repeat(20);
const PIPELINE = { id: ID, name: 'Guides', note: '', archived: false, openLimit: 10, labels: [] };
const opened = async (it: object, of: 'pipelines' | 'services', answers: Record<string, object> = {}) => {
  const shown = onScreen(<KeepMenu of={of} it={it as typeof PIPELINE} />, answers);
  await shown.hands.click(screen.getByRole('button', { name: 'More about Guides' }));
  return shown;
};
const items = () => screen.getAllByRole('menuitem').map((item) => item.textContent);

test('a pipeline has all that is done with one; a service only what a service has', async () => {
  const { unmount } = await opened(PIPELINE, 'pipelines');
  expect(items()).toEqual([
    'Rename it…',
    'Add a note…',
    'Labels…',
    'At most 10 briefs at once…',
    expect.stringMatching(/^Archive it/),
    'Remove it…',
  ]);
  unmount();
  await opened({ id: ID, name: 'Guides' }, 'services');
  expect(items()).toEqual(['Rename it…', 'Remove it…']);
});

test('a new name is sent without blanks; one that is taken is said at the field, and stays typed', async () => {
  let taken = true;
  const { asked, hands } = await opened(PIPELINE, 'pipelines', {
    [`PATCH /pipelines/${ID}/words`]: (() =>
      taken ? new Problem(409, 'There is a pipeline ‘News’ already.') : undefined) as unknown as object,
  });
  await hands.click(screen.getByRole('menuitem', { name: 'Rename it…' }));
  const field = await screen.findByLabelText<HTMLInputElement>('Its name');
  await hands.clear(field);
  await hands.type(field, ' News ');
  await hands.click(screen.getByRole('button', { name: 'Rename it' }));
  await screen.findByText(/There is a pipeline ‘News’ already/);
  expect(field.value).toBe(' News ');
  taken = false;
  await hands.clear(field);
  await hands.type(field, 'Letters{Enter}');
  await waitFor(() => expect(screen.queryByLabelText('Its name')).toBeNull());
  expect(asked.map(({ body }) => body)).toEqual([{ name: 'News' }, { name: 'Letters' }]);
});

test('archiving is one press; leaving a field changes nothing', async () => {
  const { asked, hands } = await opened(PIPELINE, 'pipelines', {
    [`PATCH /pipelines/${ID}/words`]: (() => undefined) as unknown as object,
  });
  await hands.click(screen.getByRole('menuitem', { name: /^Archive it/ }));
  await waitFor(() => expect(asked.map(({ body }) => body)).toEqual([{ archived: true }]));
  await hands.click(screen.getByRole('button', { name: 'More about Guides' }));
  await hands.click(screen.getByRole('menuitem', { name: /briefs at once/ }));
  const limit = await screen.findByLabelText('Briefs in work at once, at most');
  await hands.clear(limit);
  await hands.type(limit, '3');
  await hands.click(screen.getByRole('button', { name: 'Leave it' }));
  expect(screen.queryByLabelText('Briefs in work at once, at most')).toBeNull();
  expect(asked).toHaveLength(1);
});
