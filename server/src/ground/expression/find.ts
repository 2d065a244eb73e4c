import { createContext, runInContext } from 'node:vm';
import type { Found } from '@grivo/core';

const TIME_LIMIT_MS = 100;
const LONGEST_PATTERN = 500;
const LONGEST_TEXT = 200_000;
const MOST_MATCHES = 10_000;

/** Only strings go in and JSON comes out; nothing of this program is reachable from inside. */
const SEARCH = `(() => {
  const out = [];
  for (const match of text.matchAll(new RegExp(pattern, 'gu'))) {
    out.push(Array.from(match, (group) => group ?? ''));
    if (!all || out.length >= most) break;
  }
  return JSON.stringify(out);
})()`;

/** Searches for a regular expression, and cuts the search off after a tenth of a second: a pattern may run away. */
export function findPattern(pattern: string, text: string, all: boolean): Found {
  if (pattern.length > LONGEST_PATTERN)
    return { ok: false, problem: `the pattern is longer than ${LONGEST_PATTERN} letters` };
  if (text.length > LONGEST_TEXT)
    return { ok: false, problem: `the text is longer than ${LONGEST_TEXT.toLocaleString('en-GB')} letters` };
  try {
    const context = createContext({ text, pattern, all, most: MOST_MATCHES });
    const found = String(runInContext(SEARCH, context, { timeout: TIME_LIMIT_MS }));
    return { ok: true, matches: JSON.parse(found) as string[][] };
  } catch (error) {
    const { code, name, message } = error as { code?: unknown; name?: unknown; message?: unknown };
    if (code === 'ERR_SCRIPT_EXECUTION_TIMEOUT')
      return { ok: false, problem: `the pattern ‘${pattern.slice(0, 60)}’ took too long on this text` };
    if (name === 'SyntaxError')
      return { ok: false, problem: `‘${pattern.slice(0, 60)}’ is no pattern: ${String(message).replace(/^.*: /, '')}` };
    throw error;
  }
}
