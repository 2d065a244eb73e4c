import robotsParser, { type Robot } from 'robots-parser';
import type { Reply } from '../../ground/network/network.ts';
import { whyNot } from '../../ground/network/network.ts';
import { waitForTurn } from '../../ports/services/turns.ts';
import type { Tools } from '../../ports/tools.ts';
import { addressDigest } from '../links/pages.ts';

export type LookPorts = Pick<Tools, 'ground' | 'network' | 'reader'>;

/** How a link was found: it leads somewhere, elsewhere for good, nowhere, or nobody can say now. */
export type LinkState = 'new' | 'answers' | 'moved' | 'dead' | 'unsure';

export interface Looked {
  state: Exclude<LinkState, 'new'>;
  /** In words that go on from the address. */
  reason: string;
  leadsTo: string | null;
}

const TIME_LIMIT_MS = 8_000;
const MOST_BYTES = 1_500_000;
const MOST_HOPS = 5;
/** Between two looks at one site, in milliseconds, where its robots.txt asks for no longer. */
const PACE_MS = 1_000;
const LONGEST_PACE_MS = 30_000;
/** Sites looked at side by side, and how long one round goes on. */
const SITES_AT_ONCE = 8;
const ROUND_MS = 4_000;
/** Looks without an answer before a link counts as dead. */
const FAILS = 3;
const AGENT = 'Grivo';

