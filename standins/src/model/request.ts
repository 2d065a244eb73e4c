import { countWords, overlap, sentencesOf, stemsOf } from './language.ts';

/** One sentence of the fenced material, with where it stands. */
export interface Sentence {
  text: string;
  passage: number;
  /** Place within its passage, from 0. */
  at: number;
  stems: Set<string>;
  /** Begins by pointing back, so it cannot stand without the one before. */
  leans: boolean;
}

export interface FencedPassage {
  n: number;
  from: string;
  text: string;
  sentences: Sentence[];
  stems: Set<string>;
}

/** A request as the model reads it: the task in words, the fenced material, what was said before. */
export interface ReadRequest {
  task: string;
  /** Everything said, fences and all. */
  whole: string;
  subject: string;
  language: 'en' | 'de';
  passages: FencedPassage[];
  /** Texts to be taken as models in form. */
  examples: string[];
  said: string;
  seed: string;
}

const FENCE = /<<<passage (\d+) ?(\w*)>>>\n(?:\(from: (.*)\)\n)?([\s\S]*?)\n<<<end \1 ?\2>>>/g;
const EXAMPLE = /<<<example (\d+)>>>\n([\s\S]*?)\n<<<end example \1>>>/g;
const LEANS =
  /^(?:It|This|These|They|That|Those|He|She|Then|So|But|And|Instead|Otherwise|Both|Either|Neither|Its|Their|Such|Here|There,|Es|Das|Dies|Diese|Dann|Sie|Er|Dabei|Dadurch|Dort)\b/;

export function readRequest(messages: readonly { role: string; content: string }[], seed: string): ReadRequest {
  const whole = messages.map((message) => message.content).join('\n\n');
  const said = /<<<said>>>\n([\s\S]*?)\n<<<end said>>>/.exec(whole)?.[1] ?? '';
  const examples = [...whole.matchAll(EXAMPLE)].map((match) => match[2]!.trim());
  const task = whole
    .replace(FENCE, '')
    .replace(EXAMPLE, '')
    .replace(/<<<said>>>[\s\S]*?<<<end said>>>/, '');
  const language = /\bin German\b/.test(task) ? 'de' : 'en';
  const passages = [...whole.matchAll(FENCE)].map((match) =>
    passageOf(Number(match[1]), match[3] ?? '', match[4] ?? '', language),
  );
  const subject =
    /(?:Subject[^:\n]*|on the subject): *([^\n]+)/.exec(task)?.[1]?.trim() ?? task.trim().split('\n').pop() ?? '';
  return { task, whole, subject, language, passages, examples, said: said === '(nothing yet)' ? '' : said, seed };
}

function passageOf(n: number, from: string, text: string, language: string): FencedPassage {
  const sentences = text
    .split(/\n+/)
    .flatMap((line) => sentencesOf(line, language))
    .map((sentence, at) => ({
      text: sentence,
      passage: n,
      at,
      stems: new Set(stemsOf(sentence)),
      leans: LEANS.test(sentence),
    }));
  return { n, from, text, sentences, stems: new Set(stemsOf(text)) };
}

/** What the examples have in common in form; null when there are none. */
export function formOf(examples: readonly string[]): { words: number; sentences: number; asks: boolean } | null {
  if (examples.length === 0) return null;
  const mean = (of: (text: string) => number) => examples.reduce((sum, text) => sum + of(text), 0) / examples.length;
  return {
    words: mean(countWords),
    sentences: Math.max(1, Math.round(mean((text) => sentencesOf(text, 'en').length))),
    asks: examples.filter((text) => text.endsWith('?')).length * 2 > examples.length,
  };
}

/** How many words the task asks for, or a default. */
export function wordsAsked(task: string, otherwise: number): number {
  const match = /about ([\d,.]+) words/.exec(task);
  return match ? Number(match[1]!.replace(/[,.]/g, '')) : otherwise;
}

export function personAsked(task: string): string {
  return /Person: *([a-z ]+)/i.exec(task)?.[1]?.trim().toLowerCase() ?? 'second person';
}

/** Weighs a stem by how few passages hold it. */
export function rarity(passages: readonly FencedPassage[]): (stem: string) => number {
  const counts = new Map<string, number>();
  for (const passage of passages) for (const s of passage.stems) counts.set(s, (counts.get(s) ?? 0) + 1);
  return (s) => Math.log(1 + passages.length / (1 + (counts.get(s) ?? 0)));
}

export function relevance(of: ReadonlySet<string>, to: ReadonlySet<string>, weight: (stem: string) => number): number {
  let sum = 0;
  for (const s of to) if (of.has(s)) sum += weight(s);
  return sum / Math.sqrt(8 + of.size);
}

/** Remembers what was said, so that nothing is said again in other words either. */
export class Memory {
  private readonly heard: Set<string>[];

  constructor(said: string, language: string) {
    this.heard = sentencesOf(said, language).map((sentence) => new Set(stemsOf(sentence)));
  }

  knows(sentence: Sentence): boolean {
    if (sentence.stems.size === 0) return true;
    return this.heard.some(
      (stems) => Math.abs(stems.size - sentence.stems.size) < 12 && overlap(stems, sentence.stems) > 0.62,
    );
  }

  add(sentence: Pick<Sentence, 'stems'>): void {
    this.heard.push(sentence.stems);
  }
}

export function lengthOf(sentences: readonly Sentence[]): number {
  return sentences.reduce((sum, sentence) => sum + countWords(sentence.text), 0);
}
