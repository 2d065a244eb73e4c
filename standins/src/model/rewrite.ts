/** Making found sentences into written ones: fillers out, person as asked, clauses turned, wording varied. */

export interface Manner {
  person: string;
  language: string;
  /** Pairs of wordings that mean the same; the first is replaced by the second where chance says so. */
  wording: readonly (readonly [RegExp, string])[];
  /** Of a hundred sentences that could be turned or reworded, how many are. */
  turns: number;
  contracts: boolean;
}

export const WORDING_ONE: readonly (readonly [RegExp, string])[] = [
  [/\bbecause\b/g, 'since'],
  [/\busually\b/g, 'as a rule'],
  [/\bfor example\b/g, 'for instance'],
  [/\bin order to\b/g, 'to'],
  [/\ba number of\b/g, 'several'],
  [/\blarge\b/g, 'big'],
  [/\bbegin\b/g, 'start'],
  [/\bbegins\b/g, 'starts'],
  [/\bquickly\b/g, 'fast'],
  [/\bhelps to\b/g, 'helps'],
  [/\bsimply\b ?/g, ''],
  [/\breally\b ?/g, ''],
  [/\bvery\b ?/g, ''],
  [/\bof course,? ?/gi, ''],
  [/\bat the moment\b/g, 'now'],
  [/\balmost\b/g, 'nearly'],
  [/\bperhaps\b/g, 'maybe'],
  [/\bas well as\b/g, 'and also'],
  [/\btherefore\b/g, 'so'],
  [/\bhowever, /g, 'still, '],
  [/\bremains\b/g, 'stays'],
  [/\bremain\b/g, 'stay'],
  [/\bsufficient\b/g, 'enough'],
  [/\brequires\b/g, 'needs'],
  [/\bpurchase\b/g, 'buy'],
];

export const WORDING_TWO: readonly (readonly [RegExp, string])[] = [
  [/\bsince\b/g, 'because'],
  [/\bbig\b/g, 'large'],
  [/\bstart\b/g, 'begin'],
  [/\bstarts\b/g, 'begins'],
  [/\benough\b/g, 'sufficient'],
  [/\bneeds\b/g, 'requires'],
  [/\bmaybe\b/g, 'perhaps'],
  [/\bnearly\b/g, 'almost'],
  [/\bkeep\b/g, 'hold'],
  [/\bvery\b ?/g, ''],
  [/\bjust\b ?/g, ''],
];

const CONTRACTIONS: readonly (readonly [RegExp, string])[] = [
  [/\bdo not\b/g, "don't"],
  [/\bdoes not\b/g, "doesn't"],
  [/\bis not\b/g, "isn't"],
  [/\bare not\b/g, "aren't"],
  [/\bcannot\b/g, "can't"],
  [/(^|[,;] |\b(?:and|but|that|when|if|because|since|once) )it is\b/g, "$1it's"],
];

const PERSONS: Record<string, readonly (readonly [RegExp, string])[]> = {
  'first person plural': [
    [/\byou are\b/g, 'we are'],
    [/\byourself\b/g, 'ourselves'],
    [/\byours\b/g, 'ours'],
    [/\byour\b/g, 'our'],
    [/\bYour\b/g, 'Our'],
    [/\b(for|to|with|of|at|from|tells|gives|lets|shows) you\b/g, '$1 us'],
    [/\byou\b/g, 'we'],
    [/\bYou\b/g, 'We'],
  ],
  'first person singular': [
    [/\byou are\b/g, 'I am'],
    [/\byou were\b/g, 'I was'],
    [/\byourself\b/g, 'myself'],
    [/\byour\b/g, 'my'],
    [/\bYour\b/g, 'My'],
    [/\b(for|to|with|of|at|from|tells|gives|lets|shows) you\b/g, '$1 me'],
    [/\byou\b/g, 'I'],
    [/\bYou\b/g, 'I'],
  ],
  'third person': [
    [/\byour\b/g, 'the'],
    [/\bYour\b/g, 'The'],
    [/\byou\b/g, 'people'],
    [/\bYou\b/g, 'People'],
  ],
};

const TURNABLE =
  /^(If|When|Because|Once|As long as|After|Before|While|Unless|Although|Where|Until) ([^,;:]{6,80}), ([^;:]{12,160})([.!])$/;

