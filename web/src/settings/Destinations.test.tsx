// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react';
import { expect, test } from 'vitest';
import { onScreen, Problem } from '../testing/onScreen.tsx';
import { Destinations } from './Destinations.tsx';

const ID = 'd'.repeat(20);
const ROOM = {
  id: ID,
  kind: 'message',
  name: 'The workshop',
  address: 'https://chat.example/room',
  note: 'Only on weekdays.',
  rev: 3,
  test: null as object | null,
};
const line = (well: boolean) => ({
  tried: 'Sent a message',
  came: well ? 'It answered 200' : 'It is not reached.',
  well,
  change: well ? null : 'Check the address.',
  ms: 12,
});
const list = (...destinations: object[]) => ({ 'GET /destinations': { destinations } });

test('what is kept says how it is told and where, with its note and what its last test brought', async () => {
  onScreen(<Destinations owner />, list({ ...ROOM, test: { atDesk: 1, lines: [line(false)] } }));
  await screen.findByText('The workshop');
  expect(screen.getByText('by message, https://chat.example/room')).toBeDefined();
  expect(screen.getByText('Only on weekdays.')).toBeDefined();
  expect(screen.getByText(/It is not reached\./)).toBeDefined();
  expect(screen.getByText(/Check the address/)).toBeDefined();
});

test('a sample is sent once for a press, and what came of it stands there', async () => {
  const { asked, hands } = onScreen(<Destinations owner />, {
    ...list(ROOM),
    [`POST /destinations/${ID}/test`]: { lines: [line(true)] },
  });
  await hands.click(await screen.findByRole('button', { name: 'Send a sample' }));
  await screen.findByText('It answered 200');
  expect(asked).toEqual([{ method: 'POST', path: `/destinations/${ID}/test`, body: undefined }]);
});

test('who is no owner reads them, and changes nothing', async () => {
  onScreen(<Destinations owner={false} />, list(ROOM));
  await screen.findByText('The workshop');
  expect(screen.queryByRole('button')).toBeNull();
  expect(screen.getByText('1 destination')).toBeDefined();
});

test('an address is held against its kind as it is typed; what fits is kept', async () => {
  const { asked, hands } = onScreen(<Destinations owner />, { ...list(), 'POST /destinations': { id: ID } });
  await screen.findByText(/^None yet/);
  await hands.click(screen.getByRole('button', { name: 'Add one' }));
  const keep = screen.getByRole<HTMLButtonElement>('button', { name: 'Keep it' });
  const address = screen.getByLabelText('Its address');
  await hands.type(screen.getByLabelText('What you call it'), 'The varnish room');
  expect(keep.disabled).toBe(true);
  await hands.type(address, 'ada@strings.example');
  expect(screen.getByText('It is not an address that begins with https://.')).toBeDefined();
  await hands.click(screen.getByRole('button', { name: /by message/ }));
  await hands.click(screen.getByText('by mail'));
  expect(screen.queryByText(/It is not an/)).toBeNull();
  expect((screen.getByLabelText('Its email address') as HTMLInputElement).value).toBe('ada@strings.example');
  await hands.click(keep);
  await waitFor(() =>
    expect(asked).toEqual([
      {
        method: 'POST',
        path: '/destinations',
        body: { kind: 'mail', name: 'The varnish room', address: 'ada@strings.example' },
      },
    ]),
  );
  await waitFor(() => expect(screen.queryByLabelText('What you call it')).toBeNull());
});

test('a name that is taken is said, and nothing that was typed is lost', async () => {
  const { hands } = onScreen(<Destinations owner />, {
    ...list(ROOM),
    'POST /destinations': new Problem(409, 'There is a destination ‘The workshop’ already.'),
  });
  await hands.click(await screen.findByRole('button', { name: 'Add one' }));
  await hands.type(screen.getByLabelText('What you call it'), 'The workshop');
  await hands.type(screen.getByLabelText('Its address'), 'https://chat.example/two');
  await hands.click(screen.getByRole('button', { name: 'Keep it' }));
  expect((await screen.findByRole('alert')).textContent).toContain('There is a destination ‘The workshop’ already.');
  expect((screen.getByLabelText('Its address') as HTMLInputElement).value).toBe('https://chat.example/two');
});

test('another address goes with the rev it was read at; somebody else’s change is said', async () => {
  const { asked, hands } = onScreen(<Destinations owner />, {
    ...list(ROOM),
    [`PUT /destinations/${ID}`]: new Problem(412, 'Somebody else has changed this destination.'),
  });
  await hands.click(await screen.findByRole('button', { name: 'Another address' }));
  const form = screen.getByLabelText('Its address').closest('form')!;
  await hands.clear(screen.getByLabelText('Its address'));
  await hands.type(screen.getByLabelText('Its address'), 'https://chat.example/new');
  await hands.click(within(form).getByRole('button', { name: 'Keep it' }));
  expect((await screen.findByRole('alert')).textContent).toContain('Somebody else has changed');
  expect(asked[0]).toMatchObject({ body: { kind: 'message', address: 'https://chat.example/new' } });
});
