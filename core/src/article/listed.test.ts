import { expect, test } from 'vitest';
import { passagesOf } from '../passage/passage.ts';
import { sentencesOf } from '../sentence/sentence.ts';
import { lines, textsIn } from '../testing/corpus.ts';
import { alignBlocks } from './align.ts';
import { type ArticleDocument, type Block, EMPTY_ARTICLE } from './block.ts';
import { EACH } from './blocks/each.ts';
import { compareArticles, compareWords } from './compare.ts';
import { editableText } from './editable.ts';
import { editableHtml } from './editableHtml.ts';
import { articleFlow } from './flow.ts';
import { hereOf } from './here.ts';
import { articlePage, blocksHtml } from './html.ts';
import { tidy } from './hygiene.ts';
import type { Resolve } from './inline.ts';
import { articleFile } from './markdown.ts';
import { measuresOf } from './measures.ts';
import { mergeArticles } from './merge.ts';
import { outOfRange } from './outOfRange.ts';
import { emphasised, quotedFrom, restingOn, withFold, withoutEmoji } from './parts.ts';
import { placesAtHeadings, placesWhereTheyFit, withPictures } from './picturePlaces.ts';
import { alikeBlocks, putProblem, puttingOf } from './putting.ts';
import { gradeCounts } from './readingGrade.ts';
import { sayingsIn } from './sayings.ts';
import { slugOf } from './slug.ts';
import { structuredData } from './structured.ts';
import { tagsOf } from './tags.ts';
import { articlePlain, articleWords } from './text.ts';
import { unitProblem, unitsOf } from './translate.ts';

const resolve: Resolve = {
  file: (digest) => `https://crockhaven.example/f/${digest}`,
  article: (id) => (id === 'out' ? 'https://crockhaven.example/rosin' : null),
};
const nowhere: Resolve = { file: (digest) => digest, article: () => null };

/** An article of what a few texts say, sections of two paragraphs each. */
function articleOf(language: 'en' | 'de', n: number, most = 4): ArticleDocument {
  const texts = textsIn(language, 60).slice(n, n + most);
  const body = texts.flatMap((text, t): Block[] => {
    const said = sentencesOf(text, language);
    const paragraph = (from: number, to: number): Block => ({
      type: 'paragraph',
      id: `p${t}${from}`,
      content: [{ text: said.slice(from, to).join(' ') }],
    });
    return [
      {
        type: 'heading',
        id: `h${t}`,
        level: t % 3 === 2 ? 3 : 2,
        text: (said[0] ?? '').split(' ').slice(0, 5).join(' '),
      },
      paragraph(0, 3),
      ...(said.length > 3 ? [paragraph(3, said.length)] : []),
    ];
  });
  return {
    ...EMPTY_ARTICLE,
    language,
    title: texts[0]!.split(' ').slice(0, 7).join(' '),
    description: texts[0]!.slice(0, 120),
    keyPhrase: texts[0]!.split(' ').slice(1, 3).join(' '),
    body,
  };
}

const WHOLE: ArticleDocument = {
  ...articleOf('en', 0, 2),
  title: 'Every block & more',
  body: [...Object.values(EACH)],
};

test('an article of every block in every form', async () => {
  const all = [
    articlePage(WHOLE, resolve),
    articlePage({ ...WHOLE, language: 'ar' }, nowhere),
    ...blocksHtml(WHOLE, resolve).map(({ id, text }) => `${id}: ${text}`),
    articleFile(WHOLE, resolve),
    articleFile(WHOLE, nowhere),
    editableText(WHOLE.body),
    editableHtml(WHOLE.body),
    articlePlain(WHOLE),
    `${articleWords(WHOLE)} words`,
    JSON.stringify(articleFlow(WHOLE, resolve), null, 1),
    JSON.stringify(hereOf(WHOLE.body, resolve), null, 1),
    JSON.stringify(hereOf(WHOLE.body, nowhere, true), null, 1),
    JSON.stringify(structuredData(WHOLE, { author: 'Ines Marlow', picture: (file) => `/f/${file}` }), null, 1),
    JSON.stringify(structuredData(WHOLE, { author: null, picture: () => null }), null, 1),
    JSON.stringify(unitsOf(WHOLE).units, null, 1),
    JSON.stringify(puttingOf(WHOLE).units, null, 1),
    JSON.stringify(tidy(WHOLE, { repeats: 'kept' }), null, 1),
  ];
  await expect(lines(all)).toMatchFileSnapshot('listed/forms.txt');
});

test.each(['en', 'de'] as const)('measures of articles, and what is out of range (%s)', async (language) => {
  const all = [0, 5, 11, 17, 23, 29, 35].flatMap((n) => {
    const article = articleOf(language, n);
    const sources = passagesOf(
      { address: 'https://a.example', title: 'A', paragraphs: textsIn(language, 60).slice(n + 1, n + 4), language },
      'd',
    );
    const [held, alone] = [measuresOf(article, sources), measuresOf(article, [])];
    return [
      `= ${article.title}`,
      ...held.measures.map((one) => JSON.stringify(one)),
      ...held.doubts.map((one) => `doubt ${JSON.stringify(one)}`),
      `alone: ${alone.measures.map(({ name, value }) => `${name} ${value}`).join(', ')}`,
      `out: ${JSON.stringify(outOfRange(held.measures))}`,
      `tags: ${tagsOf(article).join(', ')}; address ${slugOf(article.title)} ${slugOf(article.title, 12)}`,
      `grades: ${sentencesOf(textsIn(language, 60)[n]!, language)
        .map((one) => JSON.stringify(gradeCounts(one, language)))
        .join(' ')}`,
    ];
  });
  await expect(lines(all)).toMatchFileSnapshot(`listed/measures-${language}.txt`);
});