/** What says that a page is not there, though it is answered as one that is. */
const NOT_FOUND =
  /\b(?:not found|404|page (?:is )?(?:gone|missing)|no longer (?:exists|available)|does(?: not|n['’]t) exist|nicht gefunden|existiert nicht|introuvable|no encontrada|non trovata|niet gevonden)\b/i;

const redirects = (status: number): boolean => [301, 302, 303, 307, 308].includes(status);

/**
 * Looks where an address leads: follows redirects, takes a page that says 'not found' for none, and looks for the place on it
 * that is named.
 */
export async function lookAt({ network, reader }: LookPorts, given: string, signal: AbortSignal): Promise<Looked> {
  let address = given;
  let isForGood = true;
  for (let hops = 0; ; hops++) {
    const outcome = await network.call({
      method: 'GET',
      address,
      headers: { accept: 'text/html,*/*;q=0.5' },
      timeLimitMs: TIME_LIMIT_MS,
      maxBytes: MOST_BYTES,
      redirects: 0,
      signal,
    });
    if (outcome.kind !== 'reply') {
      // What is too long to be read is there.
      if (outcome.kind === 'refused' && /longer than/.test(outcome.reason))
        return { state: 'answers', reason: '', leadsTo: null };
      const isPrivate = outcome.kind === 'refused';
      return { state: isPrivate ? 'unsure' : 'dead', reason: whyNot(outcome), leadsTo: null };
    }
    const { reply } = outcome;
    const next = reply.headers['location'];
    if (!redirects(reply.status) || !next) return judged(reader, { given, address, isForGood }, reply);
    if (hops >= MOST_HOPS) return { state: 'dead', reason: 'leads on and on', leadsTo: null };
    if (!URL.canParse(next, address)) return { state: 'dead', reason: 'leads to what is no address', leadsTo: null };
    const to = new URL(next, address);
    if (to.hash === '') to.hash = new URL(address).hash;
    if (to.href === address) return { state: 'dead', reason: 'leads back to itself', leadsTo: null };
    isForGood &&= reply.status === 301 || reply.status === 308;
    address = to.href;
  }
}

async function judged(
  reader: LookPorts['reader'],
  { given, address, isForGood }: { given: string; address: string; isForGood: boolean },
  { status, headers, body }: Reply,
): Promise<Looked> {
  if (status === 404 || status === 410)
    return { state: 'dead', reason: status === 410 ? 'was taken away' : 'is not there', leadsTo: null };
  if (status === 429 || status >= 500)
    return { state: 'unsure', reason: `answers with ${status}, which says nothing of the page`, leadsTo: null };
  if (status === 401 || status === 403)
    return { state: 'unsure', reason: 'is only for those who sign in', leadsTo: null };
  if (status >= 400) return { state: 'dead', reason: `is refused with ${status}`, leadsTo: null };
  const [was, is] = [new URL(given), new URL(address)];
  if (was.pathname.length > 1 && is.pathname === '/' && is.search === '')
    return { state: 'dead', reason: 'sends everybody to the front page', leadsTo: null };
  if (/html/.test(headers['content-type'] ?? 'text/html')) {
    const head = await reader.read('head', { bytes: body, mime: headers['content-type'] ?? '' });
    if (head.ok && (NOT_FOUND.test(head.value.title) || NOT_FOUND.test(head.value.heading)))
      return { state: 'dead', reason: 'says ‘not found’, with no error', leadsTo: null };
    if (!hasPlace(body, is.hash)) return { state: 'dead', reason: 'is there, the place on it is not', leadsTo: null };
  }
  return given !== address && isForGood
    ? { state: 'moved', reason: 'moved for good', leadsTo: address }
    : { state: 'answers', reason: '', leadsTo: null };
}

/** Whether a page has the place a fragment names (HTML, section 7.4.6.4); ones for text are the reader's own affair. */
function hasPlace(body: Buffer, hash: string): boolean {
  const name = hash.slice(1);
  if (name === '' || name === 'top' || name.startsWith(':~:')) return true;
  const text = body.toString('utf8');
  let plain: string;
  try {
    plain = decodeURIComponent(name);
  } catch {
    plain = name;
  }
  return [name, plain].some((one) =>
    [`id="${one}"`, `id='${one}'`, `id=${one}`, `name="${one}"`, `name='${one}'`].some((mark) => text.includes(mark)),
  );
}

interface Due {
  address_digest: string;
  address: string;
  host: string;
  state: LinkState;
  fails: number;
}

/** Looks at links of live articles, gently: each site by itself, one after the other, as its robots.txt asks. */
export class LinkLooker {
  private readonly robots = new Map<string, { robot: Robot | null; until: number }>();
  /** About when each site may be called again. */
  private readonly free = new Map<string, number>();

  constructor(
    private readonly ports: LookPorts,
    private readonly paceMs = PACE_MS,
  ) {}

  /** One round: looks at what is due for a few seconds. @returns how many addresses were looked at */
  async round(ms = ROUND_MS): Promise<number> {
    const until = Date.now() + ms;
    const due = await this.ports.ground.db.rows<Due>(
      'SELECT address_digest, address, host, state, fails FROM link_look WHERE next_at <= UTC_TIMESTAMP(3) ORDER BY next_at LIMIT 400',
    );
    const bySite = new Map<string, Due[]>();
    for (const one of due) bySite.set(one.host, [...(bySite.get(one.host) ?? []), one]);
    const sites = [...bySite].slice(0, SITES_AT_ONCE);
    const looked = await Promise.all(sites.map(([host, all]) => this.site(host, all, until)));
    return looked.reduce((sum, n) => sum + n, 0);
  }

  private async site(host: string, due: readonly Due[], until: number): Promise<number> {
    let looked = 0;
    for (const one of due) {
      // What a site wants long pauses for goes on in a later round.
      if (Math.max(Date.now(), this.free.get(host) ?? 0) >= until) break;
      if (!(await this.claim(one))) continue;
      const robot = await this.robotOf(one.address);
      if (robot && robot.isAllowed(one.address, AGENT) === false)
        await this.keep(one, { state: 'unsure', reason: 'asks programs not to look (robots.txt)', leadsTo: null });
      else {
        const asked = (robot?.getCrawlDelay(AGENT) ?? 0) * 1_000;
        await this.turn(host, Math.max(this.paceMs, Math.min(LONGEST_PACE_MS, asked)));
        await this.keep(one, await lookAt(this.ports, one.address, AbortSignal.timeout(3 * TIME_LIMIT_MS)));
      }
      looked++;
    }
    return looked;
  }

  /** Waits for the next turn at a site: the pace holds over all processes. */
  private async turn(host: string, apartMs: number): Promise<void> {
    const signal = AbortSignal.timeout(LONGEST_PACE_MS);
    const site = { id: addressDigest(host).slice(0, 20), calls_a_minute: 60_000 / apartMs };
    await waitForTurn(this.ports.ground, site, signal);
    this.free.set(host, Date.now() + apartMs);
  }

  /** Whoever is first looks. */
  private async claim({ address_digest: digest }: Due): Promise<boolean> {
    return (
      (await this.ports.ground.db.run(
        'UPDATE link_look SET next_at = UTC_TIMESTAMP(3) + INTERVAL 10 MINUTE WHERE address_digest = ? AND next_at <= UTC_TIMESTAMP(3)',
        [digest],
      )) > 0
    );
  }

  private async robotOf(address: string): Promise<Robot | null> {
    const { origin, host } = new URL(address);
    const known = this.robots.get(host);
    if (known && known.until > Date.now()) return known.robot;
    const outcome = await this.ports.network.call({
      method: 'GET',
      address: `${origin}/robots.txt`,
      timeLimitMs: TIME_LIMIT_MS,
      maxBytes: 100_000,
    });
    const said = outcome.kind === 'reply' && outcome.reply.status === 200 ? outcome.reply.body.toString('utf8') : null;
    const robot = said === null ? null : robotsParser(`${origin}/robots.txt`, said);
    if (this.robots.size > 5_000) this.robots.clear();
    this.robots.set(host, { robot, until: Date.now() + 24 * 3_600_000 });
    return robot;
  }

  /** Keeps what was found; one that only gave no answer is asked again before it counts as dead. */
  private async keep({ address_digest: digest, state: before, fails }: Due, found: Looked): Promise<void> {
    const silent = found.state === 'dead' && !SAID_SO.test(found.reason);
    const failed = found.state === 'answers' || found.state === 'moved' ? 0 : fails + 1;
    const state = silent && failed < FAILS ? 'unsure' : found.state;
    const again = state === 'unsure' && failed < FAILS ? '1 HOUR' : '1 DAY';
    await this.ports.ground.db.run(
      `UPDATE link_look SET state = ?, reason = ?, leads_to = ?, fails = ?, since = IF(? AND since IS NOT NULL, since, UTC_TIMESTAMP(3)),
       looked_at = UTC_TIMESTAMP(3), next_at = UTC_TIMESTAMP(3) + INTERVAL ${again} WHERE address_digest = ?`,
      [state, found.reason.slice(0, 300), found.leadsTo?.slice(0, 1_000) ?? null, failed, before === state, digest],
    );
  }
}

/** What the site itself said; anything else may be a trouble of today. */
const SAID_SO =
  /^(?:is not there|was taken away|is refused|sends everybody|says ‘not found’|is there, the place|leads )/;

/** Has all links of a blog looked at again, soon. @returns how many there are */
export async function lookAgain({ ground: { db } }: Pick<LookPorts, 'ground'>, blog: string): Promise<number> {
  return db.run(
    'UPDATE link_look l JOIN (SELECT DISTINCT address_digest FROM link_use WHERE blog = ?) u ON u.address_digest = l.address_digest SET l.next_at = UTC_TIMESTAMP(3), l.fails = 0',
    [blog],
  );
}
