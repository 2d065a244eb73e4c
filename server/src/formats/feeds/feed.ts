import { readJson } from '../../ground/reading/json.ts';
import { readXml } from '../xml/tree.ts';
import type { Feed } from './entry.ts';
import { jsonFeed } from './jsonFeed.ts';
import { xmlFeed } from './xmlFeed.ts';

export type ReadFeed = { ok: true; feed: Feed } | { ok: false; problem: string };

const MOST_ENTRIES = 5_000;

/**
 * A feed of any form that is in use, from its text.
 * @param address where it was read, which its addresses lie beside
 */
export function readFeed(text: string, address: string): ReadFeed {
  const begun = text.replace(/^[\s\ufeff\u0000-\u001f]+/, '');
  if (begun === '') return { ok: false, problem: 'it is empty' };
  const read = begun.startsWith('{') || begun.startsWith('[') ? fromJson(begun, address) : fromXml(begun, address);
  if (!read.ok) return read;
  if (read.feed.entries.length > MOST_ENTRIES)
    return {
      ok: false,
      problem: `it has ${read.feed.entries.length.toLocaleString('en-GB')} entries, more than a feed has`,
    };
  return read;
}

function fromJson(text: string, address: string): ReadFeed {
  const read = readJson(text);
  if (!read.ok) return read;
  const feed = jsonFeed(read.value, address);
  return feed ? { ok: true, feed } : { ok: false, problem: 'it is JSON, but no JSON Feed' };
}

function fromXml(text: string, address: string): ReadFeed {
  if (!text.startsWith('<')) return { ok: false, problem: 'it is not a feed' };
  if (/^(?:<!--[\s\S]{0,2000}?-->\s*)?<(?:!doctype\s+html|html[\s>])/i.test(text))
    return { ok: false, problem: 'it is a web page, not a feed' };
  const read = readXml(text);
  if (!read.ok) return read;
  const feed = xmlFeed(read.root, address);
  if (feed) return { ok: true, feed };
  return read.root.name === 'html'
    ? { ok: false, problem: 'it is a web page, not a feed' }
    : { ok: false, problem: `it is XML of another kind (‘${read.root.name.slice(0, 40)}’)` };
}
