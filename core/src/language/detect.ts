import { fold } from '../sentence/sentence.ts';

/** Words that tell a language, folded; hardly any of them is common in another of these. */
const TELLING: Record<string, readonly string[]> = {
  en: 'the and of to is it that you was for are with this have they not but what be at from on'.split(' '),
  de: 'der die das und ist nicht ein eine ich sie es mit auf den dem im auch sich wie wenn werden fur'.split(' '),
  nl: 'het een van en niet dat zijn op te voor met ook maar bij naar als nog wordt uit deze dan hij'.split(' '),
  fr: 'le les des est et une dans pour pas que qui sur avec vous nous mais ce cette sont au du'.split(' '),
  es: 'el los las es y una para no que con por como pero del al lo mas este esta son se'.split(' '),
  pt: 'o os as e um uma para nao que com por como mas do da dos das no na ao em mais se'.split(' '),
  it: 'il lo gli e un una per non che con come ma del della dei nel nella al piu sono di si'.split(' '),
  sv: 'och att det som en ar inte pa av for med den till har om ett vi jag sig fran eller var'.split(' '),
  da: 'og at det som en er ikke pa af for med den til har om et vi jeg sig fra eller var de'.split(' '),
  pl: 'i w na nie sie jest to ze do jak ale z od po przez tak juz dla czy lub sa bo co'.split(' '),
  cs: 'a v na ne se je to ze do jak ale z od po jsou jsme nebo pro by jeste uz si kdyz tak'.split(' '),
  sk: 'a v na nie sa je to ze do ako ale z od po su sme alebo pre by este uz si ked tak'.split(' '),
};

/** Letters that hardly stand but in a language, each word with one counts as half a word that tells it. */
const LETTERS: Record<string, RegExp> = {
  de: /ß/u,
  es: /[ñ¿¡]/u,
  pt: /[ãõ]/u,
  sv: /[åäö]/u,
  da: /[æø]|å/u,
  pl: /[łąęśżźńć]/u,
  cs: /[řěů]/u,
  sk: /[ľĺŕôä]|ia\b|ie\b/u,
};

/** Scripts of one language, or of one that is by far the likeliest. */
const SCRIPTS: readonly (readonly [string, RegExp])[] = [
  ['ja', /[\p{sc=Hiragana}\p{sc=Katakana}]/gu],
  ['ko', /\p{sc=Hangul}/gu],
  ['zh', /\p{sc=Han}/gu],
  ['ar', /\p{sc=Arabic}/gu],
  ['he', /\p{sc=Hebrew}/gu],
  ['el', /\p{sc=Greek}/gu],
  ['ru', /\p{sc=Cyrillic}/gu],
  ['hi', /\p{sc=Devanagari}/gu],
  ['th', /\p{sc=Thai}/gu],
];
/** Of the letters of a text, the share a script must have; Japanese is written with Chinese letters among its own. */
const LEAST_SHARE = 0.25;
const LEAST_LETTERS = 8;

/** How many different small words of a language a text must have to be in it. */
const LEAST_WORDS = 2;

/**
 * The language of a text by its script, or by its small words and some letters: for the browser, and for processes that
 * read what others sent, where the tables of a library would weigh too much. Null when it is too short or like none of
 * English, German, Dutch, French, Spanish, Portuguese, Italian, Swedish, Danish, Polish, Czech and Slovak.
 */
export function languageOf(text: string): string | null {
  const read = text.slice(0, 20_000);
  const letters = read.match(/\p{L}/gu)?.length ?? 0;
  for (const [language, script] of letters >= LEAST_LETTERS ? SCRIPTS : [])
    if ((read.match(script)?.length ?? 0) > letters * LEAST_SHARE) return language;
  const raw = read.toLowerCase().match(/\p{L}+/gu) ?? [];
  if (raw.length < 5) return null;
  const words = raw.map((word) => fold(word));
  const scores = Object.entries(TELLING).map(([language, telling]) => {
    const set = new Set(telling);
    const hits = words.filter((word) => set.has(word));
    const sign = LETTERS[language];
    const signs = sign ? raw.filter((word) => sign.test(word)).length / 2 : 0;
    // One word tells nothing: ‘no’ is English and Spanish, ‘die’ is English and German.
    return { language, share: new Set(hits).size < LEAST_WORDS ? 0 : (hits.length + signs) / words.length };
  });
  scores.sort((a, b) => b.share - a.share);
  const [best, second] = scores;
  return best!.share >= 0.08 && best!.share > second!.share * 1.15 ? best!.language : null;
}
