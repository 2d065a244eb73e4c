import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { stepKinds as k, type Step } from '@grivo/core';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { illustrating } from './ground/illustrating.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const illustrated = illustrating(() => desk);

/** What was asked of a site that may be called, and of one that may not. */
const asked: Record<'open' | 'shut', string[]> = { open: [], shut: [] };
const servers: Server[] = [];
const at: Record<'open' | 'shut', string> = { open: '', shut: '' };
const paint = (background: string) =>
  sharp({ create: { width: 700, height: 400, channels: 3, background } })
    .png()
    .toBuffer();
const page = (body: string) => `<!doctype html><title>Pegs &amp; more</title><body style="font:40px serif">${body}`;

async function site(name: 'open' | 'shut'): Promise<void> {
  const red = await paint('#b03020');
  const green = await paint('#207040');
  const server = createServer((request, response) => {
    asked[name].push(`${request.method} ${request.url}`);
    const html = (body: string, status = 200) =>
      response.writeHead(status, { 'content-type': 'text/html' }).end(page(body));
    if (request.url === '/pegs')
      return void html(
        `<h1>Pegs of maple</h1><img src="${at.shut}/spy.png"><img src="file:///etc/hostname"><img src="/red.png"><script>fetch('/told', { method: 'POST', body: 'x' }); new WebSocket('ws://127.0.0.1:1'); navigator.sendBeacon('/beacon', 'x')</script>`,
      );
    if (request.url === '/empty')
      return void response.writeHead(200, { 'content-type': 'text/html' }).end('<!doctype html>');
    if (request.url === '/gone') return void html('Gone', 404);
    if (request.url === '/away') return void response.writeHead(302, { location: `${at.shut}/pegs` }).end();
    if (request.url?.startsWith('/red') || request.url === '/maple-peg-red.png')
      return void response.writeHead(200, { 'content-type': 'image/png' }).end(red);
    if (request.url?.startsWith('/green'))
      return void response.writeHead(200, { 'content-type': 'image/png' }).end(green);
    return void html('Nothing', 404);
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  servers.push(server);
  at[name] = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}
beforeAll(async () => {
  await site('shut');
  await site('open');
  desk.w.product.allowed.add(at.open);
});
afterAll(() => {
  for (const server of servers) server.close();
});

const whole = async (file: string) =>
  (await desk.ask<{ picture: { kind: string; origin: string; words: string } }>('GET', `/pictures/${file}`)).body
    .picture;
const saidOf = async (article: string) => {
  const [row] = await desk.w.product.ground.db.rows<{ brief: string }>('SELECT brief FROM article WHERE id = ?', [
    article,
  ]);
  const { body } = await desk.ask<{ runs: { kind: string; gave: Record<string, unknown> }[] }>(
    'GET',
    `/briefs/${row!.brief}`,
  );
  return body.runs.find(({ kind }) => kind === 'illustrate')!.gave['pictureSaid'];
};
const link = (path: string) => ({ link: at.open + path });
const pictured = (path: string, more: object = {}) =>
  illustrated('pegs', { lead: 'page', named: 'link', otherwise: 'none', ...more }, [], link(path));

test('a page is pictured as a browser shows it, credited, and nothing goes where we may not go', async () => {
  asked.shut.length = 0;
  const { lead } = await pictured('/pegs');
  const host = new URL(at.open).host;
  expect(lead).toMatchObject({ width: 1_280, height: 800, alternative: `The page “Pegs & more” at ${host}` });
  expect(lead!.credit).toEqual([{ text: host, link: { to: 'address', address: `${at.open}/pegs` } }]);
  expect(await whole(lead!.file)).toMatchObject({ kind: 'still', origin: `${at.open}/pegs` });
  // It loads what may be loaded, and only by reading.
  expect(asked.open).toContain('GET /red.png');
  expect(asked.open.filter((one) => !one.startsWith('GET '))).toEqual([]);
  expect(asked.shut).toEqual([]);
});

test('what cannot be pictured says why, and the article goes on without, or with a drawn one', async () => {
  for (const [path, why] of [
    ['/gone', /it answers 404/],
    ['/empty', /shows nothing but one colour/],
    ['/away', /cannot be pictured/],
  ] as const) {
    const { article, lead } = await pictured(path);
    expect(lead).toBeNull();
    expect(await saidOf(article.id)).toMatch(why);
  }
  expect(asked.shut).toEqual([]);
  const { article: shut, lead: none } = await illustrated(
    'pegs',
    { lead: 'page', named: 'link', otherwise: 'none' },
    [],
    { link: `${at.shut}/pegs` },
  );
  expect([none, await saidOf(shut.id)]).toEqual([null, expect.stringMatching(/private network/)]);
  expect(asked.shut).toEqual([]);
  const { lead: drawn } = await pictured('/gone', { otherwise: 'drawn' });
  expect((await whole(drawn!.file)).kind).toBe('drawn');
  const { tools } = desk.w.product;
  const camera = tools.camera;
  tools.camera = null;
  const { article } = await pictured('/pegs');
  expect(await saidOf(article.id)).toMatch(/There is no browser on this machine/);
  tools.camera = camera;
});

test('pictures a field names are taken in turn, with the words they are called by or that are given', async () => {
  const named = { lead: 'field', otherwise: 'none' };
  const { lead } = await illustrated('pegs', { ...named, named: 'link' }, [], link('/maple-peg-red.png'));
  expect(lead).toMatchObject({ width: 700, height: 400, alternative: 'Maple peg red' });
  expect(await whole(lead!.file)).toMatchObject({ kind: 'still', origin: `${at.open}/maple-peg-red.png` });
  const { lead: told } = await illustrated(
    'a peg of boxwood',
    { ...named, named: 'link', alternative: 'A photograph of {{ subject }}, lying on a bench' },
    [],
    link('/red.png'),
  );
  expect(told!.alternative).toBe('A peg of boxwood, lying on a bench');
  const { article, lead: none } = await illustrated('pegs', { ...named, named: 'link' }, [], link('/gone'));
  expect([none, await saidOf(article.id)]).toEqual([null, `${at.open}/gone: it answers 404.`]);
  // Several in one field stand in several places, each once.
  const long =
    'It is turned on a lathe from wood that has lain for ten years, and then it is fitted by hand, day after day, until it neither sticks nor slips.';
  const { article: two } = await illustrated(
    'pegs',
    { ...named, named: 'text', place: 'where they fit', most: 5 },
    [],
    { notes: `${at.open}/red.png, ${at.open}/green.png ${at.open}/red.png` },
    { body: `A peg.\n\n## Wood\n\n${long}\n\n## Fit\n\n${long}\n\n## Wear\n\n${long}`, reads: 'Markdown' },
  );
  const figures = two.document.body.filter(({ type }) => type === 'figure');
  expect([figures.length, await saidOf(two.id)]).toEqual([2, undefined]);
});

test('a moment of a film is what it shows there; where it cannot be opened there it is said why', async () => {
  const film = (slug: string) => `${desk.w.standIns.address}/videos/watch/${slug}`;
  const read = { ...k.read.fresh('r1'), what: 'the captions' } as Step;
  const at = (second: number, slug = 'salt-by-weight') =>
    illustrated('salt by weight', { lead: 'still', second, otherwise: 'none' }, [read], { link: film(slug) });
  const { lead: early } = await at(2);
  const { lead } = await at(40);
  expect([lead!.width, lead!.height]).toEqual([640, 360]);
  expect(lead!.alternative).toMatch(/^Still of “.+” at 0:40$/);
  expect(lead!.file).not.toBe(early!.file);
  expect((await whole(lead!.file)).origin).toBe(film('salt-by-weight'));
  const late = await at(90);
  expect([late.lead, await saidOf(late.article.id)]).toEqual([
    null,
    'The film cannot be opened at 1:30: it lasts 60 seconds.',
  ]);
  const none = await at(2, 'glass-weights');
  expect([none.lead, await saidOf(none.article.id)]).toEqual([null, 'Its host gives no film, only a still.']);
});
