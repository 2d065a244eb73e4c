/**
 * Speech of the stand-ins: letters put into tones, sixteen of them, two to a letter, so that what is said can be heard out
 * of the sound again, through a microphone too. A tone lasts 20 milliseconds; a mark of six opens each sentence, so that
 * after a gap in the sound the next one is found again.
 */
const RATE = 8_000;
const SAMPLES = 160;
const LOWEST_HZ = 600;
const STEP_HZ = 150;
const MARK = [0, 15, 0, 15, 7, 8] as const;
const QUIET = 0.004;

const hertz = (tone: number): number => LOWEST_HZ + tone * STEP_HZ;
const SECONDS = SAMPLES / RATE;

const sentencesOf = (text: string): string[] =>
  text
    .replace(/\s+/g, ' ')
    .trim()
    .split(/(?<=[.!?]) (?=\S)/);

/** A text as sound: samples from -1 to 1 at 8,000 a second. */
export function spokenSamples(text: string, loud = 0.5): Float32Array {
  const tones = sentencesOf(text).flatMap((sentence) => [
    ...MARK,
    ...[...Buffer.from(sentence, 'utf8')].flatMap((byte) => [byte >> 4, byte & 15]),
  ]);
  const out = new Float32Array(tones.length * SAMPLES);
  tones.forEach((tone, n) => {
    for (let i = 0; i < SAMPLES; i++) {
      // Tones swell and fade, so that none runs into the next.
      const swell = Math.min(1, i / 16, (SAMPLES - i) / 16);
      out[n * SAMPLES + i] = loud * swell * Math.sin((2 * Math.PI * hertz(tone) * i) / RATE);
    }
  });
  return out;
}

/** Samples as a WAV file of 16 bits, one channel. */
export function wavOf(samples: Float32Array, rate = RATE): Buffer {
  const file = Buffer.alloc(44 + samples.length * 2);
  file.write('RIFF', 0);
  file.writeUInt32LE(36 + samples.length * 2, 4);
  file.write('WAVEfmt ', 8);
  file.writeUInt32LE(16, 16);
  file.writeUInt16LE(1, 20);
  file.writeUInt16LE(1, 22);
  file.writeUInt32LE(rate, 24);
  file.writeUInt32LE(rate * 2, 28);
  file.writeUInt16LE(2, 32);
  file.writeUInt16LE(16, 34);
  file.write('data', 36);
  file.writeUInt32LE(samples.length * 2, 40);
  for (const [i, sample] of samples.entries())
    file.writeInt16LE(Math.round(Math.max(-1, Math.min(1, sample)) * 32_767), 44 + i * 2);
  return file;
}

/** Samples of a WAV file at 8,000 a second, or null when it is none that is read (PCM of 8 or 16 bits). */
export function samplesOf(file: Buffer): Float32Array | null {
  if (file.toString('latin1', 0, 4) !== 'RIFF' || file.toString('latin1', 8, 12) !== 'WAVE') return null;
  let at = 12;
  let about: { form: number; channels: number; rate: number; bits: number } | null = null;
  while (at + 8 <= file.length) {
    const name = file.toString('latin1', at, at + 4);
    const size = Math.min(file.readUInt32LE(at + 4), file.length - at - 8);
    if (name === 'fmt ' && size >= 16)
      about = {
        form: file.readUInt16LE(at + 8),
        channels: file.readUInt16LE(at + 10),
        rate: file.readUInt32LE(at + 12),
        bits: file.readUInt16LE(at + 22),
      };
    if (name === 'data') {
      if (about?.form !== 1 || (about.bits !== 8 && about.bits !== 16) || about.rate < 4_000 || about.channels < 1)
        return null;
      return resampled(file.subarray(at + 8, at + 8 + size), about);
    }
    at += 8 + size + (size % 2);
  }
  return null;
}

function resampled(
  data: Buffer,
  { channels, rate, bits }: { channels: number; rate: number; bits: number },
): Float32Array {
  const width = (bits / 8) * channels;
  const count = Math.floor(data.length / width);
  const sample = (i: number): number =>
    bits === 16 ? data.readInt16LE(i * width) / 32_768 : (data.readUInt8(i * width) - 128) / 128;
  const out = new Float32Array(Math.floor((count * RATE) / rate));
  for (let n = 0; n < out.length; n++) {
    const place = (n * rate) / RATE;
    const i = Math.floor(place);
    const part = place - i;
    out[n] = sample(i) * (1 - part) + (i + 1 < count ? sample(i + 1) * part : 0);
  }
  return out;
}

