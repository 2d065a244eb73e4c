// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { onScreen, Problem } from '../testing/onScreen.tsx';
import { id, service } from '../testing/samples.ts';
import { ConnectService } from './ConnectService.tsx';
import { Keys } from './Keys.tsx';
import { Limit } from './Limit.tsx';
import { People } from './People.tsx';
import { ServiceList } from './ServiceList.tsx';

const OLD = '2026-01-02T10:00:00.000Z';
const well = { tried: 'Asked for one word', came: 'It answers in the form asked for', well: true, change: null, ms: 9 };

describe('services', () => {
  const two = [service(), service({ id: id('v'), name: 'Plume', used: false, hasSecret: false })];

  it('say what they cost, whether they have a key, and which of a role is used', async () => {
    onScreen(<ServiceList owner />, { 'GET /services': { services: two } });
    await screen.findByText('Quill');
    const [quill, plume] = screen.getAllByRole('listitem');
    expect(quill!.textContent).toContain('has a key; every step that needs a writer uses this one');
    expect(plume!.textContent).toContain('no key; not used: use this one');
  });

  it('another is used at one press', async () => {
    const { asked, hands } = onScreen(<ServiceList owner />, {
      'GET /services': { services: two },
      [`POST /services/${id('v')}/use`]: { services: two.map((one) => ({ ...one, used: one.name === 'Plume' })) },
    });
    await hands.click(await screen.findByRole('button', { name: 'use this one' }));
    await waitFor(() =>
      expect(screen.getAllByRole('listitem')[1]!.textContent).toContain('every step that needs a writer uses this'),
    );
    expect(asked.map(({ path }) => path)).toEqual([`/services/${id('v')}/use`]);
  });

  it('a new key is saved, then tested, and what came of it is said', async () => {
    const { asked, hands } = onScreen(<ServiceList owner />, {
      'GET /services': { services: [service()] },
      [`PUT /services/${id('w')}/secret`]: () => undefined,
      [`POST /services/${id('w')}/test`]: { lines: [well] },
    });
    await hands.click(await screen.findByRole('button', { name: 'New key' }));
    await hands.type(screen.getByLabelText('New key'), 'resin');
    await hands.click(screen.getByRole('button', { name: 'Save and test' }));
    await screen.findByText(/It answers in the form asked for/);
    expect(asked.map(({ method, body }) => [method, body])).toEqual([
      ['PUT', { secret: 'resin' }],
      ['POST', undefined],
    ]);
    expect(screen.queryByRole('button', { name: 'Save and test' })).toBeNull();
  });

  it('a key that is refused is said at its field, and stays typed', async () => {
    const { hands } = onScreen(<ServiceList owner />, {
      'GET /services': { services: [service()] },
      [`PUT /services/${id('w')}/secret`]: new Problem(422, 'The key is refused.'),
    });
    await hands.click(await screen.findByRole('button', { name: 'New key' }));
    await hands.type(screen.getByLabelText('New key'), 'resin');
    await hands.click(screen.getByRole('button', { name: 'Save and test' }));
    await screen.findByText(/The key is refused/);
    expect((screen.getByLabelText('New key') as HTMLInputElement).value).toBe('resin');
  });

  it('who is no owner reads them, and neither tests one nor gives it a key', async () => {
    onScreen(<ServiceList owner={false} />, { 'GET /services': { services: [service()] } });
    await screen.findByText('Quill');
    for (const name of ['Test', 'New key', 'Connect one']) expect(screen.queryByRole('button', { name })).toBeNull();
  });
});

