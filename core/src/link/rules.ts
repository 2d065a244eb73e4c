import type { ArticleDocument, Block, Inline } from '../article/block.ts';
import { linksOf, withTexts } from '../article/text.ts';
import { pluralOf } from '../sentence/sentence.ts';

/** Where the links of a rule stand, when its words come up more often than it links. */
export const PLACINGS = ['first', 'spread'] as const;
export type Placing = (typeof PLACINGS)[number];

/** Words that are linked wherever they are said: a partner's, a brand's, our shop's. */
export interface LinkRule {
  id: string;
  words: string;
  address: string;
  /** Links an article has by it, at most. */
  most: number;
  placing: Placing;
  /** Words of the article that go by before its first link. */
  after: number;
  /** Whether plurals and genitives count too. */
  forms: boolean;
  anyCase: boolean;
  /** Whether it is marked as paid for (HTML, link type 'sponsored'). */
  sponsored: boolean;
}

/** Rules ready to be applied: the same for every order they come in. */
export interface RuleSet {
  /** Words as they are compared, with the rules that say them; the first of them counts. */
  byWords: ReadonlyMap<string, LinkRule>;
  /** First word of a rule, with the numbers of words its rules have, most first. */
  lengths: ReadonlyMap<string, readonly number[]>;
}

export interface RuleLink {
  rule: string;
  block: string;
  words: string;
}

/** Words a rule knows that were left alone, and why. */
export interface LeftAlone extends RuleLink {
  why: 'heading' | 'quotation' | 'link' | 'most' | 'too early';
}

