/** Reading texts of any subject: sentences, stems, likeness. The model knows nothing else. */

const segmenters: Record<string, Intl.Segmenter> = {};

export function sentencesOf(text: string, language: string): string[] {
  segmenters[language] ??= new Intl.Segmenter(language, { granularity: 'sentence' });
  const out: string[] = [];
  for (const { segment } of segmenters[language].segment(text.replace(/\s+/g, ' '))) {
    const last = out[out.length - 1];
    if (last !== undefined && /\b(?:e\.g|i\.e|etc|ca|z\. ?B|d\. ?h|bzw|Dr|St)\.\s*$/.test(last))
      out[out.length - 1] = last + segment;
    else out.push(segment);
  }
  return out.map((s) => s.trim()).filter((s) => s !== '');
}

const STOP = new Set(
  'a an and are as at be been between but by can do does for from has have how i if in into is it its may more most no not of off on one or our out over so some such than that the their them then there these they this those to too up was we were what when where which while who why will with you your der die das und oder ein eine einen einem einer den dem des ist sind im in auf mit von zu zum zur für nicht auch sich es man wie was wenn dass bei als aus um so noch nur über er sie wird werden kann zwischen'.split(
    ' ',
  ),
);

export function stemsOf(text: string): string[] {
  return (
    text
      .toLowerCase()
      .normalize('NFKD')
      .replace(/\p{M}+/gu, '')
      .match(/[\p{L}\p{N}]+/gu) ?? []
  )
    .filter((word) => !STOP.has(word) && word.length > 1)
    .map(stem);
}

function stem(word: string): string {
  if (word.length <= 4) return word.replace(/s$/, '');
  return word
    .replace(/(?:ies)$/, 'y')
    .replace(/(?:ing|ings|ed|es|s|en|er|e|n|ly)$/, (end) => (word.length - end.length >= 3 ? '' : end));
}

/** A word a text uses, by its stem: the shortest form of it that was met, and how often. */
export interface CountedWord {
  stem: string;
  word: string;
  n: number;
}

/** Words of at least so many letters that say something, each once. */
export function countedWords(text: string, letters: number): CountedWord[] {
  const counts = new Map<string, CountedWord>();
  for (const word of text.match(/\p{L}+/gu) ?? []) {
    const [stem] = word.length >= letters ? stemsOf(word) : [];
    if (!stem) continue;
    const entry = counts.get(stem) ?? { stem, word, n: 0 };
    counts.set(stem, { stem, word: entry.word.length <= word.length ? entry.word : word, n: entry.n + 1 });
  }
  return [...counts.values()];
}

/** The most used first, then by letters. */
export const byUse = (a: CountedWord, b: CountedWord): number => b.n - a.n || (a.word < b.word ? -1 : 1);

export function countWords(text: string): number {
  return (text.match(/[\p{L}\p{N}][\p{L}\p{N}'’.,-]*/gu) ?? []).length;
}

/** Share of the smaller text's stems that the other holds too. */
export function overlap(a: ReadonlySet<string>, b: ReadonlySet<string>): number {
  const [small, large] = a.size <= b.size ? [a, b] : [b, a];
  if (small.size === 0) return 0;
  let met = 0;
  for (const s of small) if (large.has(s)) met++;
  return met / small.size;
}

export function hashOf(text: string): number {
  let h = 2_166_136_261;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 16_777_619);
  return (h ^ (h >>> 15)) >>> 0;
}

/** A stream of choices that comes out the same for the same request, whenever it is asked. */
export function choicesFrom(seed: string): (options: number) => number {
  let state = hashOf(seed) || 1;
  return (options) => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    state >>>= 0;
    return state % Math.max(1, options);
  };
}
