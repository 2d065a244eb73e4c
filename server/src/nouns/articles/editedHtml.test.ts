import { type ArticleDocument, type Block, ONE_OF_EACH_BLOCK as EACH, EMPTY_ARTICLE, editableHtml } from '@grivo/core';
import { expect, test } from 'vitest';
import { editedArticle } from './edited.ts';

const evidence = (passage: string) => [{ passage, digest: `d-${passage}` }];
const p = (id: string, text: string): Block => ({
  type: 'paragraph',
  id,
  content: [{ text }],
  evidence: evidence(`of ${id}`),
});
const BODY: Block[] = [...Object.values(EACH), p('b20', 'Rub the cake along the hair.'), p('b21', 'Wipe it after.')];

const article = (body: readonly Block[]): ArticleDocument => ({ ...EMPTY_ARTICLE, title: 'Rosin', body: [...body] });

function read(change: (html: string) => string, body: readonly Block[] = BODY): Block[] {
  const found = editedArticle(change(editableHtml(body)), article(body), 'html');
  if (!found.ok) throw new Error(`${found.problem}; ${found.mend}`);
  return found.article.body;
}

function refused(change: (html: string) => string): string {
  const found = editedArticle(change(editableHtml(BODY)), article(BODY), 'html');
  return found.ok ? 'it was taken' : `${found.problem} ${found.mend}`;
}

const by = (body: readonly Block[], id: string) => body.find((block) => block.id === id);

test('unchanged it is what it was, with every kind of block', () => {
  expect(read((html) => html)).toEqual(BODY);
});

test('a block that is worded anew keeps its name and what it rests on; the others are as they were', () => {
  const body = read((html) => html.replace('Rub the cake', 'Rub the <em>warm</em> cake'));
  expect(by(body, 'b20')).toEqual({
    ...p('b20', ''),
    content: [{ text: 'Rub the ' }, { text: 'warm', marks: ['emphasis'] }, { text: ' cake along the hair.' }],
  });
  expect(body.filter(({ id }) => id !== 'b20')).toEqual(BODY.filter(({ id }) => id !== 'b20'));
});

test.each([
  ['heading', 'b1', 'Which rosin', 'Which cake'],
  ['list', 'b3', 'loosen', 'tighten'],
  ['table', 'b4', 'gut', 'silk'],
  ['figure', 'b5', 'A cake of rosin', 'A cake in its cloth'],
  ['quote', 'b6', 'A maker', 'A player'],
  ['key points', 'b9', 'wipe it', 'dust it'],
  ['question and answer', 'b10', 'How much?', 'How often?'],
  ['call to action', 'b11', 'To the shop', 'To the workshop'],
] as const)('of a %s the words are changed and nothing else', (type, id, was, is) => {
  const body = read((html) => html.replace(was, is));
  const before = by(BODY, id)!;
  const expected = JSON.parse(JSON.stringify(before).replace(was, is)) as Block;
  expect(by(body, id)).toEqual(expected);
  expect(expected.type).toBe(type);
});

test.each(['closing', 'standing text', 'disclosure'] as const)('a %s stays one when its words change', (type) => {
  const { id } = EACH[type];
  const body = read((html) => {
    const at = html.indexOf(`data-block="${id}"`);
    return html.slice(0, at) + html.slice(at).replace('dark', 'light');
  });
  expect(by(body, id)).toMatchObject({ type, content: [{ text: 'light ' }, EACH[type].content[1]] });
});

test('what is written new rests on nothing and gets a name; what stands twice is named once', () => {
  const body = read((html) => `${html}\n<h2>After</h2>\n<p>Loosen the bow.</p>loose words, 5 &lt; 6\n${html}`);
  expect(new Set(body.map(({ id }) => id)).size).toBe(body.length);
  expect(body.slice(BODY.length, BODY.length + 3)).toMatchObject([
    { type: 'heading', level: 2, text: 'After' },
    { type: 'paragraph', content: [{ text: 'Loosen the bow.' }] },
    { type: 'paragraph', content: [{ text: 'loose words, 5 < 6' }] },
  ]);
  expect(body[BODY.length + 1]!.evidence).toBeUndefined();
  expect(body.slice(0, BODY.length)).toEqual(BODY);
});

test('blocks set into an element of a page, moved and taken out stay themselves', () => {
  const [first, second] = [p('c1', 'Rub the cake.'), p('c2', 'Wipe it after.')];
  const turned = read(() => `<div class="page">${editableHtml([second, first])}</div>`, [first, second]);
  expect(turned).toEqual([second, first]);
  expect(read(() => editableHtml([second]), [first, second])).toEqual([second]);
});

test('links keep whom they lead to: our own, sponsored ones, and mail', () => {
  const link: Block = {
    type: 'paragraph',
    id: 'c1',
    content: [
      { text: 'one', link: { to: 'article', article: 'a'.repeat(20) } },
      { text: ' and ' },
      { text: 'two', link: { to: 'address', address: 'https://shop.example/?a=1&b=2', sponsored: true } },
      { text: ' or ' },
      { text: 'mail', link: { to: 'address', address: 'mailto:shop@shop.example' } },
    ],
  };
  const [after] = read((html) => html.replace(' or ', ' else '), [link]);
  expect(after).toEqual({
    ...link,
    content: link.content.map((one) => (one.text === ' or ' ? { text: ' else ' } : one)),
  });
});

test.each(['<div><b>left open', '</div></p>', '<!-- never ended', '<script>"</script', '<textarea>'])(
  'markup of the owner’s own takes in nothing that follows: %s',
  (markup) => {
    const body: Block[] = [{ ...EACH["owner's markup"], markup }, p('b20', 'Rub the cake.'), p('b21', 'Wipe it.')];
    expect(read((html) => html, body)).toEqual(body);
    expect(
      by(
        read((html) => html.replace('Wipe', 'Dust'), body),
        'b17',
      ),
    ).toEqual(body[0]);
  },
);

test('what has no place in a text says so, with its line and what would mend it', () => {
  const line =
    editableHtml(BODY)
      .split('\n')
      .findIndex((one) => one.includes('b17')) + 1;
  expect(refused((html) => html.replace('mine', 'yours'))).toBe(
    `line ${line}: The markup of your own ‘b17’ cannot be changed as HTML Put its lines back as they were, or take them out; it is changed on the page itself.`,
  );
  expect(refused((html) => `${html}<script>alert(1)</script>`)).toMatch(/no place for a script .* page/);
  expect(refused((html) => `${html}<p>x <img src="https://pictures.example/1.png" alt="a"></p>`)).toMatch(
    /A picture cannot be put in as HTML/,
  );
  expect(refused((html) => html.replace('a'.repeat(64), 'b'.repeat(64)))).toMatch(/picture ‘b5’ cannot be another/);
  expect(refused((html) => html.replace(/(<section[\s\S]*?<\/p>)[\s\S]*?(?=<\/section>)/, '$1'))).toMatch(
    /needs its answer/,
  );
  expect(refused(() => '')).toMatch(/nothing is left/);
  expect(refused(() => '<h2>Rosin</h2>')).toMatch(/nothing is left of it but headings/);
  expect(refused(() => '<div>'.repeat(10_000))).toMatch(/deep in each other/);
});

test('signs without end are read', () => {
  for (const sign of ['<', '<a ', '<a href="/articles/', '&lt;', '<p data-block="b2">'])
    expect(editedArticle(sign.repeat(20_000), article(BODY), 'html').ok).toBeDefined();
});
