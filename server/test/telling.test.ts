import { createHmac } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  type CheckContext,
  type Failure,
  stepKinds as k,
  type ProcedureDocument,
  type Step,
  type StepOf,
  wordsOf,
} from '@grivo/core';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { createPipeline } from '../src/nouns/pipelines/repository.ts';
import { addKeywords } from '../src/nouns/sources/keywords.ts';
import { createSource } from '../src/nouns/sources/repository.ts';
import { Mail } from '../src/ports/telling/mail.ts';
import { folderIn } from '../src/steps/keep.ts';
import { type World, world } from './ground/world.ts';

let w: World;
let folder: string;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'grivo-kept-'));
  w = await world('one', { keepFolder: folder });
  w.product.tools.mail = new Mail(w.standIns.mail, 'ines@crockhaven.example');
  await w.product.work('both');
});
afterEach(async () => {
  await w.close();
  rmSync(folder, { recursive: true, force: true });
});

async function run(...then: Step[]): Promise<string[]> {
  const { ground } = w.product;
  const source = await createSource(ground, { kind: 'keywords' }, 'A list');
  await addKeywords(w.product.tools, source, { paste: 'one crock' });
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null },
      { ...k['lay out'].fresh('s2'), body: 'A text on **{{ subject }}**, long enough to be one.' },
      ...then,
    ],
  };
  return w.take(await createPipeline(ground, { name: 'A pipeline', document, person: null }));
}

const inbox = () => w.standIns.received().inbox;

/** The files of a mail (RFC 2045): each by its name, with its bytes. */
function filesIn({ headers, text }: { headers: Record<string, string>; text: string }): Record<string, Buffer> {
  const boundary = /boundary="([^"]+)"/.exec(headers['content-type'] ?? '')?.[1];
  const parts = boundary === undefined ? [] : text.split(`--${boundary}`);
  return Object.fromEntries(
    parts.flatMap((part) => {
      const [head = '', body = ''] = part.split('\r\n\r\n');
      const name = /filename="?([^"\r\n;]+)/.exec(head)?.[1];
      return name === undefined ? [] : [[name, Buffer.from(body, /base64/i.test(head) ? 'base64' : 'utf8')]];
    }),
  );
}

test('a mail brings the article along in the forms that are chosen, and a card with its title', async () => {
  const mailed = { ...k.tell.fresh('t1'), to: 'editor@crockhaven.example', subject: 'New', text: 'Look.' };
  const briefs = await run({ ...mailed, attach: ['Markdown', 'HTML page', 'Word', 'PDF', 'a card'] });
  await w.settled(briefs, ['out']);
  const files = filesIn(inbox()[0]!);
  const byEnding = Object.fromEntries(Object.entries(files).map(([name, bytes]) => [name.split('.').at(-1), bytes]));
  expect(Object.keys(byEnding).sort()).toEqual(['docx', 'html', 'md', 'pdf', 'png']);
  expect(byEnding['md']!.toString()).toContain('A text on **one crock**');
  expect(byEnding['html']!.toString()).toContain('<strong>one crock</strong>');
  expect(byEnding['docx']!.subarray(0, 2).toString()).toBe('PK');
  expect(byEnding['pdf']!.subarray(0, 5).toString()).toBe('%PDF-');
  expect(byEnding['png']!.subarray(1, 4).toString()).toBe('PNG');
  // Without any it is the text alone.
  const plain = await run(mailed);
  await w.settled(plain, ['out']);
  expect(filesIn(inbox()[1]!)).toEqual({});
});

