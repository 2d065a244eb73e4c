import type { ArticleWhole } from '@grivo/contract';
import { stepKinds } from '@grivo/core';
import { beforeAll, describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';

let w: Desk['w'];
let ask: Desk['ask'];
let cookie: string;
let at: string;
atTheDesk((desk) => {
  ({ w, ask, cookie } = desk);
  at = desk.http.address;
});

const FILE = 'f'.repeat(64);
/** An article as it was kept before blocks had words with marks in cells and captions. */
const OF_1 = {
  title: 'Setting a soundpost',
  titleChoices: ['Setting a soundpost'],
  slug: 'setting-a-soundpost',
  description: 'Where it stands, and why.',
  keyPhrase: 'soundpost',
  keywords: ['soundpost'],
  hashtags: [],
  language: 'en',
  body: [
    {
      type: 'figure',
      id: 'f1',
      file: FILE,
      width: 8,
      height: 6,
      alternative: 'A post',
      caption: 'Below the bridge',
      lead: true,
    },
    { type: 'contents', id: 'c1' },
    { type: 'heading', id: 'h1', level: 2, text: 'Where it stands' },
    { type: 'paragraph', id: 'p1', content: [{ text: 'A little behind the bridge.' }] },
    { type: 'key points', id: 'k1', items: ['It is wedged', 'It is never glued'] },
    { type: 'list', id: 'l1', ordered: true, items: [[{ text: 'Measure' }], [{ text: 'Cut' }]] },
    { type: 'table', id: 't1', caption: 'Posts', head: ['Size', 'mm'], rows: [['full', '6.2']] },
    { type: 'quote', id: 'q1', text: 'It is the soul of it.', attribution: 'A luthier' },
    {
      type: 'chart',
      id: 'g1',
      form: 'bar',
      labels: ['2020'],
      series: [{ name: 'set', values: [3] }],
      alternative: 'Three set',
    },
    { type: 'video', id: 'v1', address: 'https://films.example/post', title: 'Setting one' },
    { type: 'question and answer', id: 'a1', question: 'How tight?', answer: [{ text: 'It stands by itself.' }] },
    {
      type: 'call to action',
      id: 'b1',
      text: 'Have it set.',
      button: 'The workshop',
      address: 'https://work.example/',
    },
    { type: 'standing text', id: 's1', content: [{ text: 'Written in the workshop.' }] },
    { type: "owner's markup", id: 'o1', markup: '<b>ours</b>' },
  ],
};
const SUBJECTS = ['varnish from amber', 'hide glue', 'soundpost'];
const WORDS = [
  'Below the bridge',
  'never glued',
  'Posts',
  '6.2',
  'soul of it',
  'A luthier',
  'Have it set',
  'The workshop',
];

/** A brief held at its text, and what is kept of the article. */
async function kept(document: unknown): Promise<{ brief: string; article: string }> {
  const pipeline = await w.pipeline([SUBJECTS.pop()!], ([take, , , , , , , , publish]) => [
    take!,
    { ...stepKinds['lay out'].fresh('s2'), body: 'The post.', title: 'A post', reads: 'Markdown' as const, hold: true },
    publish!,
  ]);
  const [brief] = await w.take(pipeline);
  await w.settled([brief!], ['held']);
  await w.product.ground.db.run(
    'UPDATE article_revision r JOIN article a ON r.article = a.id SET r.document = ?, a.current = r.id WHERE a.brief = ?',
    [JSON.stringify(document), brief],
  );
  const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]);
  return { brief: brief!, article: row!.id };
}

describe('an article kept in the format of before', () => {
  let one: { brief: string; article: string };
  beforeAll(async () => {
    one = await kept(OF_1);
  });

  test('is read whole, in the format of today', async () => {
    const { status, body } = await ask<ArticleWhole>('GET', `/articles/${one.article}`);
    expect(status).toBe(200);
    expect(body.document.format).toBe(2);
    expect(body.document.body.map(({ id }) => id)).toEqual(OF_1.body.map(({ id }) => id));
    for (const words of WORDS) expect(JSON.stringify(body.document)).toContain(words);
  });

  test.each(['text?as=markdown', 'text?as=html', 'text?as=plain', 'text?as=json', 'copy?as=Word', 'copy?as=PDF'])(
    'is given out as %s',
    async (form) => {
      const reply = await fetch(`${at}/api/articles/${one.article}/${form}`, { headers: { cookie } });
      expect(reply.status).toBe(200);
      const bytes = Buffer.from(await reply.arrayBuffer());
      expect(bytes.length).toBeGreaterThan(form === 'text?as=plain' ? 200 : 500);
      if (form.startsWith('text')) for (const words of WORDS.slice(1)) expect(bytes.toString()).toContain(words);
    },
  );

  test('is edited and published', async () => {
    const document = { ...OF_1, body: OF_1.body.slice(1) };
    const { brief } = await kept(document);
    const hold = (await ask<{ holds: { run: string }[] }>('GET', `/briefs/${brief}/holds`)).body.holds[0]!;
    const text = (await ask<{ text: string }>('GET', `/briefs/${brief}/holds/${hold.run}/text`)).body.text;
    expect(text).toContain(':::table[Posts]');
    const change = { text: text.replace('6.2', '**6.3**') };
    expect((await ask('POST', `/briefs/${brief}/holds/${hold.run}`, { decide: 'pass', change })).status).toBe(204);
    await w.settled([brief], ['out']);
    const [out] = await w.product.ground.db.rows<{ address: string }>(
      'SELECT p.address FROM publication p JOIN article a ON p.article = a.id WHERE a.brief = ?',
      [brief],
    );
    const page = await (await fetch(out!.address)).text();
    expect(page).toContain('<caption>Posts</caption>');
    expect(page).toContain('<td><strong>6.3</strong></td>');
  });
});

test('what is kept of no article at all is said as an error in Grivo, not shown as half of one', async () => {
  const { article } = await kept({ ...OF_1, body: [{ type: 'marquee', id: 'x' }] });
  expect((await ask('GET', `/articles/${article}`)).status).toBe(500);
});
