/** A stream of numbers in [0, 1), the same for the same seed. */
export type Chance = () => number;

/** 53-bit digest of a text (cyrb53, public domain): tells changed text from unchanged, no protection against forgers. */
export function textDigest(text: string, seed = 0): string {
  return digestNumber(text, seed).toString(36).padStart(11, '0');
}

/** Seeded chance (mulberry32, public domain) for choices that must come out the same when repeated. */
export function chanceFrom(seed: string): Chance {
  let state = digestNumber(seed, 7) >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

function digestNumber(text: string, seed: number): number {
  let h1 = 0xdeadbeef ^ seed;
  let h2 = 0x41c6ce57 ^ seed;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    h1 = Math.imul(h1 ^ code, 2_654_435_761);
    h2 = Math.imul(h2 ^ code, 1_597_334_677);
  }
  h1 = Math.imul(h1 ^ (h1 >>> 16), 2_246_822_507) ^ Math.imul(h2 ^ (h2 >>> 13), 3_266_489_909);
  h2 = Math.imul(h2 ^ (h2 >>> 16), 2_246_822_507) ^ Math.imul(h1 ^ (h1 >>> 13), 3_266_489_909);
  return 4_294_967_296 * (2_097_151 & h2) + (h1 >>> 0);
}
