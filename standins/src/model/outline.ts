import { byUse, choicesFrom, countedWords, overlap, stemsOf } from '../words/language.ts';
import { LOOSE } from './loose.ts';
import { ownWords } from './own.ts';
import { type FencedPassage, formOf, type ReadRequest, rarity, relevance, type Sentence } from './request.ts';
import { compressed } from './rewrite.ts';
import { isKnown } from './topics.ts';

export interface OutlinedSection {
  heading: string;
  says: string;
  passages: number[];
}

export interface OutlineManner {
  /** Sections when a range is asked: towards its lower or upper end. */
  towards: 'few' | 'many';
  /** Headings are short statements from the passages, or the things they speak of. */
  headings: 'statements' | 'things';
}

function fromNothing(request: ReadRequest, sections: number): OutlinedSection[] {
  return ownWords(request.language)
    .plan(request.subject)
    .slice(0, Math.max(1, sections))
    .map((heading) => ({ heading, says: `${heading}.`, passages: [] }));
}

/** Passages somebody chose, not a look-up of everything. */
const FEW = 8;

/** Groups the passages that speak of the subject and heads each group with what it says. */
export function outline(request: ReadRequest, manner: OutlineManner): OutlinedSection[] {
  const range = /(\d+) to (\d+) sections/.exec(request.task);
  const [from, to] = [Number(range?.[1] ?? 3), Number(range?.[2] ?? 6)];
  if (request.passages.length === 0) return fromNothing(request, from);
  const weight = rarity(request.passages);
  const subject = new Set(stemsOf(request.subject));
  const scored = request.passages
    .filter((passage) => passage.sentences.length > 0)
    .map((passage) => ({
      passage,
      score:
        relevance(passage.stems, subject, weight) + relevance(new Set(stemsOf(passage.from)), subject, weight) * 0.6,
    }))
    .sort((a, b) => b.score - a.score || a.passage.n - b.passage.n);
  // Of what is known it is known too that it belongs to the subject; else the words have to tell.
  const least = isKnown(request) || scored.length <= FEW ? 0.22 : 0.4;
  const useful = scored
    .filter(({ score }, i) => i < from || score > (scored[0]?.score ?? 0) * least)
    .map(({ passage }) => passage);
  const wanted = Math.max(
    1,
    Math.min(manner.towards === 'many' ? to : Math.max(from, to - 1), Math.floor(useful.length / 2) || 1),
  );
  const seeds = asTheyStand(spread(useful, Math.max(Math.min(from, useful.length), wanted)));
  const groups = new Map(seeds.map((seed) => [seed.n, [seed]]));
  const most = Math.max(2, Math.ceil(useful.length / seeds.length));
  for (const passage of useful) {
    if (seeds.includes(passage)) continue;
    const nearest = [...seeds]
      .sort((a, b) => near(passage, b) - near(passage, a))
      .find((seed) => groups.get(seed.n)!.length < most);
    if (nearest) groups.get(nearest.n)!.push(passage);
  }
  const used = new Set<string>();
  const chance = choicesFrom(request.seed);
  return seeds.map((seed) => {
    const group = groups.get(seed.n)!;
    const form = formOf(request.examples);
    const headings = form && form.words < 3.5 ? 'things' : manner.headings;
    const others = [...groups.values()].filter((other) => other !== group).map(stemsIn);
    const heading =
      own(group, others, used) ??
      (headings === 'statements' ? statement(group, others, subject, used) : null) ??
      thing(group, request.passages, used, chance) ??
      word(group, others, used) ??
      request.subject.charAt(0).toUpperCase() + request.subject.slice(1);
    return {
      heading,
      says: group[0]!.sentences[0]!.text,
      passages: group.map((passage) => passage.n).sort((a, b) => a - b),
    };
  });
}

function near(a: FencedPassage, b: FencedPassage): number {
  return overlap(a.stems, b.stems) + (a.from === b.from ? 0.15 : 0);
}

/** Passages that fit the subject and are unlike each other, the best first and then in the order a reader meets them. */
function spread(passages: readonly FencedPassage[], wanted: number): FencedPassage[] {
  const chosen: FencedPassage[] = [];
  for (const limit of [0.3, 0.42, 0.55, 1.1]) {
    for (const passage of passages) {
      if (chosen.length >= wanted) return chosen;
      if (!chosen.includes(passage) && chosen.every((other) => overlap(other.stems, passage.stems) < limit))
        chosen.push(passage);
    }
  }
  return chosen;
}

/** What is of one page comes in the order of that page: who tells of the jar before the cabbage is chosen loses a reader. */
function asTheyStand(seeds: readonly FencedPassage[]): FencedPassage[] {
  const waiting = new Map<string, FencedPassage[]>();
  for (const seed of [...seeds].sort((a, b) => a.n - b.n))
    waiting.set(seed.from, [...(waiting.get(seed.from) ?? []), seed]);
  return seeds.map(({ from }) => waiting.get(from)!.shift()!);
}

function candidates(group: readonly FencedPassage[]): Sentence[] {
  return group.flatMap((passage) => passage.sentences.filter((sentence, i) => i < 3 && !sentence.leans));
}

