import { chanceFrom } from '../chance/chance.ts';

/**
 * Texts with lists of alternatives in braces, lists inside lists, as `{plain|{fine|coarse} sea} salt`. Fields in double
 * braces stay; two braces that are no field are a list that begins with a list.
 */
type Part = string | Part[][];

const DEEPEST = 20;

/** Where a field or a tag ends that begins here; null where none does. A field has no brace within. */
function fieldEnd(text: string, at: number): number | null {
  if (text[at] !== '{') return null;
  if (text[at + 1] === '%') {
    const end = text.indexOf('%}', at + 2);
    return end < 0 ? text.length : end + 2;
  }
  if (text[at + 1] !== '{') return null;
  for (let i = at + 2; i < text.length; i++) {
    if (text[i] === '{') return null;
    if (text[i] === '}') return text[i + 1] === '}' ? i + 2 : null;
  }
  return null;
}

interface Reading {
  parts: Part[];
  problem: string | null;
}

/** Texts that were read before: the same one is chosen from again and again. */
const known = new Map<string, Reading>();
const MOST_KNOWN = 200;
const LONGEST_KNOWN = 20_000;

function read(text: string): Reading {
  const before = known.get(text);
  if (before) return before;
  const now = readAnew(text);
  if (text.length > LONGEST_KNOWN) return now;
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(text, now);
  return now;
}

function readAnew(text: string): Reading {
  let at = 0;
  let problem: string | null = null;
  const sequence = (depth: number): Part[] => {
    const parts: Part[] = [];
    let plain = '';
    const flush = () => {
      if (plain !== '') parts.push(plain);
      plain = '';
    };
    while (at < text.length) {
      const stop = fieldEnd(text, at);
      if (stop !== null) {
        plain += text.slice(at, stop);
        at = stop;
      } else if (text[at] === '{') {
        flush();
        parts.push(list(depth + 1));
      } else if (depth > 0 && (text[at] === '|' || text[at] === '}')) break;
      else plain += text[at++];
    }
    flush();
    return parts;
  };
  const list = (depth: number): Part[][] => {
    const open = at++;
    if (depth > DEEPEST) {
      problem ??= `The list at character ${open + 1} is nested too deep.`;
      at = text.length;
      return [[]];
    }
    const alternatives = [sequence(depth)];
    while (text[at] === '|') {
      at++;
      alternatives.push(sequence(depth));
    }
    if (text[at] === '}') at++;
    else problem ??= `The list at character ${open + 1} is not closed.`;
    return alternatives;
  };
  const parts = sequence(0);
  return { parts, problem };
}

export function variantProblem(text: string): string | null {
  return read(text).problem;
}

const MOST = Number.MAX_SAFE_INTEGER;

/** How many different ways there are to choose, not counting that some may read alike. */
export function countVariants(texts: readonly string[]): number {
  const ways = (parts: readonly Part[]): number =>
    parts.reduce<number>(
      (product, part) =>
        typeof part === 'string' ? product : Math.min(MOST, product * part.reduce((sum, one) => sum + ways(one), 0)),
      1,
    );
  return Math.min(
    MOST,
    texts.reduce((sum, text) => sum + ways(read(text).parts), 0),
  );
}

/** One of the texts, the same for the same seed. Every way to choose within a text is as likely as its list allows. */
export function chooseVariant(texts: readonly string[], seed: string): string {
  const chance = chanceFrom(seed);
  const one = <T>(of: readonly T[]): T | undefined => of[Math.floor(chance() * of.length)];
  const said = (parts: readonly Part[]): string =>
    parts.map((part) => (typeof part === 'string' ? part : said(one(part) ?? []))).join('');
  return said(read(one(texts) ?? '').parts);
}

/** All a text can say, one way after the other, without its lists: for what is to be known of its fields. */
export function allSaid(text: string): string {
  const said = (parts: readonly Part[]): string =>
    parts.map((part) => (typeof part === 'string' ? part : part.map(said).join(' '))).join('');
  return said(read(text).parts);
}
