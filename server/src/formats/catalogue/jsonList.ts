/** Objects that may lie round the list. */
const MOST_ROUND = 3;
/** Deeper than anything shops write. */
const DEEPEST = 200;
/** Bytes of one entry: all that is in memory of a list at a time, beside its bytes. */
const LONGEST_ENTRY = 2_000_000;

export type JsonList =
  | {
      ok: true;
      /** Objects in the list. */
      count: number;
      /** Where the first of them begin and end, one after the other. */
      ranges: number[];
    }
  | { ok: false; problem: string };

const [QUOTE, BACKSLASH, LIST, LIST_END, OBJECT, OBJECT_END] = [34, 92, 91, 93, 123, 125];

/**
 * The longest list of objects in a text of JSON (RFC 8259) with at most three objects round it, found without making
 * anything of the text: read whole, one of 60 MB takes ten times its size.
 * @param bytes in UTF-8
 * @param most entries whose places are told
 */
export function longestList(bytes: Uint8Array, most: number): JsonList {
  /** What is open, the outermost first. */
  const open: number[] = [];
  let best: { count: number; ranges: number[] } = { count: 0, ranges: [] };
  let now = { count: 0, ranges: [] as number[] };
  /** How deep the list lies whose entries are being counted; below 0 outside of any. */
  let list = -1;
  let began = 0;
  for (let at = 0; at < bytes.length; at++) {
    const byte = bytes[at];
    if (byte === QUOTE) {
      at = endOfString(bytes, at + 1);
      if (at < 0) return broken('a text in it has no end');
    } else if (byte === LIST || byte === OBJECT) {
      if (list < 0 && byte === LIST && open.length <= MOST_ROUND) {
        list = open.length;
        now = { count: 0, ranges: [] };
      } else if (list >= 0 && open.length === list + 1) began = at;
      if (open.length >= DEEPEST) return { ok: false, problem: 'its JSON lies too deep in itself' };
      open.push(byte);
    } else if (byte === LIST_END || byte === OBJECT_END) {
      if (open.pop() !== (byte === LIST_END ? LIST : OBJECT))
        return broken(`a bracket at byte ${at + 1} closes nothing`);
      if (list < 0) continue;
      if (open.length === list) {
        if (now.count > best.count) best = now;
        list = -1;
      } else if (open.length === list + 1 && byte === OBJECT_END) {
        now.count++;
        if (at + 1 - began > LONGEST_ENTRY)
          return { ok: false, problem: `entry ${now.count} of it is longer than ${LONGEST_ENTRY / 1_000_000} MB` };
        if (now.count <= most) now.ranges.push(began, at + 1);
      }
    }
  }
  return open.length > 0 ? broken('it ends in the middle') : { ok: true, ...best };
}

/** Where a text's closing quote is; below 0 where there is none. */
function endOfString(bytes: Uint8Array, from: number): number {
  for (let at = from; ; at++) {
    at = bytes.indexOf(QUOTE, at);
    if (at < 0) return -1;
    let slashes = 0;
    while (at - 1 - slashes >= from && bytes[at - 1 - slashes] === BACKSLASH) slashes++;
    if (slashes % 2 === 0) return at;
  }
}

function broken(why: string): JsonList {
  return { ok: false, problem: `it is broken JSON (${why})` };
}
