import { choicesFrom, overlap, stemsOf } from '../words/language.ts';
import { type FencedPassage, formOf, type ReadRequest, rarity, relevance, type Sentence } from './request.ts';
import { compressed } from './rewrite.ts';

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

/** What may be asked of any subject, where there is nothing to plan from. */
const ASKED: Record<string, (subject: string) => string[]> = {
  en: (subject) => [
    `What ${subject} is about`,
    'How to begin',
    'What most people get wrong',
    'How to tell that it worked',
    'When to ask somebody who knows',
  ],
  de: (subject) => [
    `Worum es bei ${subject} geht`,
    'Wie man anfängt',
    'Was die meisten falsch machen',
    'Woran man merkt, dass es gelingt',
    'Wann man jemanden fragt, der es kann',
  ],
};

function fromNothing(request: ReadRequest, sections: number): OutlinedSection[] {
  return (ASKED[request.language] ?? ASKED['en']!)(request.subject)
    .slice(0, Math.max(1, sections))
    .map((heading) => ({ heading, says: `${heading}.`, passages: [] }));
}

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
  const useful = scored
    .filter(({ score }, i) => i < from || score > (scored[0]?.score ?? 0) * 0.22)
    .map(({ passage }) => passage);
  const wanted = Math.max(
    1,
    Math.min(manner.towards === 'many' ? to : Math.max(from, to - 1), Math.floor(useful.length / 2) || 1),
  );
  const seeds = spread(useful, Math.max(Math.min(from, useful.length), wanted));
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
    const heading =
      (headings === 'statements' ? statement(group, subject, used) : null) ??
      thing(group, request.passages, used, chance) ??
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

function candidates(group: readonly FencedPassage[]): Sentence[] {
  return group.flatMap((passage) => passage.sentences.filter((sentence, i) => i < 3 && !sentence.leans));
}

function statement(group: readonly FencedPassage[], subject: ReadonlySet<string>, used: Set<string>): string | null {
  const ranked = candidates(group)
    .map((sentence, i) => ({
      // A sentence that leads a list would stand twice.
      text: sentence.text.includes(':') ? null : compressed(sentence.text, 9),
      at: i,
      hits: [...sentence.stems].filter((s) => subject.has(s)).length,
    }))
    .filter((candidate): candidate is { text: string; at: number; hits: number } => candidate.text !== null)
    .filter(({ text }) => text.split(' ').length >= 2 && !/[“”"]/.test(text))
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
    const words = passage.text.match(/[\p{L}’'-]+/gu) ?? [];
    for (let i = 0; i + 1 < words.length; i++) {
      const pair = words.slice(i, i + 2);
      if (pair.every((word) => stemsOf(word).length === 1 && word.length > 3))
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
