import { countWords, hashOf, overlap, sentencesOf, stemsOf } from '../words/language.ts';
import { recognised, type Statement, understood } from './phrasings.ts';
import { type Tongue, tongue, tongueNamed } from './tongues.ts';

/** One sentence of the fenced material, with where it stands. */
export interface Sentence {
  text: string;
  passage: number;
  /** Place within its passage, from 0. */
  at: number;
  stems: Set<string>;
  /** Begins by pointing back, so it cannot stand without the one before. */
  leans: boolean;
  /** What it says, where that can be said in other words. */
  statement: Statement | null;
}

export interface FencedPassage {
  n: number;
  from: string;
  text: string;
  sentences: Sentence[];
  stems: Set<string>;
  /** What it speaks of, in words of its own; null where it is not known. */
  heading: string | null;
}

/** A request as the model reads it: the task in words, the fenced material, what was said before. */
export interface ReadRequest {
  task: string;
  subject: string;
  /** What the subject is called in the language that is asked for. */
  called: string;
  /** Of the section that is asked for; null when it is none. */
  heading: string | null;
  says: string;
  language: string;
  passages: FencedPassage[];
  /** Texts to be taken as models in form. */
  examples: string[];
  /** Texts to be put into another language. */
  texts: { n: number; text: string }[];
  said: string;
  seed: string;
  /** Puts a statement in words of its own. */
  put: (statement: Statement) => string;
}

/** A text of others, named, between fences of one mark; what is put into a sentence stands in its line. */
const FENCE = /<<<([a-z0-9 ]{1,40}) (\w{1,64})>>>([\s\S]*?)<<<end \1 \2>>>/g;
const MARK = /The mark of this request is (\w+);/;
const FROM = /^\(from: (.*)\)\n/;
export const LEANS =
  /^(?:It|This|These|They|That|Those|He|She|Then|So|But|And|Instead|Otherwise|Both|Either|Neither|Its|Their|Such|Here|There,|Es|Das|Dies|Diese|Dann|Sie|Er|Dabei|Dadurch|Dort)\b/;

/** What points at something that was named. */
const POINTS =
  /\b(?:(?:without|like|of|for) that(?=[,.])|it|its|they|them|their|these|those|he|she|him|her|sie|ihn|ihm|ihr|ihre|ihren|diese[rnms]?|dies)\b/i;

/** Whether a sentence says of itself what it speaks of: nothing in it points at what another one names. */
export function standsAlone({ text, leans }: Pick<Sentence, 'text' | 'leans'>, subject: ReadonlySet<string>): boolean {
  if (leans) return false;
  const points = POINTS.exec(text);
  return points === null || stemsOf(text.slice(0, points.index)).some((stem) => subject.has(stem));
}

export function readRequest(
  messages: readonly { role: string; content: string }[],
  seed: string,
  say: (statement: Statement, request: string, wanted: ReadonlySet<string>) => string,
): ReadRequest {
  const whole = messages.map((message) => message.content).join('\n\n');
  const mark = MARK.exec(whole)?.[1];
  const fenced: { name: string; text: string }[] = [];
  const task = whole.replace(FENCE, (all, name: string, its: string, text: string) => {
    if (mark !== undefined && its !== mark) return all;
    if (name === 'given') return text;
    fenced.push({ name, text: text.trim() });
    return '';
  });
  const named = (name: string) => fenced.find((part) => part.name === name)?.text ?? '';
  const numbered = (name: string) =>
    fenced.flatMap((part) => {
      const n = new RegExp(`^${name} (\\d+)$`).exec(part.name)?.[1];
      return n === undefined ? [] : [{ n: Number(n), text: part.text }];
    });
  const language = /\bin German\b/.test(task) ? 'de' : (tongueIn(task) ?? 'en');
  const article = named('article');
  const headed = new Set(stemsOf(named('heading')));
  // Kept by statement for long: the text of a request is not.
  const asked = hashOf(seed).toString(36);
  const subject = named('subject') || (task.trim().split('\n').pop() ?? '');
  const passages = [...numbered('passage'), ...(article === '' ? [] : [{ n: 1, text: article }])].map(({ n, text }) =>
    passageOf(n, FROM.exec(text)?.[1] ?? '', text.replace(FROM, ''), language),
  );
  return {
    task,
    subject,
    called: tongue(language)?.title ?? subject,
    heading: named('heading') || null,
    says: named('it says'),
    language,
    passages,
    examples: numbered('example').map(({ text }) => text),
    texts: numbered('text'),
    said: named('said before'),
    seed,
    // A section says what its heading speaks of, in the heading's words where it can.
    put: (statement) => (tongue(language) ? statement.text : say(statement, asked, headed)),
  };
}

