/** Deeper than anything services and feeds write. */
const DEEPEST = 200;

export type ReadJson = { ok: true; value: unknown } | { ok: false; problem: string };

/**
 * The value of a text of JSON (RFC 8259), or what is wrong with it. What lies too deep in itself is refused before it is
 * read: whatever walks such a value afterwards would lose itself.
 */
export function readJson(text: string): ReadJson {
  if (tooDeep(text)) return { ok: false, problem: 'its JSON lies too deep in itself' };
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch (error) {
    if (error instanceof SyntaxError)
      return { ok: false, problem: `it is broken JSON (${error.message.slice(0, 120)})` };
    throw error;
  }
}

const QUOTE = 34;
const BACKSLASH = 92;

/** Whether a text of JSON lies deeper in itself than anything services and people write. */
export function tooDeep(text: string): boolean {
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    const letter = text.charCodeAt(at);
    if (letter === QUOTE) {
      at = endOfString(text, at + 1);
      if (at < 0) return false;
    } else if (letter === 91 || letter === 123) {
      if (++depth > DEEPEST) return true;
    } else if (letter === 93 || letter === 125) depth--;
  }
  return false;
}

/** Where a string's closing quote is; below 0 where there is none. */
function endOfString(text: string, from: number): number {
  for (let at = from; ; at++) {
    at = text.indexOf('"', at);
    if (at < 0) return -1;
    let slashes = 0;
    while (at - 1 - slashes >= from && text.charCodeAt(at - 1 - slashes) === BACKSLASH) slashes++;
    if (slashes % 2 === 0) return at;
  }
}
