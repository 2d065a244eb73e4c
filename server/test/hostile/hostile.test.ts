import { CatalogueSettings, HookSettings } from '@grivo/contract';
import { readCaptions } from '@grivo/core';
import { DOCUMENTS, fileOf, NEWS, PODCASTS, recordingOf, SHOPS, type StandIns, start } from '@grivo/standins';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { readHeard } from '../../src/adapters/transcriber.ts';
import { guessColumns } from '../../src/catalogue/columns.ts';
import { recordsOf } from '../../src/catalogue/open.ts';
import { textOf } from '../../src/documents/kind.ts';
import { DocumentReader } from '../../src/documents/reader.ts';
import { readMap } from '../../src/documents/sitemap.ts';
import { readFeed } from '../../src/feeds/feed.ts';
import { namedFeeds } from '../../src/feeds/find.ts';
import { readOpml } from '../../src/feeds/opml.ts';
import { readCall } from '../../src/hooks/call.ts';
import { aboutSound } from '../../src/sound/about.ts';
import { foundProducts } from '../../src/sources/kinds/catalogue.ts';
import { entriesOf } from '../../src/sources/kinds/feed.ts';
import { mutated } from './mutations.ts';

/** How many broken inputs are tried: 200 in every run, more by the environment. */
const MANY = Number(process.env['GRIVO_HOSTILE'] ?? 200);
const SEED = process.env['GRIVO_HOSTILE_SEED'] ?? 'hostile-1';

let standIns: StandIns;
const reader = new DocumentReader();
beforeAll(async () => {
  standIns = await start({ pages: [], blogs: [], news: NEWS, shops: SHOPS, podcasts: PODCASTS });
});
afterAll(async () => {
  await reader.close();
  await standIns.close();
});

/** Ends in a value or a typed failure: anything else is a fault of ours. */
type Outcome = { ok: boolean; problem: string | null };
const ended = (read: { ok: boolean; problem?: string; reason?: string }): Outcome => ({
  ok: read.ok,
  problem: read.problem ?? read.reason ?? null,
});

const at = 'https://news.example/feed';
const catalogue = CatalogueSettings.parse({
  kind: 'catalogue',
  partnerLink: '{link}?p={partner}',
  partner: 'x',
  spread: true,
  order: 'cheapest',
});
const hook = HookSettings.parse({ kind: 'hook', fields: [{ name: 'litres', type: 'number', needed: true }] });

