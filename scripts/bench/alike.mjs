// How long an article takes to be held against a hundred thousand of ours.
import { alikeSentences, EMPTY_ARTICLE, likeness, ownWordsOf, runNumbers } from '@grivo/core';
import { ownAlike } from '../../server/src/nouns/articles/ownWords.ts';
import { ground, median } from './ground.mjs';

const ARTICLES = 100_000;
const AT_ONCE = 1_000;
const WORDS_EACH = 800;
const ASKED = 25;

/** A made-up word, the same for the same number; six thousand of them, the small numbers far more often. */
const word = (x) => `w${Math.floor((x / 2 ** 32) ** 2 * 6_000)}`;

/** A made-up article in sentences of twelve words, the same for the same number. */
function text(n, words = WORDS_EACH) {
  let x = (Math.imul(n + 1, 2_654_435_761) + 12_345) >>> 0;
  const out = [];
  for (let i = 0; i < words; i++) {
    x = (Math.imul(x, 1_664_525) + 1_013_904_223) >>> 0;
    out.push(i % 12 === 11 ? `${word(x)}.` : word(x));
  }
  return out.join(' ');
}

const documentOf = (title, said) => ({
  ...EMPTY_ARTICLE,
  title,
  language: 'en',
  body: [{ type: 'paragraph', id: 'p1', content: [{ text: said }] }],
});

export async function alike(tell) {
  const floor = await ground();
  try {
    const { product } = await floor.product();
    const { db, ids } = product.ground;
    const brief = ids();
    await db.run('SET GLOBAL innodb_flush_log_at_trx_commit = 2');
    for (let at = 0; at < ARTICLES; at += AT_ONCE) {
      const batch = Array.from({ length: AT_ONCE }, (_, i) => ({ id: ids(), revision: ids(), n: at + i }));
      await db.run('INSERT INTO article (id, brief, line, family, language, current, title, out_as) VALUES ?', [
        batch.map(({ id, revision, n }) => [id, brief, `l${n}`, id, 'en', revision, `Article ${n}`, 'live']),
      ]);
      // Only those that will be met need a text to be read.
      const met = batch.filter(({ n }) => n % 3_001 === 0);
      if (met.length > 0)
        await db.run('INSERT INTO article_revision (id, article, document, words) VALUES ?', [
          met.map(({ id, revision, n }) => [
            revision,
            id,
            JSON.stringify(documentOf(`Article ${n}`, text(n))),
            WORDS_EACH,
          ]),
        ]);
      const rows = batch.flatMap(({ id, n }) => runNumbers(text(n)).map((number) => [number, id]));
      rows.sort(([a], [b]) => a - b);
      for (let from = 0; from < rows.length; from += 20_000)
        await db.run('INSERT IGNORE INTO article_run (number, article) VALUES ?', [rows.slice(from, from + 20_000)]);
    }
    const times = [];
    for (let i = 0; i < ASKED; i++) {
      // Every second one has half of one that is there.
      const repeats = i % 2 === 0;
      const said = repeats
        ? `${text(3_001 * i, WORDS_EACH / 2)} ${text(ARTICLES + i, WORDS_EACH / 2)}`
        : text(ARTICLES + i);
      const document = documentOf('Asked', said);
      const from = performance.now();
      const found = await ownAlike(db, { id: 'asked', brief: 'another' }, document);
      const texts = found.map((one) => one.text);
      const share = likeness(ownWordsOf(document), texts, 'en');
      if (share > 0.25) alikeSentences(ownWordsOf(document), texts, 'en');
      times.push(performance.now() - from);
      if (share > 0.25 !== repeats) throw new Error(`article ${i} is like ours by ${share}`);
    }
    await product.close();
    tell(
      `one article of ${WORDS_EACH} words against a hundred thousand: median ${median(times).toFixed(1)}, at most ${Math.max(...times).toFixed(1)} ms`,
    );
    return { 'text.likenessMs': median(times) };
  } finally {
    await floor.end();
  }
}
