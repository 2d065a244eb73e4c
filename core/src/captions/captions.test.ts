import * as fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { clockOf, secondsOf } from './cue.ts';
import { readCaptions } from './parse.ts';
import { spokenCarries, spokenPassages } from './passages.ts';
import { sentenceEnds } from './sentenceEnds.ts';
import { spokenOf } from './spoken.ts';

function cuesOf(text: string) {
  const read = readCaptions(text);
  if (!read.ok) throw new Error(read.problem);
  return read;
}
const said = (text: string, language = 'en') => spokenOf(cuesOf(text).cues, language);

describe('reading captions', () => {
  test('a first cue right after the head is read, with or without its number', () => {
    for (const number of ['', '1\n'])
      expect(
        cuesOf(`WEBVTT\n${number}00:01.000 --> 00:02.000\nThe first\n\n00:03.000 --> 00:04.000\nThe second`),
      ).toMatchObject({ cues: [{ lines: ['The first'] }, { lines: ['The second'] }] });
  });

  test('WebVTT with styles, notes, regions, settings and overlapping cues', () => {
    const read = cuesOf(`\ufeffWEBVTT - Bench

STYLE
::cue { color: lime }

REGION
id:one

NOTE by hand

intro
00:01.000 --> 00:04.500 align:start position:10%
<v Ines>Three jars, <c.yellow>one</c> of them soft.</v>

00:03.000 --> 00:06.000
Same cabbage &amp; same Sunday.
`);
    expect(read).toMatchObject({ format: 'WebVTT', faults: [] });
    expect(read.cues.map(({ start, end }) => [start, end])).toEqual([
      [1, 4.5],
      [3, 6],
    ]);
    expect(spokenOf(read.cues).spoken.map(({ text }) => text)).toEqual([
      'Three jars, one of them soft.',
      'Same cabbage & same Sunday.',
    ]);
  });

  test('SRT with wrong numbers, a missing empty line, short times, and a cue that ends before it begins', () => {
    const read = cuesOf(
      '7\r\n00:00:01,000 --> 00:00:02,000\r\nOne.\r\n7\r\n00:00:02,5 --> 00:00:03,000\r\nTwo.\r\n\r\nseven\r\n00:00:09,000 --> 00:00:08,000\r\nNever.\r\n\r\nLost words\r\n\r\n9\r\n00:10 -> 00:11\r\nThree.',
    );
    expect(read.format).toBe('SRT');
    expect(read.cues.map(({ start, lines }) => [start, lines.join('|')])).toEqual([
      [1, 'One.'],
      [2.5, 'Two.'],
      [10, 'Three.'],
    ]);
    expect(read.faults).toEqual([
      { line: 9, problem: 'it ends (00:00:08,000) before it begins (00:00:09,000)' },
      { line: 12, problem: '‘Lost words’ has no times' },
    ]);
  });

  test('what is no captions file says so', () => {
    expect(readCaptions('Dear Ines,\nthe crocks have arrived.')).toMatchObject({ ok: false });
    expect(readCaptions('WEBVTT\n\n')).toEqual({ ok: false, problem: 'it holds no caption that can be read' });
  });

  test('times are read as people write them', () => {
    expect(['00:12', '4:55', '1:02:03', '295', 'soon', ''].map(secondsOf)).toEqual([12, 295, 3_723, 295, null, null]);
    fc.assert(fc.property(fc.nat(200_000), (n) => secondsOf(clockOf(n)) === n));
  });

  test('no text whatever makes it throw, and what it reads is in order', () => {
    const part = fc.oneof(
      fc.string({ maxLength: 20 }),
      fc.constantFrom(
        'WEBVTT',
        '\n\n',
        '00:01 --> 00:02',
        '00:00:05,000 --> 00:00:01,000',
        '1',
        '<b>',
        'NOTE',
        '\r',
        '[music]',
      ),
    );
    fc.assert(
      fc.property(fc.array(part, { maxLength: 30 }), (parts) => {
        const read = readCaptions(parts.join('\n'));
        if (!read.ok) return;
        expect([...read.cues].sort((a, b) => a.start - b.start)).toEqual(read.cues);
        spokenOf(read.cues);
      }),
      { numRuns: 400 },
    );
  });
});

