import { resolved } from '../documents/resolved.ts';
import { type Element, readXml } from '../xml/tree.ts';

export interface ListedFeed {
  address: string;
  name: string;
}

/** Feeds of a list in OPML 2.0, in any nesting; those named twice once. */
export function readOpml(text: string): { ok: true; feeds: ListedFeed[] } | { ok: false; problem: string } {
  const read = readXml(text.replace(/^[\s\ufeff]+/, ''));
  if (!read.ok) return read;
  if (read.root.name !== 'opml') return { ok: false, problem: 'it is not an OPML list' };
  const feeds = new Map<string, string>();
  const walk = (element: Element): void => {
    const { attributes } = element;
    const address = resolved(attributes['xmlUrl'] ?? attributes['xmlurl'], 'https://none.invalid/');
    if (element.name === 'outline' && address !== null && !address.startsWith('https://none.invalid/'))
      feeds.set(address, feeds.get(address) || (attributes['title'] ?? attributes['text'] ?? '').slice(0, 200));
    for (const child of element.children) walk(child);
  };
  walk(read.root);
  if (feeds.size === 0) return { ok: false, problem: 'it names no feed' };
  return { ok: true, feeds: [...feeds].map(([address, name]) => ({ address, name })) };
}

const escaped = (text: string): string =>
  text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/"/g, '&quot;')
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, '');

/** A list of feeds as OPML 2.0. */
export function opmlOf(title: string, feeds: readonly ListedFeed[]): string {
  const lines = feeds.map(
    ({ address, name }) => `    <outline type="rss" text="${escaped(name || address)}" xmlUrl="${escaped(address)}"/>`,
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<opml version="2.0">\n  <head><title>${escaped(title)}</title></head>\n  <body>\n${lines.join('\n')}\n  </body>\n</opml>\n`;
}
