// @vitest-environment jsdom
import type { AlsoHere as Other } from '@grivo/contract';
import { screen, waitFor } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import { onScreen } from '../testing/onScreen.tsx';
import { id } from '../testing/samples.ts';
import { AlsoHere, useAlsoHere } from './AlsoHere.tsx';

const body = [
  { type: 'paragraph' as const, id: 'b1', content: [{ text: 'A strap of hide stretches when it rains.' }] },
];
const other = (change: Partial<Other> = {}): Other => ({
  name: 'Ben',
  block: null,
  editing: false,
  me: false,
  ...change,
});
function Here({ onPlace }: { onPlace: (block: string) => void }) {
  return <AlsoHere others={useAlsoHere(id('a'), 'b2', true)} body={body} onPlace={onPlace} />;
}
const shown = (others: Other[], onPlace = vi.fn()) => ({
  onPlace,
  ...onScreen(<Here onPlace={onPlace} />, {
    [`POST /articles/${id('a')}/here`]: { others },
  }),
});

it('who edits it too is named, and one is led to where they are', async () => {
  const { hands, onPlace, asked } = shown([other({ block: 'b1', editing: true })]);
  const said = await screen.findByRole('status');
  expect(said.textContent).toBe('Ben has it open too, and edits, at ‘A strap of hide stretches …’');
  await hands.click(screen.getByRole('button', { name: /A strap/ }));
  expect(onPlace).toHaveBeenCalledWith('b1');
  expect(asked[0]!.body).toMatchObject({ block: 'b2', editing: true });
});

it.each([
  ['You, in another window, have it open too', [other({ me: true })]],
  ['You, in another window, have it open too, and edit', [other({ me: true, editing: true })]],
  ['Ben and Ada have it open too', [other(), other({ name: 'Ada' })]],
  ['Ben and Ada have it open too, and it is being edited', [other({ editing: true }), other({ name: 'Ada' })]],
])('%s', async (says, others) => {
  shown(others);
  expect((await screen.findByRole('status')).textContent).toBe(says);
});

it('alone nothing is said', async () => {
  const { asked } = shown([]);
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(screen.queryByRole('status')).toBeNull();
});

it('a page that is closed or loaded again says that it leaves', async () => {
  const { asked } = shown([]);
  await waitFor(() => expect(asked).toHaveLength(1));
  globalThis.dispatchEvent(new Event('pagehide'));
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1]!.body).toMatchObject({ editing: false, leaves: true });
});
