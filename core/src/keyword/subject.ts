import { verbOf } from '../sentence/irregular.ts';
import { contentStems, fold, stem, wordsOfText } from '../sentence/sentence.ts';
import { spelt } from './spelling.ts';

/** What is said in a phrase, the sign that stands for it, and words it counts beside only: they are taken along. */
type Way = readonly [sign: string, words: string, beside?: string];

const TO_KNOW = 'need to know|should know|have to know|want to know';

/**
 * What parts one subject from another though it is about the same thing, however it is put: how long something keeps and how
 * it is made are two articles, 'shelf life' and 'how long does it last' are one. The first that fits takes its words. A way
 * without a sign parts nothing: 'a guide to'.
 */
const WAYS: Record<'en' | 'de', readonly Way[]> = {
  en: [
    ['', `everything|all`, `(?:(?:you|one|to) )?(?:${TO_KNOW}|know)(?: about)?`],
    ['', `what (?:you|one) (?:${TO_KNOW})(?: about)?`],
    ['', "(?:complete |ultimate |short |simple |full )*(?:beginner'?s?'? )?guides?"],
    [
      '',
      'tips|tutorials?|explained|instructions?|step by step|for beginners?|basics|yourself|at home|properly|correctly',
    ],
    ['', 'the (?:right|proper|correct)(?: way(?: to)?)?|right(?= $)'],
    ['without', 'without|free|no'],
    ['not', "not|never|[a-z]+n't"],
    ['instead', 'substitutes?|alternatives?|instead(?: of)?|replacements?'],
    ['', '(?:what )?(?:to|can (?:i|you|we|one)) use'],
    ['keeps how long', 'shelf[ -]life'],
    ['keeps how long', 'how long|how many (?:days|weeks|months)', 'keeps?|kept|lasts?|good|stored'],
    ['how often', 'how often'],
    ['how much', 'how (?:much|many (?:litres|grams|cups|spoons|kilos|metres|pounds|ounces))|quantity|amount'],
    ['how many', 'how many'],
    ['how long', 'how long|how many (?:minutes|hours|days|weeks|months|years)|times?(?= $)|duration'],
    ['how warm', '(?:what )?temperatures?|how (?:hot|warm|cold)'],
    ['when', '(?:best |right )?(?:time|month|season)(?: of year)? (?:to|for)|when|in the year'],
    ['where from', 'where', 'comes? from|from'],
    ['where from', 'history|origins?'],
    ['buy', 'where (?:to|can (?:i|you|we)|do i) (?:buy|get|find)|buy(?:ing)?|shops?|near me|for sale'],
    ['why', 'why|causes?|reasons?'],
    ['safe', '(?:safe|dangerous|harmful|poisonous|toxic|safety)(?: to (?:eat|use|drink))?'],
    ['good for', '(?:health )?benefits?|good for (?:you|us|me)|healthy'],
    ['risks', 'risks?|dangers?|side effects?'],
    ['used up', 'what to do with|uses?(?= (?:for|of) )|us(?:e|ing) up'],
    ['best', 'best|which|ideal|what(?= (?!is |are |was |to |do |does |can |should |you |i |we |happens |size )[a-z])'],
    ['or', 'vs|versus|or|compared (?:to|with)|differences? between'],
    ['made', 'home ?made|diy|recipes?|from scratch|mak(?:e|es|ing)|made|prepar(?:e|es|ing|ation)'],
    ['mended', 'repair(?:s|ed|ing)?|fix(?:es|ed|ing)?|mend(?:s|ed|ing)?'],
    ['chosen', 'cho(?:ose|oses|osing)|pick(?:s|ing)?|select(?:s|ing)?'],
    ['kept', 'stor(?:e|es|ed|ing|age)|keep(?:s|ing)?|kept'],
    ['taken off', 'get(?:ting)? rid of|remov(?:e|es|ing|al)|get(?:ting)?(?= (?:.* )?(?:out|off) )|out of|off|from'],
    ['', 'good|needs?|goes|going|gets?|getting'],
  ],
  de: [
    [
      '',
      'anleitung(?:en)?|tipps?|ratgeber|schritt fur schritt|fur anfanger|selbst|selber|richtig|zu hause|brauch(?:t|en)',
    ],
    ['without', 'ohne|frei'],
    ['not', 'nicht|nie|kein[a-z]*'],
    ['instead', 'ersatz|alternativen?|statt|anstelle|anstatt'],
    ['keeps how long', 'haltbarkeit'],
    ['keeps how long', 'wie lange', 'halt(?:en|bar)?(?: sich)?'],
    ['how often', 'wie oft'],
    ['how much', 'wie ?viele?|menge'],
    ['how long', 'wie lange|dauer'],
    ['how warm', 'temperatur(?:en)?|wie (?:warm|kalt|heiss)'],
    ['when', 'wann|(?:die )?beste (?:zeit|zeitpunkt)'],
    ['where from', 'geschichte|herkunft|ursprung|woher(?: (?:kommt|kommen|stammt|stammen))?'],
    ['where to', 'wohin'],
    ['buy', 'wo (?:kauf[a-z]*|bekomm[a-z]*|gibt es)|kaufen'],
    ['why', 'warum|wieso|weshalb|ursachen?'],
    ['safe', 'sicher|gefahrlich|giftig|schadlich'],
    ['good for', 'gesund|vorteile?'],
    ['best', 'beste[rsmn]?|welche[rsmn]?'],
    ['or', 'oder|vs'],
    ['made', 'rezepte?|machen|macht|herstell[a-z]*|zubereit[a-z]*|selbstgemacht[a-z]*'],
    ['mended', 'reparier[a-z]*|reparatur|ausbesser[a-z]*'],
    ['kept', 'aufbewahr[a-z]*|lager[nt]|lagerung'],
    ['taken off', 'entfern[a-z]*|loswerden'],
  ],
};

