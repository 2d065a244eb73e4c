import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { BLOGS, PAGES } from './material/index.ts';
import { type StandIns, start } from './start.ts';

let all: StandIns;
beforeAll(async () => {
  all = await start({ pages: PAGES, blogs: BLOGS });
});
afterAll(() => all.close());

const ask = (path: string, key: string, body: object) =>
  fetch(`${all.address}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', authorization: `Bearer ${key}` },
    body: JSON.stringify(body),
  });

const SHAPE = {
  type: 'object',
  properties: {
    blocks: {
      type: 'array',
      items: {
        type: 'object',
        properties: {
          kind: { type: 'string', enum: ['paragraph', 'list'] },
          text: { type: 'string' },
          items: { type: 'array', items: { type: 'string' } },
          passages: { type: 'array', items: { type: 'integer' } },
        },
      },
    },
  },
};

const section = (passages: string[], words = 120) => `Task: write the section under the heading, about ${words} words.
<<<subject q7>>>\ntidal pools\n<<<end subject q7>>>
<<<heading q7>>>\nWhere crabs hide\n<<<end heading q7>>>
${passages.map((text, i) => `<<<passage ${i + 1} q7>>>\n(from: A page)\n${text}\n<<<end passage ${i + 1} q7>>>`).join('\n')}`;

const CRABS = [
  'Shore crabs hide under stones at low water. A stone of 30 centimetres shelters up to 4 of them. They come out when the tide returns.',
  'Put every stone back as it lay. A crab that dries for 2 hours dies, and the weed below a turned stone dies with it.',
];

async function written(
  service: 'one' | 'two',
  passages: string[],
  seed = 1,
): Promise<{ text: string; passages: number[] }[]> {
  const reply = await ask(`/${service}/v1/chat/completions`, all.keys[service], {
    model: 'stand-in',
    seed,
    messages: [{ role: 'user', content: section(passages) }],
    response_format: { type: 'json_schema', json_schema: { name: 'blocks', schema: SHAPE } },
  });
  expect(reply.status).toBe(200);
  const { choices } = (await reply.json()) as { choices: { message: { content: string | { text: string }[] } }[] };
  // The second service answers in parts, which the widely used form allows.
  const { content } = choices[0]!.message;
  const said = typeof content === 'string' ? content : content.map((part) => part.text).join('');
  const text = said.replace(/^```(?:json)?\s*|\s*```$/g, '');
  return (JSON.parse(text.slice(text.indexOf('{'))) as { blocks: { text: string; passages: number[] }[] }).blocks;
}

describe.each(['one', 'two'] as const)('model service %s', (service) => {
  test('writes only from what the request holds, on a subject it never heard of, and says where from', async () => {
    const blocks = await written(service, CRABS);
    const text = blocks.map((block) => block.text).join(' ');
    expect(text).toMatch(/crab/i);
    for (const figure of text.match(/\d+/g) ?? []) expect(CRABS.join(' ')).toContain(figure);
    expect(blocks.every((block) => block.passages.every((n) => n === 1 || n === 2))).toBe(true);
  });

  test('the same request gets the same answer, whatever was asked before', async () => {
    const first = await written(service, CRABS, 3);
    await written(service, ['Limpets keep to one rock. They graze at night and come home.'], 9);
    expect(await written(service, CRABS, 3)).toEqual(first);
  });

  test('refuses a wrong key', async () => {
    expect((await ask(`/${service}/v1/chat/completions`, 'wrong', { messages: [] })).status).toBe(401);
  });
});

describe('look-up', () => {
  const find = async (query: string) =>
    ((await (await fetch(`${all.address}/look-up?${query}`)).json()) as { pages: { title: string; address: string }[] })
      .pages;

  test('finds by subject and language, leaves out what speaks of something else, and can be read', async () => {
    const pages = await find('q=rain%20barrel%20winter&n=5&language=en');
    expect(pages[0]?.title).toBe('Rain barrels in winter');
    expect(pages.every(({ title }) => !/sauerkraut|kimchi/i.test(title))).toBe(true);
    const german = await find('q=Kahmhefe&n=5&language=de');
    expect(german.length).toBeGreaterThan(0);
    const page = await fetch(new URL(german[0]!.address, all.address));
    expect(await page.text()).toContain('<article>');
    expect(await find('q=volcanoes%20of%20iceland&n=5&language=en')).toEqual([]);
  });
});

describe('the blog', () => {
  const { endpoint, token, address } = { endpoint: '', token: '', address: '' };
  const site = () => ({ ...{ endpoint, token, address }, ...all.blog('journal') });
  const post = (body: object, key = site().token) =>
    fetch(site().endpoint, {
      method: 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${key}` },
      body: JSON.stringify(body),
    });
  const entry = (name: string, status: string) => ({
    type: ['h-entry'],
    properties: { name: [name], content: [{ html: '<p>Text</p>' }], 'mp-slug': ['a-slug'], 'post-status': [status] },
  });

  test('a draft shows to its owner only, goes live by an update, and is then in sitemap and feed', async () => {
    const made = await post(entry('A draft', 'draft'));
    expect(made.status).toBe(201);
    const at = made.headers.get('location')!;
    expect((await fetch(at)).status).toBe(404);
    expect((await fetch(`${at}?preview=${site().token}`)).status).toBe(200);
    expect(await (await fetch(`${site().address}/sitemap.xml`)).text()).not.toContain(at);
    await post({
      action: 'update',
      url: at,
      replace: { 'post-status': ['published'], published: ['2026-01-01T08:00:00Z'] },
    });
    expect(await (await fetch(at)).text()).toContain('A draft');
    for (const list of ['sitemap.xml', 'feed.atom'])
      expect(await (await fetch(`${site().address}/${list}`)).text()).toContain(at);
  });

  test('it stores no key of ours: the same slug twice makes two posts, the second with a number', async () => {
    const [one, two] = [await post(entry('Twice', 'draft')), await post(entry('Twice', 'draft'))];
    expect(two.headers.get('location')).not.toBe(one.headers.get('location'));
    expect(two.headers.get('location')).toMatch(/a-slug-\d+$/);
  });

  test('a wrong token and a body that is no entry are refused as the standard says', async () => {
    expect((await post(entry('No', 'draft'), 'wrong')).status).toBe(401);
    expect(await (await post({ properties: {} })).json()).toMatchObject({ error: 'invalid_request' });
  });
});