/** A sentence as this manner would put it. `chance` gives a number below what it is asked. */
export function rewrite(sentence: string, manner: Manner, chance: (options: number) => number): string {
  let out = sentence.trim();
  if (manner.language === 'en') {
    if (chance(100) < manner.turns) out = turned(out);
    for (const [from, to] of manner.wording) if (chance(100) < manner.turns) out = out.replace(from, to);
    if (manner.contracts && chance(100) < 60) for (const [from, to] of CONTRACTIONS) out = out.replace(from, to);
    for (const [from, to] of PERSONS[manner.person] ?? []) out = out.replace(from, to);
  }
  out = out.replace(/ {2,}/g, ' ').replace(/ ([,.;:!?])/g, '$1');
  return out.charAt(0).toUpperCase() + out.slice(1);
}

/** 'If A, B.' as 'B if A.', unless B leans on words of A. */
function turned(sentence: string): string {
  const match = TURNABLE.exec(sentence);
  if (!match) return sentence;
  const [, link, first, second, end] = match;
  if (/\b(?:it|its|they|them|their|this|that|these|those|he|she|then)\b/i.test(second!)) return sentence;
  return `${second!.charAt(0).toUpperCase()}${second!.slice(1)} ${link!.toLowerCase()} ${first}${end}`;
}

const MAY_FALL = new Set([
  'The',
  'A',
  'An',
  'It',
  'This',
  'They',
  'These',
  'There',
  'In',
  'On',
  'At',
  'For',
  'With',
  'You',
  'We',
  'Most',
  'Some',
  'Many',
  'Each',
  'Every',
  'No',
  'Too',
  'Both',
]);

/** Two short neighbours as one sentence, where that reads well. */
export function joined(a: string, b: string, chance: (options: number) => number, language: string): string | null {
  // Only English joins by a comma and a small letter without changing anything else.
  if (language !== 'en') return null;
  if (a.length > 70 || b.length > 80 || !a.endsWith('.') || /[;:]/.test(a + b) || chance(3) !== 0) return null;
  const first = b.split(' ')[0]!;
  if (!MAY_FALL.has(first)) return null;
  return `${a.slice(0, -1)}${chance(2) === 0 ? ';' : ', and'} ${b.charAt(0).toLowerCase()}${b.slice(1)}`;
}

/** Letters a sentence of two may have. */
const LONGEST_PAIR = 190;

/** Two sentences as one of two parts, where neither has parts of its own; only English begins the second small. */
export function besides(a: string, b: string, language: string): string | null {
  if (language !== 'en' || a.length + b.length > LONGEST_PAIR) return null;
  if (!/^[^;:?!]+\.$/.test(a) || !/^[^;:?!]+\.$/.test(b)) return null;
  // A name keeps its capital, and so does what is all capitals.
  if (!SMALL.has(b.split(/[ ,]/)[0]!.toLowerCase())) return null;
  return `${a.slice(0, -1)}; ${b.charAt(0).toLowerCase()}${b.slice(1)}`;
}

/** Words that begin a sentence and are small within one. */
const SMALL = new Set(
  'the a an it its this that these those there they them their in on at to for from with without within by of as if when where while once after before until through over under up out no not nor neither both each every all any some most many few more less one two three four five six seven eight nine ten half about what which who how why you your we our so then only just even still yet also never always often usually mostly best better good take give make keep leave put add use let look watch cut press pack fill open close wait begin start stop turn lift wipe wash rinse dry boil cook eat drink weigh count reckon expect allow choose buy pick settle stay trust test taste'.split(
    ' ',
  ),
);

/** Clauses that give reasons or asides: without them the rest is still true. Conditions are never cut away. */
const ASIDES = [
  /[;–—] .*$/,
  /, (?:which|because|since|so|and|but|where|who|denn|und|aber|weil|was|die|der|das) .*$/,
  / (?:because|since|so that|weil|damit|while|während) .*$/,
  /, (?!if|when|unless|once|as long|until|wenn|falls|sobald|solange|bis)[^,]*$/,
];

/**
 * A sentence's main clause without the full stop, if asides can be left out until it has at most so many words; null when
 * it would have to be cut in the middle of what it says.
 */
export function compressed(sentence: string, most: number): string | null {
  let out = sentence
    .replace(/\([^)]*\)/g, '')
    .trim()
    .replace(/[.!?]+$/, '');
  const clause = /^(?:Because|After|Before|While|Although|As|Weil|Nach|Vor) [^,]{3,80}, (.+)$/.exec(out);
  if (clause) out = clause[1]!;
  for (const aside of ASIDES) {
    if (words(out) <= most) break;
    const shorter = out.replace(aside, '');
    if (words(shorter) >= 3) out = shorter;
  }
  return words(out) <= most ? out.charAt(0).toUpperCase() + out.slice(1) : null;
}

function words(text: string): number {
  return text.split(/\s+/).length;
}
