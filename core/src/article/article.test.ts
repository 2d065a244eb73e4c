import { describe, expect, test } from 'vitest';
import type { ArticleDocument, Block } from './block.ts';
import { EMPTY_ARTICLE } from './block.ts';
import { articleHtml } from './html.ts';
import { tidy } from './hygiene.ts';
import { articleFile, articleMarkdown } from './markdown.ts';
import { slugOf } from './slug.ts';
import { articleText, articleWords } from './text.ts';

const resolve = {
  file: (digest: string) => `/f/${digest}`,
  article: (id: string) => (id === 'known' ? 'https://blog.example/known' : null),
};
const p = (id: string, text: string): Block => ({ type: 'paragraph', id, content: [{ text }] });
const h = (id: string, level: 2 | 3 | 4, text: string): Block => ({ type: 'heading', id, level, text });
const article = (body: Block[], title = 'The title'): ArticleDocument => ({ ...EMPTY_ARTICLE, title, body });

describe('derived forms', () => {
  test('HTML escapes text and attributes, and drops links that lead nowhere or to script', () => {
    const html = articleHtml(
      article([
        p('a', '<script>alert(1)</script> & "quotes"'),
        {
          type: 'paragraph',
          id: 'b',
          content: [
            { text: 'one', link: { to: 'article', article: 'known' } },
            { text: 'two', link: { to: 'article', article: 'gone' } },
            { text: 'three', link: { to: 'address', address: 'javascript:alert(1)' } },
            { text: 'four', link: { to: 'address', address: 'https://x.example/', sponsored: true } },
          ],
        },
        { type: 'figure', id: 'c', file: 'abc', width: 8, height: 6, alternative: 'A "jar"', lead: true },
      ]),
      resolve,
    );
    expect(html).not.toContain('<script>');
    expect(html).not.toContain('javascript:');
    expect(html).toContain('<a href="https://blog.example/known">one</a>two');
    expect(html).toContain('rel="sponsored nofollow"');
    expect(html).toContain('<img src="/f/abc" alt="A &#x22;jar&#x22;" width="8" height="6">');
  });

  test('the contents list leads to the headings it names, also when two are alike', () => {
    const html = articleHtml(
      article([{ type: 'contents', id: 'c' }, h('1', 2, 'Salt'), p('2', 'x'), h('3', 2, 'Salt'), p('4', 'y')]),
      resolve,
    );
    for (const id of ['salt', 'salt-2']) {
      expect(html).toContain(`href="#${id}"`);
      expect(html).toContain(`<h2 id="${id}">`);
    }
  });

  test('Markdown escapes what would read as markup and keeps tables', () => {
    const body: Block[] = [
      p('a', '# not a heading * or _this_'),
      {
        type: 'table',
        id: 't',
        head: [[{ text: 'a' }], [{ text: 'b' }]],
        rows: [[[{ text: '1' }], [{ text: 'x | y' }]]],
      },
    ];
    const text = articleMarkdown(article(body), resolve);
    expect(text).toMatch(/^\\# not a heading/);
    expect(text).toContain('x \\| y');
    expect(articleFile(article(body, 'Say "so": yes'), resolve)).toContain('title: "Say \\"so\\": yes"');
  });

  test('words are those a reader reads', () => {
    expect(articleWords(article([h('1', 2, 'Two words'), p('2', 'Three more words')]))).toBe(5);
    expect(articleText(article([{ type: 'contents', id: 'c' }]))).toBe('');
  });
});

describe('hygiene', () => {
  test('the title is not repeated, nothing is empty, no sentence comes twice, headings go down by one', () => {
    const { article: tidied, notes } = tidy(
      article([
        p('0', ' \n '),
        h('1', 2, 'The Title!'),
        h('2', 4, 'Deep'),
        p('3', 'Salt keeps the crunch. Weigh it every time.'),
        p('4', 'Salt keeps the crunch. Spoons lie to you.'),
        h('5', 2, 'Nothing below'),
        h('6', 2, 'Ends here'),
      ]),
    );
    expect(tidied.body.map((b) => b.id)).toEqual(['2', '3', '4']);
    expect(tidied.body[0]).toMatchObject({ level: 2 });
    expect(articleText({ body: tidied.body }).match(/Salt keeps the crunch/g)).toHaveLength(1);
    expect(notes.map((n) => n.what).sort()).toEqual([
      'empty block',
      'heading level',
      'heading without text',
      'heading without text',
      'sentence repeated',
      'title repeated',
    ]);
  });

  test('a heading that says the title stays where its part would fall to another: one of a round-up', () => {
    const { article: tidied, notes } = tidy(
      article([h('1', 2, 'Lids'), p('2', 'Of lids.'), h('3', 2, 'The Title'), p('4', 'Of titles.')]),
    );
    expect(tidied.body.map((b) => b.id)).toEqual(['1', '2', '3', '4']);
    expect(notes).toEqual([]);
  });

  test('control characters fall out of the text', () => {
    const { article: tidied } = tidy(article([p('1', 'a\u0000b\u0007 c')]));
    expect(articleText(tidied)).toBe('ab c');
  });
});

test('slugs are plain, cut at a word and never empty', () => {
  expect(slugOf('Gärtöpfe: Größe & Maß')).toBe('gaertoepfe-groesse-mass');
  expect(slugOf('🥬 مخلل')).toBe('article');
  expect(slugOf('one two three four five', 12)).toBe('one-two');
});
