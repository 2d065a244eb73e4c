// The parts of an installation as processes: started in order, watched, started again when they end unasked, stopped.
// Built-ins only.
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { buildPrograms, PROGRAMS } from './build.mjs';
import { ROOT } from './install.mjs';
import { freePort, startMariadb, urlOf } from './mariadb.mjs';

export const OWNER = { name: 'Ines Halloran', email: 'ines@crockhaven.example', password: 'salt-and-patience' };

/** Starts a program of ours with its words in a log file, and waits for the line that says it is ready. */
async function program(folder, name, args, env, ready) {
  const path = join(folder, `${name}.log`);
  const before = existsSync(path) ? readFileSync(path).length : 0;
  const log = openSync(path, 'a', 0o600);
  // A process group of its own: Ctrl-C reaches only the script that started it, which then stops its parts in order.
  const child = spawn(process.execPath, ['--enable-source-maps', ...args], {
    cwd: ROOT,
    // Threads that read share what the system gives: with a heap each, a program held a quarter more for the same.
    env: { ...process.env, TZ: 'UTC', MALLOC_ARENA_MAX: '2', ...env },
    stdio: ['ignore', log, log],
    detached: true,
  });
  let ended = null;
  child.once('exit', (code, signal) => {
    ended = signal ?? `code ${code}`;
  });
  for (let waited = 0; waited < 60_000; waited += 40) {
    const said = readFileSync(path).subarray(before).toString();
    const line = said.split('\n').find((l) => ready.test(l));
    if (line) return { child, line };
    if (ended) throw new Error(`${name} ended (${ended}) before it was ready:\n${said.slice(-2_000)}`);
    await new Promise((resolve) => setTimeout(resolve, 40));
  }
  child.kill('SIGKILL');
  throw new Error(`${name} was not ready within a minute; see ${path}`);
}

/** Whether nobody listens on a port of loopback. */
export function portIsFree(port) {
  return new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}

async function endOf(child) {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  const late = setTimeout(() => child.kill('SIGKILL'), 10_000);
  await ended;
  clearTimeout(late);
}

/** A port that was free when it was chosen may be taken a moment later by somebody else: then others are chosen. */
const TRIES = 3;

/**
 * @param {string} folder data, logs, passwords and the list of running processes are kept here
 * @param {object} options `allow` names origins on private networks that may be called besides; ports of 0 are free ones; `standIns` and `ownDatabase` say that a harness runs these itself; `onEnd(name, how)` is told when a part ends unasked
 */
export async function startAll(folder, options = {}) {
  for (let tries = 1; ; tries++)
    try {
      return await startOnce(folder, options);
    } catch (error) {
      const fixed = options.port || options.standInPort || options.databasePort;
      if (fixed || tries === TRIES || !/EADDRINUSE/.test(String(error))) throw error;
    }
}

