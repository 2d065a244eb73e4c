/** Samples a second that a recording of the microphone has: what transcribers work with. */
export const RATE = 16_000;

/** Samples from -1 to 1 as a WAV file of 16 bits and one channel (RIFF, Microsoft and IBM 1991). */
export function wavOf(parts: readonly Float32Array[], rate = RATE): Blob {
  const count = parts.reduce((sum, part) => sum + part.length, 0);
  const file = new DataView(new ArrayBuffer(44 + count * 2));
  const text = (at: number, letters: string) => {
    for (let i = 0; i < letters.length; i++) file.setUint8(at + i, letters.charCodeAt(i));
  };
  text(0, 'RIFF');
  file.setUint32(4, 36 + count * 2, true);
  text(8, 'WAVEfmt ');
  file.setUint32(16, 16, true);
  file.setUint16(20, 1, true);
  file.setUint16(22, 1, true);
  file.setUint32(24, rate, true);
  file.setUint32(28, rate * 2, true);
  file.setUint16(32, 2, true);
  file.setUint16(34, 16, true);
  text(36, 'data');
  file.setUint32(40, count * 2, true);
  let at = 44;
  for (const part of parts)
    for (const sample of part) {
      file.setInt16(at, Math.round(Math.max(-1, Math.min(1, sample)) * 32_767), true);
      at += 2;
    }
  return new Blob([file.buffer], { type: 'audio/wav' });
}

/** How loud a stretch of samples is, from 0 to 1: the root of the mean square, on a scale that shows speech. */
export function loudness(samples: Float32Array): number {
  let sum = 0;
  for (const sample of samples) sum += sample * sample;
  const decibels = 10 * Math.log10(sum / Math.max(1, samples.length) + 1e-10);
  return Math.max(0, Math.min(1, (decibels + 60) / 60));
}
