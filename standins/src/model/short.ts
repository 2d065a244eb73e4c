import { choicesFrom, countWords, overlap, stemsOf } from '../words/language.ts';
import { formOf, personAsked, type ReadRequest, rarity, relevance, type Sentence } from './request.ts';
import { compressed, rewrite } from './rewrite.ts';

/** Short pieces: points, titles, descriptions, keywords, all from the sentences of the material. */

export function points(request: ReadRequest, most: number): string[] {
  const weight = rarity(request.passages);
  const subject = new Set(stemsOf(request.subject));
  const manner = {
    person: personAsked(request.task),
    language: request.language,
    wording: [],
    turns: 0,
    contracts: false,
  };
  const chance = choicesFrom(request.seed);
  const ranked = request.passages
    .flatMap((passage) => passage.sentences)
    .filter((sentence) => !sentence.leans && countWords(sentence.text) > 9)
    .map((sentence) => ({
      sentence,
      short:
        countWords(sentence.text) <= 16 ? sentence.text.replace(/[.!]$/, '') : (compressed(sentence.text, 16) ?? ''),
      score: relevance(sentence.stems, subject, weight) + (/\d/.test(sentence.text) ? 0.5 : 0),
    }))
    .filter(({ short }) => countWords(short) >= 4 && !HANGS.test(short))
    .sort((a, b) => b.score - a.score || a.sentence.at - b.sentence.at);
  const out: { text: string; sentence: Sentence }[] = [];
  for (const { sentence, short } of ranked) {
    if (out.length >= most) break;
    if (out.some((other) => overlap(other.sentence.stems, sentence.stems) > 0.5)) continue;
    out.push({ text: `${rewrite(short, manner, chance)}.`, sentence });
  }
  return out.sort((a, b) => a.sentence.at - b.sentence.at).map(({ text }) => text);
}

/** What is only half of a sentence: it begins by leaning on the rest. */
const HANGS =
  /^(?:when|if|because|since|as|after|before|below|above|while|though|or|and|but|so|what|which|wenn|weil|als|nachdem|bevor|unter|über|und|aber|oder)\b[^,]*$/i;

/** Titles of several forms, the subject's words in each; which comes first is chance. */
export function titles(request: ReadRequest): string[] {
  const most = Number(/at most (\d+) characters/.exec(request.task)?.[1] ?? 70);
  const wanted = Number(/give (\d+) titles/.exec(request.task)?.[1] ?? 3);
  const subject = new Set(stemsOf(request.subject));
  const plain = sentenceCase(request.subject);
  // Whole sentences only: a statement cut to length is no title.
  const statements = request.passages
    .flatMap((passage) => passage.sentences)
    .filter((sentence) => !sentence.leans)
    .map((sentence) => ({
      text: sentence.text.replace(/[.!]$/, ''),
      hits: [...sentence.stems].filter((s) => subject.has(s)).length,
    }))
    .filter(({ text, hits }) => hits > 0 && text.length <= most && countWords(text) >= 3 && !/[?“”";:]/.test(text))
    .sort((a, b) => b.hits - a.hits || a.text.length - b.text.length)
    .map(({ text }) => text);
  const chance = choicesFrom(`${request.seed}titles`);
  const forms: string[] = [];
  const add = (text: string | undefined) => {
    if (text && text.length <= most && !forms.some((other) => other.toLowerCase() === text.toLowerCase()))
      forms.push(text);
  };
  const room = statements.find((text) => text.length + plain.length + 2 <= most);
  const long = [room ? `${plain}: ${room.charAt(0).toLowerCase()}${room.slice(1)}` : undefined, plain];
  const start = chance(long.length);
  for (const text of [...long.slice(start), ...long.slice(0, start)]) add(text);
  const form = formOf(request.examples);
  // Where the examples ask, a question comes first; otherwise what is as long as they are.
  if (form?.asks)
    forms.splice(0, forms.length, ...[`What matters in ${request.subject}?`].filter((text) => text.length <= most));
  const far = (text: string) => (form ? Math.abs(countWords(text) - form.words) : 0);
  for (const statement of [...statements].sort((a, b) => far(a) - far(b))) add(statement);
  if (form && !form.asks) forms.sort((a, b) => far(a) - far(b));
  return forms.slice(0, wanted);
}

export function description(request: ReadRequest, most = 155): string {
  const subject = new Set(stemsOf(request.subject));
  const weight = rarity(request.passages);
  const best = request.passages
    .flatMap((passage) => passage.sentences)
    .filter((sentence) => !sentence.leans && sentence.text.length <= most && countWords(sentence.text) >= 6)
    .sort((a, b) => relevance(b.stems, subject, weight) - relevance(a.stems, subject, weight))[0];
  return best?.text ?? request.subject;
}

/** The subject, and pairs of words the material repeats. */
export function keywords(request: ReadRequest, most = 6): string[] {
  const counts = new Map<string, number>();
  for (const passage of request.passages) {
    const words = passage.text.toLowerCase().match(/[\p{L}-]+/gu) ?? [];
    for (let i = 0; i + 1 < words.length; i++) {
      const pair = `${words[i]} ${words[i + 1]}`;
      if (
        stemsOf(words[i]!).length &&
        stemsOf(words[i + 1]!).length &&
        words[i]!.length > 3 &&
        words[i + 1]!.length > 3
      )
        counts.set(pair, (counts.get(pair) ?? 0) + 1);
    }
  }
  const pairs = [...counts]
    .filter(([, n]) => n > 1)
    .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
    .map(([pair]) => pair);
  return [request.subject.toLowerCase(), ...pairs.slice(0, most - 2), ...frequent(request).slice(0, 2)].slice(0, most);
}

export function hashtags(request: ReadRequest): string[] {
  return frequent(request).slice(0, 4);
}

function frequent(request: ReadRequest): string[] {
  const counts = new Map<string, { word: string; n: number }>();
  for (const word of request.passages.flatMap((passage) => passage.text.toLowerCase().match(/[\p{L}]{5,}/gu) ?? [])) {
    const [s] = stemsOf(word);
    if (!s) continue;
    const entry = counts.get(s) ?? { word, n: 0 };
    counts.set(s, { word: entry.word.length <= word.length ? entry.word : word, n: entry.n + 1 });
  }
  return [...counts.values()].sort((a, b) => b.n - a.n || (a.word < b.word ? -1 : 1)).map(({ word }) => word);
}

function sentenceCase(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
