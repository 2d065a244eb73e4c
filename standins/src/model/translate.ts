import { sentencesOf } from '../words/language.ts';
import { otherWords } from './otherWords.ts';
import { understood } from './phrasings.ts';
import type { ReadRequest } from './request.ts';
import { TABLES } from './tables.ts';
import { type Tongue, tongue, tongueNamed } from './tongues.ts';

/** Numbered texts put into another language by a table of words and phrases. No grammar: it is a stand-in. */

/** Of a text's words, the share that must be in the table; below it the text is left as it is, and marked. */
const LEAST_KNOWN = 0.2;

export function translations(request: ReadRequest): { n: number; text: string }[] {
  const { task, texts } = request;
  if (/put each numbered text into other words/.test(task)) return otherWords(request);
  const [, from = 'English', into = 'German'] = /put each numbered text from (\w+) into (\w+)/.exec(task) ?? [];
  const mark = /Put (\S+) before a text you cannot/.exec(task)?.[1] ?? '';
  const own = from === 'English' ? tongue(tongueNamed(into) ?? '') : null;
  if (own) return texts.map(({ n, text }) => ({ n, text: inTongue(text, own, into) ?? `${mark} ${text}` }));
  return texts.map(({ n, text }) => ({ n, text: put(text, from, into, mark) }));
}

/** A text sentence by sentence, or a title by its parts; null where there are no words for some of it. */
function inTongue(text: string, own: Tongue, into: string): string | null {
  const called = own.called(text);
  if (called !== null) return tagged(called, text);
  const joins = into === 'Japanese' ? '' : ' ';
  // Words somebody searches for.
  if (bareOf(text).split(' ').length < 5 && !/[.!?:]$/.test(text))
    return tagged(own.words(bareOf(text)).join(joins) || own.title, text);
  const said = sentencesOf(bareOf(text), 'en').map((sentence) => {
    const statements = understood(sentence).map((statement) => own.says(statement)?.text ?? null);
    return statements.length > 0 && !statements.includes(null) ? statements.join(joins) : named(sentence, own);
  });
  return said.includes(null) ? null : tagged(said.join(joins), text);
}

/** 'Salt by weight: why spoons mislead and what goes on the scale', part by part. */
function named(text: string, own: Tongue): string | null {
  const [head = '', ...rest] = text.replace(/\.$/, '').split(': ');
  const parts = rest
    .join(': ')
    .split(/, | and /)
    .map((part) => own.called(part));
  if (rest.length === 0 || parts.includes(null)) return null;
  return `${own.called(head) ?? own.title}: ${parts.join(', ')}${text.endsWith('.') ? '.' : ''}`;
}

const bareOf = (text: string): string => text.replace(/<\/?\d+>/g, '');

/** The same text with the tags of another around its words, about where they stood there. */
function tagged(said: string, like: string): string {
  const tags = [...like.matchAll(/<(\d+)>/g)];
  if (tags.length === 0) return said;
  const words = [...new Intl.Segmenter('ja', { granularity: 'word' }).segment(said)].filter(
    ({ isWordLike }) => isWordLike,
  );
  const length = Math.max(1, bareOf(like).length);
  let out = said;
  let last = words.length;
  for (const [i, tag] of [...tags.entries()].reverse()) {
    const before = bareOf(like.slice(0, tag.index)).length;
    const at = Math.min(last - 1, Math.max(i, Math.floor((before / length) * words.length)));
    const { index, segment } = words[Math.max(0, at)]!;
    out = `${out.slice(0, index)}<${tag[1]}>${segment}</${tag[1]}>${out.slice(index + segment.length)}`;
    last = at;
  }
  return out;
}

function put(text: string, from: string, into: string, mark: string): string {
  const table = from === 'English' ? TABLES[into] : undefined;
  if (!table) return `${mark} ${text}`;
  let known = 0;
  let words = 0;
  // Longest phrases first; tags, figures and names stay.
  const out = text.replace(/<\/?\d+>|[A-Za-z]+(?:['’][a-z]+)?(?: [A-Za-z]+(?:['’][a-z]+)?){0,3}/g, (run) => {
    if (run.startsWith('<')) return run;
    const parts = run.split(' ');
    const said: string[] = [];
    for (let at = 0; at < parts.length; ) {
      let taken = 0;
      for (let many = Math.min(4, parts.length - at); many > 0; many--) {
        const phrase = parts.slice(at, at + many).join(' ');
        const found = table[phrase.toLowerCase()];
        if (found === undefined) continue;
        said.push(/^[A-Z]/.test(phrase) ? found.charAt(0).toUpperCase() + found.slice(1) : found);
        known += many;
        taken = many;
        break;
      }
      if (taken === 0) said.push(parts[at]!);
      words += Math.max(1, taken);
      at += Math.max(1, taken);
    }
    return said.filter((part) => part !== '').join(' ');
  });
  // A title may be all names.
  return words > 12 && known / words < LEAST_KNOWN ? `${mark} ${text}` : out;
}