describe('connecting a service', () => {
  const made = { 'GET /stand-ins': { services: [], blogs: [] }, 'POST /services': { id: id('n') } };

  it('asks for an address and for a price in figures, and sends nothing before', async () => {
    const { asked, hands } = onScreen(<ConnectService />, made);
    const price = screen.getByLabelText('€ per 1,000 tokens in');
    await hands.clear(price);
    await hands.type(price, 'two');
    await hands.click(screen.getByRole('button', { name: 'Connect and test' }));
    await screen.findByText('A price as 0.002; nothing costs 0.');
    expect(screen.getByText(/^The address it answers at/)).toBeDefined();
    expect(asked).toEqual([]);
  });

  it('sends what was typed, the price in millionths, and shows the test', async () => {
    const { asked, hands } = onScreen(<ConnectService />, {
      ...made,
      [`POST /services/${id('n')}/test`]: { lines: [well] },
    });
    await hands.type(screen.getByLabelText('Address'), 'quill.example/v1');
    await hands.type(screen.getByLabelText('Key'), 'resin');
    const price = screen.getByLabelText('€ per 1,000 tokens out');
    await hands.clear(price);
    await hands.type(price, '0,002');
    await hands.click(screen.getByRole('button', { name: 'Connect and test' }));
    await screen.findByText(/It answers in the form asked for/);
    expect(asked[0]!.body).toMatchObject({
      role: 'writer',
      name: 'writer',
      address: 'https://quill.example/v1',
      secret: 'resin',
      price: { microsPerThousandOut: 2_000, microsPerPicture: 0 },
    });
  });

  it('asks each role only for what it charges for', async () => {
    const { hands } = onScreen(<ConnectService />, made);
    await hands.click(screen.getByRole('radio', { name: 'illustrator' }));
    expect(screen.getByLabelText('€ per picture')).toBeDefined();
    expect(screen.queryByLabelText('€ per 1,000 tokens in')).toBeNull();
    await hands.click(screen.getByRole('radio', { name: 'look-up' }));
    expect(screen.queryByLabelText('Model')).toBeNull();
    expect(screen.queryByLabelText('€ per picture')).toBeNull();
  });
});

describe('keys for programs', () => {
  const key = (change: object) => ({
    id: id('k'),
    name: 'The till',
    scope: 'hand in',
    by: 'Ada',
    made: OLD,
    used: null,
    revoked: null,
    ends: null,
    ...change,
  });

  it('say what they may, by whom, and whether they are still good', async () => {
    onScreen(<Keys />, {
      'GET /keys': { keys: [key({}), key({ id: id('l'), name: 'The old till', ends: OLD })] },
    });
    await screen.findByText('The till');
    expect(screen.getByText('1 key')).toBeDefined();
    expect(screen.getByText(/may hand subjects in, by Ada, never used$/)).toBeDefined();
    expect(screen.getByText(/; ended Fri 2 Jan/)).toBeDefined();
  });

  it('one is made with what it may, and shown this once', async () => {
    const { asked, hands } = onScreen(<Keys />, {
      'GET /keys': { keys: [] },
      'POST /keys': { id: id('k'), key: 'grivo_abc' },
    });
    const make = await screen.findByRole<HTMLButtonElement>('button', { name: 'Make a key' });
    expect(make.disabled).toBe(true);
    await hands.type(screen.getByLabelText('For which program'), 'The till');
    await hands.click(screen.getByRole('button', { name: /What it may do/ }));
    await hands.click(screen.getByText('do what an editor does'));
    await hands.click(make);
    await screen.findByText('grivo_abc');
    expect(asked[0]!.body).toEqual({ name: 'The till', scope: 'edit', until: null });
    expect((screen.getByLabelText('For which program') as HTMLInputElement).value).toBe('');
  });
});