/** A pattern over text whose words are parted by single spaces, one before the first and one behind the last. */
const between = (words: string): RegExp => new RegExp(`(?<= )(?:${words})(?= )`, 'g');
const READ = Object.fromEntries(
  Object.entries(WAYS).map(([language, ways]) => [
    language,
    ways.map(([sign, words, beside]) => ({ sign, words: between(words), beside: beside ? between(beside) : null })),
  ]),
);

/**
 * What a phrase is about as one sign, the same for phrases one article answers however they put it: 'how to freeze plums',
 * 'can plums be frozen' and 'freezing plums'. Words count by their roots, in any order; ways of asking by what they ask.
 * It errs to the side of two: words of like meaning stay two words. Null where nothing is left to tell by.
 */
export function subjectSign(phrase: string, language = 'en'): string | null {
  return signIn(phrase.slice(0, LONGEST), language.slice(0, 2));
}

function signIn(phrase: string, language: string): string | null {
  const ways = READ[language];
  if (!ways) {
    const stems = contentStems(phrase, language);
    return stems.length === 0 ? null : [...new Set(stems)].sort().join(' ');
  }
  let rest = ` ${fold(spelt(phrase, 'British')).replaceAll('ß', 'ss').replaceAll('’', "'").match(WORD)?.join(' ') ?? ''} `;
  const signs = new Set<string>();
  for (const { sign, words, beside } of ways) {
    if (rest.search(words) < 0 || (beside && rest.search(beside) < 0)) continue;
    rest = rest
      .replace(words, ' ')
      .replace(beside ?? NOTHING, ' ')
      .replace(/ +/g, ' ');
    if (sign !== '') signs.add(`@${sign}`);
  }
  const roots = new Set(wordsOfText(rest, language).flatMap((word) => rootOf(word, language) ?? []));
  return roots.size === 0 ? null : [...[...roots].sort(), ...[...signs].sort()].join(' ');
}

/** Letters of a phrase that are looked at: subjects are no longer. */
const LONGEST = 500;
const WORD = /[\p{L}\p{N}']+/gu;
const NOTHING = /(?!)/g;

/** Endings of nouns and verbs, one taken after the other: 'Kräuter', 'Kräutern' and 'Kraut', 'schneidet' and 'schneiden'. */
const GERMAN_ENDS = [/(?<=...)(?:en|es|em|e|s|(?<=[erl])n)$/, /(?<=....)e?t$/, /(?<=....)er$/, /(?<=..[aeiouhlnr])t$/];

/** What is the same in all forms of a word; null where it carries nothing. */
function rootOf(word: string, language: string): string | null {
  if (contentStems(word, language).length === 0) return null;
  if (language === 'de') {
    return GERMAN_ENDS.reduce((root, end) => root.replace(end, ''), word);
  }
  const root = stem(verbOf(word), 'en');
  const bare = root.endsWith('ing') && /[aeiouy]./.test(root.slice(0, -3)) ? root.slice(0, -3) : root;
  return bare.length > 2 && bare.endsWith('e') ? bare.slice(0, -1) : bare;
}
