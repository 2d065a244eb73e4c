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

/** Words that one of the fillers begins with: most sentences have none of them, and are not looked through. */
const firstWords = new Map<string, ReadonlySet<string>>(
  Object.entries(FILLERS).map(([language, all]) => [
    language,
    new Set(all.map((filler) => filler.split(' ')[0]!.toLowerCase())),
  ]),
);

export interface Wording {
  isPassive: boolean;
  fillers: readonly string[];
}

/** How a sentence is worded, given its words as well. */
export function wordingOf(sentence: string, words: readonly string[], language: string): Wording {
  const first = firstWords.get(tongue(language));
  const forms = PASSIVE_FORMS[tongue(language)];
  const lower = words.map((word) => word.toLowerCase());
  return {
    isPassive: forms !== undefined && lower.some((word) => forms.has(word)) && isPassive(sentence, language),
    fillers: first !== undefined && lower.some((word) => first.has(word)) ? fillersIn(sentence, language) : [],
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
/** Without one of these no sentence is in the passive. */
const PASSIVE_FORMS: Readonly<Record<string, ReadonlySet<string>>> = { en: BE, de: WERDEN };
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
    return words.some((word, at) => {
      if (!BE.has(word)) return false;
      let next = at + 1;
      while (next < words.length && (BETWEEN.has(words[next]!) || /ly$/.test(words[next]!))) next++;
      const said = words[next] ?? '';
      return IRREGULAR.has(said) || (/ed$/.test(said) && said.length > 4 && !LIKE.has(said));
    });
  });
}

/** Whether it can be told of texts in a language how they are worded. */
export const wordsItKnows = (language: string): boolean => patterns.has(tongue(language));
