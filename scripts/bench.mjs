// Measures; prints a table and, as the last line, one JSON object. npm run bench [engine] [path], npm run bench honesty -- --set FILE,
// npm run bench text -- --material FOLDER --out FOLDER
import { spawnSync } from 'node:child_process';
import { parseArgs } from 'node:util';
import { installMissing } from './install.mjs';

installMissing({ browser: true });
// What is measured is what is built.
const LOADER = new URL('./asBuilt.mjs', import.meta.url).href;
if (!process.execArgv.includes(LOADER)) {
  const { status } = spawnSync(process.execPath, ['--import', LOADER, import.meta.filename, ...process.argv.slice(2)], {
    stdio: 'inherit',
    env: { ...process.env, TZ: 'UTC' },
  });
  process.exit(status ?? 1);
}
const { buildReading } = await import('./build.mjs');
const all = {
  engine: (await import('./bench/engine.mjs')).engine,
  plan: (await import('./bench/plan.mjs')).planning,
  claims: (await import('./bench/claims.mjs')).waiting,
  intake: (await import('./bench/intake.mjs')).intake,
  grouping: (await import('./bench/grouping.mjs')).grouping,
  nearRepeat: (await import('./bench/nearRepeat.mjs')).nearRepeat,
  alike: (await import('./bench/alike.mjs')).alike,
  path: (await import('./bench/path.mjs')).path,
  web: (await import('./bench/web.mjs')).web,
  hostile: (await import('./bench/hostile.mjs')).hostile,
  busy: (await import('./bench/busy.mjs')).busy,
  desk: (await import('./bench/desk.mjs')).desk,
  lists: (await import('./bench/lists.mjs')).lists,
  articles: (await import('./bench/lists.mjs')).articles,
  text: (await import('./bench/text.mjs')).text,
  honesty: (await import('./bench/honesty.mjs')).honesty,
  proof: (await import('./bench/proof.mjs')).proof,
  proofPage: (await import('./bench/proofPage.mjs')).proofPage,
  publish: (await import('./bench/publish.mjs')).publish,
  due: (await import('./bench/due.mjs')).due,
  compare: (await import('./bench/compare.mjs')).compare,
  style: (await import('./bench/style.mjs')).style,
  links: (await import('./bench/links.mjs')).links,
  pictures: (await import('./bench/pictures.mjs')).pictures,
};
const OPTIONS = { set: { type: 'string' }, material: { type: 'string' }, out: { type: 'string' } };
let given;
try {
  given = parseArgs({ options: OPTIONS, allowPositionals: true });
} catch (error) {
  console.error(error.message);
  process.exit(2);
}
const { values: options, positionals: names } = given;
for (const name of names)
  if (!(name in all)) {
    console.error(`There is no measurement ‘${name}’; there are ${Object.keys(all).join(' and ')}.`);
    process.exit(2);
  }
// Readings are made in processes that run what is built.
await buildReading();
const figures = {};
for (const name of names.length > 0 ? names : Object.keys(all))
  Object.assign(figures, await all[name](console.log, options));
for (const [key, value] of Object.entries(figures)) console.log(`${key.padEnd(32)} ${value.toFixed(2)}`);
console.log(
  JSON.stringify(
    Object.fromEntries(Object.entries(figures).map(([key, value]) => [key, Math.round(value * 1_000) / 1_000])),
  ),
);
process.exit(0);
