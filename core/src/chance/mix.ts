/** Mixes the bits of a hash so that each depends on all (the finalizer of MurmurHash3, public domain); a signed 32-bit figure. */
export function mixed(hash: number): number {
  let h = hash ^ (hash >>> 16);
  h = Math.imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  return h ^ (h >>> 16);
}
