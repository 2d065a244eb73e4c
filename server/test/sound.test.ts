import { spokenSamples, wavOf } from '@grivo/standins';
import { expect, test } from 'vitest';
import { aboutSound, mostSeconds } from '../src/formats/media/aboutSound.ts';
import { readHeard } from '../src/ports/adapters/heard.ts';
import { microsOf } from '../src/ports/adapters/transcriber.ts';

test('a WAV file tells how long it is, by what there is of it', () => {
  const file = wavOf(spokenSamples('Salt at two per cent.'));
  const seconds = (file.length - 44) / 16_000;
  expect(aboutSound(file, file.length)).toEqual({ form: 'WAV', mime: 'audio/wav', seconds });
  expect(aboutSound(file, file.length / 2)?.seconds).toBeLessThan(seconds / 1.9);
});

test.each([
  ['ID3\u0003', 'MP3'],
  ['\u00ff\u00fb\u0090d', 'MP3'],
  ['\0\0\0 ftypM4A ', 'MP4'],
  ['OggS\0', 'Ogg'],
  ['fLaC\0', 'FLAC'],
  ['\u001aE\u00df\u00a3', 'WebM'],
])('%j is %s, of a length that only hearing it tells', (text, form) => {
  const about = aboutSound(Buffer.from(text, 'latin1'), 150_000);
  expect(about).toMatchObject({ form, seconds: null });
  // The slowest packing there is: never less than it lasts.
  expect(mostSeconds(about!, 150_000)).toBe(100);
});

test('what is no recording is none', () => {
  expect(aboutSound(Buffer.from('<!doctype html>'), 100)).toBeNull();
  expect(aboutSound(Buffer.alloc(0), 0)).toBeNull();
});

test('a begun second counts whole', () => {
  const price = { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0, microsPerMinute: 6_000 };
  expect(microsOf({ price }, 60)).toBe(6_000);
  expect(microsOf({ price }, 0.2)).toBe(100);
  expect(microsOf({ price: { ...price, microsPerMinute: undefined } }, 60)).toBe(0);
});

test('how sure a transcriber is, of each part and on the whole by how long each lasts', () => {
  const reply = (segments: object[]) => Buffer.from(JSON.stringify({ duration: 10, segments }));
  const read = readHeard(
    reply([
      { start: 0, end: 9, text: ' sure', avg_logprob: Math.log(0.9) },
      { start: 9, end: 10, text: 'not', avg_logprob: Math.log(0.1) },
      { start: 10, end: 10, text: '  ' },
    ]),
  );
  expect(read).toMatchObject({
    ok: true,
    heard: {
      segments: [
        { text: 'sure', sure: 90 },
        { text: 'not', sure: 10 },
      ],
      sure: 72,
    },
  });
  expect(readHeard(reply([{ start: 0, end: 1, text: 'a' }]))).toMatchObject({ ok: true, heard: { sure: null } });
  expect(readHeard(Buffer.from('{"text": "all"}'))).toEqual({ ok: false, problem: 'it holds no timed text' });
});
