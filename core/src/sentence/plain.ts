/** Text of plain Latin letters, figures and punctuation, which nearly all is here: cut by the rules of UAX 29, without a segmenter. */

/** Letters, figures and signs of which a text is plain. */
const PLAIN =
  /^[\t\n\r\u0020-\u005e\u0060-\u007e\u00a0-\u00ac\u00ae-\u00b4\u00b6\u00b8-\u00ff\u2013\u2014\u2018-\u201e\u2026]*$/;

export const isPlain = (text: string): boolean => PLAIN.test(text);

/** Its words: letters joined by a stop, colon or apostrophe inside, figures by the marks of numbers (rules WB5 to WB12). */
const PLAIN_WORD =
  /(?:[0-9A-Za-z\u00aa\u00ba\u00c0-\u00d6\u00d8-\u00f6\u00f8-\u00ff]|(?<=[A-Za-z\u00aa\u00ba\u00c0-\u00d6\u00d8-\u00f6\u00f8-\u00ff])[.:'\u2018\u2019](?=[A-Za-z\u00aa\u00ba\u00c0-\u00d6\u00d8-\u00f6\u00f8-\u00ff])|(?<=[0-9])[.,;'\u2018\u2019](?=[0-9]))+/g;

/** Words of a plain text, without punctuation. */
export const plainWords = (text: string): string[] => text.match(PLAIN_WORD) ?? [];

const OTHER = 0;
const LOWER = 1;
const UPPER = 2;
const FIGURE = 3;
const CLOSING = 4;
const SPACE = 5;
const GOES_ON = 6;
const ENDS = 7;

/** What a letter or sign is to the end of a sentence (UAX 29, table 4). */
const KINDS = new Uint8Array(0x2030);
const are = (letters: string, kind: number) => {
  for (const letter of letters) KINDS[letter.charCodeAt(0)] = kind;
};
const range = (from: number, to: number) =>
  Array.from({ length: to - from + 1 }, (_, i) => String.fromCharCode(from + i)).join('');
are(`${range(0x61, 0x7a)}ªº${range(0xdf, 0xf6)}${range(0xf8, 0xff)}`, LOWER);
are(`${range(0x41, 0x5a)}${range(0xc0, 0xd6)}${range(0xd8, 0xde)}`, UPPER);
are('0123456789', FIGURE);
are('()[]{}"\'«»‘’‚‛“”„', CLOSING);
are(' ', SPACE);
are(',-:;–—', GOES_ON);
are('.!?', ENDS);

/**
 * Sentences of a plain text whose spaces are single ones, each with the space behind it (rules SB6 to SB11). Linear: what is
 * looked at ahead of a stop ends at the next one.
 */
export function plainSentences(text: string): string[] {
  const out: string[] = [];
  const kindAt = (at: number) => KINDS[text.charCodeAt(at)] ?? OTHER;
  let from = 0;
  for (let at = 0; at < text.length; at++) {
    if (kindAt(at) !== ENDS) continue;
    const isStop = text.charCodeAt(at) === 0x2e;
    let next = at + 1;
    if (isStop && goesOnAtOnce(at === 0 ? OTHER : kindAt(at - 1), kindAt(next))) continue;
    while (next < text.length && kindAt(next) === CLOSING) next++;
    while (next < text.length && kindAt(next) === SPACE) next++;
    const kind = next < text.length ? kindAt(next) : OTHER;
    const goesOn = kind === GOES_ON || kind === ENDS || (isStop && isFollowedByLower(next));
    if (!goesOn && next < text.length) {
      out.push(text.slice(from, next));
      from = next;
    }
    at = next - 1;
  }
  if (from < text.length) out.push(text.slice(from));
  return out;

  /** Whether the next letter is a small one, whatever signs and figures stand before it (SB8). */
  function isFollowedByLower(start: number): boolean {
    for (let at = start; at < text.length; at++) {
      const kind = kindAt(at);
      if (kind === LOWER) return true;
      if (kind === UPPER || kind === ENDS) return false;
    }
    return false;
  }
}

/** '2.5', 'U.S': a stop with a figure behind it, or between two letters of which the second is a capital (SB6, SB7). */
const goesOnAtOnce = (before: number, behind: number): boolean =>
  behind === FIGURE || ((before === UPPER || before === LOWER) && behind === UPPER);
