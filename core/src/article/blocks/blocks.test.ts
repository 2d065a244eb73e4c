import { describe, expect, test } from 'vitest';
import { type Block, type BlockType, EMPTY_ARTICLE, type Inline } from '../block.ts';
import { editableText, readEditable } from '../editable.ts';
import { articleFlow } from '../flow.ts';
import { articleHtml, articleNodes } from '../html.ts';
import { tidy } from '../hygiene.ts';
import type { Resolve } from '../inline.ts';
import { linkedArticles } from '../linked.ts';
import { articleMarkdown } from '../markdown.ts';
import { blockText, isStatement } from '../text.ts';
import { unitsOf } from '../translate.ts';
import { BLOCKS } from './all.ts';
import { EACH, RICH as rich } from './each.ts';

const OUT = 'https://strings.example/rosin';
const resolve: Resolve = { file: (digest) => `/f/${digest}`, article: (id) => (id === 'out' ? OUT : null) };
const ALL = Object.values(EACH);
const UNSEEN: BlockType[] = ['fold', 'placeholder'];
/** What only a page of the web can show. */
const NOT_PRINTED: BlockType[] = [...UNSEEN, "owner's markup", 'contents'];
const html = (...body: Block[]) => articleHtml({ body }, resolve);

describe.each(ALL.map((block) => [block.type, block] as const))('a %s', (type, block) => {
  test('comes back from an edited text as it was', () => {
    expect(readEditable(editableText([block]), [block])).toEqual({ ok: true, body: [block] });
  });

  test('says its words in every form, marks and links with them', () => {
    const page = html(block);
    const markdown = articleMarkdown({ body: [block] }, resolve);
    const flow = JSON.stringify(articleFlow({ body: [block] }, resolve));
    if (UNSEEN.includes(type)) expect(page + markdown).toBe('');
    if (JSON.stringify(block).includes('rosin","marks"')) {
      expect(page).toContain(`<a href="${OUT}"><strong>rosin</strong></a>`);
      expect(markdown).toMatch(/\[\*\*_?rosin_?\*\*\]\(https:\/\/strings\.example\/rosin\)/);
      expect(flow).toContain(`"href":"${OUT}"`);
    }
    if (!NOT_PRINTED.includes(type)) expect(flow).not.toBe('[]');
    for (const line of blockText(block).split(/\n| \| /)) {
      const first = line.split(' ')[0]!;
      expect(page).toContain(first);
      expect(markdown).toContain(first);
      expect(flow).toContain(first);
    }
  });

  test('is the same once it is tidied, and once nothing of it is translated', () => {
    const article = { ...EMPTY_ARTICLE, body: [block, EACH.paragraph] };
    expect(tidy(article, { repeats: 'kept' }).article.body[0]).toEqual(block);
    expect(unitsOf(article).put(new Map()).body).toEqual(article.body);
  });

  test('has every text but credits and titles of others put into another language', () => {
    const { units, put } = unitsOf({ ...EMPTY_ARTICLE, body: [block] });
    const other = put(new Map(units.map(({ n, text }) => [n, text.replace(/[a-zA-Z]+/g, 'xx')])));
    const left = blockText(other.body[0]!).match(/[a-zA-Z]+/g) ?? [];
    expect(left.filter((word) => word !== 'xx')).toEqual([]);
    if (block.type === 'figure')
      expect(other.body[0]).toMatchObject({ alternative: 'xx xx xx xx', credit: EACH.figure.credit });
    if (block.type === 'quote') expect(other.body[0]).toMatchObject({ credit: EACH.quote.credit });
  });
});

test('every kind of block is tried', () => {
  expect(Object.keys(EACH)).toEqual(Object.keys(BLOCKS));
});

