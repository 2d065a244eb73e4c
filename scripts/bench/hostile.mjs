// How the program that answers screens bears what is made to keep it busy: every reader of outside content, by the way it
// is reached, at its size limit. How long a small question waited meanwhile, how large the program grew, and whether
// anything ended in neither a result nor a refusal.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stepKinds } from '@grivo/core';
import { SHAPES } from '../../server/test/hostile/shapes.ts';
import { until } from '../client.mjs';
import { startAll } from '../processes.mjs';
import { waitsOf } from './waiting.mjs';

/** How many are sent at once: more than there are processes to read in. */
const AT_ONCE = 3;
/** What takes longer than this is given up: longer than two readings that are given up one after the other. */
const SETTLES_WITHIN_MS = 120_000;

const MB = 1_000_000;
const NOTHING = { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 };

/** How often it is looked how much is held. */
const SEEN_EVERY_MS = 50;

/** What a program and those it began hold, in MB: memory that several share is shared out among them (PSS). */
function heldBy(pid) {
  const children = read(`/proc/${pid}/task/${pid}/children`).split(' ').filter(Boolean);
  const of = (one) => Number(/^Pss:\s+(\d+) kB/m.exec(read(`/proc/${one}/smaps_rollup`))?.[1] ?? 0) / 1_024;
  const itself = of(pid);
  return { itself, all: children.reduce((sum, one) => sum + of(one), itself) };
}

/** Empty where it has just ended. */
function read(path) {
  try {
    return readFileSync(path, 'utf8');
  } catch {
    return '';
  }
}

/** A server of one's own, that says whatever it is told to under each address. */
async function anyServer() {
  const held = new Map();
  const server = createServer((request, response) => {
    const found = held.get(new URL(request.url, 'http://x').pathname);
    request.resume();
    if (!found) return response.writeHead(404).end();
    response.writeHead(200, { 'content-type': found.mime });
    response.end(found.bytes());
  });
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  const origin = `http://127.0.0.1:${server.address().port}`;
  let n = 0;
  return {
    origin,
    hold(mime, bytes, name = 'x') {
      const path = `/${++n}/${name}`;
      held.set(path, { mime, bytes });
      return { address: `${origin}${path}`, path, free: () => held.delete(path) };
    },
    close: () => new Promise((resolve) => server.close(resolve)),
  };
}