test('a person is told by mail, a channel by message, a program by a signed call', async () => {
  const briefs = await run(
    {
      ...k.tell.fresh('t1'),
      by: 'mail',
      to: 'editor@crockhaven.example',
      subject: 'New: {{ subject }}',
      text: 'Read {{ title }}.',
    },
    {
      ...k.tell.fresh('t2'),
      by: 'message',
      to: `${w.standIns.address}/inbox/message/desk`,
      text: '{{ subject }} is done',
    },
    { ...k.tell.fresh('t3'), by: 'hook', to: `${w.standIns.address}/inbox/hook/shop` },
  );
  await w.settled(briefs, ['out']);
  const [mail, message, hook] = inbox();
  expect(mail).toMatchObject({ by: 'mail', to: 'editor@crockhaven.example', text: 'Read one crock.' });
  expect(mail!.headers).toMatchObject({ subject: 'New: one crock', from: 'ines@crockhaven.example' });
  expect(message).toMatchObject({ by: 'message', to: 'desk', text: '{"text":"one crock is done"}' });
  expect(JSON.parse(hook!.text)).toMatchObject({
    type: 'article',
    brief: { id: briefs[0], subject: 'one crock' },
    article: { title: 'one crock', markdown: 'A text on **one crock**, long enough to be one.\n' },
  });
  const secret = w.product.secrets.derive(`hook ${w.standIns.address}`);
  const signed = createHmac('sha256', secret)
    .update(`${hook!.headers['webhook-id']}.${hook!.headers['webhook-timestamp']}.${hook!.text}`)
    .digest('base64');
  expect(hook!.headers['webhook-signature']).toBe(`v1,${signed}`);
});

test('a call whose answer is lost is made again under the same id; a mail server that is away is waited for', async () => {
  w.standIns.trouble('inbox', { how: 'cut after' }, 1);
  const briefs = await run({ ...k.tell.fresh('t1'), by: 'hook', to: `${w.standIns.address}/inbox/hook/shop` });
  await w.settled(briefs, ['out'], 50_000);
  const ids = inbox().map(({ headers }) => headers['webhook-id']);
  expect(ids).toHaveLength(2);
  expect(new Set(ids).size).toBe(1);
  w.product.tools.mail = new Mail('smtp://127.0.0.1:9', 'ines@crockhaven.example');
  const late = await run({ ...k.tell.fresh('t1'), to: 'editor@crockhaven.example' });
  await expect
    .poll(
      async () => (await w.product.ground.db.rows("SELECT 1 FROM step_run WHERE kind = 'tell' AND tries > 0")).length,
      { timeout: 15_000 },
    )
    .toBe(1);
  w.product.tools.mail = new Mail(w.standIns.mail, 'ines@crockhaven.example');
  await w.settled(late, ['out']);
  expect(inbox().filter(({ by }) => by === 'mail')).toHaveLength(1);
}, 90_000);

test('without a mail server the brief stops and says what is missing', async () => {
  w.product.tools.mail = null;
  const briefs = await run({ ...k.tell.fresh('t1'), to: 'editor@crockhaven.example' });
  await w.settled(briefs, ['stopped']);
  const [run1] = await w.product.ground.db.rows<{ failure: { code: string } }>(
    "SELECT failure FROM step_run WHERE state = 'stopped'",
  );
  expect(run1!.failure.code).toBe('not-set-up');
});

test('copies are kept whole in a folder of their own, and none leads out of it', async () => {
  const briefs = await run(
    { ...k.keep.fresh('k1'), as: 'Markdown', folder: 'guides/{{ subject }}' },
    { ...k.keep.fresh('k2'), as: 'HTML', folder: '../../etc' },
    { ...k.keep.fresh('k3'), as: 'plain text', folder: '' },
    { ...k.keep.fresh('k4'), as: 'Word', folder: 'print' },
    { ...k.keep.fresh('k5'), as: 'PDF', folder: 'print' },
  );
  await w.settled(briefs, ['out']);
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.\w+$/.test(name))
    .sort();
  expect(files.map((name) => name.replace(/-[a-z0-9]{6}\./, '.'))).toEqual([
    'etc/one-crock.html',
    'guides/one-crock/one-crock.md',
    'one-crock.txt',
    'print/one-crock.docx',
    'print/one-crock.pdf',
  ]);
  // A packed folder, and a PDF of the version said.
  expect(readFileSync(join(folder, files[3]!)).subarray(0, 2).toString()).toBe('PK');
  expect(readFileSync(join(folder, files[4]!)).subarray(0, 8).toString()).toBe('%PDF-1.7');
  expect(readFileSync(join(folder, files[1]!), 'utf8')).toMatch(
    /^---\ntitle: "one crock"[\s\S]*A text on \*\*one crock\*\*/,
  );
  expect(readFileSync(join(folder, files[0]!), 'utf8')).toContain('<strong>one crock</strong>');
  expect(folderIn(folder, '/../..//x/./..')).toBe(join(folder, 'x'));
});