async function startOnce(folder, options) {
  const { standInPort = 0, durable = true, log = 'warn', workers = 1, leaseSeconds = 15, onEnd = () => {} } = options;
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const keyFile = join(folder, 'secret-key');
  if (!existsSync(keyFile)) writeFileSync(keyFile, randomBytes(32).toString('hex'), { mode: 0o600 });
  await buildPrograms();
  // Every port is known before anything starts, so that all start at once and wait for what they need.
  const port = options.port || (await freePort());
  const databasePort = options.databasePort ?? (await freePort());
  const databaseUrl = urlOf(folder, databasePort);
  const mailPort = await freePort();
  /** Parts by name, in the order they were started. */
  const parts = new Map();
  let stopping = false;
  const env = () => ({
    GRIVO_SECRET_KEY: readFileSync(keyFile, 'utf8'),
    GRIVO_ALLOWED_ORIGINS: [all.standIns, ...(options.allow ?? [])].join(','),
    GRIVO_STAND_INS: all.standIns,
    ...(options.standIns ? {} : { GRIVO_MAIL_URL: `smtp://127.0.0.1:${mailPort}`, GRIVO_MAIL_FROM: OWNER.email }),
    GRIVO_KEEP_FOLDER: join(folder, 'kept'),
    GRIVO_FOLDERS: join(folder, 'sites'),
    GRIVO_PUBLIC_URL: `http://127.0.0.1:${port}`,
    GRIVO_LOG: log,
    GRIVO_LEASE_SECONDS: String(leaseSeconds),
    GRIVO_OWNER_EMAIL: OWNER.email,
    GRIVO_OWNER_NAME: OWNER.name,
    GRIVO_OWNER_PASSWORD: OWNER.password,
  });
  /** A harness may put a way of its own between a part and the database. */
  const envOf = (name) => ({
    ...env(),
    GRIVO_DATABASE_URL: options.databaseUrl?.(name, databaseUrl) ?? databaseUrl,
  });
  const known = () =>
    writeFileSync(
      join(folder, 'running.json'),
      JSON.stringify({
        pid: process.pid,
        address: all.address,
        databasePort,
        parts: Object.fromEntries([...parts].map(([name, part]) => [name, part.pid])),
      }),
    );

  const begin = {
    database: async () => {
      const mariadb = await startMariadb(folder, { durable, port: databasePort });
      all.mariadb = mariadb;
      return { pid: mariadb.pid, child: mariadb.child, stop: () => mariadb.stop() };
    },
    'stand-ins': async () => {
      const { child } = await program(
        folder,
        'stand-ins',
        [PROGRAMS.standIns, join(folder, 'stand-ins'), new URL(all.standIns).port, String(mailPort)],
        {},
        /^http/,
      );
      return { pid: child.pid, child, stop: () => endOf(child) };
    },
    api: async () => {
      const { child, line } = await program(
        folder,
        'api',
        [PROGRAMS.server],
        { ...envOf('api'), GRIVO_ROLE: 'api', GRIVO_PORT: String(all.address ? new URL(all.address).port : port) },
        /listens on/,
      );
      all.address = line.trim().split(' ').pop();
      return { pid: child.pid, child, stop: () => endOf(child) };
    },
  };
  const worker = (name) => async () => {
    const { child } = await program(
      folder,
      name,
      [PROGRAMS.server],
      { ...envOf(name), GRIVO_ROLE: 'worker' },
      /works as/,
    );
    return { pid: child.pid, child, stop: () => endOf(child) };
  };

  async function start(name) {
    const part = await (begin[name] ?? worker(name))();
    parts.set(name, part);
    known();
    part.child.once('exit', (code, signal) => {
      if (stopping) return;
      onEnd(name, signal ?? `code ${code}`);
      // Starting again at once; a part that cannot start is tried again with a pause between.
      const again = () => stopping || start(name).catch(() => setTimeout(again, 1_000));
      again();
    });
  }

  const all = {
    address: null,
    /** Where the stand-ins are; given when a harness runs them itself. */
    standIns: options.standIns ?? `http://127.0.0.1:${standInPort || (await freePort())}`,
    owner: OWNER,
    mariadb: null,
    /** Kills a part as a power cut would; it is started again. */
    kill: (name) => process.kill(parts.get(name).pid, 'SIGKILL'),
    names: () => [...parts.keys()],
    async stop() {
      stopping = true;
      for (const part of [...parts.values()].reverse()) await part.stop();
      rmSync(join(folder, 'running.json'), { force: true });
    },
  };
  try {
    const names = Array.from({ length: workers }, (_, i) => (workers === 1 ? 'worker' : `worker-${i + 1}`));
    const parts = [
      ...(options.ownDatabase ? [] : ['database']),
      ...(options.standIns ? [] : ['stand-ins']),
      'api',
      ...names,
    ];
    // All of them, so that when one fails the others are known and can be stopped.
    const failed = (await Promise.allSettled(parts.map(start))).find(({ status }) => status === 'rejected');
    if (failed) throw failed.reason;
    return all;
  } catch (error) {
    await all.stop();
    throw error;
  }
}

/** What an earlier start left: still running, or only parts of it after it was killed. */
export function leftOver(folder) {
  const path = join(folder, 'running.json');
  if (!existsSync(path)) return null;
  let said;
  try {
    said = JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return null;
  }
  const ours = (pid) => {
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      return /demo\.mjs|dist\/main\.mjs|dist\/standins\.mjs/.test(line) || line.includes(folder);
    } catch {
      return false;
    }
  };
  if (ours(said.pid)) return { running: true, address: said.address };
  return { running: false, pids: Object.values(said.parts).filter(ours) };
}

/** Ends the parts an earlier start left behind. */
export async function endLeftOver(pids) {
  const alive = (pid) => existsSync(`/proc/${pid}/cmdline`) && readFileSync(`/proc/${pid}/cmdline`, 'utf8') !== '';
  for (const pid of pids) process.kill(pid, 'SIGTERM');
  for (let waited = 0; pids.some(alive); waited += 50) {
    if (waited === 8_000) for (const pid of pids.filter(alive)) process.kill(pid, 'SIGKILL');
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
