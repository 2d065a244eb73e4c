// How well altered sentences are told from true ones, and how long a text takes.
import { readFileSync } from 'node:fs';
import { doubtsOf, readSources } from '@grivo/core';
import { alteredByRule } from '../../core/src/honesty/pairs/altered.ts';
import { judged, keptPairs } from '../../core/src/honesty/pairs/pairs.ts';
import { unsupportedSentences } from '../../core/src/honesty/unsupported.ts';
import { median, never } from './ground.mjs';

function table(tell, name, { rows, recall, falseMarks }) {
  tell(
    `\n${name}: of what was altered ${(recall * 100).toFixed(1)} % seen, of what is true ${(falseMarks * 100).toFixed(1)} % marked`,
  );
  for (const { of, right, marked, altered, caught } of rows)
    tell(`  ${of.padEnd(16)} altered and seen ${caught} of ${altered}, true and marked ${marked} of ${right}`);
}

/** A JSON list of [language, 'ok' or 'altered', kind, passage, sentence]. */
function given(file) {
  let list;
  try {
    list = JSON.parse(readFileSync(file, 'utf8'));
  } catch (error) {
    throw new Error(`${file} cannot be read as JSON: ${error.message}`);
  }
  const wrong = Array.isArray(list)
    ? list.findIndex((row) => !Array.isArray(row) || row.length < 5 || !['ok', 'altered'].includes(row[1]))
    : 0;
  if (!Array.isArray(list) || wrong >= 0)
    throw new Error(
      `${file} is to be a list of [language, "ok" or "altered", kind, passage, sentence]; row ${wrong + 1} is not.`,
    );
  return list;
}

/** Words of the text that is timed, and the passages it may rest on. */
const WORDS = 2_000;
const PASSAGES = 12;

/** An article of two thousand words, a paragraph resting on two passages of twelve. */
function timed(pairs) {
  const own = pairs.filter(([language]) => language === 'en');
  const passages = [...new Set(own.map(([, , , passage]) => passage))].slice(0, PASSAGES);
  const sentences = own.map((pair) => pair[4]);
  const paragraphs = [];
  for (let words = 0, at = 0; words < WORDS; at += 5) {
    const paragraph = Array.from({ length: 5 }, (_, i) => sentences[(at + i) % sentences.length]).join(' ');
    paragraphs.push(paragraph);
    words += paragraph.split(' ').length;
  }
  const once = (n) => {
    // No sentence of it was read before.
    const [own, said] = [passages.map((text) => never(text, n)), paragraphs.map((text) => never(text, n))];
    const from = performance.now();
    const sources = readSources(own);
    let support = 0;
    for (const [i, paragraph] of said.entries()) {
      const against = [sources[i % PASSAGES], sources[(i + 5) % PASSAGES]];
      doubtsOf(paragraph, against);
      // As for an article that is measured: of what was read just now it is asked what says nothing like its passages.
      const held = performance.now();
      unsupportedSentences(paragraph, against);
      support += performance.now() - held;
    }
    return { honesty: performance.now() - from - support, support };
  };
  for (let i = 0; i < 100; i++) once(i);
  const times = Array.from({ length: 60 }, (_, i) => once(100 + i));
  return {
    'text.honestyMs': median(times.map(({ honesty }) => honesty)),
    'text.supportMs': median(times.map(({ support }) => support)),
  };
}

/** @param {string | undefined} set a file of pairs; without it those kept with the core */
export async function honesty(tell, { set }) {
  if (set !== undefined) {
    const found = judged(given(set));
    table(tell, set, found);
    for (const [language, is, kind, , sentence] of found.wrong)
      tell(`  ${is === 'ok' ? 'marked' : 'missed'}: ${language} ${kind}: ${sentence}`);
    return { recall: found.recall, falseMarks: found.falseMarks };
  }
  const { fitted, kept, anew, latest } = keptPairs();
  table(tell, `${fitted.length} pairs it was fitted to`, judged(fitted));
  table(tell, `${anew.length} pairs that ask for more reckoning`, judged(anew));
  table(tell, `${latest.length} pairs that tell more often one thing of another`, judged(latest));
  const byRule = alteredByRule([...fitted, ...anew, ...latest]);
  table(tell, `${byRule.length} sentences altered by rule, some into nonsense, none of them true`, judged(byRule));
  const last = judged(kept);
  table(tell, `${kept.length} pairs it was not`, last);
  return { recall: last.recall, falseMarks: last.falseMarks, ...timed(fitted) };
}
