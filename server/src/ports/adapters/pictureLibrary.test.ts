import { describe, expect, test } from 'vitest';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Call, CallOutcome, Network } from '../../ground/network/network.ts';
import type { ServiceRow } from '../services/entity.ts';
import { PictureLibrary } from './pictureLibrary.ts';

const SERVICE = {
  id: 'l1',
  name: 'Harbour Light',
  address: 'https://library.example/api/',
  secret: Buffer.from('sealed'),
  calls_a_minute: null,
  time_limit_ms: 1_000,
} as ServiceRow;
const PICTURE = {
  id: 'p1',
  shows: 'A hive in an orchard',
  file: 'https://files.example/p1.jpg',
  page: 'https://library.example/p1',
  maker: 'Ada Wells',
  licence: { name: 'CC BY 4.0' },
  owed: true,
};

function library(answer: unknown, status = 200) {
  const calls: Call[] = [];
  const network = {
    call: async (call: Call): Promise<CallOutcome> => {
      calls.push(call);
      const body = Buffer.from(typeof answer === 'string' ? answer : JSON.stringify(answer));
      return { kind: 'reply', reply: { status, headers: {}, body, address: call.address } };
    },
  } as unknown as Network;
  const secrets = { open: () => 'the key' } as unknown as Secrets;
  const port = new PictureLibrary({ ground: { now: () => 0 } as unknown as Ground, network, secrets });
  const find = async (words = 'hive') => port.find(SERVICE, words, 'en', new AbortController().signal);
  return { port, calls, find };
}
const pictures = async (...all: unknown[]) => {
  const found = await library({ pictures: all }).find();
  if (!found.ok) throw new Error(found.failure.code);
  return found.value;
};

describe('a picture library', () => {
  test('is asked below its address, with its key and no more words than it needs', async () => {
    const { calls, find } = library({ pictures: [] });
    await find(`${'hive '.repeat(200)}`);
    const asked = new URL(calls[0]!.address);
    expect([asked.origin, asked.pathname, asked.searchParams.get('language')]).toEqual([
      'https://library.example',
      '/api/search',
      'en',
    ]);
    expect(asked.searchParams.get('words')!.length).toBeLessThanOrEqual(300);
    expect(calls[0]!.headers).toEqual({ authorization: 'Bearer the key' });
  });

  test('names the maker where that is owed, or where it does not say', async () => {
    expect((await pictures(PICTURE))[0]!.credit).toBe('Ada Wells, Harbour Light, CC BY 4.0');
    const { owed: _, ...unsaid } = PICTURE;
    expect((await pictures(unsaid))[0]!.credit).toBe('Ada Wells, Harbour Light, CC BY 4.0');
    expect((await pictures({ ...PICTURE, owed: false }))[0]!.credit).toBe('');
    expect((await pictures({ ...PICTURE, maker: null, licence: null }))[0]!.credit).toBe('Harbour Light');
  });

  test('entries that cannot be used are passed over, the others stay', async () => {
    const found = await pictures(
      { ...PICTURE, file: 'javascript:alert(1)' },
      { ...PICTURE, file: 'file:///etc/passwd' },
      { ...PICTURE, shows: '\u200b \u202e' },
      'a picture',
      null,
      { ...PICTURE, id: 'p2', page: 'nowhere' },
    );
    expect(found.map(({ id, page }) => [id, page])).toEqual([['p2', null]]);
  });

  test('what they show is one line of what can be seen, and not endless', async () => {
    const [found] = await pictures({
      ...PICTURE,
      shows: `A\u200b hive\n\n in ${'x'.repeat(4_000)}`,
      maker: 'Ada\u202e\nWells',
    });
    expect(found!.shows).toMatch(/^A hive in x+$/);
    expect(found!.shows.length).toBe(500);
    expect(found!.credit).toContain('Ada Wells');
  });

  test.each([
    ['no JSON', 'hello', 200, 'reply-unusable'],
    ['no list', { pictures: 'many' }, 200, 'reply-unusable'],
    ['a refused key', {}, 401, 'key-refused'],
    ['too many calls', {}, 429, 'service-busy'],
    ['an error of its own', {}, 500, 'service-broken'],
  ])('that answers with %s ends typed', async (_, answer, status, code) => {
    const found = await library(answer, status).find();
    expect(found.ok ? null : found.failure.code).toBe(code);
  });

  test('hands its key to nobody who keeps the files', async () => {
    const { port, calls } = library('bytes');
    const brought = await port.bring(
      SERVICE,
      { id: 'p1', shows: 'A hive', file: PICTURE.file, page: null, credit: '' },
      new AbortController().signal,
    );
    expect(brought.ok && brought.value.toString()).toBe('bytes');
    expect(calls[0]!.headers).toBeUndefined();
  });

  test('says in its test what was tried and what would mend it', async () => {
    const { port } = library('<html>');
    expect(await port.test(SERVICE)).toMatchObject([{ well: false, change: 'Check the address and the key' }]);
    const fine = await library({ pictures: [PICTURE] }).port.test(SERVICE);
    expect(fine.map(({ came }) => came)).toEqual(['It has 1, the first: A hive in an orchard', 'It came, 1 kB']);
  });
});