/** The same article, changed here and there. */
function changed(article: ArticleDocument, at: number): ArticleDocument {
  const body = article.body.flatMap((block, n): Block[] => {
    if (n === at) return [];
    if (n === at + 2 && block.type === 'paragraph')
      return [{ ...block, content: [{ text: `${block.content[0]!.text} One sentence more.` }] }];
    if (n === at + 4)
      return [{ type: 'paragraph', id: `new${at}`, content: [{ text: `Something new at ${at}.` }] }, block];
    return [block];
  });
  return {
    ...article,
    title: at === 1 ? `${article.title} again` : article.title,
    body: at === 3 ? [...body].reverse() : body,
  };
}

test('articles compared, aligned and merged', async () => {
  const base = articleOf('en', 3, 5);
  const versions = [0, 1, 2, 3, 5].map((at) => changed(base, at));
  const all = versions.flatMap((mine, n) => [
    `= ${n}`,
    JSON.stringify(compareArticles(base, mine), null, 1),
    JSON.stringify(
      alignBlocks(base.body, mine.body).map((pair) => JSON.stringify(pair).slice(0, 160)),
      null,
      1,
    ),
    JSON.stringify(mergeArticles(base, mine, versions[(n + 2) % versions.length]!), null, 1),
  ]);
  const words = [
    ['Salt the cabbage and wait.', 'Salt the shredded cabbage, and wait a day.'],
    ['', 'All new.'],
    ['All gone.', ''],
    ['a b c d e', 'e d c b a'],
    ['same', 'same'],
  ].map(([before, after]) => JSON.stringify(compareWords(before!, after!)));
  await expect(lines([...all, ...words])).toMatchFileSnapshot('listed/compared.txt');
});

test('small parts', async () => {
  const article = articleOf('en', 7, 4);
  const { body } = article;
  const text = textsIn('en', 60)[7]!;
  const figure = EACH.figure;
  const all = [
    JSON.stringify(emphasised(body, 'a', 'en').slice(0, 4)),
    JSON.stringify(emphasised(body, article.keyPhrase, 'en').slice(0, 3)),
    JSON.stringify(emphasised([EACH.paragraph, EACH.list, EACH.table], 'rosin', 'en')),
    withoutEmoji('Salt 🧂 and 👩‍🌾 jar ©️ 1️⃣ → done ✅'),
    JSON.stringify(withFold(body, sayingsIn('en')).map(({ type, id }) => `${type} ${id}`)),
    JSON.stringify(withFold(body.slice(0, 1), sayingsIn('de'))),
    ...[text.slice(10, 60), text.split('. ')[1]!, 'none of it', '', text.slice(0, 12).toUpperCase()].map((quote) =>
      JSON.stringify(quotedFrom(text, quote)),
    ),
    ...[text, text.slice(0, 80), 'x'].map((passage) => String(restingOn(body, passage))),
    JSON.stringify(placesAtHeadings(body, 'all')),
    JSON.stringify(placesAtHeadings(body, body[0]!.type === 'heading' ? body[0]!.text : '')),
    ...[0, 1, 2, 9].map((most) =>
      JSON.stringify(placesWhereTheyFit(body, most).map(({ block, heading }) => `${block} ${heading}`)),
    ),
    JSON.stringify(
      withPictures(
        body,
        placesWhereTheyFit(body, 2).map((place, n) => ({
          place: { ...place, instead: n === 1 },
          figure: { ...figure, id: `f${n}` },
        })),
      ).map(({ id }) => id),
    ),
    ...[0, 30, 60, 100].map((most) => {
      const { likeness, blocks } = alikeBlocks(article, [text], most);
      return `${most}: ${likeness} ${[...blocks].join(' ')}`;
    }),
    ...[
      ['Take 30 grams of salt for 2 kilograms.', 'For 2 kilograms take 30 grams of salt.', []],
      ['Take 30 grams of salt.', 'Take 35 grams of salt.', []],
      ['Ask Ines Marlow about <1>jars</1>.', 'Ask <1>jars</1> about Ines Marlow.', ['Ines Marlow']],
      ['Ask Ines Marlow about <1>jars</1>.', 'Ask her about <1>jars</1>.', ['Ines Marlow']],
      ['Ask Ines Marlow about <1>jars</1>.', 'Ask Ines Marlow about jars.', ['Ines Marlow']],
      ['Salt.', '', []],
      ['Salt and wait for a day before you taste it.', 'Salt and wait for a day before you taste it.', []],
    ].map(
      ([before, after, keep]) =>
        `${before} → ${after}: ${putProblem(before as string, after as string, keep as string[])} | ${unitProblem(before as string, after as string, '\u0000')}`,
    ),
    ...[
      'Crème brûlée & Co.: a guide (2026)',
      'Ünder größer',
      '日本語',
      '!!!',
      'a'.repeat(100),
      'one two three four five six seven eight nine ten eleven twelve',
    ].map((title) => `${title}: ${slugOf(title)} ${slugOf(title, 10)}`),
  ];
  await expect(lines(all)).toMatchFileSnapshot('listed/parts.txt');
});