describe('people', () => {
  const people = [
    { id: id('p'), email: 'ada@strings.example', name: 'Ada', role: 'owner' },
    { id: id('q'), email: 'ben@strings.example', name: 'Ben', role: 'editor' },
  ];

  it('one’s own password stands elsewhere; of others everything can be changed', async () => {
    onScreen(<People />, { 'GET /people': { people } });
    await screen.findByText('ben@strings.example');
    const [ada, ben] = screen.getAllByRole('listitem');
    expect(within(ada!).getByText(/your own password stands under/)).toBeDefined();
    expect(within(ben!).getByRole('button', { name: 'Remove' })).toBeDefined();
  });

  it('a new one is checked as it is typed, then added', async () => {
    const { asked, hands } = onScreen(<People />, {
      'GET /people': { people },
      'POST /people': { id: id('r') },
    });
    await hands.click(await screen.findByRole('button', { name: 'Add a person' }));
    await hands.type(screen.getByLabelText('Name'), 'Cleo');
    await hands.type(screen.getByLabelText('Mail address'), 'cleo');
    await hands.type(screen.getByLabelText('First password'), 'short');
    await hands.click(screen.getByRole('button', { name: 'Add' }));
    await screen.findByText('A mail address as name@firm.example.');
    expect(screen.getByText('At least 10 characters.')).toBeDefined();
    expect(asked).toEqual([]);
    await hands.type(screen.getByLabelText('Mail address'), '@strings.example');
    await hands.type(screen.getByLabelText('First password'), ' but longer');
    await hands.selectOptions(screen.getByLabelText('Role'), 'proofreader');
    await hands.click(screen.getByRole('button', { name: 'Add' }));
    await screen.findByText('Cleo was added.');
    expect(asked[0]!.body).toEqual({
      name: 'Cleo',
      email: 'cleo@strings.example',
      role: 'proofreader',
      password: 'short but longer',
    });
  });

  it('nobody is removed before it was said twice', async () => {
    const { asked, hands } = onScreen(<People />, {
      'GET /people': { people },
      [`DELETE /people/${id('q')}`]: () => undefined,
    });
    await hands.click(await screen.findByRole('button', { name: 'Remove' }));
    const dialog = await screen.findByRole('alertdialog');
    expect(dialog.textContent).toContain('Ben is signed out at once');
    expect(asked).toEqual([]);
    await hands.click(within(dialog).getByRole('button', { name: 'Remove' }));
    await waitFor(() => expect(asked.map(({ method }) => method)).toEqual(['DELETE']));
  });
});

describe('limits', () => {
  const standing = {
    capMicros: 20_000_000,
    spentMicros: 3_000_000,
    trialsMicros: 500_000,
    testsMicros: 0,
    reservedMicros: 100_000,
    month: '2026-05',
    dayCapMicros: null,
    articleCapMicros: 250_000,
  };

  it('say what is spent of them, and for what', async () => {
    onScreen(<Limit owner />, { 'GET /limit': standing });
    const said = (await screen.findByText(/^For a month/)).parentElement!.textContent;
    expect(said).toContain('for a day no limit');
    expect(said).toMatch(/So far this month .*3\.00.*, of it .*0\.50.* for trials/);
    expect(said).toMatch(/0\.10.* set aside for calls under way/);
  });

  it('one is set in the unit it is asked for, and lifted', async () => {
    const { asked, hands } = onScreen(<Limit owner />, {
      'GET /limit': standing,
      'PUT /limit': ({ body }) => ({ ...standing, articleCapMicros: (body as { capMicros: number | null }).capMicros }),
    });
    await hands.click(await screen.findByRole('button', { name: /Limit of one article/ }));
    const field = screen.getByLabelText('Limit, typed');
    await hands.clear(field);
    await hands.type(field, '40');
    await hands.click(screen.getByRole('button', { name: 'Set it' }));
    await waitFor(() => expect(asked[0]!.body).toEqual({ capMicros: 400_000, scope: 'article' }));
    await hands.click(await screen.findByRole('button', { name: /Limit of one article/ }));
    await hands.click(screen.getByRole('button', { name: 'no limit' }));
    await hands.click(screen.getByRole('button', { name: 'Set it' }));
    await waitFor(() => expect(asked[1]!.body).toEqual({ capMicros: null, scope: 'article' }));
  });
});
