import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { BLOGS, CHANNELS, DOCUMENTS, NEWS, PAGES, PODCASTS, SHEETS, SHOPS } from './material/index.ts';
import { spokenSamples, wavOf } from './sound/tones.ts';
import { type StandIns, start } from './start.ts';

/** The interfaces by the letter of their descriptions, as clients written by others use them. */
let all: StandIns;
beforeAll(async () => {
  all = await start({
    pages: PAGES,
    blogs: BLOGS,
    channels: CHANNELS,
    sheets: SHEETS,
    news: NEWS,
    shops: SHOPS,
    documents: DOCUMENTS,
    podcasts: PODCASTS,
  });
});
afterAll(() => all.close());

describe('Micropub', () => {
  const site = () => all.blog('journal');
  const post = (body: object | URLSearchParams, token: string | null = site().token) =>
    fetch(site().endpoint, {
      method: 'POST',
      headers: {
        ...(token === null ? {} : { authorization: `Bearer ${token}` }),
        ...(body instanceof URLSearchParams ? {} : { 'content-type': 'application/json' }),
      },
      body: body instanceof URLSearchParams ? body : JSON.stringify(body),
    });
  const ask = async (query: string) => {
    const answer = await fetch(`${site().endpoint}?${query}`, { headers: { authorization: `Bearer ${site().token}` } });
    return { status: answer.status, body: (await answer.json()) as Record<string, never> };
  };
  const source = async (at: string) =>
    (await ask(`q=source&url=${encodeURIComponent(at)}`)).body as unknown as { properties: Record<string, unknown[]> };
  const made = async (properties: object) => (await post({ type: ['h-entry'], properties })).headers.get('location')!;

  test('updates replace, add and take away values, plain strings too, and whole properties', async () => {
    const url = await made({
      name: ['Bow hair'],
      content: ['Old'],
      category: ['bows', 'hair', 'care'],
      summary: ['Short'],
    });
    expect(
      (await post({ action: 'update', url, replace: { content: ['Horse <hair> & rosin'], name: ['Hair'] } })).status,
    ).toBe(204);
    expect((await post({ action: 'update', url, add: { category: ['rosin'] } })).status).toBe(204);
    expect((await post({ action: 'update', url, delete: { category: ['hair'] } })).status).toBe(204);
    expect((await post({ action: 'update', url, delete: ['summary'] })).status).toBe(204);
    const { properties } = await source(url);
    expect(properties).toMatchObject({
      name: ['Hair'],
      content: [{ html: 'Horse &lt;hair&gt; &amp; rosin' }],
      category: ['bows', 'care', 'rosin'],
    });
    expect(properties).not.toHaveProperty('summary');
    expect(await (await fetch(url)).text()).toContain('Horse &lt;hair&gt;');
    const wrong = await post({ action: 'update', url, replace: { content: 'no list' } });
    expect([wrong.status, await wrong.json()]).toMatchObject([400, { error: 'invalid_request' }]);
  });

  test('a post is created by a form, with the token in it or in the head', async () => {
    const form = new URLSearchParams([
      ['h', 'entry'],
      ['content', 'A note without a name'],
      ['category[]', 'one'],
      ['category[]', 'two'],
    ]);
    const answer = await post(form);
    expect(answer.status).toBe(201);
    const { properties } = await source(answer.headers.get('location')!);
    expect(properties).toMatchObject({ content: [{ html: 'A note without a name' }], category: ['one', 'two'] });
    expect(properties).not.toHaveProperty('name');
    form.set('access_token', site().token);
    expect((await post(form, null)).status).toBe(201);
    form.set('access_token', 'wrong');
    expect((await post(form, null)).status).toBe(401);
  });

  test('what is deleted can be brought back, by JSON and by a form', async () => {
    const url = await made({ name: ['Gone'], content: ['x'] });
    expect((await post(new URLSearchParams({ action: 'delete', url }))).status).toBe(204);
    expect((await fetch(url)).status).toBe(404);
    expect((await post({ action: 'undelete', url })).status).toBe(204);
    expect((await fetch(url)).status).toBe(200);
    expect((await post({ action: 'undelete', url })).status).toBe(400);
  });

  test('queries: where it is syndicated to, and properties alone', async () => {
    expect((await ask('q=syndicate-to')).body).toEqual({ 'syndicate-to': [] });
    const url = await made({ name: ['Named'], content: ['x'], category: ['a'] });
    const asked = `q=source&url=${encodeURIComponent(url)}`;
    expect((await ask(`${asked}&properties[]=category&properties[]=name`)).body).toEqual({
      properties: { category: ['a'], name: ['Named'] },
    });
    expect((await ask(`${asked}&properties=category`)).body).toEqual({ properties: { category: ['a'] } });
  });
});

test('feeds in Atom have what RFC 4287 asks of them: id, title, updated, and authors', async () => {
  const feeds = [`${all.blog('journal').address}/feed.atom`];
  for (const { slug, form } of NEWS) if (form === 'atom') feeds.push(`${all.address}/news/${slug}/feed`);
  expect(feeds.length).toBeGreaterThan(1);
  for (const feed of feeds) {
    const text = await (await fetch(feed)).text();
    const head = text.slice(0, text.indexOf('<entry>'));
    for (const needed of ['<id>', '<title>', '<updated>']) expect(head, feed).toContain(needed);
    const entries = text.split('<entry>').slice(1);
    for (const entry of entries) {
      for (const needed of ['<id>', '<title>', '<updated>']) expect(entry, feed).toContain(needed);
      expect(entry.includes('<author>') || head.includes('<author>'), feed).toBe(true);
    }
  }
});

