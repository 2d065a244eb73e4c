// Starting and stopping everything the product needs, for the demonstration and for the smoke test.
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './install.mjs';
import { startMariadb } from './mariadb.mjs';

function firstLine(child, wanted) {
  return new Promise((resolve, reject) => {
    let text = '';
    child.stdout.on('data', (part) => {
      text += part;
      const line = text.split('\n').find((l) => wanted.test(l));
      if (line) resolve(line);
    });
    child.once('exit', (code) => reject(new Error(`it ended with ${code} before it was ready`)));
  });
}

/**
 * @param {string} folder everything is kept here
 * @param {{ port?: number, standInPort?: number, durable?: boolean, log?: string }} options
 */
export async function startAll(folder, { port = 0, standInPort = 0, durable = true, log = 'warn' } = {}) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const keyFile = join(folder, 'secret-key');
  if (!existsSync(keyFile)) writeFileSync(keyFile, randomBytes(32).toString('hex'), { mode: 0o600 });
  const mariadb = await startMariadb(folder, { durable });
  const children = [];
  const run = (args, env = {}) => {
    // A group of its own: Ctrl-C reaches only this script, which then stops its parts in order.
    const child = spawn(process.execPath, ['--import', 'tsx', ...args], {
      cwd: ROOT,
      env: { ...process.env, TZ: 'UTC', ...env },
      stdio: ['ignore', 'pipe', 'inherit'],
      detached: true,
    });
    children.push(child);
    return child;
  };
  const stop = async () => {
    for (const child of children.reverse()) {
      if (child.exitCode !== null) continue;
      const ended = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGTERM');
      const late = setTimeout(() => child.kill('SIGKILL'), 10_000);
      await ended;
      clearTimeout(late);
    }
    await mariadb.stop();
  };
  try {
    const standIns = await firstLine(
      run(['scripts/standins.mjs', join(folder, 'stand-ins'), String(standInPort)]),
      /^http/,
    );
    const owner = { email: 'ines@crockhaven.example', password: 'salt-and-patience' };
    const said = await firstLine(
      run(['server/src/main.ts'], {
        GRIVO_DATABASE_URL: mariadb.url,
        GRIVO_SECRET_KEY: readFileSync(keyFile, 'utf8'),
        GRIVO_PORT: String(port),
        GRIVO_ALLOWED_ORIGINS: standIns,
        GRIVO_LOG: log,
        GRIVO_OWNER_EMAIL: owner.email,
        GRIVO_OWNER_PASSWORD: owner.password,
      }),
      /listens on/,
    );
    return { address: said.split(' ').pop(), standIns, owner, stop, children, mariadb };
  } catch (error) {
    await stop();
    throw error;
  }
}

/** A signed-in way to the API. */
export async function client(address, { email, password }) {
  const signed = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  if (!signed.ok) throw new Error(`sign-in answered ${signed.status}: ${await signed.text()}`);
  const cookie = signed.headers.get('set-cookie').split(';')[0];
  return async (method, path, body) => {
    const response = await fetch(`${address}/api${path}`, {
      method,
      headers: { cookie, 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const text = await response.text();
    if (!response.ok) throw new Error(`${method} ${path} answered ${response.status}: ${text}`);
    return text === '' ? null : JSON.parse(text);
  };
}

/** Connects the stand-ins through the API, as a person would. */
export async function connect(call, standIns, { model = 'one', blogs = ['journal'] } = {}) {
  const { BLOGS } = await import('@grivo/standins');
  const price =
    model === 'one'
      ? { microsPerThousandIn: 400, microsPerThousandOut: 1_600, microsPerPicture: 40_000 }
      : { microsPerThousandIn: 900, microsPerThousandOut: 2_700, microsPerPicture: 25_000 };
  const model_ = { address: `${standIns}/${model}/v1`, model: 'stand-in', secret: `${model}-test-key`, price };
  await call('POST', '/services', { role: 'writer', name: 'Stand-in writer', ...model_ });
  await call('POST', '/services', { role: 'illustrator', name: 'Stand-in illustrator', ...model_ });
  await call('POST', '/services', { role: 'look-up', name: 'Small web', address: `${standIns}/look-up`, price });
  const ids = [];
  for (const [i, slug] of blogs.entries()) {
    const site = BLOGS.find((blog) => blog.slug === slug);
    const cadence = {
      rate: { kind: 'count', n: 5, per: 'week' },
      days: [1, 2, 3, 4, 5],
      hours: [
        { from: '08:00', to: '10:00' },
        { from: '16:00', to: '18:30' },
        { from: '06:30', to: '08:00' },
      ][i],
      gapMinutes: 240,
      start: '2024-01-01',
      zone: site.language === 'de' ? 'Europe/Berlin' : 'Europe/Dublin',
    };
    ids.push(
      (
        await call('POST', '/blogs', {
          name: site.name,
          address: `${standIns}/blogs/${slug}`,
          endpoint: `${standIns}/blogs/${slug}/micropub`,
          secret: site.token,
          language: site.language,
          cadence,
        })
      ).id,
    );
  }
  return ids;
}

/** The procedure of the demonstration: from a keyword to a published guide. */
export function guide(source, blog, when, most = null) {
  return {
    grivo: 1,
    language: 'en',
    steps: [
      { id: 's1', kind: 'take', sources: [source], most, everyMinutes: null, atOnce: null, apartMinutes: 0 },
      { id: 's2', kind: 'look up', pages: 6, country: null, since: null },
      { id: 's3', kind: 'outline', sections: { from: 4, to: 6 } },
      {
        id: 's4',
        kind: 'write',
        words: 900,
        person: 'second person',
        tone: 'plain and friendly',
        parts: ['contents', 'key points', 'lists'],
      },
      { id: 's5', kind: 'title', most: 60, choices: 3 },
      { id: 's6', kind: 'illustrate', lead: 'drawn', manner: 'flat shapes, calm colours' },
      { id: 's7', kind: 'link', own: 3, blog },
      { id: 's8', kind: 'check', words: { from: 300, to: 2_000 }, again: 1 },
      { id: 's9', kind: 'publish', blog, when, as: 'live' },
    ],
  };
}

export async function until(check, ms, what) {
  const end = Date.now() + ms;
  while (Date.now() < end) {
    if (await check()) return;
    await new Promise((resolve) => setTimeout(resolve, 60));
  }
  throw new Error(`${what} did not come about within ${ms / 1_000} s`);
}
