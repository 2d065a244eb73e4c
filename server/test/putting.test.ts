import { type ArticleDocument, articleText, stepKinds as k, type Step, textDigest } from '@grivo/core';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Performer } from '../src/engine/performer.ts';
import type { WritingRequest } from '../src/ports/adapters/writer.ts';
import type { Tools } from '../src/ports/tools.ts';
import { performers } from '../src/steps/registry.ts';
import { contextOf } from './ground/performing.ts';
import { type World, world } from './ground/world.ts';

let w: World;
let tools: Tools;
let fields: Record<string, unknown>;
let asked: string[] = [];
let says: (text: string, round: number) => string = (text) => text;

const FIRST = 'Weigh the hive in October, when the last of the ivy has flowered. It should stand at 18 kilos by then.';
const SECOND = 'Feed it sugar syrup until the first frost, and put the feeder away after that for good.';

beforeAll(async () => {
  w = await world();
  tools = {
    ...w.product.tools,
    writer: {
      write: async (_: unknown, request: WritingRequest<{ texts: { n: number; text: string }[] }>) => {
        asked.push(request.material);
        const texts = [...request.material.matchAll(/<<<text (\d+) \w+>>>\n([\s\S]*?)\n<<<end/g)];
        const value = { texts: texts.map(([, n, text]) => ({ n: Number(n), text: says(text!, asked.length) })) };
        const accepted = request.accept!(value, true);
        return accepted.ok
          ? { ok: true, value: { value: accepted.value, micros: 3 } }
          : { ok: false, failure: { code: 'reply-unusable', service: 'w', problem: accepted.problem } };
      },
    } as unknown as Tools['writer'],
  };
  const laidOut = await perform({
    ...k['lay out'].fresh('l0'),
    body: `${FIRST}\n\n> They hum.\n\n${SECOND}`,
    title: 'Hives',
  });
  fields = { subject: 'hives', ...(laidOut as { fields: object }).fields };
});
afterAll(() => w.close());

async function perform(step: Step) {
  asked = [];
  const all = performers(tools) as unknown as Record<string, Performer>;
  return all[step.kind]!(step, contextOf(step, fields ?? { subject: 'hives' }));
}
const put = (change: object = {}): Step => ({ ...k.put.fresh('p1'), ...change }) as Step;

async function documentOf(result: unknown): Promise<ArticleDocument> {
  const { revision } = (result as { fields: { article: { revision: string } } }).fields.article;
  const [row] = await w.product.ground.db.rows<{ document: ArticleDocument }>(
    'SELECT document FROM article_revision WHERE id = ?',
    [revision],
  );
  return row!.document;
}

test('other words take the place of those there were; a quotation stays, and it ends once it is unlike enough', async () => {
  says = (text) =>
    text.includes('18')
      ? '18 kilos are what a colony needs as autumn ends.'
      : 'Syrup is given as long as nights are mild.';
  const result = await perform(put());
  expect(result).toMatchObject({ kind: 'done', fields: { put: { likeness: 0, rounds: 1, leftAsTheyWere: 0 } } });
  const document = await documentOf(result);
  expect(articleText(document).split(/\n+/)).toEqual([
    '18 kilos are what a colony needs as autumn ends.',
    'They hum.',
    'Syrup is given as long as nights are mild.',
  ]);
  expect(asked[0]).toContain('other sentences');
});

test('what is still alike is put again, alone, and farther; what never differs is held, or set aside', async () => {
  says = (text, round) => (text.includes('sugar') || round > 1 ? `${text.split(' ').reverse().join(' ')}` : text);
  const result = await perform(put({ degree: 'lightly' }));
  expect(result).toMatchObject({ kind: 'done', fields: { put: { rounds: 2 } } });
  expect([asked[0]!.includes('sugar'), asked[1]!.includes('sugar')]).toEqual([true, false]);
  expect([asked[0]!.includes('as they are built'), asked[1]!.includes('other sentences')]).toEqual([true, true]);

  says = (text) => text;
  const held = await perform(put());
  expect(held).toMatchObject({ kind: 'held', fields: { put: { likeness: 100, rounds: 3, leftAsTheyWere: 2 } } });
  const aside = await perform(put({ otherwise: 'set it aside' }));
  expect(aside).toMatchObject({
    kind: 'done',
    outcome: { kind: 'set aside', why: '100 % still stands word for word as before, 20 % is the limit' },
  });
  expect(await perform(put({ likeness: null }))).toMatchObject({ kind: 'done', fields: { put: { rounds: 1 } } });
});

test('what rules had replaced before is no longer noted once the words are others', async () => {
  const { article } = fields as { article: { id: string; revision: string } };
  await w.product.ground.db.run(
    "UPDATE article_revision SET document = JSON_SET(document, '$.replaced', JSON_ARRAY(JSON_OBJECT('block', 'p', 'from', 'a', 'to', 'b', 'before', '', 'after', ''))) WHERE id = ?",
    [article.revision],
  );
  says = (text) => (text.includes('18') ? '18 kilos by autumn.' : 'Syrup while nights are mild.');
  expect((await documentOf(await perform(put()))).replaced).toBeUndefined();
  await w.product.ground.db.run(
    "UPDATE article_revision SET document = JSON_REMOVE(document, '$.replaced') WHERE id = ?",
    [article.revision],
  );
});

test('a text of fields is put as well, paragraph by paragraph, and kept under its name; the article stays', async () => {
  says = (text) => (text.includes('18') ? '18 kilos for autumn.' : 'Of hives, then.');
  const result = await perform(
    put({ of: 'About {{ subject }}, to begin with.\n\nHave 18 kilos by October.', as: 'blurb' }),
  );
  expect(result).toMatchObject({
    kind: 'done',
    fields: { blurb: 'Of hives, then.\n\n18 kilos for autumn.', put: { rounds: 1, leftAsTheyWere: 0 } },
  });
  expect((result as { fields: object }).fields).not.toHaveProperty('article');
  says = (text) => text;
  const aside = await perform(
    put({ of: 'Have 18 kilos by October, when the ivy has flowered.', otherwise: 'set it aside' }),
  );
  expect(aside).toMatchObject({ outcome: { kind: 'set aside' }, writes: [] });
  expect(await perform(put({ of: '{{ nothing' }))).toMatchObject({ kind: 'failed' });
});

test('a text that loses a figure or a word that is to stay is left as it was; the others are put', async () => {
  says = (text) =>
    text.includes('18') ? 'A full hive is heavy enough.' : 'Syrup is what they get while nights are mild.';
  const document = await documentOf(await perform(put({ likeness: null })));
  expect(articleText(document)).toContain(FIRST);
  expect(articleText(document)).not.toContain(SECOND);
  const kept = await documentOf(await perform(put({ likeness: null, keep: ['frost'] })));
  expect(articleText(kept)).toContain(SECOND);
  expect(asked[0]).toContain('These words stay as they are: “frost”.');
  expect(kept.body.every((block) => (block.evidence ?? []).every(({ digest }) => digest !== textDigest('')))).toBe(
    true,
  );
});
