import { HookSettings } from '@grivo/contract';
import { DOCUMENTS, fileOf, NEWS, PODCASTS, recordingOf, SHOPS, type StandIns, start } from '@grivo/standins';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { aboutSound } from '../../src/formats/media/aboutSound.ts';
import { putAway } from '../../src/ground/network/spool.ts';
import { ReadingRoom } from '../../src/ground/reading/room.ts';
import { readCall } from '../../src/nouns/hooks/call.ts';
import { mutated } from './mutations.ts';
import { type Outcome, readersIn } from './readers.ts';
import { SHAPES } from './shapes.ts';

/** How many broken inputs are tried: 200 in every run, more by the environment. */
const MANY = Number(process.env['GRIVO_HOSTILE'] ?? 200);
const SEED = process.env['GRIVO_HOSTILE_SEED'] ?? 'hostile-1';
/** Bytes of each shape in every run; `npm run bench hostile` tries them at the size limits. */
const SIZE = Number(process.env['GRIVO_HOSTILE_BYTES'] ?? 90_000);
/** Readers that are libraries of others and grow faster than their texts do: these are tried smaller. */
const SMALLER = new Set(['markdown', 'edited', 'yaml']);

let standIns: StandIns;
const room = new ReadingRoom();
const read = readersIn(room);
beforeAll(async () => {
  standIns = await start({ pages: [], blogs: [], news: NEWS, shops: SHOPS, podcasts: PODCASTS });
});
afterAll(async () => {
  await room.close();
  await standIns.close();
});

const hook = HookSettings.parse({ kind: 'hook', fields: [{ name: 'litres', type: 'number', needed: true }] });

/** Every reader, with a sound file of its own to begin from. */
async function sound(): Promise<{ name: string; whole: Buffer; read: (bytes: Buffer) => Promise<Outcome> }[]> {
  const body = async (path: string) => Buffer.from(await (await fetch(`${standIns.address}${path}`)).arrayBuffer());
  const of = (form: 'pdf' | 'docx') => fileOf(DOCUMENTS.find((one) => one.form === form)!);
  const wholes: [string, Buffer][] = [
    ['feed', await body('/news/brine-gazette/feed')],
    ['feed', await body('/news/cellar-wire/feed')],
    [
      'feed',
      Buffer.from(
        JSON.stringify({
          version: 'https://jsonfeed.org/version/1.1',
          title: 'A feed',
          items: [
            { id: 1, title: 'One', content_html: '<p>Text</p>' },
            { id: '2', url: '/two', tags: ['a'] },
          ],
        }),
      ),
    ],
    [
      'opml',
      Buffer.from(
        '<opml version="2.0"><body><outline text="a"><outline xmlUrl="https://a.example/feed" text="A"/></outline></body></opml>',
      ),
    ],
    ['map', Buffer.from('<urlset><url><loc>https://a.example/1</loc><lastmod>2026-01-01</lastmod></url></urlset>')],
    ['page', await body('/news/brine-gazette/ferment-clubs')],
    ['head', await body('/news/brine-gazette/')],
    [
      'html',
      Buffer.from('<h1>A</h1><p>Some words that stand here.</p><table><tr><td>and some in a cell</td></tr></table>'),
    ],
    ['pdf', of('pdf')],
    ['docx', of('docx')],
    [
      'markdown',
      Buffer.from(
        '---\ntitle: A\n---\n# A\n\nSome *words* with [a link](https://a.example).\n\n- one two three\n- four\n\n| a | b |\n|---|---|\n| c | d |\n',
      ),
    ],
    ['text', Buffer.from('A title\n\nA first paragraph of words.\n\nA second one.')],
    ['catalogue', await body('/partner/northquay/list.csv')],
    ['catalogue', await body('/partner/northquay/list.xml')],
    ['catalogue', await body('/partner/northquay/list.json')],
    [
      'heard',
      Buffer.from(
        JSON.stringify({
          language: 'en',
          duration: 3,
          segments: [{ start: 0, end: 1, text: 'one', avg_logprob: -0.2 }],
        }),
      ),
    ],
    ['captions', Buffer.from('WEBVTT\n\n00:00.000 --> 00:02.000\nOne two\n\n00:02.000 --> 00:04.000\nthree')],
    ['yaml', Buffer.from('grivo: 1\nlanguage: en\nsteps:\n  - {id: s1, kind: wait, off: false, minutes: 1}\n')],
    [
      'editedHtml',
      Buffer.from(
        '<h2>A</h2><p data-block="b1">Words to be <em>kept</em>.</p><ul class="key-points"><li>one</li></ul>',
      ),
    ],
    ['edited', Buffer.from('## A\n\nWords to be *kept*.\n\n:::key-points\n- one\n:::\n')],
    ['phrases', Buffer.from('wheel throwing, raku firing\nglaze recipes')],
    ['table', Buffer.from('a,b\n1,"two ""three"""\n')],
    ['reply', Buffer.from(JSON.stringify({ choices: [{ message: { content: '```json\n{"answer":"yes"}\n```' } }] }))],
  ];
  return [
    ...wholes.map(([name, whole]) => ({ name, whole, read: read[name]! })),
    {
      name: 'hook call',
      whole: Buffer.from(JSON.stringify({ subject: 'A', litres: 3, notes: 'b', link: 'https://a.example' })),
      read: async (bytes) => {
        const call = readCall(bytes.toString('utf8'), hook);
        return { ok: call.ok, problem: call.ok ? null : call.refusal.problem };
      },
    },
    {
      name: 'sound',
      whole: recordingOf(PODCASTS[0]!.episodes[0]!).subarray(0, 4_096),
      read: async (bytes) => ({ ok: aboutSound(bytes, bytes.length) !== null, problem: null }),
    },
  ];
}

