import { SourceSettings } from '@grivo/contract';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { makeFeedSource, makeSource, nameOf, type SourceDraft } from './makeSource.ts';

const ID = '1m8hk9m103kmkd02atqa';
const asked: { path: string; body: unknown }[] = [];
let channel: object | null = null;
beforeEach(() => {
  asked.length = 0;
  channel = null;
  vi.stubGlobal('fetch', async (address: string, { body }: { body?: string | Blob } = {}) => {
    asked.push({ path: address, body: typeof body === 'string' ? JSON.parse(body) : body });
    if (address.startsWith('/api/uploads')) return answer({ file: `${asked.length}`.padStart(64, 'a'), bytes: 1 });
    if (address === '/api/channels/find')
      return channel
        ? answer(channel)
        : answer({ type: 'x', title: 'No', status: 422, detail: 'None.', mend: 'Try.' }, 422);
    return answer({ id: ID });
  });
});
afterEach(() => vi.unstubAllGlobals());
const answer = (value: unknown, status = 200) => new Response(JSON.stringify(value), { status });

/** What was asked for to be made, its settings as the contract takes them. */
async function made(draft: Partial<SourceDraft> & Pick<SourceDraft, 'kind'>) {
  expect(await makeSource({ name: '', where: '', files: [], ...draft })).toBe(ID);
  // Files that were put in are looked at right away.
  const looked = asked.at(-1)!.path === `/api/sources/${ID}/look` ? [asked.pop()!] : [];
  const isPutIn = ['documents', 'recordings', 'videos'].includes(draft.kind) && (draft.files ?? []).length > 0;
  expect(looked).toHaveLength(isPutIn ? 1 : 0);
  const { path, body } = asked.at(-1)!;
  expect(path).toBe('/api/sources');
  const { name, settings } = body as { name: string; settings: unknown };
  return { name, settings: SourceSettings.parse(settings) };
}
const file = (name: string) => new File(['x'], name);

describe('every kind is made of what was given, with settings the contract takes', () => {
  test.each([
    ['keywords', 'Keywords'],
    ['publications', 'What went out'],
    ['hook', 'Hook'],
    ['requests', 'Requests'],
  ] as const)('%s, of nothing', async (kind, name) => {
    expect(await made({ kind })).toMatchObject({ name, settings: { kind } });
    expect(await made({ kind, name: 'Bows' })).toMatchObject({ name: 'Bows' });
  });

  test.each(['sheet', 'catalogue'] as const)('%s, of an address or a file', async (kind) => {
    expect(await made({ kind, where: 'shop.example/lists/my_bows-2026.csv' })).toMatchObject({
      name: 'my bows 2026',
      settings: { kind, address: 'https://shop.example/lists/my_bows-2026.csv' },
    });
    const of = await made({ kind, files: [file('my_bows.xlsx'), file('second.csv')] });
    expect(of).toMatchObject({
      name: 'my bows',
      settings: { fileName: 'my_bows.xlsx', file: expect.stringMatching(/^a+\d$/) },
    });
    expect(asked.filter(({ path }) => path.startsWith('/api/uploads'))).toHaveLength(1);
  });

  test('documents, of addresses, of files, of a sitemap', async () => {
    const where = 'https://a.example/one https://a.example/two';
    expect(await made({ kind: 'documents', where })).toMatchObject({
      name: 'a.example',
      settings: { addresses: ['https://a.example/one', 'https://a.example/two'] },
    });
    expect(await made({ kind: 'documents', where: 'https://a.example/sitemap.xml' })).toMatchObject({
      settings: { sitemap: 'https://a.example/sitemap.xml', addresses: [] },
    });
    const of = await made({ kind: 'documents', files: [file('Setting_a_post.pdf'), file('b.docx')] });
    expect(of.name).toBe('Setting a post');
    expect((of.settings as { files: unknown[] }).files).toHaveLength(2);
  });

  test('recordings, of files and of a podcast', async () => {
    expect(await made({ kind: 'recordings', where: 'https://p.example/feed' })).toMatchObject({
      settings: { podcast: 'https://p.example/feed' },
    });
    expect(await made({ kind: 'recordings', files: [file('talk.wav')] })).toMatchObject({ name: 'talk' });
  });

  test('feeds that were found, named by the one of them or together', async () => {
    await makeFeedSource('', [{ address: 'https://a.example/feed', name: 'Bench news' }]);
    expect(asked.at(-1)!.body).toMatchObject({ name: 'Bench news' });
    const two = [1, 2].map((n) => ({ address: `https://a.example/${n}`, name: 'n'.repeat(300) }));
    await makeFeedSource('', two);
    const { name, settings } = asked.at(-1)!.body as { name: string; settings: unknown };
    expect(name).toBe('Feeds');
    expect(SourceSettings.parse(settings)).toMatchObject({ kind: 'feed', startFrom: { at: 'the last', n: 30 } });
  });
});

describe('videos', () => {
  test('one address with a list of videos is a channel, one without is a video', async () => {
    channel = { address: 'https://v.example/channel', name: 'Bench', videos: 3 };
    expect(await made({ kind: 'videos', where: 'https://v.example/c/bench' })).toMatchObject({
      name: 'Bench',
      settings: { channel: 'https://v.example/channel', channelName: 'Bench' },
    });
    channel = null;
    expect(await made({ kind: 'videos', where: 'https://v.example/watch/1' })).toMatchObject({
      settings: { addresses: ['https://v.example/watch/1'], channel: null },
    });
  });

  test('several addresses are videos, and no channel is looked for', async () => {
    await made({ kind: 'videos', where: 'https://v.example/1, https://v.example/2' });
    expect(asked.map(({ path }) => path)).toEqual(['/api/sources']);
  });

  test('a handle that leads to no channel is refused with its reason, and nothing is made', async () => {
    const draft = { kind: 'videos', name: '', where: '@nobody', files: [] } as const;
    await expect(makeSource(draft)).rejects.toThrow('None.');
    expect(asked.map(({ path }) => path)).toEqual(['/api/channels/find']);
  });

  test('captions as a file', async () => {
    const of = await made({ kind: 'videos', files: [file('Fitting a bridge.vtt')] });
    expect(of).toMatchObject({ name: 'Fitting a bridge', settings: { shortest: 0 } });
  });
});

test.each([
  ['https://a.example/lists/my_bows-2026.csv?x=1', 'my bows 2026'],
  ['plain', 'plain'],
  ['https://a.example/', ''],
])('%s is named %s', (address, name) => {
  expect(nameOf(address)).toBe(name);
});
