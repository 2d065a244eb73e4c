// Saves an installation into one file, or brings one back from it.
//   npm run backup -- file.sql.gz           npm run restore -- file.sql.gz [--over]
// The database is GRIVO_DATABASE_URL's, or the running demonstration's. The secret key is not in the file: keep it apart.
import { spawn } from 'node:child_process';
import { createReadStream, createWriteStream, existsSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { ROOT } from './install.mjs';

const [what, file, ...flags] = process.argv.slice(2);
if (!['backup', 'restore'].includes(what) || !file) {
  console.error('npm run backup -- file.sql.gz, or npm run restore -- file.sql.gz [--over]');
  process.exit(2);
}

/** Where the database is: as the environment says, else the demonstration's while it runs. */
function database() {
  if (process.env.GRIVO_DATABASE_URL) return new URL(process.env.GRIVO_DATABASE_URL.replace(/,[^/]*/, ''));
  const folder = join(ROOT, '.grivo', 'demo');
  const socket = join(folder, 'db.sock');
  if (!existsSync(socket)) {
    console.error('There is no GRIVO_DATABASE_URL, and no demonstration runs.');
    process.exit(2);
  }
  const url = new URL('mysql://grivo@127.0.0.1/grivo');
  url.password = readFileSync(join(folder, 'db-password'), 'utf8');
  const { databasePort } = JSON.parse(readFileSync(join(folder, 'running.json'), 'utf8'));
  url.port = String(databasePort);
  return url;
}

const url = database();
const name = url.pathname.slice(1);
const connection = [
  '--no-defaults',
  `--host=${url.hostname}`,
  `--port=${url.port || 3306}`,
  `--user=${decodeURIComponent(url.username)}`,
];
// Not among the arguments: those can be read by everybody on the machine.
const env = { ...process.env, MYSQL_PWD: decodeURIComponent(url.password) };

function ended(child, command) {
  return new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${command} ended with ${code}`))));
  });
}

async function backup() {
  const open = `${file}.part`;
  const dump = spawn('mariadb-dump', [...connection, '--single-transaction', '--hex-blob', '--skip-dump-date', name], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env,
  });
  try {
    await Promise.all([
      ended(dump, 'mariadb-dump'),
      pipeline(dump.stdout, createGzip(), createWriteStream(open, { mode: 0o600 })),
    ]);
  } catch (error) {
    rmSync(open, { force: true });
    throw error;
  }
  renameSync(open, file);
  console.log(`Saved ${name} into ${file}. Keep GRIVO_SECRET_KEY with it, in another place.`);
}

async function tables() {
  const asked = spawn('mariadb', [...connection, '--skip-column-names', '--batch', '-e', 'SHOW TABLES', name], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env,
  });
  let text = '';
  asked.stdout.on('data', (chunk) => {
    text += chunk;
  });
  await ended(asked, 'mariadb');
  return text.split('\n').filter(Boolean).length;
}

async function restore() {
  if ((await tables()) > 0 && !flags.includes('--over')) {
    console.error(`${name} is not empty. Stop Grivo, then add --over to put the saved one in its place.`);
    process.exit(1);
  }
  // Lines of a dump that begin with a backslash are commands of the client, and one of them is a shell: in its sandbox it
  // obeys none that reach beyond the database.
  const load = spawn('mariadb', [...connection, '--sandbox', '--binary-mode', name], {
    stdio: ['pipe', 'inherit', 'inherit'],
    env,
  });
  await Promise.all([ended(load, 'mariadb'), pipeline(createReadStream(file), createGunzip(), load.stdin)]);
  console.log(`${name} is as it was saved in ${file}.`);
}

try {
  await (what === 'backup' ? backup() : restore());
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
