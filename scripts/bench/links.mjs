// What links cost: what fits an article among the pages of a large blog, and thousands of words that have a rule.

import { createHash } from 'node:crypto';
import { createServer } from 'node:http';
import { applyRules, compileRules, EMPTY_ARTICLE, LinkIndex, placeLinks, termsOfPage } from '@grivo/core';
import { keptPairs } from '../../core/src/honesty/pairs/pairs.ts';
import { LinkLooker } from '../../server/src/nouns/upkeep/look.ts';
import { ground, median } from './ground.mjs';

const PAGES = 50_000;
const RULES = 5_000;
const WORDS = 2_000;
const TIMES = 25;

const timed = (does, times = TIMES) => {
  const took = [];
  for (let n = 0; n < times; n++) {
    const from = performance.now();
    does(n);
    took.push(performance.now() - from);
  }
  return median(took.slice(1));
};

/** Sentences of the honesty pairs, in order, as many as hold so many words. */
function article(sentences) {
  const body = [];
  let words = 0;
  for (let i = 0; words < WORDS; i += 4) {
    const text = sentences.slice(i, i + 4).join(' ');
    words += text.split(/\s+/).length;
    if (i % 24 === 0)
      body.push({ type: 'heading', id: `h${i}`, level: 2, text: text.split(/\s+/).slice(0, 5).join(' ') });
    body.push({ type: 'paragraph', id: `p${i}`, content: [{ text }] });
  }
  return { ...EMPTY_ARTICLE, body };
}

/** Pages of a blog that writes of the same things again and again: titles and texts from a few thousand words. */
function pages(sentences) {
  const words = [
    ...new Set(
      sentences
        .join(' ')
        .toLowerCase()
        .match(/[a-z]{4,}/g),
    ),
  ];
  const at = (n) => words[(n * 2_654_435_761) % words.length];
  return Array.from({ length: PAGES }, (_, i) => {
    const title = [at(i * 3 + 1), at(i * 5 + 2), at(i % 400)].join(' ');
    const text = Array.from({ length: 150 }, (_, k) => at(i * 7 + k * 13)).join(' ');
    return {
      address: `https://blog.example/${i}`,
      title,
      terms: termsOfPage({ title, headings: [at(i), at(i + 9)], text }, 'en'),
    };
  });
}

/** Words with a rule one after the other, as one would without making them ready. */
function oneByOne(document, rules) {
  let placed = 0;
  for (const { words } of rules) {
    const pattern = new RegExp(`(?<![\\p{L}\\p{N}])${words}(?![\\p{L}\\p{N}])`, 'iu');
    for (const block of document.body)
      if (block.type === 'paragraph' && pattern.test(block.content[0].text)) {
        placed++;
        break;
      }
  }
  return placed;
}

const LOOKED = 300;
const PACE_MS = 25;

/** How many links of one site are looked at, over what its pace lets through. */
async function checked() {
  const site = createServer((_, response) => {
    response.writeHead(200, { 'content-type': 'text/html' });
    response.end('<title>A page</title><h1>A page</h1><p>Words.</p>');
  });
  await new Promise((resolve) => site.listen(0, '127.0.0.1', resolve));
  const origin = `http://127.0.0.1:${site.address().port}`;
  const base = await ground();
  try {
    const { product } = await base.product({ allowedOrigins: [origin] });
    const { db } = product.ground;
    for (let i = 0; i < LOOKED; i++) {
      const address = `${origin}/${i}`;
      await db.run(
        "INSERT INTO link_look (address_digest, address, host, state, next_at) VALUES (?, ?, ?, 'new', UTC_TIMESTAMP(3))",
        [createHash('sha256').update(address).digest('hex'), address, new URL(origin).host],
      );
    }
    const looker = new LinkLooker(product.tools, PACE_MS);
    // Its robots.txt and the reader are there before the clock runs.
    await looker.round(200);
    const from = performance.now();
    let looked = 0;
    for (let n = 1; n > 0; looked += n) n = await looker.round(5_000);
    const took = performance.now() - from;
    await product.close();
    return (looked * PACE_MS) / took;
  } finally {
    await base.end();
    site.close();
  }
}

export async function links() {
  const { fitted } = keptPairs();
  const text = fitted
    .filter(([language]) => language === 'en')
    .flatMap(([, , , passage, sentence]) => [sentence, passage]);
  const document = article(text);
  const from = performance.now();
  const index = new LinkIndex(pages(text), 'en');
  const readyMs = performance.now() - from;
  let placed = 0;
  const candidatesMs = timed(() => {
    placed = placeLinks(document, index, { own: 10, perParagraph: 1 }).placed.length;
  });
  const all = document.body.flatMap((block) =>
    block.type === 'paragraph' ? block.content[0].text.match(/[A-Za-z]{4,}/g) : [],
  );
  const rules = Array.from({ length: RULES }, (_, i) => ({
    id: String(i),
    words: i < 200 ? `${all[i * 5]}` : `${all[i % all.length]} thing${i}`,
    address: `https://shop.example/${i}`,
    most: 1,
    placing: 'first',
    after: 0,
    forms: true,
    anyCase: true,
    sponsored: true,
  }));
  const compileMs = timed(() => compileRules(rules, 'en'));
  const set = compileRules(rules, 'en');
  const rulesMs = timed(() => applyRules(document, set), 40);
  const oneByOneMs = timed(() => oneByOne(document, rules), 2);
  return {
    'links.candidatesMs': candidatesMs,
    'links.placed': placed,
    'links.indexReadyMs': readyMs,
    'links.rulesMs': rulesMs,
    'links.rulesReadyMs': compileMs,
    'links.rulesVsOneByOne': oneByOneMs / rulesMs,
    'links.checkPerSecond': await checked(),
  };
}
