import {
  type ArticleDocument,
  articlePlain,
  blockText,
  EMPTY_ARTICLE,
  stepKinds as k,
  linkedArticles,
  type ProcedureDocument,
  type Step,
} from '@grivo/core';
import { beforeAll, describe, expect, test } from 'vitest';
import { languageOf } from '../src/formats/language/recognise.ts';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { ledToSiblings } from '../src/nouns/links/siblings.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import type { Ask } from './ground/http.ts';
import { intakeAt } from './ground/intake.ts';

let w: Desk['w'];
let ask: Ask;
let desk: Desk;
atTheDesk((opened) => {
  desk = opened;
  ({ w, ask } = opened);
});
const intake = intakeAt(() => desk);

/** Languages that are written in other letters, from the right, or without spaces; with words that must stand in each. */
const TONGUES = [
  { language: 'sv', name: 'Swedish', title: 'Väg saltet', says: '2 och 2,5 procent', rtl: false },
  { language: 'pl', name: 'Polish', title: 'Sól na wagę', says: '2 do 2,5 procent', rtl: false },
  { language: 'ja', name: 'Japanese', title: '塩はスプーン', says: '2から2.5パーセント', rtl: false },
  { language: 'ar', name: 'Arabic', title: 'زن الملح', says: '2 و2.5 بالمئة', rtl: true },
] as const;

let source: string;
beforeAll(async () => {
  source = await intake.sourceOf({ kind: 'documents', addresses: [intake.at('/pages/cellar-notes/salt-by-weight')] });
  await intake.look(source);
});

async function madeIn(language: string, then: readonly Step[]): Promise<string> {
  const document: ProcedureDocument = {
    grivo: 1,
    language,
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null },
      { ...k.read.fresh('s2'), what: 'the document' },
      { ...k.outline.fresh('s3'), sections: { from: 3, to: 5 } },
      { ...k.write.fresh('s4'), words: 400, parts: ['key points', 'fold'] },
      k.title.fresh('s5'),
      ...then,
    ],
  };
  const made = await ask<{ id: string }>('POST', '/pipelines', { name: `In ${language} ${then.length}`, document });
  expect(made.status).toBe(201);
  const [brief] = await intake.take(made.body.id);
  await w.settled([brief!], ['out', 'stopped', 'held', 'set aside']);
  return brief!;
}

const publish = (id: string): Step => ({ ...k.publish.fresh(id), blog: w.blog, when: 'at once' });

async function articlesOf(brief: string): Promise<{ id: string; document: ArticleDocument; address: string | null }[]> {
  const rows = await w.product.ground.db.rows<{ id: string; current: string; address: string | null }>(
    'SELECT a.id, a.current, p.address FROM article a LEFT JOIN publication p ON p.article = a.id WHERE a.brief = ?',
    [brief],
  );
  return Promise.all(
    rows.map(async ({ current, ...row }) => ({ ...row, document: await readRevision(w.product.ground.db, current) })),
  );
}

/** The article is in its language wherever readers meet it, and its copies hold its letters. */
async function isInTongue(
  { document, address, id }: Awaited<ReturnType<typeof articlesOf>>[number],
  { language, says, rtl }: (typeof TONGUES)[number],
): Promise<void> {
  expect(document.language).toBe(language);
  expect(languageOf(`${document.title}. ${document.description}`) ?? language).toBe(language);
  expect(languageOf(articlePlain(document))).toBe(language);
  const statements = document.body.filter(({ type }) => type === 'paragraph' || type === 'key points');
  for (const block of statements) expect(languageOf(blockText(block)) ?? language, blockText(block)).toBe(language);
  expect(articlePlain(document).replace(/\s+/g, ' ')).toContain(says);
  const post = await (await fetch(address!)).text();
  expect(post).toContain(says);
  expect(post.includes('dir="rtl"')).toBe(rtl);
  for (const [form, begins] of [
    ['copy?as=Word', 'PK'],
    ['copy?as=PDF', '%PDF'],
    ['text?as=markdown', ''],
    ['text?as=plain', document.title.slice(0, 4)],
  ] as const) {
    const copy = await fetch(`${desk.http.address}/api/articles/${id}/${form}`, { headers: { cookie: desk.cookie } });
    const body = Buffer.from(await copy.arrayBuffer());
    expect(copy.status, body.toString('utf8', 0, 300)).toBe(200);
    expect(body.toString('utf8', 0, 40), form).toContain(begins);
  }
}

describe.each(TONGUES)('in $name', (tongue) => {
  test('an article is written, titled and published in the language, from a page in English', async () => {
    const brief = await madeIn(tongue.language, [publish('s6')]);
    const [article] = await articlesOf(brief);
    expect(article, brief).toBeDefined();
    await isInTongue(article!, tongue);
    // Every figure of it stands in its source, and each paragraph rests on it.
    for (const block of article!.document.body.filter(({ type }) => type === 'paragraph'))
      expect(block.evidence?.length, blockText(block)).toBeGreaterThan(0);
  });
});

test('one article is put into all four, block by block, and each names the others to readers', async () => {
  const brief = await madeIn('en', [
    publish('s6'),
    {
      ...k['for each'].fresh('e1'),
      values: TONGUES.map(({ name }) => name),
      as: 'tongue',
      name: 'versions',
      steps: [{ ...k.translate.fresh('t1'), into: '{{ tongue }}' }, publish('t2')],
    },
  ]);
  const articles = await articlesOf(brief);
  const english = articles.find(({ document }) => document.language === 'en')!;
  const shape = ({ body }: ArticleDocument) => body.map(({ type, id, evidence }) => ({ type, id, evidence }));
  const stuck = await w.product.ground.db.rows<{ failure: unknown }>(
    'SELECT failure FROM step_run WHERE brief = ? AND failure IS NOT NULL',
    [brief],
  );
  expect(stuck).toEqual([]);
  for (const tongue of TONGUES) {
    const theirs = articles.find(({ document }) => document.language === tongue.language);
    expect(theirs, tongue.name).toBeDefined();
    expect(shape(theirs!.document)).toEqual(shape(english.document));
    await isInTongue(theirs!, tongue);
  }
}, 60_000);

test('links of a translation lead to what there is in its language, and stay where there is nothing', async () => {
  const { db } = w.product.ground;
  const rows = await db.rows<{ id: string; language: string; live: number }>(
    `SELECT a.id, a.language, EXISTS(SELECT 1 FROM publication p WHERE p.article = a.id AND p.state = 'live') AS live
     FROM article a WHERE a.brief = (SELECT brief FROM article WHERE language = 'sv' ORDER BY id DESC LIMIT 1)`,
  );
  const of = (language: string) => rows.find((row) => row.language === language)!.id;
  const [english, swedish] = [of('en'), of('sv')];
  const document: ArticleDocument = {
    ...EMPTY_ARTICLE,
    body: [
      {
        type: 'paragraph',
        id: 'p',
        content: [
          { text: 'a', link: { to: 'article', article: english } },
          { text: 'b', link: { to: 'article', article: 'x'.repeat(20) } },
        ],
      },
    ],
  };
  expect(linkedArticles(await ledToSiblings(db, document, 'sv'))).toEqual([swedish, 'x'.repeat(20)]);
  expect(linkedArticles(await ledToSiblings(db, document, 'fr'))).toEqual([english, 'x'.repeat(20)]);
});
