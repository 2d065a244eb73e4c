// The command people begin with, run as they run it: what it says and leaves behind when things go wrong.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, afterEach, describe, expect, test } from 'vitest';
import { ROOT } from './install.mjs';
import { freePort } from './mariadb.mjs';
import { OWNER, portIsFree } from './processes.mjs';

const folder = mkdtempSync('/dev/shm/grivo-demo-');
const begun = [];

/** Runs the command with these options; what it says is gathered as it comes. */
function demo(...options) {
  const child = spawn(process.execPath, [join(ROOT, 'scripts', 'demo.mjs'), ...options], { cwd: ROOT });
  const one = { child, says: '', code: null };
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk) => {
      one.says += chunk;
    });
  one.ended = new Promise((resolve) =>
    child.once('exit', (code, signal) => {
      one.code = code ?? signal;
      resolve(one);
    }),
  );
  begun.push(one);
  return one;
}

/** On a slow machine everything is built first. */
const LONGEST = 170_000;

async function until(done, what) {
  for (let waited = 0; waited < LONGEST; waited += 50) {
    if (await done()) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  throw new Error(`it did not come: ${what()}`);
}

const isAlive = (pid) => {
  try {
    return !/^\d+ \(.*\) Z/.test(readFileSync(`/proc/${pid}/stat`, 'utf8'));
  } catch {
    return false;
  }
};
const partsOf = (data) => JSON.parse(readFileSync(join(data, 'running.json'), 'utf8')).parts;

/** Whether the owner can sign in there: the API answers, and so does its database. */
async function letsIn(address) {
  const answer = await fetch(`${address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: OWNER.email, password: OWNER.password }),
  }).catch(() => null);
  return answer?.ok === true;
}

/** Starts an empty one and waits until it is ready. */
async function started(data, port, standInPort) {
  const one = demo('--empty', '--data', data, '--port', String(port), '--stand-in-port', String(standInPort));
  await until(
    () => one.says.includes('Ready after') || one.code !== null,
    () => one.says,
  );
  expect(one.says).toContain('Ready after');
  return one;
}

afterEach(async () => {
  for (const one of begun.splice(0)) {
    if (one.code === null) one.child.kill('SIGINT');
    await one.ended;
  }
}, 60_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('the command that starts the demonstration', { timeout: 400_000 }, () => {
  test('what is no option, and what none of its values can be, is said with all there are', async () => {
    for (const [options, said] of [
      [['--fast'], /Unknown option '--fast'/],
      [['--port', 'eighty'], /--port takes a number from 1 to 65535, not ‘eighty’/],
      [['--speed', '0'], /--speed takes a number from 1 to 100000, not ‘0’/],
      [['--allow', 'next-door'], /--allow takes an origin as http:/],
    ]) {
      const { code, says } = await demo(...options).ended;
      expect(says).toMatch(said);
      expect(says).toContain('--stand-in-port N');
      expect(code).toBe(2);
    }
  });

  test('a folder with something else in it is left as it is, also when everything is to begin anew', async () => {
    const data = mkdtempSync(join(folder, 'letters-'));
    writeFileSync(join(data, 'letter.txt'), 'Dear Ada');
    const { code, says } = await demo('--empty', '--fresh', '--data', data).ended;
    expect(says).toContain('holds something else than data of Grivo');
    expect(code).toBe(1);
    expect(readFileSync(join(data, 'letter.txt'), 'utf8')).toBe('Dear Ada');
  });

  test('a second start says where the first is; another beside it, that the port is taken; Ctrl-C leaves nothing', async () => {
    const data = join(folder, 'one');
    const [port, standInPort] = [await freePort(), await freePort()];
    const first = await started(data, port, standInPort);
    expect(first.says).toContain(`Grivo is at       http://127.0.0.1:${port}`);
    expect(await letsIn(`http://127.0.0.1:${port}`)).toBe(true);

    const second = await demo('--empty', '--data', data).ended;
    expect([second.code, second.says]).toEqual([0, `Grivo is running already, at http://127.0.0.1:${port}\n`]);

    const beside = await demo('--empty', '--data', join(folder, 'two'), '--port', String(port)).ended;
    expect(beside.code).toBe(1);
    expect(beside.says).toContain(`Port ${port} is taken by another program`);
    expect(beside.says).toContain(`--port ${port + 1}`);

    const parts = Object.values(partsOf(data));
    expect(parts).toHaveLength(4);
    first.child.kill('SIGINT');
    expect((await first.ended).code).toBe(0);
    expect(parts.filter(isAlive)).toEqual([]);
    expect(existsSync(join(data, 'running.json'))).toBe(false);
    expect(await portIsFree(port)).toBe(true);
  });

  test('killed in the middle it ends what was left and goes on with the same data; a part that dies is started again', async () => {
    const data = join(folder, 'three');
    const [port, standInPort] = [await freePort(), await freePort()];
    const address = `http://127.0.0.1:${port}`;
    const first = await started(data, port, standInPort);
    const left = Object.values(partsOf(data));
    first.child.kill('SIGKILL');
    await first.ended;
    expect(left.filter(isAlive)).toHaveLength(4);

    const again = await started(data, port, standInPort);
    expect(again.says).toContain('Ending what an interrupted start left behind');
    expect(left.filter(isAlive)).toEqual([]);
    expect(await letsIn(address)).toBe(true);

    const { database, api } = partsOf(data);
    process.kill(database, 'SIGKILL');
    await until(
      () => again.says.includes('database ended (SIGKILL); starting it again.'),
      () => again.says,
    );
    await until(
      () => letsIn(address),
      () => 'nobody is let in',
    );
    await until(
      () => partsOf(data).database !== database,
      () => 'the new database is not among the parts',
    );
    // Only what died was started again.
    expect(partsOf(data).api).toBe(api);
  });
});
