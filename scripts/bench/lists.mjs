// How long lists take when a store has grown, and while many ask at once and a worker works.
import { Agent, createServer, get } from 'node:http';
import { searchedWordsIn, searchWords, stepKinds } from '@grivo/core';
import { app } from '../../server/src/api/app.ts';
import { noteWords } from '../../server/src/nouns/articles/wordIndex.ts';
import { addPerson } from '../../server/src/nouns/people/repository.ts';
import { createPipeline } from '../../server/src/nouns/pipelines/repository.ts';
import { addKeywords } from '../../server/src/nouns/sources/keywords.ts';
import { createSource } from '../../server/src/nouns/sources/repository.ts';
import { everyDay } from '../cadence.mjs';
import { fillStore } from './fill.mjs';
import { ground, median } from './ground.mjs';

const ROUNDS = 15;
const SAYS = searchWords('How much salt', 'A brine of salt and water, by weight.');
const PASSWORD = 'salt-and-patience';

/** A product with one brief that is out, made by hand as its steps would leave it. */
async function small(product) {
  const { ground: of } = product;
  const { db, ids, desk } = of;
  const source = await createSource(of, { kind: 'keywords' }, 'A list');
  await addKeywords(product.tools, source, { paste: 'how much salt for sauerkraut' });
  const pipeline = await createPipeline(of, {
    name: 'Guides',
    person: null,
    document: {
      grivo: 1,
      language: 'en',
      steps: [{ ...stepKinds.take.fresh('s1'), sources: [source] }],
    },
  });
  const [brief, article, revision, blog] = [ids(), ids(), ids(), ids()];
  const now = desk.now();
  const [{ procedure_id: procedure }] = await db.rows('SELECT procedure_id FROM pipeline WHERE id = ?', [pipeline]);
  await db.run(
    "INSERT INTO blog (id, name, address, endpoint, language, cadence) VALUES (?, 'Journal', 'https://b.example', 'https://b.example/e', 'en', ?)",
    [blog, JSON.stringify(everyDay(2, 60, 'Europe/Dublin'))],
  );
  await db.run(
    "INSERT INTO brief (id, pipeline, standing, seed, subject, fields, made_desk, ended_desk) VALUES (?, ?, 'out', 's', 'salt', '{}', ?, ?)",
    [brief, pipeline, now, now],
  );
  await db.run('INSERT INTO brief_pin (brief, procedure_id, version, main) VALUES (?, ?, 1, 1)', [brief, procedure]);
  for (const [n, kind] of ['take', 'outline', 'write', 'title', 'publish'].entries()) {
    const run = ids();
    await db.run(
      "INSERT INTO step_run (id, brief, path, kind, state, home_lane, attempts, ended_at) VALUES (?, ?, ?, ?, 'done', '-:5', 1, UTC_TIMESTAMP(3))",
      [run, brief, `s${n + 1}`, kind],
    );
    await db.run("INSERT INTO output (step_run, proposed) VALUES (?, '{}')", [run]);
    await db.run(
      "INSERT INTO ledger (id, step_run, brief, pipeline, service, at_desk, what, micros) VALUES (?, ?, ?, ?, 'w', ?, 'call', 900)",
      [ids(), run, brief, pipeline, now],
    );
  }
  await db.run(
    "INSERT INTO article (id, brief, line, blog, family, language, current, glanced, title, words, out_as) VALUES (?, ?, '', ?, ?, 'en', ?, ?, 'How much salt', 900, 'live')",
    [article, brief, blog, brief, revision, revision],
  );
  await db.run("INSERT INTO article_glance (article, revision, marks, out_of_range, words) VALUES (?, ?, 1, '[]', ?)", [
    article,
    revision,
    SAYS,
  ]);
  const [{ n }] = await db.rows('SELECT n FROM article WHERE id = ?', [article]);
  await noteWords(db, n, { come: [...searchedWordsIn(SAYS)], gone: [] });
  await db.run('INSERT INTO placement (article, blog, due_desk) VALUES (?, ?, ?)', [article, blog, now]);
  await db.run(
    "INSERT INTO publication (id, article, blog, key_, state, as_, address, revision, out_desk, pipeline) VALUES (?, ?, ?, 'k', 'live', 'live', 'https://b.example/k', ?, ?, ?)",
    [ids(), article, blog, revision, now, pipeline],
  );
  await db.run(
    "INSERT INTO link_page (blog, address_digest, address, title, article) VALUES (?, SHA2('k', 256), 'https://b.example/k', 'How much salt', ?)",
    [blog, article],
  );
  return { brief, source, pipeline };
}

