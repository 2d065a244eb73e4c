// The demonstration: everything started on this machine, with made-up data that Grivo computed itself.
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { buildScreens } from './build.mjs';
import { installMissing, ROOT } from './install.mjs';

const HELP = `npm run demo -- [options]
  --empty            no demo data: a Grivo to begin with (kept apart from the demo's data)
  --speed N          the desk clock runs N times as fast (1 to 100000)
  --port N           where Grivo listens (4300)
  --stand-in-port N  where the stand-ins listen (4310; blogs keep their address, so choose it once)
  --allow ORIGIN     lets Grivo call an origin on this machine or a private network, as http://127.0.0.1:8080; may be given more than once
  --data FOLDER      where data and logs are kept (.grivo/demo, or .grivo/empty)
  --fresh            throws the data away and begins anew`;

function given() {
  const options = {
    empty: { type: 'boolean', default: false },
    fresh: { type: 'boolean', default: false },
    allow: { type: 'string', multiple: true, default: [] },
    help: { type: 'boolean', default: false },
    speed: { type: 'string', default: '1' },
    port: { type: 'string', default: '4300' },
    'stand-in-port': { type: 'string' },
    data: { type: 'string' },
  };
  try {
    const { values } = parseArgs({ options });
    const number = (name, text, least, most) => {
      const n = Number(text);
      if (!Number.isFinite(n) || n < least || n > most)
        throw new Error(`--${name} takes a number from ${least} to ${most}, not ‘${text}’.`);
      return n;
    };
    for (const origin of values.allow)
      if (!URL.canParse(origin) || new URL(origin).origin !== origin.replace(/\/$/, ''))
        throw new Error(`--allow takes an origin as http://127.0.0.1:8080, not ‘${origin}’.`);
    return {
      ...values,
      allow: values.allow.map((origin) => new URL(origin).origin),
      speed: number('speed', values.speed, 1, 100_000),
      port: number('port', values.port, 1, 65_535),
      standInPort: number('stand-in-port', values['stand-in-port'] ?? (values.empty ? '4311' : '4310'), 1, 65_535),
    };
  } catch (error) {
    console.error(`${error.message}\n\n${HELP}`);
    process.exit(2);
  }
}

const wanted = given();
if (wanted.help) {
  console.log(HELP);
  process.exit(0);
}
try {
  installMissing();
  await buildScreens();
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
const { client } = await import('./client.mjs');
const { endLeftOver, leftOver, OWNER, portIsFree, startAll } = await import('./processes.mjs');

const folder = wanted.data ? resolve(wanted.data) : join(ROOT, '.grivo', wanted.empty ? 'empty' : 'demo');
// A folder with something else in it is nobody's to throw away.
if (existsSync(folder) && readdirSync(folder).length > 0 && !existsSync(join(folder, 'secret-key'))) {
  console.error(`${folder} holds something else than data of Grivo. Name an empty or a new folder.`);
  process.exit(1);
}
mkdirSync(folder, { recursive: true, mode: 0o700 });
const left = leftOver(folder);
if (left?.running) {
  console.log(`Grivo is running already, at ${left.address}`);
  process.exit(0);
}
if (left?.pids?.length > 0) {
  console.log('Ending what an interrupted start left behind …');
  await endLeftOver(left.pids);
}
const stage = join(folder, 'stage');
const made = existsSync(stage) ? readFileSync(stage, 'utf8') : '';
if (wanted.fresh || (made === 'begun' && !wanted.empty)) {
  console.log(wanted.fresh ? 'Throwing the old data away …' : 'The demo data was only half made; beginning anew …');
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true, mode: 0o700 });
}
for (const [port, option] of [
  [wanted.port, '--port'],
  [wanted.standInPort, '--stand-in-port'],
])
  if (!(await portIsFree(port))) {
    console.error(`Port ${port} is taken by another program. Choose another: npm run demo -- ${option} ${port + 1}`);
    process.exit(1);
  }

let all = null;
let stopped = false;
async function stop(code) {
  if (stopped) return;
  stopped = true;
  console.log('\nStopping …');
  await all?.stop();
  process.exit(code);
}
process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));

try {
  const begun = Date.now();
  console.log('Starting MariaDB, the stand-ins, the API and a worker …');
  all = await startAll(folder, {
    port: wanted.port,
    standInPort: wanted.standInPort,
    allow: wanted.allow,
    onEnd: (name, how) => console.log(`${name} ended (${how}); starting it again.`),
  });
  const call = await client(all.address, OWNER);
  if (!wanted.empty && !existsSync(stage)) {
    writeFileSync(stage, 'begun');
    console.log('Making the demo data: Grivo works through four weeks of it …');
    // The demonstration's material is TypeScript.
    (await import('tsx/esm/api')).register();
    const { live, setUp } = await import('./crockhaven.mjs');
    await live(call, await setUp(call, all.standIns), 4, Date.now(), (line) => console.log(line));
    writeFileSync(stage, 'made');
  }
  if (wanted.speed !== 1) await call('PUT', '/desk-clock', { at: null, speed: wanted.speed });
  else await call('PUT', '/desk-clock', { at: null, speed: 1 });
  console.log(`
Grivo is at       ${all.address}
Sign in as        ${OWNER.email}
with              ${OWNER.password}
The stand-ins are at ${all.standIns}: a writer, an illustrator, a small web, blogs.
Ready after ${((Date.now() - begun) / 1_000).toFixed(1)} s. Data and logs are in ${folder.replace(`${ROOT}/`, '')}. Ctrl-C stops everything.`);
} catch (error) {
  console.error(error.message);
  await stop(1);
}