function tongueIn(task: string): string | null {
  const [, name = ''] = /\barticle in (\w+)\b/.exec(task) ?? [];
  return tongueNamed(name);
}

/** A passage as it is said in a further language: only what there are words for. */
function passageIn(own: Tongue, n: number, from: string, text: string): FencedPassage {
  const said = text
    .split(/\n+/)
    .flatMap((line) => [
      ...recognised(line).flatMap((part) => (typeof part === 'string' ? [] : (own.says(part) ?? []))),
      ...sentencesOf(line, 'en').flatMap((sentence) => own.understands(sentence) ?? []),
    ]);
  const sentences = said.map((statement, at) => ({
    text: statement.text,
    statement,
    passage: n,
    at,
    stems: new Set(statement.ever),
    leans: false,
  }));
  const stems = new Set(said.flatMap(({ ever }) => [...ever]));
  return { n, from, text: said.map(({ text }) => text).join(' '), sentences, stems, heading: headingOf(sentences) };
}

function passageOf(n: number, from: string, text: string, language: string): FencedPassage {
  const own = tongue(language);
  if (own) return passageIn(own, n, from, text);
  const parts = text.split(/\n+/).flatMap((line) => recognised(line));
  const sentences = parts
    .flatMap((part): Pick<Sentence, 'text' | 'statement'>[] =>
      typeof part === 'string'
        ? sentencesOf(part, language)
            // 'Right.' and the like say nothing.
            .filter((text) => countWords(text) > 2)
            .flatMap((text) => ofRow(text) ?? asKnown(text))
        : // What says nothing worth telling is passed over.
          part.ways > 0
          ? [{ text: part.text, statement: part }]
          : [],
    )
    .map((sentence, at) => ({
      ...sentence,
      passage: n,
      at,
      stems: new Set(stemsOf(sentence.text)),
      leans: LEANS.test(sentence.text),
    }));
  return { n, from, text, sentences, stems: new Set(stemsOf(text)), heading: headingOf(sentences) };
}

/** A row of a sheet, cell by cell: 'Stomper: sku CH-1, name Stomper, price € 16.00.' */
const ROW = /^.{2,120}?: (?:\p{L}[\p{L} ]{0,30} [^,]{1,80}, ){2,}.+\.$/u;
const PRICE = /\bprice ([€$£] ?\d[\d.,]*\d)/;

/** Of a row what can be said as a sentence; null for what is none. */
function ofRow(text: string): Pick<Sentence, 'text' | 'statement'>[] | null {
  if (!ROW.test(text) || !/: (?:sku|id|key|name)\b/.test(text)) return null;
  const price = PRICE.exec(text)?.[1];
  return price === undefined ? [] : [{ text: `The price is ${price}.`, statement: null }];
}

/** A sentence of its own making, read again, is what it says. */
function asKnown(text: string): Pick<Sentence, 'text' | 'statement'>[] {
  const said = understood(text);
  return said.length > 0 ? said.map((statement) => ({ text: statement.text, statement })) : [{ text, statement: null }];
}

/** What most of a passage's known statements stand under. */
function headingOf(sentences: readonly Pick<Sentence, 'statement'>[]): string | null {
  const times = new Map<string, number>();
  for (const { statement } of sentences)
    if (statement) times.set(statement.heading, (times.get(statement.heading) ?? 0) + 1);
  return [...times].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
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
  private readonly told = new Set<number>();

  constructor(said: string, language: string) {
    const own = tongue(language);
    this.heard = sentencesOf(said, language).flatMap((sentence) => {
      const known = own?.understands(sentence);
      const statements = known ? [known] : understood(sentence);
      for (const { id } of statements) this.told.add(id);
      return statements.length > 0
        ? statements.map(({ text }) => new Set(stemsOf(text)))
        : [new Set(stemsOf(sentence))];
    });
  }

  /** Whether a statement has been told, in whatever words. */
  has({ id }: Statement): boolean {
    return this.told.has(id);
  }

  knows({ stems, statement }: Pick<Sentence, 'stems' | 'statement'>): boolean {
    if (stems.size === 0 || (statement && this.has(statement))) return true;
    return this.heard.some((other) => Math.abs(other.size - stems.size) < 12 && overlap(other, stems) > 0.62);
  }

  add({ stems, statement }: Pick<Sentence, 'stems' | 'statement'>): void {
    this.heard.push(stems);
    if (statement) this.told.add(statement.id);
  }
}

export function lengthOf(sentences: readonly Sentence[]): number {
  return sentences.reduce((sum, sentence) => sum + countWords(sentence.text), 0);
}
