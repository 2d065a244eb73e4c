/** Base 32 without the letters people misread (i, l, o, u); ascending in ASCII, so ids sort by their time. */
const ALPHABET = '0123456789abcdefghjkmnpqrstvwxyz';
const TIME_DIGITS = 9;
const TAIL_DIGITS = 11;

export type Ids = () => string;

/**
 * Makes time-ordered ids of 20 characters: 45 bits of milliseconds, then 55 bits of chance. Within one millisecond the
 * tail counts upward, so ids of one maker always ascend. They are made by the application and never assumed consecutive.
 * @param now milliseconds since 1970
 * @param random a number in [0, 1)
 */
export function makeIds(now: () => number, random: () => number): Ids {
  let lastMs = -1;
  let tail: number[] = [];
  // All but the last digit: it stays the same for 32 ids of a millisecond.
  let head = '';
  return () => {
    const ms = Math.max(now(), lastMs);
    const last = tail[TAIL_DIGITS - 1]! + 1;
    if (ms === lastMs && last < 32) {
      tail[TAIL_DIGITS - 1] = last;
      return head + ALPHABET[last];
    }
    if (ms === lastMs) raise(tail);
    else tail = Array.from({ length: TAIL_DIGITS }, (_, i) => Math.floor(random() * (i === 0 ? 16 : 32)));
    lastMs = ms;
    head =
      digitsOf(ms, TIME_DIGITS) +
      tail
        .slice(0, -1)
        .map((d) => ALPHABET[d])
        .join('');
    return head + ALPHABET[tail[TAIL_DIGITS - 1]!];
  };
}

/** The smallest id that could have been made at this time: ids made before it sort below. */
export function firstIdAt(ms: number): string {
  return digitsOf(ms, TIME_DIGITS) + '0'.repeat(TAIL_DIGITS);
}

function raise(tail: number[]): void {
  for (let i = tail.length - 1; i >= 0; i--) {
    const next = (tail[i] ?? 0) + 1;
    tail[i] = next % 32;
    if (next < 32) return;
  }
}

function digitsOf(value: number, digits: number): string {
  let out = '';
  let rest = value;
  for (let i = 0; i < digits; i++) {
    out = ALPHABET[rest % 32] + out;
    rest = Math.floor(rest / 32);
  }
  return out;
}
