// What an article costs while it is edited: its measures whole and after one paragraph changed, and two versions merged.
import { changedFrom, doubtReader, EMPTY_ARTICLE, measuresOf, mergeArticles, withChanges } from '@grivo/core';
import { keptPairs } from '../../core/src/honesty/pairs/pairs.ts';
import { median, never } from './ground.mjs';

const WORDS = 2_000;
const PASSAGES = 12;
const TIMES = 121;
/** Times that are not counted: whoever types is measured again and again, and what runs often is made quick by then. */
const WARM = 40;

/** An article of two thousand words with headings, a paragraph resting on two passages of twelve. */
function article() {
  const own = keptPairs().fitted.filter(([language]) => language === 'en');
  const passages = [...new Set(own.map(([, , , passage]) => passage))]
    .slice(0, PASSAGES)
    .map((text, i) => ({ id: `m:${i + 1}`, text }));
  const body = [];
  let words = 0;
  for (let i = 0; words < WORDS; i++) {
    const text = [0, 1, 2, 3].map((k) => own[(i * 4 + k) % own.length][4]).join(' ');
    words += text.split(/\s+/).length;
    if (i % 4 === 0) body.push({ type: 'heading', id: `h${i}`, level: 2, text: `Part ${i}` });
    const evidence = [i, i + 1].map((n) => ({ passage: passages[n % PASSAGES].id, digest: '' }));
    body.push({ type: 'paragraph', id: `p${i}`, content: [{ text }], evidence });
  }
  return { document: { ...EMPTY_ARTICLE, title: 'An article to be timed', keyPhrase: 'salt', body }, passages };
}

function changed(document, n) {
  const at = document.body.findIndex(({ type }) => type === 'paragraph');
  return {
    ...document,
    body: document.body.map((block, i) =>
      i === at ? { ...block, content: [{ text: `${block.content[0].text} Word ${n} more.` }] } : block,
    ),
  };
}

/** @param prepare makes what it is done with, outside of the time */
const timed = (does, prepare = (n) => n) => {
  const took = [];
  for (let n = 0; n < TIMES; n++) {
    const given = prepare(n);
    const from = performance.now();
    does(given);
    took.push(performance.now() - from);
  }
  return median(took.slice(WARM));
};

function unread({ document, passages }, n) {
  return {
    document: {
      ...document,
      body: document.body.map((block) =>
        block.content ? { ...block, content: [{ text: never(block.content[0].text, n) }] } : block,
      ),
    },
    passages: passages.map(({ id, text }) => ({ id, text: never(text, n) })),
  };
}

export async function proof(tell) {
  const { document, passages } = article();
  // From nothing: no sentence of it was read before. What is held against the sources has a figure of its own.
  const fresh = (n) => unread({ document, passages }, n);
  // Once in a process that has measured nothing yet: when an article is opened.
  const from = performance.now();
  measuresOf(document, passages, []);
  const first = performance.now() - from;
  const alone = timed((one) => measuresOf(one.document, one.passages, []), fresh);
  const whole = timed(
    (one) => measuresOf(one.document, one.passages),
    (n) => fresh(TIMES + n),
  );
  const doubts = doubtReader(passages, 'en');
  doubts(document.body);
  // As it comes to a worker: what changed is a copy, put among the blocks that were sent before.
  let [here, there] = [document.body, document.body];
  const one = timed(
    (change) => {
      const now = withChanges(there, change);
      there = now.body;
      measuresOf(now, passages, doubts(now.body));
    },
    (n) => {
      const next = changed(document, n);
      const change = structuredClone(changedFrom(here, next));
      here = next.body;
      return change;
    },
  );
  const merged = timed((n) => mergeArticles(document, changed(document, n), { ...document, title: `Theirs ${n}` }));
  tell(
    `\n${document.body.length} blocks, ${WORDS} words: measures ${alone.toFixed(1)} ms (${first.toFixed(1)} ms the first time), with what is held against the sources ${whole.toFixed(1)} ms, one paragraph changed ${one.toFixed(1)} ms`,
  );
  return {
    'proof.measuresMs': alone,
    'proof.measuresFirstMs': first,
    'proof.measuresAndDoubtsMs': whole,
    'proof.changedMs': one,
    'proof.mergeMs': merged,
  };
}
