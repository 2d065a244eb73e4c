import { Parser } from 'htmlparser2';
import { childOf, childrenOf, type Element, readXml, textIn } from '../xml/tree.ts';
import { escapeXml } from './xmlRpc.ts';

/** An entry as a server holds it (RFC 4287, RFC 5023). */
export interface AtomEntry {
  /** Where it is changed. */
  edit: string | null;
  /** Where readers find it. */
  alternate: string | null;
  title: string;
  html: string | null;
  draft: boolean;
  published: string | null;
  edited: string | null;
}

export interface AtomPage {
  entries: AtomEntry[];
  next: string | null;
}

/** A collection of a service document, and what it takes. */
export interface Collection {
  address: string;
  title: string;
  workspace: string;
  accept: string[];
  categories: string[];
  /** Where more categories stand, as a document of their own. */
  categoriesAt: string[];
}

const MOST = 1_000;

/** The collections of a service document (RFC 5023, section 8); null when it is none. */
export function readService(text: string, base: string): Collection[] | null {
  const read = readXml(text);
  if (!read.ok || read.root.name !== 'service') return null;
  return childrenOf(read.root, 'workspace')
    .flatMap((workspace) =>
      childrenOf(workspace, 'collection').map((collection): Collection => {
        const categories = childrenOf(collection, 'categories');
        return {
          address: against(collection.attributes['href'], base) ?? '',
          title: textIn(childOf(collection, 'title')),
          workspace: textIn(childOf(workspace, 'title')),
          accept: childrenOf(collection, 'accept').map(({ text }) => text.trim().toLowerCase()),
          categories: categories.flatMap(termsIn),
          categoriesAt: categories.flatMap(({ attributes }) => against(attributes['href'], base) ?? []),
        };
      }),
    )
    .filter(({ address }) => address !== '')
    .slice(0, MOST);
}

/** The terms of a document of categories (RFC 5023, section 7). */
export function readCategories(text: string): string[] {
  const read = readXml(text);
  return read.ok && read.root.name === 'categories' ? termsIn(read.root) : [];
}

const termsIn = (element: Element): string[] =>
  childrenOf(element, 'category')
    .map(({ attributes }) => (attributes['term'] ?? '').trim())
    .filter((term) => term !== '')
    .slice(0, MOST);

/** One entry; null when it is none. */
export function readEntry(text: string, base: string): AtomEntry | null {
  const read = readXml(text);
  return read.ok && read.root.name === 'entry' ? entryOf(read.root, base) : null;
}

/** A page of a collection (RFC 5023, section 10); null when it is none. */
export function readPage(text: string, base: string): AtomPage | null {
  const read = readXml(text);
  if (!read.ok || read.root.name !== 'feed') return null;
  return {
    entries: childrenOf(read.root, 'entry').map((entry) => entryOf(entry, base)),
    next: linkOf(read.root, 'next', base),
  };
}

function entryOf(entry: Element, base: string): AtomEntry {
  const content = childOf(entry, 'content');
  const type = content?.attributes['type'] ?? 'text';
  return {
    edit: linkOf(entry, 'edit', base),
    alternate: linkOf(entry, 'alternate', base),
    title: textIn(childOf(entry, 'title')),
    html: content && type === 'html' ? content.text : null,
    draft: textIn(childOf(childOf(entry, 'control') ?? NONE, 'draft')) === 'yes',
    published: textIn(childOf(entry, 'published')) || null,
    edited: textIn(childOf(entry, 'edited')) || textIn(childOf(entry, 'updated')) || null,
  };
}

const NONE: Element = { name: '', prefix: '', attributes: {}, text: '', children: [] };

/** A link by its relation; one without is an alternate (RFC 4287, section 4.2.7.2). */
function linkOf(element: Element, rel: string, base: string): string | null {
  const link = childrenOf(element, 'link').find(({ attributes }) => (attributes['rel'] ?? 'alternate') === rel);
  return link ? against(link.attributes['href'], base) : null;
}

const against = (href: string | undefined, base: string): string | null =>
  href !== undefined && URL.canParse(href, base) ? new URL(href, base).href : null;

/** What an entry says anew; what is not named stays. */
export interface EntryWords {
  title?: string;
  html?: string;
  summary?: string;
  categories?: readonly string[];
  draft?: boolean;
  published?: string;
  updated: string;
}

const ATOM = 'http://www.w3.org/2005/Atom';
const APP = 'http://www.w3.org/2007/app';

/** A new entry as it is sent. Its id is for the server to say (RFC 5023, section 9.2). */
export function newEntry({
  id,
  author,
  language,
  ...words
}: Required<Omit<EntryWords, 'published'>> & { id: string; author: string; language: string }): string {
  return `<?xml version="1.0" encoding="UTF-8"?>\n<entry xmlns="${ATOM}" xmlns:app="${APP}" xml:lang="${escapeXml(language)}"><id>${escapeXml(id)}</id><author><name>${escapeXml(author)}</name></author>${wordsXml(words)}</entry>`;
}

/** Elements of an entry, each with the namespace it is of, whatever prefixes stand around it. */
function wordsXml({ title, html, summary, categories, draft, published, updated }: EntryWords): string {
  const of = (name: string, text: string | undefined, type = '') =>
    text === undefined ? '' : `<${name} xmlns="${ATOM}"${type}>${escapeXml(text)}</${name}>`;
  const terms = (categories ?? []).map((term) => `<category xmlns="${ATOM}" term="${escapeXml(term)}"/>`).join('');
  const control = draft === undefined ? '' : `<control xmlns="${APP}"><draft>${draft ? 'yes' : 'no'}</draft></control>`;
  return `${of('title', title, ' type="text"')}${of('updated', updated)}${of('published', published)}${of('summary', summary, ' type="text"')}${terms}${of('content', html, ' type="html"')}${control}`;
}

/**
 * An entry with other words, and everything else left as it is, foreign elements too (RFC 5023, section 9.3).
 * @param text the entry as the server gave it
 * @returns null when it is no entry
 */
export function changedEntry(text: string, words: EntryWords): string | null {
  const gone = new Set(
    [
      words.title !== undefined && 'title',
      words.html !== undefined && 'content',
      words.summary !== undefined && 'summary',
      words.categories !== undefined && 'category',
      words.draft !== undefined && 'control',
      words.published !== undefined && 'published',
      'updated',
    ].filter((name) => name !== false),
  );
  const cuts: [number, number][] = [];
  let [depth, end, begin, root] = [0, -1, 0, ''];
  const parser = new Parser(
    {
      onopentag(name) {
        if (depth === 0) root = localName(name);
        if (depth === 1) begin = parser.startIndex;
        depth++;
      },
      onclosetag(name) {
        depth--;
        if (depth === 1 && gone.has(localName(name))) cuts.push([begin, parser.endIndex + 1]);
        if (depth === 0) end = parser.startIndex;
      },
    },
    { xmlMode: true },
  );
  parser.write(text);
  parser.end();
  if (root !== 'entry' || end <= 0 || text[end + 1] !== '/') return null;
  let [out, from] = ['', 0];
  for (const [start, stop] of cuts) {
    out += text.slice(from, start);
    from = stop;
  }
  return `${out}${text.slice(from, end)}${wordsXml(words)}${text.slice(end)}`;
}

const localName = (name: string): string => name.slice(name.indexOf(':') + 1).toLowerCase();
