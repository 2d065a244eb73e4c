import { byUse, choicesFrom, countedWords, countWords, hashOf, overlap, stemsOf } from '../words/language.ts';
import { opened } from './emoji.ts';
import { LOOSE } from './loose.ts';
import { ownWords } from './own.ts';
import { type Statement, sayIn } from './phrasings.ts';
import {
  formOf,
  LEANS,
  personAsked,
  type ReadRequest,
  rarity,
  relevance,
  type Sentence,
  standsAlone,
} from './request.ts';
import { compressed, rewrite } from './rewrite.ts';
import { tongue } from './tongues.ts';
import { MEASURES, topics } from './topics.ts';

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
      score: relevance(sentence.stems, subject, weight) + (/\d/.test(sentence.text) ? 0.5 : 0),
    }))
    .sort((a, b) => b.score - a.score || a.sentence.at - b.sentence.at);
  const out: { text: string; sentence: Sentence }[] = [];
  for (const { sentence } of ranked) {
    if (out.length >= most) break;
    if (out.some((other) => overlap(other.sentence.stems, sentence.stems) > 0.5)) continue;
    const short = sentence.statement ? briefest(request, sentence.statement) : shortened(sentence.text);
    if (countWords(short) < 4 || HANGS.test(short) || !standsAlone({ text: short, leans: LEANS.test(short) }, subject))
      continue;
    out.push({ text: `${rewrite(short, manner, chance)}.`, sentence });
  }
  const signed = /fitting emoji opens each/.test(request.task);
  return out.sort((a, b) => a.sentence.at - b.sentence.at).map(({ text }) => (signed ? opened(text) : text));
}

function shortened(text: string): string {
  return countWords(text) <= 16 ? text.replace(/[.!]$/, '') : (compressed(text, 16) ?? '');
}

/** A statement in words of its own, where these are few enough for a point. */
function briefest(request: ReadRequest, statement: Statement): string {
  if (countWords(statement.text) > 24) return '';
  const text = request.put(statement);
  return countWords(text) <= 22 && /[.!]$/.test(text) && !text.includes(': ') ? text.replace(/[.!]$/, '') : '';
}

/** What is only half of a sentence: it begins by leaning on the rest. */
const HANGS =
  /^(?:when|if|because|since|as|after|before|below|above|while|though|or|and|but|so|what|which|wenn|weil|als|nachdem|bevor|unter|über|und|aber|oder)\b[^,]*$/i;

/** Titles of several ideas: what of the subject, a question, a statement of the material, what the parts are. */
export function titles(request: ReadRequest): string[] {
  const most = Number(/at most (\d+) characters/.exec(request.task)?.[1] ?? 70);
  const wanted = Number(/give (\d+) titles/.exec(request.task)?.[1] ?? 3);
  const form = formOf(request.examples);
  const own = ownWords(request.language);
  const chance = choicesFrom(`${request.seed}titles`);
  const forms: string[] = [];
  const add = (text: string) => {
    if (text.length <= most && !forms.some((other) => other.toLowerCase() === text.toLowerCase())) forms.push(text);
  };
  const made = ideas(request);
  const start = chance(made.length || 1);
  // Where the examples ask, a question comes first; otherwise what is as long as they are.
  const asked = own.matters(request.called);
  if (form?.asks || /\bas (?:a )?questions?\b|\bals Fragen?\b/i.test(request.task)) add(asked);
  for (const text of [...made.slice(start), ...made.slice(0, start)]) add(text);
  const far = (text: string) => (form ? Math.abs(countWords(text) - form.words) : 0);
  for (const text of statementsOn(request, most).sort((a, b) => far(a) - far(b))) add(text);
  // A long subject leaves no room: what stands before its first comma has to do.
  const [brief = ''] = request.called.split(/[,;:]/);
  if (forms.length === 0) for (const text of [asked, ...own.titles(sentenceCase(brief.trim()))]) add(text);
  if (form && !form.asks) forms.sort((a, b) => far(a) - far(b));
  return (forms.length > 0 ? forms : [sentenceCase(request.called)]).slice(0, wanted);
}

function ideas(request: ReadRequest): string[] {
  const plain = sentenceCase(request.called);
  const [first, second, third] = topics(request);
  const own = ownWords(request.language);
  const inner = (text: string) => within(text, request.language);
  if (!first) {
    const said = facts(request, 8).map((fact) => `${plain}: ${inner(fact)}`);
    return said.length > 0 ? said : own.titles(plain);
  }
  const join = own.and;
  return [
    first ? `${plain}: ${inner(first)}` : null,
    second ? `${plain}: ${inner(second)}` : null,
    first && second ? `${plain}: ${inner(first)} ${join} ${inner(second)}` : null,
    third ? `${plain}: ${inner(third)}` : null,
  ].filter((text) => text !== null);
}