/** Every way outside content comes in: what is made for it, how much may come, how it is handed in. */
function ways({ call, any, text }) {
  const at = (mime, use) => async (bytes) => {
    const held = any.hold(mime, () => bytes);
    try {
      return await use(held.address);
    } finally {
      held.free();
    }
  };
  const made = async (settings) => (await call('POST', '/sources', { name: 'Hostile', settings })).body.id;
  const looked = async (settings) => {
    const id = await made(settings);
    return { id, ...(await call('POST', `/sources/${id}/look`)) };
  };
  const uploaded = async (bytes, mime) =>
    (await call('POST', `/uploads?mime=${encodeURIComponent(mime)}`, bytes)).body.file;
  const firstItem = async (settings) => {
    const source = await looked(settings);
    if (source.status !== 200) return { source };
    const items = await call('GET', `/sources/${source.id}/items`);
    return { source, item: items.body.items?.[0]?.id };
  };
  const textOf = async (settings) => {
    const { source, item } = await firstItem(settings);
    return item ? await call('GET', `/items/${item}/text`) : source;
  };
  const document = (fileName, mime) => async (bytes) =>
    textOf({ kind: 'documents', files: [{ file: await uploaded(bytes, mime), fileName }] });
  return {
    'feeds found': ['feed', 8 * MB, at('application/rss+xml', (text) => call('POST', '/feeds/find', { text }))],
    'feeds looked at': [
      'feed',
      8 * MB,
      at('application/rss+xml', (address) => looked({ kind: 'feed', feeds: [{ address, name: '' }] })),
    ],
    channels: ['feed', 5 * MB, at('text/html', (text) => call('POST', '/channels/find', { text }))],
    'lists of feeds': [
      'opml',
      5 * MB,
      async (bytes) => call('POST', '/feeds/list', { file: await uploaded(bytes, 'text/x-opml') }),
    ],
    pages: ['page', 4 * MB, at('text/html', (address) => textOf({ kind: 'documents', addresses: [address] }))],
    'pages uploaded': ['page', 4 * MB, document('a.html', 'text/html')],
    'Markdown uploaded': ['markdown', 2 * MB, document('a.md', 'text/markdown')],
    'text uploaded': ['phrases', 4 * MB, document('a.txt', 'text/plain')],
    sitemaps: ['map', 20 * MB, at('application/xml', (sitemap) => looked({ kind: 'documents', sitemap }))],
    'pages of videos': ['page', 5 * MB, at('text/html', (address) => looked({ kind: 'videos', addresses: [address] }))],
    captions: [
      'captions',
      5 * MB,
      async (bytes) => {
        const file = await uploaded(bytes, 'text/vtt');
        const { source, item } = await firstItem({ kind: 'videos', captions: [{ file, fileName: 'a.vtt' }] });
        return item ? await call('GET', `/items/${item}/video`) : source;
      },
    ],
    'sheets uploaded': [
      'table',
      100 * MB,
      async (bytes) => looked({ kind: 'sheet', file: await uploaded(bytes, 'text/csv'), fileName: 'a.csv' }),
    ],
    sheets: ['table', 100 * MB, at('text/csv', (address) => looked({ kind: 'sheet', address }))],
    catalogues: [
      'catalogue',
      60 * MB,
      at('', async (address) => {
        const settings = { kind: 'catalogue', address, partnerLink: '{link}?p={partner}', partner: 'x' };
        return call('POST', `/sources/${await made(settings)}/catalogue`, settings);
      }),
    ],
    'phrases pasted': [
      'phrases',
      900_000,
      async (bytes) =>
        call('POST', `/sources/${await made({ kind: 'keywords' })}/keywords`, { paste: bytes.toString('utf8') }),
    ],
    procedures: ['yaml', 500_000, async (bytes) => call('POST', '/procedures/read', { yaml: bytes.toString('utf8') })],
    'texts edited': ['markdown', 390_000, async (bytes) => text(bytes.toString('utf8').slice(0, 390_000))],
    'replies of a writer': [
      'reply',
      8 * MB,
      async (bytes) => {
        const held = any.hold('application/json', () => bytes, 'chat/completions');
        const { body } = await call('POST', '/services', {
          role: 'writer',
          name: 'Hostile',
          address: held.address.replace('/chat/completions', ''),
          model: 'x',
          secret: 'none',
          price: NOTHING,
          timeLimitMs: 60_000,
        });
        try {
          return await call('POST', `/services/${body.id}/test`, {});
        } finally {
          held.free();
        }
      },
    ],
  };
}

/** Settled is an answer that says what came of it, or that and why it was refused. */
const isSettled = ({ status, body }) =>
  status < 400 || (status < 500 && typeof body.title === 'string' && typeof body.detail === 'string');