describe('what was said', () => {
  test('lines that roll up are said once, and words that grow are one caption', () => {
    const rolling = said(`WEBVTT

00:00.000 --> 00:02.000
we weigh the salt

00:02.000 --> 00:04.000
we weigh the salt
never the spoon

00:04.000 --> 00:06.000
never the spoon
and we write it on the lid

00:06.000 --> 00:06.500
and we write it on the lid so I
`);
    expect(rolling.spoken.map(({ text }) => text)).toEqual([
      'We weigh the salt never the spoon and we write it on the lid so I.',
    ]);
    expect(rolling.left.repeats).toBe(3);
  });

  test('fillers, sounds and speakers fall away; sentences are joined over captions, each with its time', () => {
    const { spoken, left } = said(`WEBVTT

00:00.000 --> 00:04.000
[Kettle] Right. Um, three jars,

00:04.000 --> 00:08.000
INES: same cabbage. And, uh, one of them
(chair) bends.
`);
    expect(spoken.map(({ text }) => text)).toEqual(['Right.', 'Three jars, same cabbage.', 'And, one of them bends.']);
    expect(spoken[1]!.start).toBeGreaterThan(0);
    expect(spoken[1]!.start).toBeLessThan(4);
    expect(spoken[2]!.start).toBeGreaterThan(4);
    expect(left).toEqual({ fillers: 2, repeats: 0, sounds: 2 });
  });

  test('captions without punctuation are parted at pauses, and where there is none at what looks like a beginning', () => {
    const { spoken } = said(`WEBVTT

00:00.000 --> 00:02.000
we cut the cabbage fine

00:02.100 --> 00:04.000
and salt it at once

00:06.000 --> 00:08.000
then we wait

00:08.000 --> 00:12.000
every october i get the same message it says

00:12.000 --> 00:16.000
my crock ran over in the night and there is brine under

00:16.000 --> 00:20.000
the cupboard the answer is always that it was too full
`);
    expect(spoken.map(({ text }) => text)).toEqual([
      'We cut the cabbage fine and salt it at once.',
      'Then we wait.',
      'Every october I get the same message.',
      'It says my crock ran over in the night and there is brine under the cupboard.',
      'The answer is always that it was too full.',
    ]);
    expect(spoken[4]!.start).toBeCloseTo(16.73, 1);
  });

  test('words that have times of their own are parted by the silence before them, at whatever pace, fillers or not', () => {
    const text =
      'so I heat the stick. Over a lamp, never a flame, it gives. Most people stop too soon. Um, mine took ten minutes and it held';
    for (const pace of [0.7, 1, 1.6]) {
      let at = 1;
      const line = text
        .split(' ')
        .map((word, i) => {
          const own = `${i === 0 ? '' : `<00:00:${at.toFixed(3).padStart(6, '0')}>`}<c>${word.toLowerCase().replace(/[.,]/g, '')} </c>`;
          at += (0.12 + 0.05 * word.length + (word.endsWith('.') ? 0.6 : word.endsWith(',') ? 0.15 : 0)) * pace;
          return own;
        })
        .join('');
      const { spoken } = said(`WEBVTT\n\n00:01.000 --> 00:59.000\nwe begin\n${line}\n`);
      expect(spoken.map((one) => one.text)).toEqual([
        'We begin so I heat the stick.',
        'Over a lamp never a flame it gives.',
        'Most people stop too soon.',
        'Mine took ten minutes and it held.',
      ]);
    }
  });

  test('times of words out of order, doubled or wrong take no word away', () => {
    const { spoken } = said(
      'WEBVTT\n\n00:01.000 --> 00:09.000\nwe<00:00:07.000> press<00:00:02.000> it<00:00:02.000> down<99:99:99.000> and<00:00:03.000> wait\n',
    );
    expect(spoken.map(({ text }) => text).join(' ')).toBe('We press it down and wait.');
  });

  test('running words of a machine are parted where a sentence can end and another begin', () => {
    const parted = (text: string, language: string) => {
      const words = text.split(' ');
      const ends = sentenceEnds(words, language);
      return ends.map((end, i) => words.slice(ends[i - 1] ?? 0, end).join(' '));
    };
    expect(
      parted(
        'i bought this bow at a market for almost nothing it had no hair and the stick was bent so we heated it over a lamp and pressed it straight',
        'en',
      ),
    ).toEqual([
      'i bought this bow at a market for almost nothing',
      'it had no hair and the stick was bent',
      'so we heated it over a lamp and pressed it straight',
    ]);
    expect(
      parted(
        'the bridge stands between the notches and it must not lean if it leans the strings pull it down slacken the strings a little',
        'en',
      )[0],
    ).toBe('the bridge stands between the notches and it must not lean');
    expect(
      parted(
        'der steg steht zwischen den kerben und er darf nicht kippen wenn er kippt ziehen die saiten ihn um',
        'de',
      ),
    ).toEqual([
      'der steg steht zwischen den kerben und er darf nicht kippen',
      'wenn er kippt ziehen die saiten ihn um',
    ]);
  });

  test('every word stays, in its order, whatever is said', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('it', 'the', 'water', 'goes', 'and', 'so', 'we', 'in', 'lid', '12')),
        (words) => {
          const ends = sentenceEnds(words, 'en');
          expect(ends.at(-1) ?? 0).toBe(words.length);
          expect([...ends].sort((a, b) => a - b)).toEqual(ends);
        },
      ),
    );
  });

  test('German fillers are German', () => {
    expect(
      said('1\n00:00:00,000 --> 00:00:02,000\nÄhm, das Kraut, äh, steht im Keller. Er ist kühl.', 'de').spoken.map(
        ({ text }) => text,
      ),
    ).toEqual(['Das Kraut, steht im Keller.', 'Er ist kühl.']);
  });
});

describe('passages of what was said', () => {
  const spoken = Array.from({ length: 40 }, (_, i) => ({
    start: i * 10,
    end: i * 10 + 9,
    text: `Sentence ${i} has some ten words so that it fills up.`,
  }));
  const about = { address: 'https://bench.example/v', title: 'Soft', language: 'en', digest: 'd' };

  test('keep to chapters, know their time, and lose nothing', () => {
    const chapters = [
      { start: 0, title: 'Three jars' },
      { start: 95, title: 'Salt' },
    ];
    const { passages, chapters: found, words } = spokenPassages(spoken, about, chapters);
    expect(passages.map(({ text }) => text).join(' ')).toBe(spoken.map(({ text }) => text).join(' '));
    expect(found.map(({ title }) => title)).toEqual(['Three jars', 'Salt']);
    const salt = passages.find(({ id }) => id === found[1]!.passages[0]);
    expect(salt).toMatchObject({
      text: expect.stringMatching(/^Sentence 10 /),
      locator: { seconds: 100, place: '01:40, Salt' },
    });
    expect(words).toBe(440);
    expect(spokenCarries(words)).toBe(290);
  });

  test('a range takes only what is said in it', () => {
    const { passages } = spokenPassages(spoken, about, [], { from: 50, to: 80 });
    expect(passages.map(({ text }) => text).join(' ')).toBe(
      spoken
        .slice(5, 8)
        .map(({ text }) => text)
        .join(' '),
    );
  });
});
