import { RE2JS, RE2Set } from 're2js';
import type { Block, Inline, Replaced } from '../article/block.ts';
import { withTexts } from '../article/text.ts';
import type { HouseStyleDocument, ReplacementRule } from './document.ts';
import { BESIDE, type Place, putAt } from './putBack.ts';
import { asCased, type Reworded, restingStill, reworded, rewordedText } from './reword.ts';

/** Scripts that do not part words by spaces: there a text is found wherever it stands. */
const UNSPACED = /[\p{sc=Han}\p{sc=Hiragana}\p{sc=Katakana}\p{sc=Thai}\p{sc=Lao}\p{sc=Khmer}\p{sc=Mymr}]/u;
/** What stands between quotation marks is what somebody said. */
const QUOTED = /“[^”]{1,800}”|„[^“”]{1,800}[“”]|«[^»]{1,800}»|»[^«]{1,800}«|「[^」]{1,800}」|"[^"\n]{1,800}"/g;

/** A place a rule has found. */
interface Found extends Place {
  /** The number of its rule. */
  rule: number;
}

interface Token {
  word: string;
  /** The same in small letters. */
  lower: string;
  from: number;
  to: number;
  /** Whether a space stands before it. */
  spaced: boolean;
}

/** Text of Latin letters and common signs, which nearly all is here: told apart in half the time. A test holds both together. */
const LATIN = /^[\u0000-\u00ff\u2013\u2014\u2018-\u201e\u2026]*$/;

/** Words, and every other sign by itself. */
export function tokensOf(text: string, latin = LATIN.test(text)): Token[] {
  const out: Token[] = [];
  let last = 0;
  const found = latin
    ? text.matchAll(
        /[0-9A-Za-z\u00aa\u00b2\u00b3\u00b5\u00b9\u00ba\u00bc-\u00be\u00c0-\u00d6\u00d8-\u00f6\u00f8-\u00ff]+|[^\s0-9A-Za-z\u00aa\u00b2\u00b3\u00b5\u00b9\u00ba\u00bc-\u00be\u00c0-\u00d6\u00d8-\u00f6\u00f8-\u00ff]/g,
      )
    : text.matchAll(/[\p{L}\p{N}\p{M}]+|[^\s\p{L}\p{N}\p{M}]/gu);
  for (const match of found) {
    const to = match.index + match[0].length;
    const word = match[0] === '’' ? "'" : match[0];
    out.push({ word, lower: word.toLowerCase(), from: match.index, to, spaced: match.index > last });
    last = to;
  }
  return out;
}

interface WordRule {
  n: number;
  rule: ReplacementRule;
  tokens: readonly Token[];
}

/** Adds the places a rule finds in a text. */
type Finder = (text: string, out: Found[]) => void;

/** Rules made ready once, to be tried on many texts. */
interface Ready {
  /** Rules of words by the first of them, in small letters. */
  words: ReadonlyMap<string, readonly WordRule[]>;
  finders: readonly Finder[];
  rules: readonly ReplacementRule[];
}

