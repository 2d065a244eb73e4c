/** Cutting running text into sentences and words. Uses the Unicode rules of the platform (UAX 29), with mends for abbreviations. */
import { isPlain, plainSentences, plainWords } from './plain.ts';
import { remembered } from './remembered.ts';

const segmenters = new Map<string, Intl.Segmenter>();

function segmenter(language: string, granularity: 'sentence' | 'word'): Intl.Segmenter {
  const key = `${language}/${granularity}`;
  let found = segmenters.get(key);
  if (!found) {
    found = new Intl.Segmenter(language, { granularity });
    segmenters.set(key, found);
  }
  return found;
}

const ABBREVIATION = /(?:^|\s)(?:e\.g|i\.e|etc|approx|ca|bzw|usw|z\. ?B|d\. ?h|Dr|Mr|Mrs|St|No|Nr|vs)\.\s*$/;

/** A number before a full stop is an ordinal in German: 'am 5. Januar', 'im 17. Jahrhundert'. */
const ORDINAL = /(?:^|\s)\d{1,2}\.\s*$/;

/** Letters handed to a segmenter at once: over long runs of some letters it takes a time that grows as their square. */
const WORDS_AT_ONCE = 1_000;
const SENTENCES_AT_ONCE = 4_000;

/** A text in pieces of at most so many letters, parted where it may be: after a sentence, at a space, else anywhere. */
function* piecesOf(text: string, most: number, ends: RegExp): Generator<string> {
  let from = 0;
  while (text.length - from > most) {
    const window = text.slice(from, from + most);
    let end = 0;
    for (const { index } of window.slice(most >> 1).matchAll(ends)) end = (most >> 1) + index + 1;
    if (end === 0) end = window.lastIndexOf(' ') + 1;
    if (end === 0) end = isHigh(window.charCodeAt(most - 1)) ? most - 1 : most;
    yield text.slice(from, from + end);
    from += end;
  }
  yield from === 0 ? text : text.slice(from);
}

/** The first half of a letter that is written as two. */
function isHigh(code: number): boolean {
  return code >= 0xd800 && code < 0xdc00;
}

/** Long texts that were parted last: one is looked at from several sides in a row. */
const parted = new Map<string, readonly string[]>();
const MOST_PARTED = 40;
const [SHORTEST_PARTED, LONGEST_PARTED] = [1_000, 100_000];

/** The text that was parted last: what is held against one thing after the other is the same. */
let last: { text: string; language: string; sentences: readonly string[] } = { text: '', language: '', sentences: [] };

/** Sentences of a text, trimmed, in order. */
export function sentencesOf(text: string, language = 'en'): string[] {
  if (last.text !== text || last.language !== language) last = { text, language, sentences: partedOf(text, language) };
  return [...last.sentences];
}

function partedOf(text: string, language: string): readonly string[] {
  if (text.length < SHORTEST_PARTED || text.length > LONGEST_PARTED) return partedNow(text, language);
  const key = `${language} ${text}`;
  const before = parted.get(key);
  if (before) return before;
  const now = partedNow(text, language);
  if (parted.size >= MOST_PARTED) parted.delete(parted.keys().next().value!);
  parted.set(key, now);
  return now;
}

/** Languages in which other signs than elsewhere end a sentence: a Greek question ends in a semicolon. */
const OWN_ENDS = /^el\b/;

/** Whether a text is parted by our own rules: then no word of it goes over the end of a sentence. */
export const isCutPlainly = (text: string, language: string): boolean => !OWN_ENDS.test(language) && isPlain(text);

/** Spaces that are no single ones. */
const UNEVEN = / \s|[^\S ]/;

