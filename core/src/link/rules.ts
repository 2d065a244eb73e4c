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

/** Words that rules begin with, one after the other, and what is linked where they end. */
interface Step {
  next: Map<string, Step>;
  /** The rule whose words these are, whatever their case. */
  rule: LinkRule | null;
  /** Rules of one case, by their words as they are written. */
  exact: Map<string, LinkRule> | null;
}

/** Rules ready to be applied: the same for every order they come in. */
export interface RuleSet {
  rules: readonly LinkRule[];
  first: ReadonlyMap<string, Step>;
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
const plain = (text: string): string => (text.includes('’') ? text.replaceAll('’', "'") : text);
const wordsIn = (text: string): string[] => plain(text).match(WORD) ?? [];

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
  const root: Step = { next: new Map(), rule: null, exact: null };
  const put = (words: readonly string[], rule: LinkRule) => {
    let at = root;
    for (const word of words.map((one) => one.toLowerCase())) {
      const known = at.next.get(word);
      const next: Step = known ?? { next: new Map(), rule: null, exact: null };
      if (!known) at.next.set(word, next);
      at = next;
    }
    if (at === root) return;
    if (rule.anyCase) at.rule ??= rule;
    else {
      at.exact ??= new Map();
      const key = words.join(' ');
      if (!at.exact.has(key)) at.exact.set(key, rule);
    }
  };
  const sorted = [...rules].sort(inOrder);
  for (const rule of sorted) put(wordsIn(rule.words), rule);
  for (const rule of sorted) {
    const words = wordsIn(rule.words);
    if (rule.forms && words.length > 0)
      for (const form of formsOf(words.at(-1)!, language)) put([...words.slice(0, -1), form], rule);
  }
  return { rules: sorted, first: root.next };
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
    const tokens = tokensOf(text);
    const barred = /@|\/\/|\.[\p{L}]/u.test(text)
      ? [...text.matchAll(/\S+/gu)].filter(([found]) => isAddress(found))
      : [];
    for (let i = 0; i < tokens.length; i++) {
      const found = this.at(text, tokens, i);
      if (!found) continue;
      const { from } = tokens[i]!;
      const { to } = tokens[i + found.length - 1]!;
      if (!hangsTogether(text, from, to) && !barred.some((one) => from < one.index + one[0].length && to > one.index)) {
        const words = text.slice(from, to);
        if (why !== null) this.alone.push({ rule: found.rule.id, block, words, why });
        else this.places.push({ rule: found.rule, part, block, from, to, words, before: this.words + i });
      }
      i += found.length - 1;
    }
    this.words += tokens.length;
  }

  /** The longest rule whose words begin with a token, joined as words are: by no more than a space or a hyphen. */
  private at(text: string, tokens: readonly Token[], i: number): { rule: LinkRule; length: number } | null {
    let longest: { rule: LinkRule; length: number } | null = null;
    let step = this.set.first.get(tokens[i]!.lower);
    for (let n = i; step; ) {
      const rule = step.exact?.get(asWritten(text, tokens, i, n)) ?? step.rule;
      if (rule) longest = { rule, length: n - i + 1 };
      if (step.next.size === 0 || ++n >= tokens.length || !joins(text, tokens[n - 1]!, tokens[n]!)) break;
      step = step.next.get(tokens[n]!.lower);
    }
    return longest;
  }
}

const joins = (text: string, one: Token, next: Token): boolean =>
  next.from === one.to + 1 && ' \u00a0-'.includes(text.charAt(one.to));

const asWritten = (text: string, tokens: readonly Token[], from: number, to: number): string =>
  tokens
    .slice(from, to + 1)
    .map((token) => plain(text.slice(token.from, token.to)))
    .join(' ');

/** A word of a text, as words of rules are compared, and where it stands. */
interface Token {
  lower: string;
  from: number;
  to: number;
}

/** Words of texts of plain letters, which most are, without the tables of all letters there are: a fifth of the time. */
const PLAIN_WORD = /[A-Za-z0-9][A-Za-z0-9'’]*/g;
const PLAIN = /^[\0-\x7f’‘“”–—…]*$/;

function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  const found = PLAIN.test(text) ? text.matchAll(PLAIN_WORD) : text.matchAll(WORD);
  for (const { 0: word, index } of found)
    tokens.push({ lower: plain(word.toLowerCase()), from: index, to: index + word.length });
  return tokens;
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
  if (set.first.size === 0) return { article, placed: [], alone: [] };
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
