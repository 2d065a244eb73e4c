import { countWords, stemsOf } from '../words/language.ts';
import { ownWords } from './own.ts';
import { formOf, Memory, type ReadRequest, rarity, relevance, type Sentence } from './request.ts';

/** What the editor asks, without the rest of the task. */
function questionOf(request: ReadRequest): string {
  return (
    /Task: answer what the editor asks, with [^:]*: ([\s\S]*)/
      .exec(request.task)?.[1]
      ?.split('\nWork after the manner')[0]
      ?.trim() ?? request.task
  );
}

/** Sentences of the material, the one that speaks most of the words asked for first. */
function answering(request: ReadRequest, words: string): Sentence[] {
  const weight = rarity(request.passages);
  const asked = new Set(stemsOf(words));
  return request.passages
    .flatMap((passage) => passage.sentences)
    .filter((sentence) => !sentence.leans)
    .map((sentence) => ({ sentence, score: relevance(sentence.stems, asked, weight) }))
    .sort((a, b) => b.score - a.score || a.sentence.at - b.sentence.at)
    .map(({ sentence }) => sentence);
}

export function answerText(request: ReadRequest, about = ''): string {
  const question = `${questionOf(request)} ${about}`;
  const quoted = /say (?:just|only|exactly) "([^"]+)"/i.exec(question)?.[1];
  if (quoted) return quoted;
  const found = answering(request, about === '' ? question : `${about} ${request.subject}`);
  if (found.length === 0) return `Nothing is said here about ${request.subject}.`;
  return found
    .slice(0, formOf(request.examples)?.sentences ?? 1)
    .map(({ text }) => text)
    .join(' ');
}

export function answerList(request: ReadRequest): string[] {
  const most = Number(/\b(\d+)\b/.exec(questionOf(request))?.[1] ?? 4);
  return answering(request, questionOf(request))
    .slice(0, Math.max(1, Math.min(12, most)))
    .map((sentence) => sentence.text);
}

/** The first figure of the sentence that speaks most of what is asked; how many sentences there are when none holds one. */
export function answerFigure(request: ReadRequest): number {
  for (const sentence of answering(request, questionOf(request))) {
    const figure = /\d+(?:\.\d+)?/.exec(sentence.text.replace(/(\d),(\d{3})/g, '$1$2'))?.[0];
    if (figure) return Number(figure);
  }
  return request.passages.flatMap((passage) => passage.sentences).length;
}

/** Points a section must make, each a sentence of its passages with its number. */
export function notes(request: ReadRequest): { point: string; passages: number[] }[] {
  const most = Number(/at most (\d+) notes/.exec(request.task)?.[1] ?? 4);
  const heading = request.heading ?? request.subject;
  return answering(request, `${heading} ${request.subject}`)
    .slice(0, most)
    .sort((a, b) => a.passage - b.passage || a.at - b.at)
    .map((sentence) => ({ point: sentence.text, passages: [sentence.passage] }));
}

/** The sentence of the passages that speaks most of the subject, as it stands there. */
export function quotation(request: ReadRequest): { quote: string; passage: number } {
  const found = answering(request, request.subject).find(({ text, statement }) => {
    const words = countWords(statement?.text ?? text);
    return words >= 8 && words <= 30;
  });
  return found ? { quote: found.statement?.text ?? found.text, passage: found.passage } : { quote: '', passage: 0 };
}

/** What a reader may still ask: of what the article does not say yet, a question after what it stands under. */
export function questions(request: ReadRequest): { question: string; answer: string; passages: number[] }[] {
  const most = Number(/give (\d+) questions/.exec(request.task)?.[1] ?? 3);
  const memory = new Memory(request.said, request.language);
  const asked = new Set<string>();
  const out: { question: string; answer: string; passages: number[] }[] = [];
  for (const sentence of answering(request, request.subject)) {
    if (out.length >= most) break;
    const about = sentence.statement?.heading ?? beginning(sentence.text);
    if (memory.knows(sentence) || asked.has(about) || countWords(sentence.text) < 6) continue;
    asked.add(about);
    memory.add(sentence);
    out.push({
      question: ownWords(request.language).asks(about),
      answer: sentence.statement ? request.put(sentence.statement) : sentence.text,
      passages: [sentence.passage],
    });
  }
  return out;
}

const beginning = (text: string): string =>
  text
    .split(/\s+/)
    .slice(0, 3)
    .join(' ')
    .replace(/[,;:.]+$/, '');
