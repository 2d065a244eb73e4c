import { expect, test } from 'vitest';
import { heardIn, samplesOf, secondsToSay, spokenSamples, wavOf } from './tones.ts';

const SAID = 'Salt it at 2.2 per cent. Grün & frisch? Then press it down!';

test('what is put into tones is heard again, in sentences with their times', () => {
  const heard = heardIn(spokenSamples(SAID));
  expect(heard.map(({ text }) => text)).toEqual(['Salt it at 2.2 per cent.', 'Grün & frisch?', 'Then press it down!']);
  // A mark of six tones lies between them.
  expect(heard[1]!.start - heard[0]!.end).toBeCloseTo(0.12, 5);
  expect(heard.at(-1)!.end).toBeCloseTo(secondsToSay(SAID), 1);
  for (const { sure } of heard) expect(sure).toBeGreaterThan(0.8);
});

test('through noise, at another rate, quieter and begun late it is heard too, less surely', () => {
  const spoken = spokenSamples(SAID, 0.2);
  const late = new Float32Array(spoken.length + 5_003);
  late.set(spoken, 5_003);
  let seed = 7;
  for (let i = 0; i < late.length; i++) {
    seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31;
    late[i] = late[i]! + (seed / 2 ** 31 - 0.5) * 0.05;
  }
  const heard = heardIn(samplesOf(wavOf(late))!);
  expect(heard.map(({ text }) => text).join(' ')).toBe(SAID);
  expect(heard[0]!.sure).toBeLessThan(heardIn(spoken)[0]!.sure);
});

test('a gap in the sound costs the sentence it lies in, and no other', () => {
  const spoken = spokenSamples(SAID);
  // 37 milliseconds are dropped in the middle of the second sentence.
  const at = Math.round(heardIn(spoken)[1]!.start * 8_000) + 1_500;
  const gapped = new Float32Array(spoken.length - 296);
  gapped.set(spoken.subarray(0, at));
  gapped.set(spoken.subarray(at + 296), at);
  const heard = heardIn(gapped);
  expect(heard[0]!.text).toBe('Salt it at 2.2 per cent.');
  expect(heard.at(-1)!.text).toBe('Then press it down!');
  expect(heard.map(({ text }) => text)).not.toContain('Grün & frisch?');
});

test('silence and what is no WAV say nothing', () => {
  expect(heardIn(new Float32Array(16_000))).toEqual([]);
  expect(samplesOf(Buffer.from('no sound'))).toBeNull();
});