describe('the model services', () => {
  const ask = async (path: string, body: object | null, key: string = all.keys.one) => {
    const answer = await fetch(`${all.address}${path}`, {
      method: body === null ? 'GET' : 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${key}` },
      ...(body === null ? {} : { body: JSON.stringify(body) }),
    });
    return { status: answer.status, body: (await answer.json()) as Record<string, never> };
  };
  const messages = [{ role: 'user', content: 'Say ready' }];

  test.each(['one', 'two'] as const)('%s: a reply any client of the interface reads', async (which) => {
    const answer = await ask(`/${which}/v1/chat/completions`, { model: 'm', messages, n: 2 }, all.keys[which]);
    expect(answer).toMatchObject({
      status: 200,
      body: {
        id: expect.stringMatching(/^chatcmpl-\w+$/),
        object: 'chat.completion',
        created: expect.any(Number),
        model: 'm',
        choices: [
          { index: 0, message: { role: 'assistant', content: expect.any(String) }, finish_reason: 'stop' },
          { index: 1, message: { role: 'assistant', content: expect.any(String) }, finish_reason: 'stop' },
        ],
      },
    });
    const models = await ask(`/${which}/v1/models`, null, all.keys[which]);
    expect(models.body).toMatchObject({ object: 'list', data: [{ id: `stand-in-${which}`, object: 'model' }] });
  });

  test('both names of the length limit count, and a reply that is cut says so', async () => {
    for (const limit of ['max_tokens', 'max_completion_tokens'])
      expect((await ask('/one/v1/chat/completions', { messages, [limit]: 1 })).body).toMatchObject({
        choices: [{ finish_reason: 'length' }],
        usage: { completion_tokens: 1 },
      });
  });

  test.each([
    [{ messages: [] }, 'messages'],
    [{ messages, n: 0 }, 'n'],
    [{ messages, max_tokens: -1 }, 'max_completion_tokens'],
    [{ messages, response_format: { type: 'poem' } }, 'response_format'],
  ])('what it cannot do is refused with type and parameter: %o', async (body, param) => {
    expect(await ask('/one/v1/chat/completions', body)).toMatchObject({
      status: 400,
      body: { error: { message: expect.any(String), type: 'invalid_request_error', param } },
    });
  });

  test('a wrong key is refused with its code', async () => {
    expect(await ask('/one/v1/chat/completions', { messages }, 'wrong')).toMatchObject({
      status: 401,
      body: { error: { type: 'invalid_request_error', code: 'invalid_api_key' } },
    });
  });

  test('as many pictures as are asked for, of the size asked for', async () => {
    const drawn = await ask('/one/v1/images/generations', { prompt: 'a bridge', n: 2, size: '64x48' });
    expect((drawn.body as { data?: unknown[] }).data).toHaveLength(2);
    expect(await ask('/one/v1/images/generations', { prompt: 'a bridge', size: 'huge' })).toMatchObject({
      status: 400,
      body: { error: { param: 'size' } },
    });
  });

  test('a recording is written down in every form the interface knows', async () => {
    const heard = async (format: string | null) => {
      const form = new FormData();
      const wav = wavOf(spokenSamples('A peg slips. It is chalked.'));
      form.set('file', new Blob([new Uint8Array(wav)], { type: 'audio/wav' }), 'a.wav');
      if (format !== null) form.set('response_format', format);
      const answer = await fetch(`${all.address}/one/v1/audio/transcriptions`, {
        method: 'POST',
        headers: { authorization: `Bearer ${all.keys.one}` },
        body: form,
      });
      return { status: answer.status, text: await answer.text() };
    };
    const plain = JSON.parse((await heard(null)).text) as object;
    expect(Object.keys(plain)).toEqual(['text']);
    expect(JSON.parse((await heard('verbose_json')).text)).toMatchObject({ segments: expect.any(Array) });
    expect((await heard('text')).text).toMatch(/peg slips/i);
    expect((await heard('srt')).text).toMatch(/^1\n00:00:0\d,\d{3} --> /);
    expect((await heard('vtt')).text).toMatch(/^WEBVTT\n\n00:00:0\d\.\d{3} --> /);
    expect((await heard('poem')).status).toBe(400);
  });
});

test('the page at the root names what there is, and every address on it that can be opened answers', async () => {
  const page = await (await fetch(all.address)).text();
  const addresses = [...page.matchAll(/href="([^"]+)"/g)].map(([, address]) => address!.replaceAll('&amp;', '&'));
  expect(addresses.length).toBeGreaterThan(10);
  expect(page).toContain(all.keys.one);
  for (const address of addresses) {
    const { status } = await fetch(address);
    // Services are called with a question; their root has nothing to show.
    expect(status, address).toBeLessThan(500);
    if (!/\/v1$|\/look-up$|\/find$|\/keywords$/.test(address)) expect(status, address).toBe(200);
  }
});
