import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildScreens } from '../../scripts/build.mjs';
import { client } from '../../scripts/client.mjs';
import { live, setUp } from '../../scripts/crockhaven.mjs';
import { startAll } from '../../scripts/processes.mjs';
import { SIDE_BY_SIDE, weekOf } from './sideBySide.ts';
import { workshop } from './workshop.ts';

const WEEKS = Array.from({ length: SIDE_BY_SIDE }, (_, i) => weekOf(i));
/** Installations by what the tests need: two empty ones for first journeys, and some with a week of history. */
const WANTED = ['POINTER', 'KEYBOARD', ...WEEKS];

/** Starts them, each with a MariaDB in memory, and stops them when all tests are done. */
export default async function installations(): Promise<() => Promise<void>> {
  buildScreens();
  const folder = mkdtempSync(join('/dev/shm', 'grivo-e2e-'));
  const violins = await workshop();
  process.env['GRIVO_WORKSHOP'] = violins.origin;
  const all = await Promise.all(
    WANTED.map((name) =>
      startAll(join(folder, name.toLowerCase()), { durable: false, log: 'warn', allow: [violins.origin] }),
    ),
  );
  const stop = async () => {
    for (const one of all) await one.stop();
    await violins.close();
    rmSync(folder, { recursive: true, force: true });
  };
  try {
    for (const [i, name] of WANTED.entries()) {
      process.env[`GRIVO_${name}`] = all[i]!.address!;
      process.env[`GRIVO_${name}_FOLDER`] = join(folder, name.toLowerCase());
    }
    await Promise.all(
      WEEKS.map(async (name) => {
        const week = all[WANTED.indexOf(name)]!;
        const call = await client(week.address, week.owner);
        await live(call, await setUp(call, week.standIns), 1, Date.now(), () => undefined);
      }),
    );
  } catch (error) {
    // Nobody stops what a set-up that failed has started.
    await stop();
    throw error;
  }
  return stop;
}
