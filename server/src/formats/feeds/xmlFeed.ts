import { secondsOf } from '@grivo/core';
import { plain } from '../documents/plain.ts';
import { resolved } from '../documents/resolved.ts';
import { childOf, childrenOf, type Element, textIn } from '../xml/tree.ts';
import { type Enclosure, type Entry, type Feed, momentOf, titleOf } from './entry.ts';

/** Links of an element as Atom writes them (RFC 4287, section 4.2.7), by their relation. */
function atomLink(element: Element, rel: string): Element | null {
  return (
    childrenOf(element, 'link').find(
      ({ attributes }) => 'href' in attributes && (attributes['rel'] ?? 'alternate').toLowerCase() === rel,
    ) ?? null
  );
}

const seconds = (text: string): number | null => {
  const whole = text.trim();
  if (/^\d+$/.test(whole)) return Number(whole);
  return /^\d+(?::\d\d){1,2}$/.test(whole) ? secondsOf(whole) : null;
};

function figure(text: string | undefined): number | null {
  const value = Number(text);
  return text !== undefined && text.trim() !== '' && Number.isFinite(value) && value > 0 ? value : null;
}

/** How long an entry lasts, as podcasts and videos say it (Media RSS 1.5). */
function lasts(item: Element): number | null {
  const media = childOf(childOf(item, 'group', 'media') ?? item, 'content', 'media');
  return seconds(textIn(childOf(item, 'duration', 'itunes'))) ?? figure(media?.attributes['duration']);
}

function enclosureOf(item: Element, base: string): Enclosure | null {
  const given = childOf(item, 'enclosure') ?? atomLink(item, 'enclosure');
  const address = resolved(given?.attributes['url'] ?? given?.attributes['href'], base);
  if (!given || address === null) return null;
  return {
    address,
    mime: given.attributes['type'] ?? '',
    seconds: lasts(item),
    bytes: figure(given.attributes['length']),
  };
}

function first(item: Element, ...names: string[]): string {
  for (const name of names) {
    const text = textIn(childOf(item, name));
    if (text !== '') return text;
  }
  return '';
}

/** What Atom holds as XHTML is elements, all else is text that may hold escaped HTML. */
function content(element: Element | null): string {
  return element === null ? '' : plain(textIn(element));
}

function rssEntry(item: Element, base: string): Entry {
  const guid = childOf(item, 'guid');
  const id = textIn(guid) || item.attributes['rdf:about'] || '';
  const permanent = guid !== null && guid.attributes['isPermaLink'] !== 'false' && /^https?:/.test(id);
  const bodies = [childOf(item, 'encoded', 'content'), childOf(item, 'description'), childOf(item, 'summary')];
  const text = bodies.map(content).sort((a, b) => b.length - a.length)[0] ?? '';
  return {
    id: id || null,
    link:
      resolved(textIn(childOf(item, 'link')), base) ??
      resolved(atomLink(item, 'alternate')?.attributes['href'], base) ??
      (permanent ? resolved(id, base) : null),
    title: titleOf(textIn(childOf(item, 'title')), text),
    text,
    published: momentOf(first(item, 'pubdate', 'date', 'published', 'issued', 'updated')),
    author: plain(first(item, 'creator', 'author')).slice(0, 200),
    seconds: lasts(item),
    categories: categoriesOf(item),
    enclosure: enclosureOf(item, base),
  };
}

function atomEntry(entry: Element, base: string): Entry {
  const text = [content(childOf(entry, 'content')), content(childOf(entry, 'summary'))].sort(
    (a, b) => b.length - a.length,
  )[0]!;
  return {
    id: textIn(childOf(entry, 'id')) || null,
    link: resolved(atomLink(entry, 'alternate')?.attributes['href'], base),
    title: titleOf(textIn(childOf(entry, 'title')), text),
    text,
    published: momentOf(first(entry, 'published', 'issued', 'created', 'updated', 'modified')),
    author: textIn(childOf(childOf(entry, 'author') ?? entry, 'name')).slice(0, 200),
    seconds: lasts(entry),
    categories: categoriesOf(entry),
    enclosure: enclosureOf(entry, base),
  };
}

function categoriesOf(item: Element): string[] {
  const names = childrenOf(item, 'category').map((one) => one.attributes['term'] ?? plain(textIn(one)));
  return [...new Set(names.filter((name) => name !== ''))].slice(0, 30);
}

/**
 * A feed of XML: RSS 0.9x and 2.0, RSS 1.0 (RDF), Atom 0.3 and 1.0 (RFC 4287).
 * @returns null when the tree is none of them
 */
export function xmlFeed(root: Element, address: string): Feed | null {
  const base = resolved(root.attributes['xml:base'], address) ?? address;
  if (root.name === 'feed') {
    return {
      form: 'Atom',
      ...aboutOf(root, base),
      home: resolved(atomLink(root, 'alternate')?.attributes['href'], base),
      language: root.attributes['xml:lang']?.slice(0, 2).toLowerCase() ?? null,
      entries: childrenOf(root, 'entry').map((entry) => atomEntry(entry, base)),
    };
  }
  if (root.name !== 'rss' && root.name !== 'rdf') return null;
  const channel = childOf(root, 'channel');
  const about = channel ?? root;
  if (!channel && !childOf(root, 'item')) return null;
  return {
    form: root.name === 'rdf' ? 'RSS 1.0' : 'RSS 2.0',
    ...aboutOf(about, base),
    home:
      childrenOf(about, 'link')
        .map((link) => resolved(textIn(link), base))
        .find((link) => link !== null) ?? null,
    language: textIn(childOf(about, 'language')).slice(0, 2).toLowerCase() || null,
    // Items stand beside the channel in RSS 1.0, and in some feeds that call themselves 2.0; some have no channel.
    entries: [...(channel ? childrenOf(channel, 'item') : []), ...childrenOf(root, 'item')].map((item) =>
      rssEntry(item, base),
    ),
  };
}

function aboutOf(element: Element, base: string): Pick<Feed, 'title' | 'self' | 'hub'> {
  return {
    title: plain(textIn(childOf(element, 'title'))).slice(0, 200),
    self: resolved(atomLink(element, 'self')?.attributes['href'], base),
    hub: resolved(atomLink(element, 'hub')?.attributes['href'], base),
  };
}