export async function hostile(log) {
  const folder = mkdtempSync(join(tmpdir(), 'grivo-bench-hostile-'));
  const any = await anyServer();
  const all = await startAll(folder, { durable: false, standIns: any.origin });
  const { api } = JSON.parse(readFileSync(join(folder, 'running.json'), 'utf8')).parts;
  log(`at the beginning ${Math.round(heldBy(api).all)} MB`);
  const unsettled = [];
  let [silence, peak, sent] = [0, 0, 0];
  try {
    const call = await caller(all);
    const each = ways({ call, any, text: await heldText(call) });
    const only = process.env.GRIVO_HOSTILE_ONLY?.split(',');
    for (const [name, [shapes, size, hand]] of Object.entries(each)) {
      if (only && !only.includes(name)) continue;
      const from = performance.now();
      let most = { itself: 0, all: 0 };
      const watch = setInterval(() => {
        const held = heldBy(api);
        if (held.all > most.all) most = held;
      }, SEEN_EVERY_MS);
      const waiting = await waitsOf(`${all.address}/api/health`);
      const left = [...SHAPES[shapes]];
      const slowest = { ms: 0, name: '' };
      const one = async () => {
        for (let shape = left.shift(); shape; shape = left.shift()) {
          const began = performance.now();
          const answer = await hand(shape.bytes(size)).catch((error) => ({ status: 599, body: { error: `${error}` } }));
          const ms = performance.now() - began;
          if (ms > slowest.ms) Object.assign(slowest, { ms, name: shape.name });
          sent++;
          if (!isSettled(answer))
            unsettled.push(`${name}, ${shape.name}: ${answer.status} ${JSON.stringify(answer.body).slice(0, 200)}`);
        }
      };
      await Promise.all(Array.from({ length: AT_ONCE }, one));
      const waits = await waiting.end();
      silence = Math.max(silence, waits[0]);
      clearInterval(watch);
      peak = Math.max(peak, most.all);
      log(
        `${name}: ${SHAPES[shapes].length} at ${(size / MB).toFixed(1)} MB in ${Math.round((performance.now() - from) / 1_000)} s, the slowest ${(slowest.ms / 1_000).toFixed(1)} s (${slowest.name}); the longest wait of ${waits.length} small questions ${Math.round(waits[0])} ms; peak ${Math.round(most.all)} MB, ${Math.round(most.itself)} of them its own`,
      );
    }
    for (const line of unsettled) log(`not settled: ${line}`);
    log(`${sent} were sent`);
    return { 'api.silenceMs': silence, 'hostile.peakMB': peak, 'hostile.unsettled': unsettled.length };
  } finally {
    await all.stop();
    await any.close();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A way to the API that answers with status and body, whatever they are. */
async function caller({ address, owner }) {
  const ask = (method, path, body, cookie) =>
    fetch(`${address}/api${path}`, {
      method,
      headers: {
        ...(cookie ? { cookie } : {}),
        ...(Buffer.isBuffer(body)
          ? { 'content-type': 'application/octet-stream' }
          : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: Buffer.isBuffer(body) ? body : JSON.stringify(body) }),
      signal: AbortSignal.timeout(SETTLES_WITHIN_MS),
    });
  const { email, password } = owner;
  const signed = await ask('POST', '/session', { email, password });
  const cookie = signed.headers.get('set-cookie').split(';')[0];
  return async (method, path, body) => {
    const response = await ask(method, path, body, cookie);
    const text = await response.text();
    return { status: response.status, body: text === '' ? {} : JSON.parse(text) };
  };
}

/** Briefs that are held with a text that may be edited, each taken once. @returns what edits the next */
async function heldText(call) {
  const many = SHAPES.markdown.length;
  const { id: source } = (await call('POST', '/sources', { name: 'Held', settings: { kind: 'keywords' } })).body;
  await call('POST', `/sources/${source}/keywords`, {
    paste: Array.from(
      { length: many },
      (_, i) => `held ${String.fromCharCode(97 + (i % 26), 98 + i / 26)}imor vat`,
    ).join('\n'),
  });
  const { id: pipeline } = (
    await call('POST', '/pipelines', {
      name: 'Held',
      document: {
        grivo: 1,
        language: 'en',
        steps: [
          { ...stepKinds.take.fresh('s1'), sources: [source], most: null },
          { ...stepKinds['lay out'].fresh('s2'), body: 'Weigh the salt.' },
          stepKinds.hold.fresh('s3'),
        ],
      },
      openLimit: many,
    })
  ).body;
  const { briefs } = (await call('POST', `/pipelines/${pipeline}/take`, {})).body;
  const left = [];
  for (const brief of briefs)
    await until(
      async () => {
        const [hold] = (await call('GET', `/briefs/${brief}/holds`)).body.holds ?? [];
        if (hold) left.push(`/briefs/${brief}/holds/${hold.run}`);
        return hold !== undefined;
      },
      60_000,
      'a brief that is held',
    );
  return (text) => call('POST', left.pop(), { decide: 'pass', change: { text } });
}
