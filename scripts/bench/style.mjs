// What a house style costs: learnt from fifty thousand words, an article of two thousand set beside one.
import {
  byRules,
  chooseVariant,
  comparedWithStyle,
  describedBy,
  EMPTY_ARTICLE,
  favouredWords,
  figuresOfText,
  figuresOver,
  handDistance,
  handOf,
  PLAIN_STYLE,
  ReplacementRule,
  reworded,
} from '@grivo/core';
import { keptPairs } from '../../core/src/honesty/pairs/pairs.ts';
import { median } from './ground.mjs';

const LEARNT = 50_000;
const TEXTS = 25;
const WORDS = 2_000;

/** Sentences one after the other, from another place each time, so many words of them. */
function text(own, from, most) {
  const out = [];
  let words = 0;
  for (let i = from; words < most; i++) {
    const sentence = own[i % own.length];
    words += sentence.split(/\s+/).length;
    out.push(sentence);
  }
  return out.join(' ');
}

const timed = (times, does) => {
  const took = [];
  for (let n = 0; n < times; n++) {
    const from = performance.now();
    does(n);
    took.push(performance.now() - from);
  }
  return median(took.slice(1));
};

/** How quickly a variant is chosen, over joining the same pieces. */
function variants() {
  const lists = Array.from({ length: 30 }, (_, i) => [`fine ${i}`, `coarse ${i}`, `{plain|sea} ${i}`]);
  const text = lists.map((one) => `{${one.join('|')}} salt `).join('');
  const pieces = lists.flatMap(([first]) => [first, ' salt ']);
  const most = 2_000;
  const choosing = timed(9, (n) => {
    for (let i = 0; i < most; i++) chooseVariant([text], `${n} ${i}`);
  });
  const joining = timed(9, (n) => {
    let letters = 0;
    for (let i = 0; i < most; i++) letters += pieces.map((piece) => piece + (i + n)).join('').length;
    return letters;
  });
  return joining / choosing;
}

export async function style(tell) {
  const own = keptPairs()
    .fitted.filter(([language]) => language === 'en')
    .map(([, , , , sentence]) => sentence);
  const texts = Array.from({ length: TEXTS }, (_, i) => text(own, i * 37, LEARNT / TEXTS));
  const learn = timed(6, (n) => {
    // Other texts each time: what is remembered of sentences does not count.
    const these = texts.map((one) => `${one} And so it was ${n}.`);
    const read = these.map((one) => figuresOfText(one, 'en'));
    describedBy(read, figuresOver(read));
    favouredWords(these, 'en');
    handOf(these, 'en');
  });
  const words = Array.from({ length: 100 }, (_, i) => ({ use: `word${i}`, not: [`other${i}`, `several words ${i}`] }));
  const house = {
    ...PLAIN_STYLE,
    words,
    never: ['superfood', 'game changer'],
    person: 'first person plural',
    ranges: { sentence: { from: 8, to: 20 }, commas: { from: 0, to: 2 } },
  };
  const body = text(own, 11, WORDS)
    .match(/(?:[^.!?]+[.!?]+){1,4}/g)
    .map((part, i) => ({ type: 'paragraph', id: `p${i}`, content: [{ text: part.trim() }] }));
  const document = { ...EMPTY_ARTICLE, title: 'An article to be timed', body };
  const hand = handOf(texts, 'en');
  const compare = timed(21, () => {
    comparedWithStyle(document, house);
    handDistance(hand, body.map(({ content }) => content[0].text).join(' '));
  });
  const put = timed(21, () => reworded(body, house, 'en'));
  const many = Array.from({ length: 1_000 }, (_, i) => ({ use: `word${i}`, not: [`other${i}`] }));
  const said = timed(21, () => reworded(body, { words: many, spelling: null }, 'en'));
  // Every twentieth is a pattern, and some of the words stand in the text.
  const known = [
    ...new Set(body.flatMap(({ content }) => content[0].text.split(/[^a-z]+/i)).filter((one) => one.length > 6)),
  ];
  const replaced = Array.from({ length: 1_000 }, (_, i) =>
    ReplacementRule.parse(
      i % 20 === 0
        ? { find: `(${known[i % known.length]}|never${i})s? ([a-z]+)`, pattern: true, say: '$2 $1' }
        : { find: i % 9 === 0 ? known[i % known.length] : `other${i} word`, say: `word${i}` },
    ),
  );
  // A worker goes by them all day: what it takes once the engine has seen them often.
  const rules = timed(201, () => byRules(body, replaced));
  const ratio = variants();
  tell(
    `\nlearnt from ${LEARNT} words ${learn.toFixed(0)} ms (aim under 300); ${WORDS} words compared ${compare.toFixed(1)} ms (aim under 20), put in the words of the house ${put.toFixed(1)} ms; by 1,000 words that have another ${said.toFixed(1)} ms; by 1,000 rules, 50 of them patterns, ${rules.toFixed(1)} ms (aim under 10); a variant chosen at ${ratio.toFixed(2)} of the speed of joining its pieces (aim over 0.2)`,
  );
  return {
    'style.learnMs': learn,
    'style.compareMs': compare,
    'style.rewordMs': put,
    'style.manyWordsMs': said,
    'text.rulesMs': rules,
    'text.variantsPerSecond': ratio,
  };
}