test(`${MANY} broken files and replies: each ends in a result or a typed failure, none crashes or hangs`, {
  timeout: 60_000 + MANY * 400,
}, async () => {
  const all = await sound();
  for (const one of all) {
    const outcome = await one.read(one.whole);
    expect(outcome.ok, `${one.name}, as it should be: ${outcome.problem}`).toBe(true);
  }
  let broken = 0;
  for (let n = 0; n < MANY; n++) {
    const one = all[n % all.length]!;
    const seed = `${SEED}-${n}`;
    const outcome = await one.read(mutated(one.whole, seed)).catch((error: unknown) => {
      throw new Error(`${one.name} by seed ${seed}: ${error instanceof Error ? error.stack : String(error)}`);
    });
    if (!outcome.ok) broken++;
    // What it says is a sentence's part for people, not a stack.
    if (outcome.problem !== null) expect(outcome.problem.length, `${one.name} by seed ${seed}`).toBeLessThan(500);
  }
  expect(broken).toBeGreaterThan(MANY / 10);
});

describe('repeated characters, deep nesting, wide rows, huge cells', () => {
  const also: Record<string, string[]> = {
    page: ['html', 'head', 'video', 'editedHtml'],
    markdown: ['text', 'edited'],
  };
  test.each(
    Object.keys(SHAPES).flatMap((name) => [name, ...(also[name] ?? [])].map((reader) => [reader, name] as const)),
  )('%s, by the shapes of %s: each ends soon', { timeout: 120_000 }, async (reader, shapes) => {
    const slow: string[] = [];
    for (const { name, bytes } of SHAPES[shapes]!) {
      const outcome = await read[reader]!(bytes(SMALLER.has(reader) ? SIZE / 9 : SIZE));
      if (outcome.problem !== null) {
        expect(outcome.problem.length, name).toBeLessThan(500);
        // Given up for its time or memory is settled too, but no pattern over so little may take so long.
        if (/seconds to read|more memory/.test(outcome.problem)) slow.push(`${name}: ${outcome.problem}`);
      }
    }
    expect(slow).toEqual([]);
  });
});

describe('the room', () => {
  test('what runs away ends alone, and what waits behind it is read all the same', async () => {
    const impatient = new ReadingRoom({ memoryMb: { tables: 256, any: 256, small: [] }, timeLimitMs: 5_000 });
    const one = readersIn(impatient);
    const slow = Buffer.from(`<html><body>${'<p>'.repeat(95_000)}${'<b>x</b>'.repeat(95_000)}</body></html>`);
    const [first, second] = await Promise.all([one['page']!(slow), one['text']!(Buffer.from('Words that are read.'))]);
    expect(first).toEqual({ ok: false, problem: 'it takes more than 5 seconds to read' });
    expect(second.ok).toBe(true);
    await impatient.close();
  });

  test('what takes too much memory ends alone', async () => {
    const small = new ReadingRoom({ memoryMb: { tables: 40, any: 40, small: [] } });
    const one = readersIn(small);
    const many = Buffer.from(`[{}${',{"name":"a","link":"https://a.example"}'.repeat(400_000)}]`);
    expect(await one['catalogue']!(many)).toMatchObject({ ok: false, problem: 'it takes more memory than one may' });
    expect((await one['text']!(Buffer.from('Words that are read.'))).ok).toBe(true);
    await small.close();
  });

  test('what asks for much memory at once, as two million tabs in Markdown do, ends alone', async () => {
    const some = new ReadingRoom({ memoryMb: { tables: 80, any: 80, small: [] } });
    const one = readersIn(some);
    expect(await one['markdown']!(Buffer.from(`# A\n\n${'\t'.repeat(1_990_000)}`))).toMatchObject({
      ok: false,
      problem: 'it takes more memory than one may',
    });
    expect((await one['text']!(Buffer.from('Words that are read.'))).ok).toBe(true);
    await some.close();
  });

  test('who does not come back for the rest keeps nobody waiting', async () => {
    const one = new ReadingRoom({ memoryMb: { tables: 200, any: 200, small: [] }, awayLimitMs: 500 });
    const bytes = Buffer.from(`name,link\n${'a,https://a.example/1\n'.repeat(5_000)}`);
    const { catalogueSettings: settings, inOne } = await import('./readers.ts');
    const { remove, ...put } = await putAway(inOne(bytes));
    const parts = one.parts('products', { ...put, mime: '', base: 'https://a.example', settings });
    expect((await parts.next().finally(remove)).value).toMatchObject({ about: { products: 5_000 } });
    expect((await readersIn(one)['text']!(Buffer.from('Words that are read.'))).ok).toBe(true);
    await expect(parts.next()).resolves.toMatchObject({ value: { ok: false } });
    await one.close();
  });

  test('parts come one by one, left in the middle the reading ends, and what is asked of a closed room is told', async () => {
    const some = new ReadingRoom({ memoryMb: { tables: 256, any: 256, small: [] } });
    const bytes = Buffer.from(`name,link\n${'a,https://a.example/1\n'.repeat(5_000)}`);
    const { catalogueSettings: settings, inOne } = await import('./readers.ts');
    const { remove, ...put } = await putAway(inOne(bytes));
    const parts = some.parts('products', { ...put, mime: '', base: 'https://a.example', settings });
    expect((await parts.next().finally(remove)).value).toMatchObject({ about: { products: 5_000 } });
    expect((await parts.next()).value).toMatchObject({ found: { length: 500 } });
    await parts.return({ ok: true, value: null });
    expect((await readersIn(some)['text']!(Buffer.from('Words that are read.'))).ok).toBe(true);
    await some.close();
    expect(await readersIn(some)['text']!(Buffer.from('Words'))).toEqual({
      ok: false,
      problem: 'reading was given up',
    });
  });
});