/** Whole sentences only: a statement cut to length is no title. */
function statementsOn(request: ReadRequest, most: number): string[] {
  const subject = new Set(stemsOf(request.subject));
  return (
    request.passages
      .flatMap((passage) => passage.sentences)
      .filter((sentence) => !sentence.leans)
      .map((sentence) => ({
        text: (sentence.statement && !tongue(request.language)
          ? sayIn(sentence.statement, hashOf(request.seed) % 1_000)
          : sentence.text
        ).replace(/[.!]$/, ''),
        hits: [...sentence.stems].filter((s) => subject.has(s)).length,
      }))
      // What points back is no title.
      .filter(({ text }) => !LEANS.test(text))
      .filter(({ text, hits }) => hits > 0 && text.length <= most && countWords(text) >= 3 && !/[?“”";:]/.test(text))
      .sort((a, b) => b.hits - a.hits || a.text.length - b.text.length)
      .map(({ text }) => text)
  );
}

/** What an entry in search results says of a text: its subject and what it goes through. */
export function description(request: ReadRequest, most = 155): string {
  // A round-up is called by all it gathers: then the first of it stands for it.
  const short = request.called.length > 60 ? request.called.split(/[;,:]/)[0]!.trim() : request.called;
  const plain = sentenceCase(short);
  const own = ownWords(request.language);
  const inner = topics(request).map((text) => within(text, request.language));
  const last = (parts: readonly string[]) =>
    parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} ${own.and} ${parts[parts.length - 1]}`;
  const frames = [
    ...own.begins(plain),
    ...(request.language === 'de' ? [`Worum es bei ${short} geht: `] : []),
    ...(request.language === 'en' && /^\p{Ll}/u.test(short) ? [`What to know about ${short}: `] : []),
  ];
  const frame = frames[choicesFrom(`${request.seed}description`)(frames.length)]!;
  for (let n = Math.min(4, inner.length); n > 0; n--) {
    const text = `${frame}${last(inner.slice(0, n))}${own.stop ?? '.'}`;
    if (text.length <= most) return text;
  }
  // Where nothing is known to name, two things that are said of it.
  const said = facts(request, 12).map((text) => within(text, request.language));
  for (const n of [2, 1]) {
    const text = `${plain}: ${said.slice(0, n).join('; ')}${own.stop ?? '.'}`;
    if (said.length >= n && text.length <= most) return text;
  }
  return own.nothing(plain);
}

/** What is said of a subject in a few words, each a sentence that stands alone, what speaks most of it first. */
function facts(request: ReadRequest, words: number): string[] {
  if (tongue(request.language)) return [];
  const subject = new Set(stemsOf(request.subject));
  const weight = rarity(request.passages);
  return request.passages
    .flatMap((passage) => passage.sentences)
    .filter((sentence) => standsAlone(sentence, subject))
    .map(({ text, stems, at }) => ({ text: compressed(text, words), at, score: relevance(stems, subject, weight) }))
    .sort((a, b) => b.score - a.score || a.at - b.at)
    .flatMap(({ text }) => (text === null || countWords(text) < 3 || /[:“”"]/.test(text) ? [] : [text]))
    .filter((text, i, all) => all.indexOf(text) === i);
}

/** As it stands within a sentence: small, unless it begins with a name or, in German, a noun. */
function within(text: string, language: string): string {
  const first = text.split(' ')[0]!;
  const small = language === 'de' ? GERMAN_SMALL.has(first) : !/\p{Lu}.*\p{Lu}|\d/u.test(first);
  return small ? text.charAt(0).toLowerCase() + text.slice(1) : text;
}

const GERMAN_SMALL = new Set(
  'Warum Wie Was Woran Woher Wenn Wo Erst Zwischen Bei Gegen Unter Über Nach Kühl Warm Anfangs Kälter Früher Jedes Mehr Rohe Den Die Der Das Ein Eine Gegen'.split(
    ' ',
  ),
);

/** The subject, and pairs of words the material repeats. */
export function keywords(request: ReadRequest, most = 6): string[] {
  // Its words in further languages are no words a table of pairs could be made of.
  if (tongue(request.language))
    return topics(request)
      .slice(0, most)
      .map((topic) => topic.toLowerCase());
  const counts = new Map<string, number>();
  // What is a heading and a sentence says it once.
  const told = new Set(request.passages.flatMap(({ sentences }) => sentences.map(({ text }) => text.toLowerCase())));
  for (const sentence of told) {
    const words = sentence.match(/[\p{L}-]+/gu) ?? [];
    for (let i = 0; i + 1 < words.length; i++) {
      const pair = `${words[i]} ${words[i + 1]}`;
      if (
        stemsOf(words[i]!).length &&
        stemsOf(words[i + 1]!).length &&
        words[i]!.length > 3 &&
        words[i + 1]!.length > 3 &&
        [words[i]!, words[i + 1]!].every((word) => !LOOSE.has(word) && !MEASURES.test(word))
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
  if (tongue(request.language)) return [];
  return frequent(request).slice(0, 4);
}

function frequent(request: ReadRequest): string[] {
  const text = request.passages.map((passage) => passage.text.toLowerCase()).join(' ');
  return countedWords(text, 5)
    .filter(({ word }) => !LOOSE.has(word) && !MEASURES.test(word))
    .sort(byUse)
    .map(({ word }) => word);
}

function sentenceCase(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}
