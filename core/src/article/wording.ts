import { wordsOfText } from '../sentence/sentence.ts';

/** How a text is worded, told by forms alone: words that say nothing, and sentences in the passive. English and German. */

/** Words and phrases that can be left out without changing what is said; our own list. */
const FILLERS: Readonly<Record<string, readonly string[]>> = {
  en: [
    'very',
    'really',
    'quite',
    'just',
    'basically',
    'actually',
    'simply',
    'literally',
    'totally',
    'definitely',
    'obviously',
    'of course',
    'needless to say',
    'at the end of the day',
    'it is important to note',
    'it goes without saying',
    'as a matter of fact',
    'in order to',
    'the fact that',
    'when it comes to',
  ],
  de: [
    'eigentlich',
    'wirklich',
    'sehr',
    'einfach',
    'halt',
    'quasi',
    'sozusagen',
    'im Grunde',
    'natürlich',
    'selbstverständlich',
    'durchaus',
    'irgendwie',
    'gewissermaßen',
    'an und für sich',
    'letztendlich',
    'grundsätzlich',
  ],
};

const patterns = new Map<string, RegExp>(
  Object.entries(FILLERS).map(([language, all]) => [
    language,
    new RegExp(
      `(?<![\\p{L}\\p{N}])(?:${[...all].sort((a, b) => b.length - a.length).join('|')})(?![\\p{L}\\p{N}])`,
      'giu',
    ),
  ]),
);

const tongue = (language: string): string => language.slice(0, 2);

/** Fillers in their words, by the first of these: most sentences say none of them, and are not looked through. */
const byFirst = new Map<string, ReadonlyMap<string, readonly (readonly string[])[]>>(
  Object.entries(FILLERS).map(([language, all]) => {
    const of = new Map<string, string[][]>();
    for (const filler of all) {
      const [first, ...rest] = filler.toLowerCase().split(' ');
      of.set(first!, [...(of.get(first!) ?? []), rest]);
    }
    return [language, of];
  }),
);

/** Whether one of the fillers stands in a row of words. */
function saysFiller(lower: readonly string[], language: string): boolean {
  const of = byFirst.get(tongue(language));
  if (of === undefined) return false;
  return lower.some((word, at) => of.get(word)?.some((rest) => rest.every((next, i) => lower[at + 1 + i] === next)));
}

export interface Wording {
  isPassive: boolean;
  fillers: readonly string[];
}

/** How a sentence is worded, given its words in small letters as well. */
export function wordingOf(sentence: string, lower: readonly string[], language: string): Wording {
  return {
    isPassive: maybePassive(lower, language) && isPassive(sentence, language),
    fillers: saysFiller(lower, language) ? fillersIn(sentence, language) : [],
  };
}

/** Words that say nothing, as they stand in a text, in order; none in a language there is no list of. */
export function fillersIn(text: string, language: string): string[] {
  const pattern = patterns.get(tongue(language));
  return pattern ? [...text.matchAll(pattern)].map(([words]) => words) : [];
}

const list = (words: string) => new Set(words.split(' '));
const BE = list('am is are was were be been being get gets got');
/** May stand between a form of ‘be’ and its participle. */
const BETWEEN = list('not never always often usually also then only still already now soon mostly best well');
/** Participles that do not end in -ed. */
const IRREGULAR = list(
  'beaten become begun bent bitten blown born bound bought broken brought built burnt caught chosen come cut dealt done drawn driven drunk eaten fallen fed felt fought found frozen given gone grown heard held hidden hit hung kept known laid led left lent let lit lost made meant met paid put read ridden rung said seen sent set sewn shaken shot shown shut slept sold spent spoken spread stolen stood struck stuck sung sunk swept swum taken taught thought thrown told torn understood wept woken won worn wound written',
);
/** End in -ed and are none after ‘be’: what somebody or something is like. */
const LIKE = list('tired need indeed red bed seed speed feed weed shed hundred sacred naked wicked interested pleased');
const WERDEN = list('wird werden wurde wurden werde wirst wurdest worden');
const GERMAN_PARTICIPLE =
  /^(?:\p{L}{0,6}ge\p{L}{2,}(?:t|en)|(?:be|ver|er|ent|zer|miss|über|unter|wieder)\p{L}{2,}(?:t|en)|\p{L}{3,}iert)$/u;

/** Whether a sentence is in the passive: ‘be’ with a participle, or ‘werden’ with one in its clause. */
export function isPassive(sentence: string, language: string): boolean {
  const of = tongue(language);
  if (of !== 'en' && of !== 'de') return false;
  // A clause by itself: 'it is said, and he tired' is one of each.
  return sentence.split(/[,;:–—]/).some((clause) => {
    const words = wordsOfText(clause, language).map((word) => word.toLowerCase());
    if (of === 'de')
      return words.some((word) => WERDEN.has(word)) && words.some((word) => GERMAN_PARTICIPLE.test(word));
    return hasParticiple(words);
  });
}

/** Whether words may be in the passive, wherever their clauses end: most sentences are seen not to be by this alone. */
const maybePassive = (lower: readonly string[], language: string): boolean =>
  tongue(language) === 'de' ? lower.some((word) => WERDEN.has(word)) : hasParticiple(lower);

/** A form of ‘be’ with a participle behind it. */
const hasParticiple = (words: readonly string[]): boolean =>
  words.some((word, at) => {
    if (!BE.has(word)) return false;
    let next = at + 1;
    while (next < words.length && (BETWEEN.has(words[next]!) || words[next]!.endsWith('ly'))) next++;
    const said = words[next] ?? '';
    return IRREGULAR.has(said) || (said.endsWith('ed') && said.length > 4 && !LIKE.has(said));
  });

/** Whether it can be told of texts in a language how they are worded. */
export const wordsItKnows = (language: string): boolean => patterns.has(tongue(language));
