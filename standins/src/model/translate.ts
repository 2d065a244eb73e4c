import { otherWords } from './otherWords.ts';
import type { ReadRequest } from './request.ts';
import { TABLES } from './tables.ts';

/** Numbered texts put into another language by a table of words and phrases. No grammar: it is a stand-in. */

/** Of a text's words, the share that must be in the table; below it the text is left as it is, and marked. */
const LEAST_KNOWN = 0.2;

export function translations(request: ReadRequest): { n: number; text: string }[] {
  const { task, texts } = request;
  if (/put each numbered text into other words/.test(task)) return otherWords(request);
  const [, from = 'English', into = 'German'] = /put each numbered text from (\w+) into (\w+)/.exec(task) ?? [];
  const mark = /Put (\S+) before a text you cannot/.exec(task)?.[1] ?? '';
  return texts.map(({ n, text }) => ({ n, text: put(text, from, into, mark) }));
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
