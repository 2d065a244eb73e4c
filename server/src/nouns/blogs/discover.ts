import type { FoundWay } from '@grivo/contract';
import { MISTAKES } from '@grivo/core';
import { type Reply, whyNot } from '../../ground/network/network.ts';
import { namedIn } from '../../ports/blogs/named.ts';
import { isGuard, mistakeIn } from '../../ports/blogs/ways/calls.ts';
import type { Tools } from '../../ports/tools.ts';

export interface FoundBlog {
  /** Where readers find it. */
  address: string;
  name: string | null;
  language: string | null;
  /** The ways posts can go there, the fullest first. */
  ways: FoundWay[];
  /** Whether its owner can approve programs there, instead of pasting a secret. */
  approves: boolean;
  /** What was found otherwise than it was entered, in sentences. */
  notes: string[];
}

/** Why nothing was found, in words that go on from the address, and what mends it. */
export interface NotFound {
  failed: string;
  mend: string;
}

type Ports = Pick<Tools, 'network' | 'reader'>;

/** What a page says that lets its owner approve programs (IndieAuth). */
const APPROVAL = ['indieauth-metadata', 'authorization_endpoint'];

const TIME_LIMIT_MS = 15_000;
const MEND = 'Open the address in a browser, and check the part after the name.';

/**
 * Looks for the ways posts can go to a blog, from an address that may be sloppy: the address of one of its pages, of its
 * administration, of the place posts go to, with `www.` or without. Micropub is told by a link (section 5.3), the Atom
 * Publishing Protocol by a link to its service document (`rel=service`), the interface for desk programs by its
 * description (Really Simple Discovery, `rel=EditURI`).
 */
export async function discoverBlog(ports: Ports, typed: string): Promise<FoundBlog | NotFound> {
  const notes: string[] = [];
  const first = await begin(ports, typed, notes);
  if ('failed' in first) return first;
  const { origin, pathname } = new URL(first.address);
  const given = await asEndpoint(ports, first);
  let front: Page | null = null;
  for (const address of [first.address, ...parents(origin, pathname)]) {
    const page = address === first.address ? first : await look(ports, address);
    if ('failed' in page || page.status >= 400) continue;
    const read = await readPage(ports, page);
    if (!read) continue;
    // Of a page that is not there, what lies above it counts only where it is a blog.
    if (first.status < 400) front ??= read;
    if (read.ways.length === 0) continue;
    front = read;
    break;
  }
  if (!front && !given)
    return first.status >= 400
      ? {
          failed: isGuard(first) ? MISTAKES.firewall.sentence : `answers ${first.status}`,
          mend: isGuard(first) ? MISTAKES.firewall.mend : MEND,
        }
      : { failed: 'is no page that can be read', mend: MEND };
  if (given) notes.push('That is where the blog takes posts, not the blog itself: both are kept.');
  else if (front && front.ways.length > 0 && plain(front.address) !== plain(first.address))
    notes.push(`That is a page of the blog; the blog itself is at ${front.address}.`);
  const ways = given ? [given, ...(front?.ways ?? []).filter(({ way }) => way !== given.way)] : (front?.ways ?? []);
  return {
    address: front && front.ways.length > 0 ? front.address : given ? `${origin}/` : first.address,
    name: front?.name ?? null,
    language: front?.language ?? null,
    ways,
    approves: front?.approves === true && ways.some(({ way }) => way === 'micropub'),
    notes,
  };
}

const plain = (address: string): string => address.replace(/\/$/, '');

/** Addresses of the folders an address lies in, the nearest first. */
function parents(origin: string, pathname: string): string[] {
  const parts = pathname.split('/').filter((part) => part !== '');
  return parts
    .map((_, i) => `${origin}/${parts.slice(0, parts.length - 1 - i).join('/')}${i < parts.length - 1 ? '/' : ''}`)
    .slice(0, 6);
}