describe('a row of a sheet', () => {
  const keeping = (words: Partial<StepOf<'keep'>>): Step => ({
    ...k.keep.fresh('k1'),
    as: 'a row',
    sheet: `${w.standIns.address}/sheets/written/rows`,
    ...words,
  });
  const rows = () => w.standIns.sheets.rows('written');
  const failureOf = async () =>
    (
      await w.product.ground.db.rows<{ failure: Failure }>(
        "SELECT failure FROM step_run WHERE state = 'stopped' AND failure IS NOT NULL",
      )
    )[0]!.failure;

  test('gets what its cells say, each in its column, and no formula', async () => {
    const briefs = await run(
      keeping({
        cells: 'Words: {{ article.words }}\n\nTitle: ={{ title }}, "done"\nSubject: {{ subject }}: kept\nAddress: -5',
      }),
    );
    await w.settled(briefs, ['out']);
    expect(rows()).toEqual([['one crock: kept', `'=one crock, "done"`, '10', '-5']]);
  });

  test('is added once, when the connection breaks after it was added or before, and when the answer leads elsewhere', async () => {
    for (const how of ['cut after', 'cut before', 'sent elsewhere'] as const) {
      w.standIns.trouble('sheets', { how }, 1, 'POST /sheets/written/rows');
      const briefs = await run(keeping({ cells: `Subject: {{ subject }}\nTitle: ${how}` }));
      const settled = w.settled(briefs, ['out']);
      let over = false;
      void settled.finally(() => {
        over = true;
      });
      // The other side has acted or never will; nobody needs to wait until it surely cannot.
      while (!over) {
        await w.product.ground.db.run("UPDATE intent SET due_at = UTC_TIMESTAMP(3) WHERE kind = 'add row'");
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
      await settled;
      const [kept] = await w.product.ground.db.rows<{ attempts: number }>(
        "SELECT attempts FROM step_run WHERE brief = ? AND path = 'k1'",
        briefs,
      );
      expect(kept!.attempts).toBeGreaterThan(1);
      expect(rows().filter(([, title]) => title === how)).toHaveLength(1);
    }
  });

  test('of a column the sheet does not have stops the brief, says which there are, and adds nothing', async () => {
    const briefs = await run(keeping({ cells: 'Subject: {{ subject }}\nPrice: 5' }));
    await w.settled(briefs, ['stopped']);
    const failure = await failureOf();
    expect(wordsOf(failure).sentence).toMatch(
      /has no column ‘Price’; it has ‘Subject’, ‘Title’, ‘Words’, ‘Address’\.$/,
    );
    expect(rows()).toEqual([]);
  });

  test('of a sheet that is not there says so', async () => {
    await w.settled(await run(keeping({ sheet: `${w.standIns.address}/sheets/none/rows` })), ['stopped']);
    expect(await failureOf()).toMatchObject({ code: 'page-unreadable', reason: 'it answers 404' });
  });
});

test('a row is checked before it runs', () => {
  const problems = (words: object) =>
    k.keep
      .check({ ...k.keep.fresh('k1'), as: 'a row', sheet: 'https://sheets.example/x', ...words }, {} as CheckContext)
      .map(({ field, sentence }) => [field, sentence]);
  expect(problems({})).toEqual([]);
  expect(problems({ sheet: '' })).toEqual([['sheet', 'It names no sheet.']]);
  expect(problems({ sheet: 'the list' })).toEqual([['sheet', '‘the list’ is not an address rows can be sent to.']]);
  expect(problems({ cells: 'Title: x\nno colon' })).toEqual([
    ['cells', 'Line 2 of the row: ‘no colon’ names no column.'],
  ]);
  expect(problems({ cells: 'A: 1\nA: 2' })).toEqual([['cells', 'Line 2 of the row: ‘A’ is filled twice.']]);
  expect(problems({ cells: '\n' })).toEqual([['cells', 'Line 1 of the row: no cell is filled.']]);
});