/** How strong a tone is in a stretch of samples (Goertzel 1958). */
function strength(samples: Float32Array, from: number, tone: number): number {
  const turn = 2 * Math.cos((2 * Math.PI * hertz(tone)) / RATE);
  let before = 0;
  let last = 0;
  for (let i = 0; i < SAMPLES; i++) {
    const now = (samples[from + i] ?? 0) + turn * last - before;
    before = last;
    last = now;
  }
  return (last * last + before * before - turn * last * before) / (SAMPLES * SAMPLES);
}

function heardTone(samples: Float32Array, from: number): { tone: number; sure: number; loud: number } {
  const all = Array.from({ length: 16 }, (_, tone) => strength(samples, from, tone));
  const sum = all.reduce((total, one) => total + one, 0);
  const loudest = Math.max(...all);
  return { tone: all.indexOf(loudest), sure: sum === 0 ? 0 : loudest / sum, loud: Math.sqrt(loudest) };
}

/** How well the mark lies at a place: 0 when it does not. */
function marked(samples: Float32Array, at: number): number {
  let sum = 0;
  for (const [n, tone] of MARK.entries()) {
    const heard = heardTone(samples, at + n * SAMPLES);
    if (heard.loud < QUIET || heard.tone !== tone) return 0;
    sum += heard.sure;
  }
  return sum / MARK.length;
}

/** Where the next mark lies best, in samples from a place on; null when there is none. */
function nextMark(samples: Float32Array, from: number): number | null {
  let best: { at: number; fits: number } | null = null;
  for (let at = from; at + MARK.length * SAMPLES < samples.length; at += 20) {
    const fits = marked(samples, at);
    if (fits > (best?.fits ?? 0.5)) best = { at, fits };
    else if (best && at > best.at + SAMPLES) break;
  }
  return best?.at ?? null;
}

export interface HeardSentence {
  start: number;
  end: number;
  text: string;
  /** From 0 to 1. */
  sure: number;
}

/** Tones heard so unsurely that what follows lies elsewhere, as after a gap. */
const LOST = 0.4;
const MOST_LOST = 4;

/** What is said in samples, in sentences with their times, and how sure it was heard. */
export function heardIn(samples: Float32Array): HeardSentence[] {
  const out: HeardSentence[] = [];
  for (let mark = nextMark(samples, 0); mark !== null; ) {
    const sentence = heardAt(samples, mark + MARK.length * SAMPLES);
    if (sentence.text !== '') out.push(sentence);
    const end = Math.round(sentence.end * RATE);
    mark = marked(samples, end) > 0.5 ? end : nextMark(samples, end);
  }
  return out;
}

/** The sentence that begins at a place: until the next mark, silence, or what cannot be made out. */
function heardAt(samples: Float32Array, from: number): HeardSentence {
  const letters: { byte: number; sure: number }[] = [];
  let lost = 0;
  let at = from;
  for (; at + 2 * SAMPLES <= samples.length + 40; at += 2 * SAMPLES) {
    if (letters.length > 0 && marked(samples, at) > 0.5) break;
    const [high, low] = [heardTone(samples, at), heardTone(samples, at + SAMPLES)];
    if (high.loud < QUIET && low.loud < QUIET) break;
    const sure = Math.min(high.sure, low.sure);
    lost = sure < LOST ? lost + 1 : 0;
    letters.push({ byte: high.tone * 16 + low.tone, sure });
    if (lost >= MOST_LOST) break;
  }
  const made = lost >= MOST_LOST ? letters.slice(0, -MOST_LOST) : letters;
  return {
    start: from / RATE,
    end: at / RATE,
    // What lies beyond letters was not said.
    text: Buffer.from(made.map(({ byte }) => byte))
      .toString('utf8')
      .replace(/[\u0000-\u001f\ufffd]/g, '')
      .trim(),
    sure: letters.reduce((sum, one) => sum + one.sure, 0) / Math.max(1, letters.length),
  };
}

/** How long a text takes to say. */
export function secondsToSay(text: string): number {
  const sentences = sentencesOf(text);
  const letters = sentences.reduce((sum, one) => sum + Buffer.byteLength(one, 'utf8'), 0);
  return (sentences.length * MARK.length + letters * 2) * SECONDS;
}