/** The first answer; a name that leads nowhere is tried with `www.` or without. */
async function begin(ports: Ports, typed: string, notes: string[]): Promise<Reply | NotFound> {
  const reply = await look(ports, typed);
  if (!('failed' in reply)) {
    const [from, to] = [new URL(typed), new URL(reply.address)];
    if (from.protocol === 'http:' && to.protocol === 'https:')
      notes.push('It is reached over https, which is used from now on.');
    return reply;
  }
  const other = new URL(typed);
  other.hostname = other.hostname.startsWith('www.') ? other.hostname.slice(4) : `www.${other.hostname}`;
  if (reply.mistake !== 'unknown host' || !URL.canParse(other.href)) return reply;
  const second = await look(ports, other.href);
  if ('failed' in second) return reply;
  notes.push(`There is no ${new URL(typed).hostname}; it is at ${other.hostname}.`);
  return second;
}

async function look({ network }: Ports, address: string): Promise<Reply | (NotFound & { mistake?: string })> {
  const outcome = await network.call({
    method: 'GET',
    address,
    headers: { accept: 'text/html, application/xhtml+xml;q=0.9, */*;q=0.5' },
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: 2_000_000,
    signal: AbortSignal.timeout(TIME_LIMIT_MS + 5_000),
  });
  if (outcome.kind === 'reply') return outcome.reply;
  const { mistake } = mistakeIn(outcome);
  return mistake
    ? { failed: MISTAKES[mistake].sentence, mend: MISTAKES[mistake].mend, mistake }
    : { failed: `cannot be read: ${whyNot(outcome)}`, mend: MEND };
}

/** Whether the address entered is itself where posts go, and by which way. */
async function asEndpoint({ reader }: Ports, reply: Reply): Promise<FoundWay | null> {
  const { address, status, headers } = reply;
  const type = headers['content-type'] ?? '';
  const text = reply.body.toString('utf8', 0, 2_000);
  if (/atomsvc\+xml/.test(type)) return { way: 'atom', endpoint: address, settings: {} };
  if (status === 401 && /realm=/.test(headers['www-authenticate'] ?? '') && /xml|atom/i.test(`${type} ${address}`))
    return { way: 'atom', endpoint: address, settings: {} };
  if (/XML-RPC/i.test(text) && status >= 400) return { way: 'xml-rpc', endpoint: address, settings: {} };
  if (/rsd\+xml/.test(type)) return (await deskInterface(reader, reply)) ?? null;
  if (/json/.test(type) && status >= 400 && status < 500 && /"error"\s*:/.test(text))
    return { way: 'micropub', endpoint: address, settings: {} };
  return null;
}

interface Page {
  address: string;
  name: string | null;
  language: string | null;
  ways: FoundWay[];
  approves: boolean;
}

async function readPage(ports: Ports, reply: Reply): Promise<Page | null> {
  if (!/html/i.test(reply.headers['content-type'] ?? 'text/html')) return null;
  const page = await namedIn(ports.reader, reply);
  if (!page) return null;
  const { head, named } = page;
  const ways: FoundWay[] = [];
  const micropub = named('micropub');
  if (micropub) ways.push({ way: 'micropub', endpoint: micropub, settings: {} });
  const service = named('service', /atomsvc\+xml/);
  if (service) ways.push({ way: 'atom', endpoint: service, settings: {} });
  const description = named('edituri', /rsd\+xml/);
  if (description) {
    const reply = await look(ports, description);
    const found = 'failed' in reply ? null : await deskInterface(ports.reader, reply);
    if (found) ways.push(found);
  }
  const language = /^[a-z]{2}/i.exec(head.language)?.[0]?.toLowerCase() ?? null;
  const approves = APPROVAL.some((rel) => named(rel) !== null);
  return { address: reply.address, name: head.title || null, language, ways, approves };
}

async function deskInterface(reader: Ports['reader'], reply: Reply): Promise<FoundWay | null> {
  const read = await reader.read('deskInterfaces', { bytes: reply.body });
  const found = (read.ok ? read.value : []).find(({ name }) => name.toLowerCase() === 'metaweblog');
  if (!found || !URL.canParse(found.address, reply.address)) return null;
  return {
    way: 'xml-rpc',
    endpoint: new URL(found.address, reply.address).href,
    settings: found.blogId === '' ? {} : { blogId: found.blogId },
  };
}