/** What of a passage can stand in a section: no sentence that leans on one left out. */
const standing = ({ sentences }: FencedPassage): string => {
  const kept: Sentence[] = [];
  for (const sentence of sentences) if (!sentence.leans || kept.at(-1)?.at === sentence.at - 1) kept.push(sentence);
  return kept.map(({ text }) => text).join(' ');
};

const stemsIn = (group: readonly FencedPassage[]): string[] => group.flatMap(({ text }) => stemsOf(text));

/**
 * What the first passage of a group is known to speak of, unless another section is headed so; what the next one speaks of
 * where another section has more to say of the first.
 */
function own(group: readonly FencedPassage[], others: readonly string[][], used: Set<string>): string | null {
  if ((group[0]?.heading ?? null) === null) return null;
  const open = group.flatMap(({ heading }) => (heading === null || used.has(heading.toLowerCase()) ? [] : [heading]));
  const here = stemsIn(group);
  const isOurs = (heading: string) => {
    const words = new Set(stemsOf(heading));
    return others.every((other) => times(words, other) <= 1.5 * times(words, here));
  };
  const heading = open.find(isOurs) ?? (open[0] === group[0]!.heading ? open[0] : undefined) ?? null;
  if (heading !== null) used.add(heading.toLowerCase());
  return heading;
}

/** How often words are met among others, of a hundred. */
const times = (words: ReadonlySet<string>, among: readonly string[]): number =>
  (among.filter((stem) => words.has(stem)).length / Math.max(1, among.length)) * 100;

/** Whether a heading speaks of this group rather than of another one. */
function tells(heading: string, group: readonly FencedPassage[], others: readonly string[][]): boolean {
  const words = new Set(stemsOf(heading));
  const here = stemsIn(group);
  // Its own sentence holds them once; what a section speaks of comes up again.
  const again = [...words].some((stem) => here.filter((other) => other === stem).length > 1);
  const much = times(words, here);
  return again && others.every((other) => times(words, other) < 1.5 * much);
}

/** The word a group uses most that the others do not. */
function word(group: readonly FencedPassage[], others: readonly string[][], used: Set<string>): string | null {
  const elsewhere = (stem: string) => others.filter((other) => other.includes(stem)).length;
  const best = countedWords(group.map(standing).join(' '), 4)
    .map(({ stem, word, n }) => ({ stem, word, n: n / (1 + elsewhere(stem)) }))
    .sort(byUse)
    .find(({ word }) => !used.has(word.toLowerCase()))?.word;
  if (best === undefined) return null;
  used.add(best.toLowerCase());
  return best.charAt(0).toUpperCase() + best.slice(1);
}

function statement(
  group: readonly FencedPassage[],
  others: readonly string[][],
  subject: ReadonlySet<string>,
  used: Set<string>,
): string | null {
  const ranked = candidates(group)
    .map((sentence, i) => ({
      // A sentence that leads a list would stand twice.
      text: sentence.text.includes(':') ? null : compressed(sentence.text, 9),
      at: i,
      hits: [...sentence.stems].filter((s) => subject.has(s)).length,
    }))
    .filter((candidate): candidate is { text: string; at: number; hits: number } => candidate.text !== null)
    .filter(({ text }) => text.split(' ').length >= 2 && !/[“”"]/.test(text) && tells(text, group, others))
    .sort((a, b) => a.at - b.at - (b.hits - a.hits) * 0.4);
  const found = ranked.find(({ text }) => !used.has(text.toLowerCase()))?.text ?? null;
  if (found !== null) used.add(found.toLowerCase());
  return found;
}

/** The pair of words the group repeats and the other passages do not. */
function thing(
  group: readonly FencedPassage[],
  all: readonly FencedPassage[],
  used: Set<string>,
  chance: (options: number) => number,
): string | null {
  const counts = new Map<string, number>();
  for (const passage of group) {
    const words = standing(passage).match(/[\p{L}’'-]+/gu) ?? [];
    for (let i = 0; i + 1 < words.length; i++) {
      const pair = words.slice(i, i + 2);
      if (pair.every((word) => stemsOf(word).length === 1 && word.length > 3 && !LOOSE.has(word.toLowerCase())))
        counts.set(pair.join(' ').toLowerCase(), (counts.get(pair.join(' ').toLowerCase()) ?? 0) + 1);
    }
  }
  const elsewhere = all.filter((passage) => !group.includes(passage)).map((passage) => passage.text.toLowerCase());
  const ranked = [...counts]
    .map(([pair, n]) => ({ pair, worth: n / (1 + elsewhere.filter((text) => text.includes(pair)).length) }))
    .sort((a, b) => b.worth - a.worth || (a.pair < b.pair ? -1 : 1));
  const open = ranked
    .filter(({ pair }) => ![...used].some((other) => pair.split(' ').some((word) => other.includes(word))))
    .slice(0, 2);
  const found = open[chance(open.length || 1)]?.pair;
  if (found === undefined) return null;
  used.add(found);
  return found.charAt(0).toUpperCase() + found.slice(1);
}