describe('of the kinds', () => {
  test('what the writer says rests on evidence; what the house says does not', () => {
    expect(ALL.filter(isStatement).map(({ type }) => type)).toEqual([
      'paragraph',
      'list',
      'table',
      'quote',
      'key points',
      'question and answer',
      'closing',
    ]);
  });

  test('all links to our articles are found, those of pictures and buttons too', () => {
    const button: Block = { ...EACH['call to action'], content: [], link: { to: 'article', article: 'shop' } };
    const picture: Block = { ...EACH.figure, caption: [], link: { to: 'article', article: 'cakes' } };
    expect(linkedArticles({ body: [button, picture, EACH.table] })).toEqual(['shop', 'cakes', 'out']);
  });

  test('a picture and a button have the size and the side chosen for them; a full picture has none', () => {
    expect(html(EACH.figure)).toContain(
      '<figure class="small right" style="max-width:35%;float:right;margin:0 0 1em 1.5em">',
    );
    expect(html({ ...EACH.figure, size: 'full' })).toMatch(/^<figure><a href=/);
    expect(html(EACH['call to action'])).toMatch(/<p class="call" style="text-align:center">.*font-size:1\.125em/);
    const [picture] = articleFlow({ body: [EACH.figure] }, resolve);
    expect(picture).toMatchObject({ type: 'picture', share: 0.35 });
  });

  test('a video asks nothing of its host before it is opened, and names where it is from', () => {
    const player = { ...EACH.video, player: 'https://films.example/p/7', still: 'https://films.example/7.png' };
    const picture = { file: 'f'.repeat(64), width: 640, height: 360 };
    expect(html(player)).toBe(
      '<figure class="video"><details><summary>▶ Rehairing</summary><iframe src="https://films.example/p/7" title="Rehairing" width="560" height="315" loading="lazy" allowfullscreen></iframe></details><figcaption><a href="https://films.example/7">Rehairing</a></figcaption></figure>',
    );
    expect(html({ ...player, picture })).toMatch(
      /<summary><img src="[^"]*f{64}[^"]*" alt="" width="640" height="360">▶ Rehairing/,
    );
    expect(html({ ...EACH.video, film: 'https://films.example/7.mp4' })).toContain(
      '<video src="https://films.example/7.mp4" controls preload="none">',
    );
    expect(html({ ...EACH.video, picture })).toMatch(
      /<a href="https:\/\/films\.example\/7" aria-label="Rehairing"><img/,
    );
    expect(html({ ...EACH.video, still: 'https://films.example/7.png' })).toBe(
      '<p><a href="https://films.example/7">Rehairing</a></p>',
    );
  });

  test('a button that leads nowhere yet is words; related articles that are not out are left out', () => {
    const nowhere = { to: 'article', article: 'later' } as const;
    expect(html({ ...EACH['call to action'], content: [], link: nowhere })).toBe(
      '<p class="call" style="text-align:center">To the shop</p>',
    );
    const later: Inline[] = [{ text: 'Later', link: nowhere }];
    expect(html({ ...EACH['related articles'], items: [later, rich] })).not.toContain('Later');
    expect(html({ ...EACH['related articles'], items: [later] })).toBe('');
    expect(articleMarkdown({ body: [{ ...EACH['related articles'], items: [later] }] }, resolve)).toBe('');
  });

  test('a fold holds the rest of the text, and nothing that stands below the text', () => {
    const body = [EACH.paragraph, EACH.fold, EACH.heading, EACH.list, EACH.closing, EACH.disclosure];
    expect(html(...body)).toMatch(
      /^<p>.*<\/p>\n<details class="fold"><summary>Read on<\/summary><h2 id="which-rosin">.*<\/ol><\/details>\n<p class="closing">/,
    );
    expect(html(EACH.paragraph, EACH.fold, EACH.closing)).not.toContain('details');
  });

  test('where an article is made a place kept free and a fold are seen', () => {
    const nodes = articleNodes({ body: [EACH.placeholder, EACH.fold] }, resolve, true);
    expect(JSON.stringify(nodes)).toContain('A picture is to stand here: the cake from above');
    expect(JSON.stringify(nodes)).toContain('What follows is shown at “Read on”.');
  });

  test('an Arabic text says which way it runs, an English one nothing', () => {
    const article = { body: [EACH.paragraph], language: 'ar' };
    expect(articleHtml(article, resolve)).toMatch(/^<div lang="ar" dir="rtl"><p>/);
    expect(articleHtml({ ...article, language: 'en-GB' }, resolve)).toMatch(/^<p>/);
  });

  test('what an edited part lacks is said in words', () => {
    const problem = (text: string) => {
      const read = readEditable(text, []);
      return read.ok ? null : read.problems[0]?.sentence;
    };
    expect(problem('::fold')).toMatch(/needs the words readers open it by/);
    expect(problem(':::related-articles\n- one\n:::')).toMatch(/needs its heading/);
    expect(problem('::place[a map]{wants=map}')).toMatch(/picture, video, table, chart, text/);
    expect(problem(':::table[x]\nno table\n:::')).toBe('‘table’ needs a table.');
    expect(problem(':::closing\n:::')).toBe('‘closing’ needs a paragraph.');
    expect(problem(':::quotation[x]\n:::')).toMatch(/needs what was said/);
  });
});
