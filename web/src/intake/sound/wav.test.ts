import { expect, test } from 'vitest';
import { loudness, wavOf } from './wav.ts';

test('a WAV file tells its rate and length, and holds the samples, cut at the ends of the scale', async () => {
  const bytes = new DataView(await wavOf([Float32Array.of(0, 1), Float32Array.of(-2, 0.5)], 16_000).arrayBuffer());
  const text = (at: number) => String.fromCharCode(...Array.from({ length: 4 }, (_, i) => bytes.getUint8(at + i)));
  expect([text(0), text(8), text(36)]).toEqual(['RIFF', 'WAVE', 'data']);
  expect([bytes.getUint32(4, true), bytes.getUint32(24, true), bytes.getUint32(40, true)]).toEqual([44, 16_000, 8]);
  expect([0, 1, 2, 3].map((i) => bytes.getInt16(44 + i * 2, true))).toEqual([0, 32_767, -32_767, 16_384]);
});

test('silence is not loud, and full waves are', () => {
  expect(loudness(new Float32Array(100))).toBe(0);
  expect(loudness(new Float32Array(100).fill(1))).toBe(1);
  expect(loudness(new Float32Array(100).fill(0.05))).toBeGreaterThan(0.4);
});