const WORD = /[\p{L}\p{N}][\p{L}\p{N}'’]*/gu;
const wordsIn = (text: string): string[] => text.replaceAll('’', "'").match(WORD) ?? [];
/** Those of a case stand apart from those of any. */
const EXACT = '=';

/** Forms of the last word that count for it: English plurals and genitives, German endings. */
function formsOf(word: string, language: string): string[] {
  if (!/\p{L}$/u.test(word)) return [];
  if (language.startsWith('de')) return ['s', 'es', 'n', 'en', 'e', 'er'].map((end) => word + end);
  return [pluralOf(word), `${word}'s`];
}

/** Rules in the order they are weighed: by their words, then by where they lead. */
const inOrder = (a: LinkRule, b: LinkRule): number =>
  a.words < b.words
    ? -1
    : a.words > b.words
      ? 1
      : a.address < b.address
        ? -1
        : a.address > b.address
          ? 1
          : a.id < b.id
            ? -1
            : 1;

/**
 * Makes rules ready for articles of a language. Of two with the same words the one whose address comes first in the alphabet
 * counts; a word as it is written counts before its forms.
 */
export function compileRules(rules: readonly LinkRule[], language: string): RuleSet {
  const byWords = new Map<string, LinkRule>();
  const lengths = new Map<string, Set<number>>();
  const put = (words: readonly string[], rule: LinkRule) => {
    if (words.length === 0) return;
    const cased = rule.anyCase ? words.map((word) => word.toLowerCase()) : words;
    const key = (rule.anyCase ? '' : EXACT) + cased.join(' ');
    if (byWords.has(key)) return;
    byWords.set(key, rule);
    const first = words[0]!.toLowerCase();
    const known = lengths.get(first);
    if (known) known.add(words.length);
    else lengths.set(first, new Set([words.length]));
  };
  const sorted = [...rules].sort(inOrder);
  for (const rule of sorted) put(wordsIn(rule.words), rule);
  for (const rule of sorted) {
    const words = wordsIn(rule.words);
    if (rule.forms && words.length > 0)
      for (const form of formsOf(words.at(-1)!, language)) put([...words.slice(0, -1), form], rule);
  }
  return { byWords, lengths: new Map([...lengths].map(([word, all]) => [word, [...all].sort((a, b) => b - a)])) };
}

/** Where a rule's words stand in a text that is not linked. */
interface Place {
  rule: LinkRule;
  /** Which text of the article, in order. */
  part: number;
  block: string;
  from: number;
  to: number;
  words: string;
  /** Words of the article before it. */
  before: number;
}

const LINKED: ReadonlySet<Block['type']> = new Set([
  'paragraph',
  'list',
  'table',
  'key points',
  'question and answer',
  'closing',
]);

/** Reads the texts of an article in order, and where words of rules stand in them, the longest first. */
class Reading {
  readonly places: Place[] = [];
  readonly alone: LeftAlone[] = [];
  private words = 0;

  constructor(private readonly set: RuleSet) {}

  text(part: number, block: string, text: string, why: LeftAlone['why'] | null): void {
    const tokens = [...text.matchAll(WORD)];
    const barred = /[.@/]/.test(text) ? [...text.matchAll(/\S+/gu)].filter(([found]) => isAddress(found)) : [];
    for (let i = 0; i < tokens.length; i++) {
      const found = this.at(text, tokens, i);
      if (!found) continue;
      const from = tokens[i]!.index;
      const last = tokens[i + found.length - 1]!;
      const to = last.index + last[0].length;
      if (!hangsTogether(text, from, to) && !barred.some((one) => from < one.index + one[0].length && to > one.index)) {
        const words = text.slice(from, to);
        if (why !== null) this.alone.push({ rule: found.rule.id, block, words, why });
        else this.places.push({ rule: found.rule, part, block, from, to, words, before: this.words + i });
      }
      i += found.length - 1;
    }
    this.words += tokens.length;
  }

  /** The longest rule whose words begin with a token, joined as words are. */
  private at(text: string, tokens: readonly RegExpExecArray[], i: number): { rule: LinkRule; length: number } | null {
    const lengths = this.set.lengths.get(asWord(tokens[i]![0]).toLowerCase());
    if (!lengths) return null;
    for (const length of lengths) {
      const words = joined(text, tokens, i, length);
      if (words === null) continue;
      const rule = this.set.byWords.get(EXACT + words) ?? this.set.byWords.get(words.toLowerCase());
      if (rule) return { rule, length };
    }
    return null;
  }
}

const asWord = (token: string): string => (token.includes('’') ? token.replaceAll('’', "'") : token);

/** So many tokens in a row as words of a rule are compared; null where more than a space or a hyphen parts them. */
function joined(text: string, tokens: readonly RegExpExecArray[], from: number, length: number): string | null {
  if (from + length > tokens.length) return null;
  let words = asWord(tokens[from]![0]);
  let end = tokens[from]!.index + tokens[from]![0].length;
  for (let k = from + 1; k < from + length; k++) {
    const { index, 0: token } = tokens[k]!;
    if (index !== end + 1 || !' \u00a0-'.includes(text.charAt(end))) return null;
    words += ` ${asWord(token)}`;
    end = index + token.length;
  }
  return words;
}

/** Whether a word before or behind belongs to it: 'salt' is not said in 'salt-free'. */
const hangsTogether = (text: string, from: number, to: number): boolean =>
  /[\p{L}\p{N}]-$/u.test(text.slice(Math.max(0, from - 3), from)) || /^-[\p{L}\p{N}]/u.test(text.slice(to, to + 3));

/** Addresses, those of mail and names of files too, are no words. */
function isAddress(found: string): boolean {
  const bare = found.slice(0, 500).replace(/^[("“‘'[]|[.,;:!?)"”’'\]]{1,3}$/gu, '');
  return /:\/\/|@|^www\./i.test(bare) || /^[\p{L}\p{N}-]+\.[a-z]{2,10}(?:[/?#.]|$)/iu.test(bare);
}

/**
 * Links the words of rules in an article: in its text, never in a heading, a quotation, a link, code or an address, each rule
 * as often as it says, the longest words first. No word of the article changes.
 */
export function applyRules(
  article: ArticleDocument,
  set: RuleSet,
): { article: ArticleDocument; placed: RuleLink[]; alone: LeftAlone[] } {
  if (set.byWords.size === 0) return { article, placed: [], alone: [] };
  const reading = new Reading(set);
  const already = new Map<string, number>();
  for (const link of article.body.flatMap(linksOf))
    if (link.to === 'address') already.set(link.address, (already.get(link.address) ?? 0) + 1);
  let part = 0;
  for (const block of article.body) eachText(block, (text, why) => reading.text(part++, block.id, text, why));
  const chosen = choose(reading, already);
  const byPart = new Map<number, Place[]>();
  for (const place of chosen) byPart.set(place.part, [...(byPart.get(place.part) ?? []), place]);
  part = 0;
  const body = article.body.map((block): Block => {
    if (!LINKED.has(block.type)) {
      eachText(block, () => part++);
      return block;
    }
    let linked = false;
    const next = withTexts(block, {
      rich: (content) =>
        content.flatMap((one): Inline[] => {
          const places = byPart.get(part++);
          if (!places) return [one];
          linked = true;
          return cutAt(one, places);
        }),
    });
    return linked ? next : block;
  });
  return {
    article: chosen.length > 0 ? { ...article, body } : article,
    placed: chosen.map(({ rule, block, words }) => ({ rule: rule.id, block, words })),
    alone: reading.alone,
  };
}

/** Every text of a block that may hold words of rules, with why it is left alone. */
function eachText(block: Block, take: (text: string, why: LeftAlone['why'] | null) => void): void {
  if (block.type === 'heading') take(block.text, 'heading');
  if (block.type === 'quote') take(block.content.map(({ text }) => text).join(''), 'quotation');
  if (!LINKED.has(block.type)) return;
  withTexts(block, {
    rich: (content) => {
      for (const { text, link, marks } of content) take(marks?.includes('code') ? '' : text, link ? 'link' : null);
      return [...content];
    },
  });
}

/** Of the places of each rule as many as it may have: the first, or spread over all there are. */
function choose(reading: Reading, already: ReadonlyMap<string, number>): Place[] {
  const of = new Map<LinkRule, Place[]>();
  for (const place of reading.places) {
    const all = of.get(place.rule);
    if (all) all.push(place);
    else of.set(place.rule, [place]);
  }
  const chosen: Place[] = [];
  for (const [rule, all] of of) {
    const late = all.filter(({ before }) => before >= rule.after);
    const may = Math.max(0, Math.min(late.length, rule.most - (already.get(rule.address) ?? 0)));
    const step = rule.placing === 'spread' && may > 0 ? late.length / may : 1;
    const taken = new Set(Array.from({ length: may }, (_, k) => late[Math.floor(k * step)]!));
    for (const place of all) {
      if (taken.has(place)) chosen.push(place);
      else
        reading.alone.push({
          rule: rule.id,
          block: place.block,
          words: place.words,
          why: place.before < rule.after ? 'too early' : 'most',
        });
    }
  }
  return chosen.sort((a, b) => a.part - b.part || a.from - b.from);
}

function cutAt(one: Inline, places: readonly Place[]): Inline[] {
  const out: Inline[] = [];
  let at = 0;
  for (const { rule, from, to } of places) {
    if (from > at) out.push({ ...one, text: one.text.slice(at, from) });
    const link = { to: 'address' as const, address: rule.address, ...(rule.sponsored ? { sponsored: true } : {}) };
    out.push({ ...one, text: one.text.slice(from, to), link });
    at = to;
  }
  if (at < one.text.length) out.push({ ...one, text: one.text.slice(at) });
  return out;
}
