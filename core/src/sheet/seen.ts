import { mixed } from '../chance/mix.ts';

/** Places are found by the lower bits of a hash; at most so full, so that few are tried. */
const FULLEST = 0.7;
const FIRST_PLACES = 32_768;
/** Growing writes everything once more, so it is done seldom. */
const GROWTH = 8;
/** What stands at a place: both halves of the hash and where it was met; 0 there is an empty place. */
const LOW = 0;
const HIGH = 1;
const AT = 2;
/** A place begins where a line of the processor's memory can. */
const WIDTH = 4;

/**
 * Remembers where texts were first met, by 64 bits of each: two texts out of a million are taken for one with a chance of
 * one in thirty million. Sixteen bytes a place and no object, where a Map of a million texts takes a second.
 */
export class FirstMet {
  private places = FIRST_PLACES;
  private table = new Int32Array(FIRST_PLACES * WIDTH);
  private held = 0;

  /**
   * @param at where it is met now, from 1
   * @returns where it was met first; 0 when this is the first time
   */
  meet(text: string, at: number): number {
    hashOf(text, HASH);
    const low = HASH[0]!;
    const high = HASH[1]!;
    if (this.held >= this.places * FULLEST) this.grow();
    const place = this.placeOf(low, high);
    const before = this.table[place + AT]!;
    if (before !== 0) return before;
    this.put(place, low, high, at);
    this.held++;
    return 0;
  }

  /** The place a hash has, or the empty one it would get. */
  private placeOf(low: number, high: number): number {
    const { table } = this;
    const mask = this.places * WIDTH - 1;
    let place = (low & (this.places - 1)) * WIDTH;
    while (table[place + AT] !== 0 && (table[place + LOW] !== low || table[place + HIGH] !== high))
      place = (place + WIDTH) & mask;
    return place;
  }

  private put(place: number, low: number, high: number, at: number): void {
    this.table[place + LOW] = low;
    this.table[place + HIGH] = high;
    this.table[place + AT] = at;
  }

  private grow(): void {
    const before = this.table;
    this.places *= GROWTH;
    this.table = new Int32Array(this.places * WIDTH);
    for (let i = 0; i < before.length; i += WIDTH) {
      const at = before[i + AT]!;
      if (at === 0) continue;
      const low = before[i + LOW]!;
      const high = before[i + HIGH]!;
      this.put(this.placeOf(low, high), low, high, at);
    }
  }
}

/** The hash of the text just met; made once, since a pair for each of a million texts would be a million objects. */
const HASH = new Int32Array(2);

/** Writes two hashes of a text, made in one go and mixed at the end (multiplications of MurmurHash3's finalizer). */
function hashOf(text: string, into: Int32Array): void {
  let low = 0x9e3779b9 ^ text.length;
  let high = 0x85ebca6b ^ text.length;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    low = Math.imul(low ^ code, 0x01000193);
    high = Math.imul(high ^ code, 0x5bd1e995);
    high ^= high >>> 13;
  }
  into[0] = mixed(low);
  into[1] = mixed(high ^ Math.imul(low, 0xc2b2ae35));
}
