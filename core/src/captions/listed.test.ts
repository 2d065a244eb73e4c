import { expect, test } from 'vitest';
import { lines, textsIn } from '../testing/corpus.ts';
import { readCaptions } from './parse.ts';
import { spokenPassages } from './passages.ts';
import { sentenceEnds } from './sentenceEnds.ts';
import { spokenOf } from './spoken.ts';

/** What was written, as it is heard: without stops and capitals. */
const heard = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}\s’'-]/gu, ' ')
    .split(/\s+/)
    .filter((word) => /[\p{L}\p{N}]/u.test(word));

/** Pauses as somebody speaks who breathes at most ends, and here and there elsewhere. */
const pausesOf = (text: string): number[] => {
  const words = text.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word));
  return words.map((_, at) =>
    at > 0 && /[.?!]["”“]?$/.test(words[at - 1]!) && at % 5 !== 0 ? 0.8 : at % 17 === 0 ? 0.45 : 0.05,
  );
};

test.each(['en', 'de'] as const)('where sentences end that were only heard (%s)', async (language) => {
  const parted = textsIn(language, 40).flatMap((text) => {
    const words = heard(text);
    return [[], pausesOf(text).slice(0, words.length)].map((pauses) => {
      const ends = new Set(sentenceEnds(words, language, pauses));
      return words.map((word, at) => (ends.has(at + 1) ? `${word} /` : word)).join(' ');
    });
  });
  await expect(lines(parted)).toMatchFileSnapshot(`listed/sentences-${language}.txt`);
});

const clock = (seconds: number) => new Date(seconds * 1_000).toISOString().slice(11, 23);

/** Captions of a text, five words each. */
function captionsOf(text: string, form: 'vtt' | 'srt', stops: boolean): string {
  const words = stops ? text.split(/\s+/) : heard(text);
  const cues: string[] = [];
  for (let at = 0, from = 1; at < words.length; at += 5) {
    const some = words.slice(at, at + 5);
    const to = from + some.length * 0.4;
    const line = `${clock(from)} --> ${clock(to)}`;
    cues.push(`${form === 'srt' ? `${at / 5 + 1}\n${line.replaceAll('.', ',')}` : line}\n${some.join(' ')}\n`);
    from = to + (/[.?!]$/.test(some.at(-1)!) ? 0.9 : 0.04);
  }
  return `${form === 'vtt' ? 'WEBVTT\n\n' : ''}${cues.join('\n')}`;
}

test('what is said in captions of either form, and its passages', async () => {
  const all = textsIn('en', 9).flatMap((text, n) =>
    (['vtt', 'srt'] as const).flatMap((form) =>
      [true, false].flatMap((stops) => {
        const read = readCaptions(captionsOf(`${text} ${textsIn('en', 30)[n + 10]}`, form, stops));
        if (!read.ok) return [read.problem];
        const { cues, ...more } = read;
        const { spoken, ...rest } = spokenOf(cues, 'en');
        const chapters =
          n % 2 === 0
            ? []
            : [
                { start: 9, title: 'The middle' },
                { start: 30, title: 'The end' },
              ];
        const {
          passages,
          chapters: parts,
          words,
        } = spokenPassages(
          spoken,
          { address: 'https://crockhaven.example/v', title: 'V', language: 'en', digest: 'd' },
          chapters,
        );
        return [
          `= ${form}, ${stops ? 'with' : 'without'} stops: ${JSON.stringify(more)} ${JSON.stringify(rest)} ${words} words`,
          ...parts.map(
            ({ title, words: own, passages: ids }) => `  ${title || 'no title'}: ${own} words in ${ids.length}`,
          ),
          ...passages.map(({ text: own, locator }) => `  ${locator.place} (${locator.seconds}): ${own}`),
        ];
      }),
    ),
  );
  await expect(lines(all)).toMatchFileSnapshot('listed/passages.txt');
});

test('captions that roll up, grow, overlap and hold more than words', async () => {
  const shown: [number, number, string][][] = [
    [
      [0, 2, 'first line'],
      [2, 4, 'first line\nsecond line'],
      [4, 6, 'second line\nthird line'],
      [6, 8, 'third line'],
    ],
    [
      [0, 1, 'we take'],
      [1, 2, 'we take two'],
      [2, 3, 'we take two jars'],
      [3, 5, 'and salt'],
    ],
    [
      [0, 2, 'um, we take the the salt'],
      [2, 4, '[music] and [laughs] a jar'],
      [4, 6, '♪ la la ♪'],
      [9, 11, '>> INES: and now the lid.'],
    ],
    [
      [0, 2, '<v Ines>Salt &amp; water</v>'],
      [2, 4, '<i>slowly</i>, {b}now'],
      [4, 6, '- So.\n- Yes.'],
    ],
    [
      [0, 2, 'a'],
      [2, 4, 'a\na'],
      [4, 6, 'a'],
    ],
  ];
  const all = shown.flatMap((cues, n) => {
    const text = `WEBVTT\n\n${cues.map(([from, to, said]) => `${clock(from)} --> ${clock(to)}\n${said}\n`).join('\n')}`;
    const read = readCaptions(text);
    if (!read.ok) return [read.problem];
    const { spoken, left } = spokenOf(read.cues);
    return [`= ${n} ${JSON.stringify(left)}`, ...spoken.map((one) => JSON.stringify(one))];
  });
  await expect(lines(all)).toMatchFileSnapshot('listed/rolled.txt');
});