test('what was received outlives a restart, also when the last line was cut by a crash', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'grivo-stand-ins-'));
  const before = await start({ pages: [], blogs: BLOGS, folder });
  await fetch(before.blog('journal').endpoint, {
    method: 'POST',
    headers: { 'content-type': 'application/json', authorization: `Bearer ${before.blog('journal').token}` },
    body: JSON.stringify({ type: ['h-entry'], properties: { name: ['Kept'], content: ['x'] } }),
  });
  await before.close();
  const { appendFileSync } = await import('node:fs');
  appendFileSync(join(folder, 'blog-acts.jsonl'), '{"act":"create","post":{"na');
  const after = await start({ pages: [], blogs: BLOGS, folder });
  expect(
    after
      .received()
      .posts('journal')
      .some((one) => one.name === 'Kept'),
  ).toBe(true);
  await after.close();
  rmSync(folder, { recursive: true, force: true });
});

test('troubles strike once each, before or after acting, and are counted', async () => {
  const made = () => all.received().acts.filter((act) => act.act === 'create').length;
  const site = all.blog('kitchen');
  const create = () =>
    fetch(site.endpoint, {
      method: 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${site.token}` },
      body: JSON.stringify({ type: ['h-entry'], properties: { name: ['T'], content: ['x'] } }),
    }).then(
      (answer) => answer.status,
      () => 'cut',
    );
  const [count, troubles] = [made(), all.received().troubles];
  all.trouble('blog', { how: 'cut before' });
  expect([await create(), made() - count]).toEqual(['cut', 0]);
  all.trouble('blog', { how: 'cut after' });
  expect([await create(), made() - count]).toEqual(['cut', 1]);
  all.trouble('blog', { how: 'busy', retryAfterSeconds: 3 });
  expect([await create(), await create(), made() - count]).toEqual([429, 201, 2]);
  expect(all.received().troubles - troubles).toBe(3);
});

test('examples are followed in form and are no material', async () => {
  const titled = async (examples: string[]) => {
    const fences = examples.map((text, i) => `<<<example ${i + 1} q7>>>\n${text}\n<<<end example ${i + 1} q7>>>`);
    const task = `<<<subject q7>>>\nshore crabs\n<<<end subject q7>>>\nTask: give 3 titles to choose from, each of at most 60 characters.\n${fences.join('\n')}`;
    const reply = await ask('/one/v1/chat/completions', all.keys.one, {
      model: 'stand-in',
      seed: 1,
      messages: [{ role: 'user', content: `${task}\n<<<passage 1 q7>>>\n${CRABS.join('\n')}\n<<<end passage 1 q7>>>` }],
      response_format: {
        json_schema: {
          name: 'titles',
          schema: { type: 'object', properties: { titles: { type: 'array', items: { type: 'string' } } } },
        },
      },
    });
    const { choices } = (await reply.json()) as { choices: { message: { content: string } }[] };
    return (JSON.parse(choices[0]!.message.content) as { titles: string[] }).titles;
  };
  expect((await titled([]))[0]).not.toMatch(/\?$/);
  const asking = await titled(['Why do starlings gather?', 'What does a lamprey eat?']);
  expect(asking[0]).toMatch(/shore crabs\?$/);
  expect(asking.join(' ')).not.toMatch(/starling|lamprey/i);
});
