// Five blogs, each by another way, and people who change, take back and publish again what is on them while things break.
import { mkdirSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { everyDay } from '../cadence.mjs';

/** The blogs, the way each goes, and the site of the stand-ins it is. */
export const WAYS = [
  { way: 'micropub', slug: 'journal' },
  { way: 'atom', slug: 'kitchen' },
  { way: 'xml-rpc', slug: 'gaertagebuch' },
  { way: 'hook', slug: 'barrels' },
  { way: 'folder', slug: null },
];

/** @returns the ids of the blogs, in the order of the ways */
export async function connectWays(call, standIns, sites) {
  mkdirSync(join(sites, 'notes'), { recursive: true });
  const ids = [];
  for (const { way, slug } of WAYS) {
    const site = slug ? standIns.blog(slug) : null;
    const { id, lines } = await call('POST', '/blogs', {
      name: `By ${way}`,
      address: site?.address ?? 'https://notes.example',
      way,
      endpoint: { micropub: site?.endpoint, atom: site?.atom, 'xml-rpc': site?.rpc, hook: site?.hook, folder: 'notes' }[
        way
      ],
      settings: way === 'xml-rpc' ? { user: site.user, blogId: slug } : way === 'atom' ? { user: site.user } : {},
      secret: site?.token ?? '',
      language: 'en',
      cadence: everyDay(2, 60, 'Europe/Dublin'),
      timeLimitMs: 1_200,
    });
    const wrong = lines.find(({ well }) => !well);
    if (wrong) throw new Error(`the test of the blog by ${way}: ${wrong.tried}: ${wrong.came}`);
    ids.push(id);
  }
  return ids;
}

const KEY = /([a-z2-9]{8})(?:e\d+)?/;
const keyIn = (text, before, after = '') => new RegExp(`${before}${KEY.source}${after}`).exec(text)?.[1] ?? null;

/** Every post of ours on the receiving side: its key, whether readers see it, and what it says. */
export function postsThere(standIns, sites, made) {
  const posts = [];
  for (const { way, slug } of WAYS) {
    if (slug === null) continue;
    for (const post of standIns.received().posts(slug)) {
      if (!made.has(post.address)) continue;
      const key = way === 'xml-rpc' ? keyIn(post.html, '<!-- post ', ' -->') : keyIn(post.address, '-', '(?:-\\d+)?$');
      posts.push({ way, key: key ?? post.address, address: post.address, status: post.status, html: post.html });
    }
  }
  const folder = join(sites, 'notes', '.grivo', 'posts');
  for (const name of readdirSync(folder)) {
    if (!name.endsWith('.json') || name.endsWith('.post.json')) continue;
    const { key, address, status, file } = JSON.parse(readFileSync(join(folder, name), 'utf8'));
    const html = readFileSync(join(sites, 'notes', file), 'utf8');
    posts.push({ way: 'folder', key: keyIn(key, '^') ?? key, address, status, html });
  }
  return posts;
}

/**
 * Somebody who changes a published article and brings the change to its blogs, takes one away, or publishes it again.
 * What was asked for last of each publication is remembered, to be held against the end.
 */
export class Editors {
  wanted = new Map();
  acts = 0;
  #n = 0;

  constructor(call, random) {
    this.call = call;
    this.random = random;
  }

  async act() {
    const { articles } = await this.call('GET', '/articles?limit=200');
    const out = articles.filter(({ standing }) => standing === 'out');
    const one = out[Math.floor(this.random() * out.length)];
    if (!one) return;
    const article = await this.call('GET', `/articles/${one.id}`);
    const there = article.publications.filter(({ state }) => ['live', 'withdrawn'].includes(state));
    const line = there[Math.floor(this.random() * there.length)];
    if (!line || article.busy) return;
    const act = line.state === 'withdrawn' ? 'publish' : this.random() < 0.35 ? 'withdraw' : 'update';
    const revision = act === 'update' ? await this.#change(article) : article.revision;
    if (revision) await this.ask(article.id, line.id, act, revision);
  }

  async #change(article) {
    const says = `Round ${++this.#n} of changes.`;
    const body = [...article.document.body, { type: 'paragraph', id: `r${this.#n}`, content: [{ text: says }] }];
    const saved = await this.call('PUT', `/articles/${article.id}/document`, {
      base: article.revision,
      document: { ...article.document, body },
      sitting: `s${this.#n}`,
    }).catch(unlessBusy);
    return saved?.revision ?? null;
  }

  async ask(article, publication, act, revision) {
    const answer = await this.call('POST', `/articles/${article}/publications/${publication}`, { act, revision }).catch(
      unlessRefused,
    );
    if (answer === null) return;
    this.acts++;
    this.wanted.set(publication, { article, act, revision });
  }

  /** Asks for everything again that is not known to be done. @returns how many are still open */
  async finish() {
    let open = 0;
    for (const [publication, { article }] of this.wanted) {
      const whole = await this.call('GET', `/articles/${article}`);
      const line = whole.publications.find(({ id }) => id === publication);
      if (!line?.underWay) continue;
      open++;
      await this.ask(article, publication, line.underWay, whole.revision);
    }
    return open;
  }
}

function unlessBusy(error) {
  if (/answered (409|412)/.test(error.message)) return null;
  throw error;
}

/** The blog did not do it, or it was overtaken: a person sees that and asks again or not. */
function unlessRefused(error) {
  if (/answered (409|412|50[0234])/.test(error.message)) return null;
  throw error;
}

/** Posts against what Grivo says of them: each once, at its address, as it is said to be, saying what it is to say. */
export function countWays(posts, publications) {
  const wrong = [];
  const found = { lost: 0, doubled: 0, untrue: 0, perWay: {} };
  const say = (what, sentence) => {
    found[what]++;
    wrong.push(`${what}: ${sentence}`);
  };
  const by = new Map(publications.map((one) => [one.key, one]));
  const seen = new Map();
  for (const post of posts) {
    const one = by.get(post.key);
    // By the interface for desk programs what is taken back stays as a draft nobody reads.
    if (
      post.way === 'xml-rpc' &&
      post.status === 'draft' &&
      (one?.state === 'withdrawn' || one?.address !== post.address)
    )
      continue;
    seen.set(post.key, [...(seen.get(post.key) ?? []), post]);
  }
  for (const [key, [post, ...more]] of seen) {
    for (const other of more)
      say('doubled', `${key} by ${post.way}: ${other.address} (${other.status}) beside ${post.address}`);
    const one = by.get(key);
    found.perWay[post.way] = (found.perWay[post.way] ?? 0) + 1;
    const says = { live: 'published', draft: 'draft' }[one?.state];
    if (says !== post.status)
      say('untrue', `${post.address} by ${post.way} is ${post.status}, Grivo says ${one?.state ?? 'nothing of it'}`);
    else if (one.address !== post.address)
      say('untrue', `${post.address} by ${post.way} is said to be at ${one.address}`);
    else if (one.last && !post.html.includes(one.last))
      say('untrue', `${post.address} by ${post.way} does not say ‘${one.last}’`);
  }
  for (const one of publications)
    if ((one.state === 'live' || one.state === 'draft') && !seen.has(one.key))
      say('lost', `${one.key} on ${one.blog} is said to be ${one.state} at ${one.address} and is not there`);
  return { ...found, wrong };
}