/** What patterns of other kinds know and these do not, told where one cannot be read. */
const ELSEWHERE: readonly (readonly [RegExp, string])[] = [
  [/\(\?<?[=!]/, 'patterns have no lookahead or lookbehind here: write it without ‘(?=’, ‘(?!’ or ‘(?<’'],
  [/\\[1-9]/, 'what was found before cannot be asked for again: ‘\\1’ is not known'],
];

/** Parts of a pattern in what is said instead: $1 to $9, all of it as $0, a dollar as $$. */
const PARTS = /\$(\$|\d)/g;

/** What is wrong with a rule; null where it can be used. */
export function ruleProblem({ find, pattern, say }: ReplacementRule): string | null {
  if (!pattern) return tokensOf(find).length === 0 ? `“${find}” holds nothing that could be found.` : null;
  try {
    const compiled = RE2JS.compile(find);
    const group = Math.max(0, ...[...say.matchAll(PARTS)].map(([, sign]) => (sign === '$' ? 0 : Number(sign))));
    if (group > compiled.groupCount()) return `“${find}” has no part ${group}, which “${say}” asks for.`;
    return compiled.matcher('').matches() ? `“${find}” also fits where there is nothing.` : null;
  } catch (error) {
    const known = ELSEWHERE.find(([sign]) => sign.test(find));
    if (known) return `“${find}”: ${known[1]}.`;
    return `“${find}” is no pattern: ${error instanceof Error ? error.message.replace(/^error parsing regexp: /, '') : 'it cannot be read'}.`;
  }
}

function readyOf(rules: readonly ReplacementRule[]): Ready {
  const words = new Map<string, WordRule[]>();
  const finders: Finder[] = [];
  const patterns: { n: number; rule: ReplacementRule }[] = [];
  for (const [n, rule] of rules.entries()) {
    if (ruleProblem(rule) !== null) continue;
    if (rule.pattern) patterns.push({ n, rule });
    else if (UNSPACED.test(rule.find)) finders.push(wherever(n, rule));
    else {
      const tokens = tokensOf(rule.find.trim());
      const first = tokens[0]!.lower;
      words.set(first, [...(words.get(first) ?? []), { n, rule, tokens }]);
    }
  }
  for (const cased of [true, false]) {
    const those = patterns.filter(({ rule }) => rule.cased === cased);
    if (those.length > 0) finders.push(byPatterns(those, cased ? 0 : RE2JS.CASE_INSENSITIVE));
  }
  return { words, finders, rules };
}

/** Which of many patterns stand in a text is told in one pass over it; only those are looked for by themselves. */
function byPatterns(patterns: readonly { n: number; rule: ReplacementRule }[], flags: number): Finder {
  const set = new RE2Set(RE2Set.UNANCHORED, flags);
  for (const { rule } of patterns) set.add(rule.find);
  set.compile();
  const each = patterns.map(({ n, rule }) => byPattern(n, rule, flags));
  return (text, out) => {
    for (const i of set.match(text) as readonly number[]) each[i]!(text, out);
  };
}

function byPattern(n: number, rule: ReplacementRule, flags: number): Finder {
  const compiled = RE2JS.compile(rule.find, flags);
  return (text, out) => {
    const matcher = compiled.matcher(text);
    while (matcher.find()) {
      const [from, to] = [matcher.start(), matcher.end()];
      if (to === from) continue;
      const say = rule.say.replace(PARTS, (_, sign: string) =>
        sign === '$' ? '$' : (matcher.group(Number(sign)) ?? ''),
      );
      out.push({ from, to, say, rule: n });
    }
  };
}

function wherever(n: number, { find, say }: ReplacementRule): Finder {
  return (text, out) => {
    for (let at = text.indexOf(find); at >= 0; at = text.indexOf(find, at + find.length))
      out.push({ from: at, to: at + find.length, say, rule: n });
  };
}

function byWords({ words }: Ready, text: string, out: Found[]): void {
  if (words.size === 0) return;
  const tokens = tokensOf(text);
  for (let at = 0; at < tokens.length; at++) {
    const token = tokens[at]!;
    const rules = words.get(token.lower);
    if (rules === undefined) continue;
    for (const { n, rule, tokens: wanted } of rules) {
      if (!standsAt(tokens, at, wanted, rule.cased)) continue;
      const to = tokens[at + wanted.length - 1]!.to;
      const say = rule.cased ? rule.say : asCased(rule.say, text.slice(token.from, to));
      out.push({ from: token.from, to, say, rule: n });
    }
  }
}

/** Whether words stand one after the other, with spaces where they have them. */
function standsAt(tokens: readonly Token[], at: number, wanted: readonly Token[], cased: boolean): boolean {
  return wanted.every(({ word, lower, spaced }, i) => {
    const here = tokens[at + i];
    if (here === undefined || (i > 0 && here.spaced !== spaced)) return false;
    return cased ? here.word === word : here.lower === lower;
  });
}

/** Places of a text that are replaced, in their order: where two rules want the same letters, the one that stands first has them. */
function placesIn(ready: Ready, text: string, may: (place: Found) => boolean): Found[] {
  const found: Found[] = [];
  byWords(ready, text, found);
  for (const finder of ready.finders) finder(text, found);
  if (found.length === 0) return found;
  found.sort((a, b) => a.rule - b.rule || a.from - b.from);
  const out: Found[] = [];
  for (const place of found)
    if (may(place) && out.every(({ from, to }) => place.to <= from || place.from >= to)) out.push(place);
  let read = 0;
  return out
    .sort((a, b) => a.from - b.from)
    .map((place) => {
      const wide = withoutGap(text, place);
      const own = wide.from < read ? place : wide;
      read = own.to;
      return own;
    });
}

/** Where something is left out, one of the spaces beside it goes too. */
function withoutGap(text: string, place: Found): Found {
  if (place.say !== '') return place;
  const before = place.from === 0 || /\s/.test(text[place.from - 1]!);
  if (before && /\s/.test(text[place.to] ?? '')) return { ...place, to: place.to + 1 };
  return place.from > 0 && /\s/.test(text[place.from - 1]!) && /^(?:$|[.,;:!?)])/.test(text.slice(place.to))
    ? { ...place, from: place.from - 1 }
    : place;
}

const linkOf = ({ link }: Inline): string => (link ? JSON.stringify(link) : '');

const quotationsIn = (content: readonly Inline[]): (readonly [number, number])[] =>
  [
    ...content
      .map((part) => part.text)
      .join('')
      .matchAll(QUOTED),
  ].map((match) => [match.index, match.index + match[0].length] as const);

