import { mkdirSync, mkdtempSync, rmdirSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { pino } from 'pino';
import { shutOtherPictures } from '../formats/pictures/read.ts';
import { readConfig } from '../ground/config/config.ts';
import { isAny } from '../ground/store/there.ts';
import { weakPassword } from '../nouns/people/passwords.ts';
import { addPerson } from '../nouns/people/repository.ts';
import { Mail } from '../ports/telling/mail.ts';
import { app } from './app.ts';
import { assemble } from './product.ts';

const read = readConfig(process.env);
if (!read.ok) {
  console.error(`Grivo cannot start:\n  ${read.wrong.join('\n  ')}`);
  process.exit(2);
}
const { config } = read;
// What large tables leave behind is cleared away when the heap has grown by half, not when it is four times as large. A
// worker is not asked anything meanwhile, and rather loses no time.
if (config.GRIVO_ROLE !== 'worker') setFlagsFromString('--heap-growing-percent=50');
shutOtherPictures();
const keepFolder = config.GRIVO_KEEP_FOLDER === undefined ? null : resolve(config.GRIVO_KEEP_FOLDER);
const folders = config.GRIVO_FOLDERS.map((folder) => resolve(folder));
for (const folder of folders) mkdirSync(folder, { recursive: true });
// An empty folder to work in: nothing that takes names beside where it stands finds a file there.
const emptyFolder = mkdtempSync(join(tmpdir(), 'grivo-'));
process.chdir(emptyFolder);
process.on('exit', () => {
  try {
    rmdirSync(emptyFolder);
  } catch {
    // Somebody put something there; it stays for them to look at.
  }
});
const log = pino({ level: config.GRIVO_LOG, redact: ['req.headers', '*.secret', '*.password'] });
const product = await assemble({
  databaseUrl: config.GRIVO_DATABASE_URL,
  secretKey: Buffer.from(config.GRIVO_SECRET_KEY, 'hex'),
  allowedOrigins: config.GRIVO_ALLOWED_ORIGINS.split(',').filter((origin) => origin !== ''),
  log,
  waitForDatabaseMs: 30_000,
  mail: config.GRIVO_MAIL_URL ? new Mail(config.GRIVO_MAIL_URL, config.GRIVO_MAIL_FROM) : null,
  keepFolder,
  folders,
  standIns: config.GRIVO_STAND_INS ?? null,
  publicUrl: config.GRIVO_PUBLIC_URL ?? null,
  browser: config.GRIVO_BROWSER ?? null,
  trustedProxies: config.GRIVO_TRUSTED_PROXIES,
  migrates: config.GRIVO_ROLE !== 'worker',
});

const { GRIVO_OWNER_EMAIL: email, GRIVO_OWNER_NAME: name, GRIVO_OWNER_PASSWORD: password } = config;
if (config.GRIVO_ROLE !== 'worker' && email && password && !(await isAny(product.ground.db, 'person'))) {
  const owner = { email, name: name ?? email.split('@')[0] ?? 'Owner' };
  const weak = await weakPassword(password, owner);
  if (weak !== null) {
    console.error(`Grivo cannot start:\n  GRIVO_OWNER_PASSWORD: ${weak}`);
    process.exit(2);
  }
  await addPerson(product.ground, { ...owner, role: 'owner', password });
}
if (config.GRIVO_ROLE === 'api') await product.hear();
else {
  const engine = await product.work(config.GRIVO_ROLE, { leaseSeconds: config.GRIVO_LEASE_SECONDS });
  console.log(`Grivo works as ${engine.worker}`);
}

/**
 * How long a line without a request stays open. Longer than the minute most programs and gateways keep theirs: where both
 * close it at the same moment, a request that is just on its way gets no answer.
 */
const IDLE_LINE_MS = 75_000;
const server = config.GRIVO_ROLE === 'worker' ? null : createServer({ keepAliveTimeout: IDLE_LINE_MS }, app(product));
server?.listen(config.GRIVO_PORT, config.GRIVO_HOST, () => {
  const { port } = server.address() as AddressInfo;
  console.log(`Grivo listens on http://${config.GRIVO_HOST}:${port}`);
});

let stopping = false;
function stop(): void {
  if (stopping) return;
  stopping = true;
  server?.close();
  server?.closeAllConnections();
  product
    .close()
    .then(() => process.exit(0))
    .catch((error) => {
      log.error({ err: error }, 'not stopped cleanly');
      process.exit(1);
    });
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
