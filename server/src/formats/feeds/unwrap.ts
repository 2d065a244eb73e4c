import type { FeedSettings } from '@grivo/contract';
import { plainAddress } from '../videos/channel.ts';

/** Parameters in which redirect addresses usually hold the true one. */
const USUAL = new Set([
  'url',
  'u',
  'to',
  'target',
  'dest',
  'destination',
  'redirect',
  'redirect_url',
  'link',
  'goto',
  'out',
  'q',
]);
/** Paths redirects usually lie at. */
const WRAPS =
  /\/(?:url|u|go|goto|redir|redirect|r|l|link|links|click|clicks|out|away|outbound|track|jump|exit)(?:\.\w+)?\/?$/i;
const MOST_WRAPS = 5;

/**
 * The address inside redirect and tracking addresses: by the rules given, else where path and parameter are those of a
 * redirect, as often as they are wrapped in each other; then without what only says where a reader came from.
 */
export function unwrapped(address: string, rules: FeedSettings['unwrap'] = []): string {
  let now = address;
  for (let n = 0; n < MOST_WRAPS; n++) {
    const inner = insideOf(now, rules);
    if (inner === null) break;
    now = inner;
  }
  return plainAddress(now);
}

function insideOf(address: string, rules: FeedSettings['unwrap']): string | null {
  const url = new URL(address);
  const rule = rules.find(({ begins }) => address.startsWith(begins));
  const held = rule
    ? url.searchParams.get(rule.parameter)
    : WRAPS.test(url.pathname)
      ? [...url.searchParams].find(([name, value]) => USUAL.has(name.toLowerCase()) && /^https?:\/\//i.test(value))?.[1]
      : null;
  if (!held || !URL.canParse(held)) return null;
  const inner = new URL(held);
  return inner.protocol === 'http:' || inner.protocol === 'https:' ? inner.href : null;
}