/** Words with one look, with where they stand in the whole. */
function partsOf(content: readonly Inline[]): { from: number; to: number; part: Inline }[] {
  let at = 0;
  return content.map((part) => {
    const from = at;
    at += part.text.length;
    return { from, to: at, part };
  });
}

/** Whether a rule may be used at a place of words with marks and links. */
function mayIn(content: readonly Inline[], rules: readonly ReplacementRule[], quoted: boolean) {
  let said: (readonly [number, number])[] | null = null;
  let parts: { from: number; to: number; part: Inline }[] | null = null;
  return ({ from, to, rule }: Found): boolean => {
    const { where } = rules[rule]!;
    said ??= quotationsIn(content);
    if (!where.includes('quotations') && (quoted || said.some(([a, b]) => from < b && to > a))) return false;
    parts ??= partsOf(content);
    const over = parts.filter((one) => from < one.to && to > one.from).map(({ part }) => part);
    if (over.some(({ marks }) => marks?.includes('code'))) return false;
    const links = new Set(over.map(linkOf));
    return links.size === 1 && (where.includes('links') || links.has(''));
  };
}

/** Rules compiled last: the same are used for many texts in a row, and read anew from where they are kept each time. */
let last: { rules: readonly ReplacementRule[]; key: string; ready: Ready } | null = null;

function prepared(rules: readonly ReplacementRule[]): Ready {
  if (last?.rules === rules) return last.ready;
  const key = JSON.stringify(rules);
  last = { rules, key, ready: last?.key === key ? last.ready : readyOf(rules) };
  return last.ready;
}

/**
 * An article's blocks by the rules of its house, each rule on the text as it was written: what one has put no other changes.
 * Code, owner's markup and credits stay. Patterns are those of RE2, which take time in proportion to the text.
 * @param body blocks of an article
 * @param rules in their order; one that cannot be used is passed over
 */
export function byRules(
  body: readonly Block[],
  rules: readonly ReplacementRule[],
): { body: Block[]; replaced: Replaced[] } {
  const ready = prepared(rules);
  if (ready.words.size === 0 && ready.finders.length === 0) return { body: [...body], replaced: [] };
  const replaced: Replaced[] = [];
  const out = body.map((block): Block => {
    if (block.type === "owner's markup") return block;
    const own: Replaced[] = [];
    const rich = (content: readonly Inline[]): Inline[] => {
      const text = content.map((part) => part.text).join('');
      const may = mayIn(content, ready.rules, block.type === 'quote');
      const places = placesIn(ready, text, (place) => may(place) && allows(block, ready.rules[place.rule]!));
      if (places.length === 0) return [...content];
      own.push(...notesOf(block.id, text, places));
      return putAt(content, places);
    };
    const plain = (text: string): string =>
      text === ''
        ? text
        : rich([{ text }])
            .map((part) => part.text)
            .join('');
    const next = withTexts(block, { rich, plain, aside: plain });
    if (own.length === 0) return block;
    replaced.push(...own);
    return restingStill(block, next);
  });
  return { body: out, replaced };
}

const allows = (block: Block, { where }: ReplacementRule): boolean =>
  block.type !== 'heading' || where.includes('headings');

/** A title or a description by the rules that hold for headings. */
export function textByRules(text: string, rules: readonly ReplacementRule[]): string {
  const ready = prepared(rules);
  const content = [{ text }];
  const may = mayIn(content, ready.rules, false);
  const places = placesIn(ready, text, (place) => may(place) && ready.rules[place.rule]!.where.includes('headings'));
  return putAt(content, places)
    .map((part) => part.text)
    .join('');
}

type Words = Pick<HouseStyleDocument, 'words' | 'spelling' | 'rules'>;

/** What a house did to the words of an article. */
export interface HouseWorded {
  body: Block[];
  reworded: Pick<Reworded, 'from' | 'to'>[];
  replaced: Replaced[];
}

/** An article's blocks in the words of the house, then by its rules. */
export function inHouseWords(body: readonly Block[], style: Words, language: string): HouseWorded {
  const { body: worded, notes } = reworded(body, style, language);
  const done = byRules(worded, style.rules);
  return { ...done, reworded: [...notes, ...done.replaced].map(({ from, to }) => ({ from, to })) };
}

/** A title, a description or another text by itself, likewise. */
export const textInHouseWords = (text: string, style: Words, language: string): string =>
  textByRules(rewordedText(text, style, language), style.rules);

function notesOf(block: string, text: string, places: readonly Place[]): Replaced[] {
  let out = '';
  let read = 0;
  const ends = places.map(({ from, to, say }) => {
    out += text.slice(read, from) + say;
    read = to;
    return out.length;
  });
  out += text.slice(read);
  return places.map(({ from, to, say }, i) => {
    const end = ends[i]!;
    const start = end - say.length;
    return {
      block,
      from: text.slice(from, to),
      to: say,
      before: out.slice(Math.max(0, start - BESIDE), start),
      after: out.slice(end, end + BESIDE),
    };
  });
}
