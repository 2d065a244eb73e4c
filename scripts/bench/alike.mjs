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

/**
 * A number that looks drawn, another for every other number (the finaliser of MurmurHash3): a generator that goes on from a
 * seed would meet the numbers of another seed among so many, and two articles would be alike by chance.
 */
function drawn(n) {
  let x = Math.imul(n ^ (n >>> 16), 0x85ebca6b);
  x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35);
  return (x ^ (x >>> 16)) >>> 0;
}

/** A made-up article in sentences of twelve words, the same for the same number. */
function text(n, words = WORDS_EACH) {
  const out = [];
  for (let i = 0; i < words; i++) {
    const said = word(drawn(n * WORDS_EACH + i));
    out.push(i % 12 === 11 ? `${said}.` : said);
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
      // Those that are repeated have their whole text; of the others, met by a run of common words, a line will do.
      await db.run('INSERT INTO article_revision (id, article, document, words) VALUES ?', [
        batch.map(({ id, revision, n }) => {
          const said = n % 3_001 === 0 ? text(n) : text(n, 12);
          return [revision, id, JSON.stringify(documentOf(`Article ${n}`, said)), WORDS_EACH];
        }),
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