function partedNow(text: string, language: string): string[] {
  const even = UNEVEN.test(text) ? text.replace(/\s+/g, ' ') : text;
  // A tenth of the time of a segmenter; a test holds the two against each other.
  const isCutByUs = isCutPlainly(even, language);
  const out: string[] = [];
  for (const piece of piecesOf(even, SENTENCES_AT_ONCE, /[.?!…] (?=[\p{Lu}“"‘'])/gu))
    for (const segment of isCutByUs ? plainSentences(piece) : segmentedSentences(piece, language)) {
      const before = out[out.length - 1];
      const goesOn =
        before !== undefined &&
        (ABBREVIATION.test(before.slice(-16)) || (language === 'de' && ORDINAL.test(before.slice(-5))));
      if (goesOn) out[out.length - 1] = before + segment;
      else out.push(segment);
    }
  return out.map((s) => s.trim()).filter((s) => s !== '');
}

/** Sentences of a piece of a text as the platform's segmenter cuts them, for any script, each with what stands behind it. */
export const segmentedSentences = (piece: string, language = 'en'): string[] =>
  Array.from(segmenter(language, 'sentence').segment(piece), ({ segment }) => segment);

/** Words of a text as they stand, without punctuation. */
export function wordsOfText(text: string, language = 'en'): string[] {
  // Nine tenths of the time of a segmenter saved; a test holds the two against each other.
  if (isPlain(text)) return plainWords(text);
  // No word goes over a space, so one letter that is not plain makes only its own word slow.
  const out: string[] = [];
  for (const part of text.split(/\s+/))
    out.push(...(isPlain(part) ? plainWords(part) : segmentedWords(part, language)));
  return out;
}

/** Pictures and signs one after the other, without a space: no words, and the segmenter takes long over them. */
const SIGNS = /(?:(?!\s)[\p{So}\p{Sk}\p{Cc}\p{Cn}]){3,}/gu;

/** The same by the platform's segmenter, for any script. */
export function segmentedWords(text: string, language = 'en'): string[] {
  const out: string[] = [];
  for (const piece of piecesOf(text.replace(SIGNS, ' '), WORDS_AT_ONCE, /\s/gu))
    for (const part of segmenter(language, 'word').segment(piece)) if (part.isWordLike) out.push(part.segment);
  return out;
}

export function countWords(text: string, language = 'en'): number {
  return wordsOfText(text, language).length;
}

const STOP: Record<string, ReadonlySet<string>> = {
  en: new Set(
    'a an and are as at be been but by can could did do does for from had has have how i if in into is it its just may me might more most much my no not of off on one or our out over own per should so some such than that the their them then there these they this those to too under up us use very was we were what when where which while who why will with would you your'.split(
      ' ',
    ),
  ),
  de: new Set(
    'aber als am an auch auf aus bei bin bis da das dass dem den der des die doch du durch ein eine einem einen einer es fur hat ich im in ist ja kann man mit muss nach nicht noch nur ob oder sein sich sie sind so uber um und uns vom von vor wann war was wenn wer wie wir wird wo zu zum zur'.split(
      ' ',
    ),
  ),
};

/** Words that carry the subject: folded, stop words out, and cut to a rough stem so that plurals meet. */
export function contentStems(text: string, language = 'en'): string[] {
  return stemsOfWords(wordsOfText(fold(text), language), language);
}

/** The same of words that are folded already. */
export function stemsOfWords(words: readonly string[], language = 'en'): string[] {
  const stop = STOP[language] ?? STOP['en']!;
  return words
    .filter((word) => !stop.has(word) && (word.length > 2 || /\d/.test(word)))
    .map((word) => stem(word, language));
}

/** Letters that have no other form and no accent. */
const ASCII = /^[\0-\x7f]*$/;
/** The same, and letters of which folding takes an accent and nothing else; no sign that becomes another, or a space. */
const LETTER_BY_LETTER =
  /^[\t\n\r\u0020-\u005e\u0060-\u007e\u00a1-\u00a7\u00ab\u00ac\u00b0\u00b1\u00b6\u00bb\u00bf-\u00ff\u2013\u2014\u2018-\u201e]*$/;

/** Whether the words of a text, each folded, are the words of the text folded. */
export const isFoldedByWord = (text: string): boolean => LETTER_BY_LETTER.test(text);

/** Case and accents folded, spaces evened. */
export function fold(text: string): string {
  return withoutAccents(text).toLowerCase().replace(/\s+/g, ' ').trim();
}

/** Letters in their plain forms, without the marks on them. */
export const withoutAccents = (text: string): string =>
  ASCII.test(text) ? text : text.normalize('NFKD').replace(/\p{M}+/gu, '');

/** A light suffix stemmer: enough to join 'crocks' with 'crock' and 'fermenting' with 'ferment', no more. */
export const stem = (word: string, language = 'en'): string => stemmed(word, language);

const stemmed = remembered(stemNow);

function stemNow(word: string, language: string): string {
  if (language === 'de')
    return word.replace(/(?:ern|en|er|es|em|e|n|s)$/u, (end) => (word.length - end.length >= 4 ? '' : end));
  if (word.length <= 3) return word;
  let s = word.replace(/(?:'s|’s)$/u, '');
  s = OWN_PLURALS.get(s) ?? s;
  if (s.endsWith('ies') && s.length > 4) s = `${s.slice(0, -3)}y`;
  else if (/(?:sses|shes|ches|xes|oes)$/.test(s)) s = s.slice(0, -2);
  else if (s.endsWith('s') && !s.endsWith('ss') && !s.endsWith('us')) s = s.slice(0, -1);
  for (const end of ['ations', 'ation', 'ingly', 'edly', 'ing', 'ed', 'er', 'ly']) {
    if (s.endsWith(end) && s.length - end.length >= 4) {
      s = s.slice(0, -end.length);
      if (/([bdgmnprt])\1$/.test(s)) s = s.slice(0, -1);
      break;
    }
  }
  return s.endsWith('e') && s.length > 4 ? s.slice(0, -1) : s;
}

/** Plurals that no ending tells: 'knives' is searched for by who asks for a 'knife'. Not those that are verbs too ('leaves'). */
const OWN_PLURALS: ReadonlyMap<string, string> = new Map(
  'knives/knife wives/wife loaves/loaf shelves/shelf halves/half wolves/wolf calves/calf thieves/thief scarves/scarf hooves/hoof children/child men/man women/woman feet/foot teeth/tooth geese/goose mice/mouse oxen/ox'
    .split(' ')
    .map((pair) => pair.split('/') as [string, string]),
);

/** Plural of an English noun, as far as it is regular. */
export function pluralOf(word: string): string {
  if (/(?:s|x|z|ch|sh)$/i.test(word)) return `${word}es`;
  if (/[^aeiou]y$/i.test(word)) return `${word.slice(0, -1)}ies`;
  return `${word}s`;
}

/** Share of the first text's stems that the second holds, 0 to 1. */
export function stemCover(of: readonly string[], by: ReadonlySet<string>): number {
  if (of.length === 0) return 0;
  const wanted = new Set(of);
  let met = 0;
  for (const s of wanted) if (by.has(s)) met++;
  return met / wanted.size;
}
