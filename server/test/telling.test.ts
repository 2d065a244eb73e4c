import { createHmac } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stepKinds as k, type ProcedureDocument, type Step } from '@grivo/core';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { createPipeline } from '../src/pipelines/repository.ts';
import { addKeywords } from '../src/sources/keywords.ts';
import { createSource } from '../src/sources/repository.ts';
import { folderIn } from '../src/steps/keep.ts';
import { Mail } from '../src/telling/mail.ts';
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
  await addKeywords(ground, source, 'one crock');
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
  );
  await w.settled(briefs, ['out']);
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.\w+$/.test(name))
    .sort();
  expect(files.map((name) => name.replace(/-[a-z0-9]{6}\./, '.'))).toEqual([
    'etc/one-crock.html',
    'guides/one-crock/one-crock.md',
    'one-crock.txt',
  ]);
  expect(readFileSync(join(folder, files[1]!), 'utf8')).toMatch(
    /^---\ntitle: "one crock"[\s\S]*A text on \*\*one crock\*\*/,
  );
  expect(readFileSync(join(folder, files[0]!), 'utf8')).toContain('<strong>one crock</strong>');
  expect(folderIn(folder, '/../..//x/./..')).toBe(join(folder, 'x'));
});