/** The API of a store that was filled, and one who may ask all of it. */
async function filled(bench, briefs, items) {
  const { product } = await bench.product();
  await product.ground.desk.set(Date.parse('2026-05-01T12:00:00Z'), 0);
  const { brief, source, pipeline } = await small(product);
  await fillStore(product.ground.db, { brief, source, briefs, items });
  await addPerson(product.ground, { email: 'o@b.example', name: 'O', role: 'owner', password: PASSWORD });
  const server = createServer(app(product));
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${server.address().port}`;
  const signed = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'o@b.example', password: PASSWORD }),
  });
  const agent = new Agent({ keepAlive: true });
  const cookie = signed.headers.get('set-cookie').split(';')[0];
  const lists = [
    '/articles',
    '/articles?standing=out',
    '/articles?standing=ready',
    '/articles?order=slot',
    '/articles?order=slot&mark=any',
    '/articles?order=fit&q=salt',
    '/articles/count',
    '/briefs',
    `/briefs?pipeline=${pipeline}&standing=waiting`,
    '/pipelines',
    `/pipelines/${pipeline}`,
    `/pipelines/${pipeline}/sheet`,
    '/sources',
    `/sources/${source}/looks`,
    '/blogs',
    '/slots?days=7',
    '/today',
    '/holds',
    '/incidents',
    '/acts',
    '/services',
    '/people',
    '/keys',
    '/routines',
  ];
  return {
    product,
    lists,
    /** By a client that costs little itself: it runs beside the server. */
    ask: (path) =>
      new Promise((resolve, reject) => {
        const from = performance.now();
        get(`${address}/api${path}`, { agent, headers: { cookie } }, async (reply) => {
          const { length } = Buffer.concat(await reply.toArray());
          if (reply.statusCode === 200 && length > 0) resolve(performance.now() - from);
          else reject(new Error(`${path} answers ${reply.statusCode}`));
        }).on('error', reject);
      }),
    async end() {
      agent.destroy();
      server.closeAllConnections();
      server.close();
      await product.close();
    },
  };
}

/** Words of articles as they are spread in texts: few that stand everywhere, many that are rare (Zipf). */
function vocabulary(seed) {
  let state = seed;
  const random = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
  const rank = () => Math.floor(20_000 ** random());
  return (n) => Array.from({ length: n }, () => `x_w${rank()}`).join(' ');
}

/** The index of words, in its own order: a load of that many is written quickest so. */
async function writeIndex(db, noted) {
  const index = new Map();
  for (const { n, words } of noted)
    for (const word of searchedWordsIn(words)) {
      const masks = index.get(word) ?? index.set(word, new Map()).get(word);
      masks.set(n >> 5, (masks.get(n >> 5) ?? 0) + 2 ** (n & 31));
    }
  let rows = [];
  const write = async () => {
    if (rows.length > 0) await db.run('INSERT INTO article_word (word, block, mask) VALUES ?', [rows]);
    rows = [];
  };
  for (const word of [...index.keys()].sort())
    for (const [block, mask] of index.get(word)) if (rows.push([word, block, mask]) >= 20_000) await write();
  await write();
}

const WORDS_EACH = 150;
const ROUNDS_FOUND = 40;
/** As many as the list asks for at once. */
const ROWS_A_PAGE = 120;

/**
 * The list of 100,000 articles: its first rows in any order and narrowed, and what is found in all of them by words that are
 * rare and common, alone, together and in an order.
 */
export async function articles(tell) {
  const bench = await ground();
  try {
    const many = await filled(bench, 100_000, 1_000);
    const { db } = many.product.ground;
    const text = vocabulary(7);
    const made = await db.rows("SELECT id, n FROM article WHERE id LIKE '0a%' ORDER BY n");
    await db.run('TRUNCATE article_glance');
    await db.run('TRUNCATE article_word');
    const all = made.map(({ id, n }) => ({ id, n, words: ` ${text(WORDS_EACH)} ` }));
    for (let at = 0; at < all.length; at += 1_000)
      await db.run('INSERT INTO article_glance (article, revision, marks, out_of_range, words) VALUES ?', [
        all.slice(at, at + 1_000).map(({ id, words }, i) => [id, id, (at + i) % 9 === 0 ? 32 : 0, '[]', words]),
      ]);
    await writeIndex(db, all);
    for (const table of ['article', 'article_glance', 'article_word']) await db.run(`ANALYZE TABLE ${table}`);
    const [{ n }] = await db.rows('SELECT COUNT(*) AS n FROM article_glance');
    tell(`${n} articles of ${WORDS_EACH} words are noted`);
    const LISTS = ['order=slot', 'order=newest', 'order=slot&standing=out&days=3000', 'order=slot&mark=Title'];
    const FOUND = ['w3', 'w150', 'w9001', 'w40 w150', '%22w2 w5%22', 'w150 -w3', 'w1 w2 w3'];
    const time = async (queries) => {
      const times = [];
      for (const query of queries) {
        const own = [];
        for (let i = 0; i < ROUNDS_FOUND / 4; i++) own.push(await many.ask(`/articles?limit=${ROWS_A_PAGE}&${query}`));
        tell(`${query.padEnd(40)} ${median(own.slice(2)).toFixed(1)} ms`);
        times.push(median(own.slice(2)));
      }
      return Math.max(...times);
    };
    const listFirstRowsMs = await time(LISTS);
    const searchMs = await time(FOUND.map((words) => `order=fit&q=${words}`));
    await many.end();
    return { 'proof.listFirstRowsMs': listFirstRowsMs, 'proof.searchMs': searchMs };
  } finally {
    await bench.end();
  }
}

export async function lists(tell) {
  const bench = await ground();
  try {
    const one = await filled(bench, 1_000, 1_000);
    tell('1,000 articles, briefs and items are there');
    const many = await filled(bench, 100_000, 1_000_000);
    tell('100,000 articles and briefs and 1,000,000 items are there');
    const times = {};
    for (let round = 0; round < ROUNDS; round++)
      for (const [i, path] of many.lists.entries()) {
        const name = path.replace(/[0-9a-z]{20}/g, '*');
        times[name] ??= { small: [], large: [] };
        times[name].small.push(await one.ask(one.lists[i]));
        times[name].large.push(await many.ask(path));
      }
    const slowest = (which) => Math.max(...Object.values(times).map((of) => median(of[which].slice(3))));
    for (const [name, of] of Object.entries(times))
      tell(`${name.padEnd(36)} ${median(of.small.slice(3)).toFixed(1)} → ${median(of.large.slice(3)).toFixed(1)} ms`);
    await many.product.work('worker');
    const all = [];
    const asker = async () => {
      for (let i = 0; i < 6; i++) for (const path of many.lists) all.push(await many.ask(path));
    };
    await Promise.all(Array.from({ length: 10 }, asker));
    all.sort((a, b) => a - b);
    await one.end();
    await many.end();
    return { 'api.listsAt100k': slowest('large') / slowest('small'), 'api.p99Ms': all[Math.floor(all.length * 0.99)] };
  } finally {
    await bench.end();
  }
}
