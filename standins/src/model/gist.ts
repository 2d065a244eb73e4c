import { countWords, stemsOf } from '../words/language.ts';
import { type ReadRequest, rarity, relevance, wordsAsked } from './request.ts';

/** The sentences that speak most of the subject, in their own order, up to the words asked for. */
export function gist(request: ReadRequest): string {
  const most = wordsAsked(request.task, 120);
  const weight = rarity(request.passages);
  const subject = new Set(stemsOf(request.subject));
  const all = request.passages.flatMap((passage) => passage.sentences).filter((sentence) => !sentence.leans);
  const ranked = all
    .map((sentence, at) => ({ sentence, at, score: relevance(sentence.stems, subject, weight) }))
    .sort((a, b) => b.score - a.score || a.at - b.at);
  const chosen: typeof ranked = [];
  let words = 0;
  for (const one of ranked) {
    const more = countWords(one.sentence.text);
    if (chosen.length > 0 && words + more > most) continue;
    chosen.push(one);
    words += more;
  }
  const text = chosen
    .sort((a, b) => a.at - b.at)
    .map(({ sentence }) => (sentence.statement ? request.put(sentence.statement) : sentence.text))
    .join(' ');
  return text || `Nothing is said here about ${request.subject}.`;
}

/** Sentences with figures, with names, and with claims, as far as they are asked for. */
export function facts(request: ReadRequest): { fact: string; sort: string; passages: number[] }[] {
  const asked = /Pick out the ([a-z, ]+?) that matter/.exec(request.task)?.[1] ?? '';
  const sorts: [string, RegExp][] = [
    ['figure', /\d/],
    ['name', /(?<!^)(?<![.?!] )\b\p{Lu}\p{Ll}{2,}/u],
    ['claim', /\b(?:because|so that|never|always|better|than|must|weil|damit|nie|immer|besser|muss)\b/i],
  ];
  const out: { fact: string; sort: string; passages: number[] }[] = [];
  for (const sentence of request.passages.flatMap((passage) => passage.sentences)) {
    if (sentence.leans || out.length >= 12) continue;
    const sort = sorts.find(([name, pattern]) => asked.includes(`${name}s`) && pattern.test(sentence.text))?.[0];
    if (sort) out.push({ fact: sentence.text, sort, passages: [sentence.passage] });
  }
  return out;
}