/** Every reader, with a sound file of its own to begin from. */
async function readers(): Promise<{ name: string; whole: Buffer; read: (bytes: Buffer) => Promise<Outcome> }[]> {
  const body = async (path: string) => Buffer.from(await (await fetch(`${standIns.address}${path}`)).arrayBuffer());
  const document =
    (name: string, fetched = false) =>
    async (bytes: Buffer) =>
      ended(await reader.read(bytes, { name, fetched }));
  const feed = async (bytes: Buffer) => {
    const read = readFeed(textOf(bytes, ''), at);
    if (read.ok)
      for (const found of entriesOf(read.feed, 'A feed', { unwrap: [], shortest: 0 })) JSON.stringify(found.fields());
    return ended(read);
  };
  const list = async (bytes: Buffer) => {
    const read = await recordsOf(bytes, '', 'guess');
    if (read.ok)
      for (const found of foundProducts(read.records, { ...catalogue, columns: guessColumns(read.records) }, at))
        JSON.stringify(found.fields());
    return ended(read);
  };
  const of = (form: 'pdf' | 'docx') => fileOf(DOCUMENTS.find((one) => one.form === form)!);
  const json = Buffer.from(
    JSON.stringify({
      version: 'https://jsonfeed.org/version/1.1',
      title: 'A feed',
      items: [
        { id: 1, title: 'One', content_html: '<p>Text</p>' },
        { id: '2', url: '/two', tags: ['a'] },
      ],
    }),
  );
  return [
    { name: 'RSS', whole: await body('/news/brine-gazette/feed'), read: feed },
    { name: 'Atom', whole: await body('/news/cellar-wire/feed'), read: feed },
    { name: 'JSON Feed', whole: json, read: feed },
    {
      name: 'OPML',
      whole: Buffer.from(
        '<opml version="2.0"><body><outline text="a"><outline xmlUrl="https://a.example/feed" text="A"/></outline></body></opml>',
      ),
      read: async (bytes) => ended(readOpml(textOf(bytes, ''))),
    },
    {
      name: 'sitemap',
      whole: Buffer.from('<urlset><url><loc>https://a.example/1</loc><lastmod>2026-01-01</lastmod></url></urlset>'),
      read: async (bytes) => ended(readMap(textOf(bytes, ''), at)),
    },
    { name: 'page', whole: await body('/news/brine-gazette/ferment-clubs'), read: document('page.html', true) },
    {
      name: 'front page',
      whole: await body('/news/brine-gazette/'),
      read: async (bytes) => ({ ok: namedFeeds(textOf(bytes, ''), at).length > 0, problem: null }),
    },
    {
      name: 'HTML',
      whole: Buffer.from(
        '<h1>A</h1><p>Some words that stand here.</p><table><tr><td>and some in a cell</td></tr></table>',
      ),
      read: document('a.html'),
    },
    { name: 'PDF', whole: of('pdf'), read: document('a.pdf') },
    { name: 'DOCX', whole: of('docx'), read: document('a.docx') },
    {
      name: 'Markdown',
      whole: Buffer.from(
        '---\ntitle: A\n---\n# A\n\nSome *words* with [a link](https://a.example).\n\n- one two three\n- four\n\n| a | b |\n|---|---|\n| c | d |\n',
      ),
      read: document('a.md'),
    },
    {
      name: 'text',
      whole: Buffer.from('A title\n\nA first paragraph of words.\n\nA second one.'),
      read: document('a.txt'),
    },
    { name: 'catalogue CSV', whole: await body('/partner/northquay/list.csv'), read: list },
    { name: 'catalogue XML', whole: await body('/partner/northquay/list.xml'), read: list },
    { name: 'catalogue JSON', whole: await body('/partner/northquay/list.json'), read: list },
    {
      name: 'hook call',
      whole: Buffer.from(JSON.stringify({ subject: 'A', litres: 3, notes: 'b', link: 'https://a.example' })),
      read: async (bytes) => ended(readCall(bytes.toString('utf8'), hook)),
    },
    {
      name: 'heard',
      whole: Buffer.from(
        JSON.stringify({
          language: 'en',
          duration: 3,
          segments: [{ start: 0, end: 1, text: 'one', avg_logprob: -0.2 }],
        }),
      ),
      read: async (bytes) => ended(readHeard(bytes)),
    },
    {
      name: 'sound',
      whole: recordingOf(PODCASTS[0]!.episodes[0]!).subarray(0, 4_096),
      read: async (bytes) => ({ ok: aboutSound(bytes, bytes.length) !== null, problem: null }),
    },
    {
      name: 'captions',
      whole: Buffer.from('WEBVTT\n\n00:00.000 --> 00:02.000\nOne two\n\n00:02.000 --> 00:04.000\nthree'),
      read: async (bytes) => ended(readCaptions(textOf(bytes, ''))),
    },
  ];
}

test(`${MANY} broken files and replies: each ends in a result or a typed failure, none crashes or hangs`, {
  timeout: 60_000 + MANY * 400,
}, async () => {
  const all = await readers();
  for (const { name, whole, read } of all) {
    const outcome = await read(whole);
    expect(outcome.ok, `${name}, as it should be: ${outcome.problem}`).toBe(true);
  }
  let broken = 0;
  for (let n = 0; n < MANY; n++) {
    const { name, whole, read } = all[n % all.length]!;
    const seed = `${SEED}-${n}`;
    const outcome = await read(mutated(whole, seed)).catch((error: unknown) => {
      throw new Error(`${name} by seed ${seed}: ${error instanceof Error ? error.stack : String(error)}`);
    });
    if (!outcome.ok) broken++;
    // What it says is a sentence's part for people, not a stack.
    if (outcome.problem !== null) expect(outcome.problem.length, `${name} by seed ${seed}`).toBeLessThan(500);
  }
  expect(broken).toBeGreaterThan(MANY / 10);
});
