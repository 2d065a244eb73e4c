// What a house style costs: learnt from fifty thousand words, an article of two thousand set beside one.
import {
  comparedWithStyle,
  describedBy,
  EMPTY_ARTICLE,
  favouredWords,
  figuresOfText,
  figuresOver,
  handDistance,
  handOf,
  PLAIN_STYLE,
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
  tell(
    `\nlearnt from ${LEARNT} words ${learn.toFixed(0)} ms (aim under 300); ${WORDS} words compared ${compare.toFixed(1)} ms (aim under 20), put in the words of the house ${put.toFixed(1)} ms`,
  );
  return { 'style.learnMs': learn, 'style.compareMs': compare, 'style.rewordMs': put };
}
