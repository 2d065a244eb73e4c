// The main job from nothing, through the API, with throw-away data on free ports. Last line: one JSON object.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { installMissing } from './install.mjs';

installMissing();
if (!process.execArgv.includes('tsx')) {
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', import.meta.filename, ...process.argv.slice(2)], {
    stdio: 'inherit',
  });
  process.exit(status ?? 1);
}
const { client, until } = await import('./client.mjs');
const { connect, guide } = await import('./crockhaven.mjs');
const { startAll } = await import('./processes.mjs');

const model = process.argv.includes('--model=two') ? 'two' : 'one';
const rain = process.argv.includes('--subject=rain');
const keywords = rain
  ? ['how to keep mosquitoes out of a rain barrel', 'rain barrel in winter', 'how much rain a roof gives']
  : ['how much salt for sauerkraut', 'fermenting garlic in honey', 'kahm yeast or mould'];
const folder = mkdtempSync(join(tmpdir(), 'grivo-smoke-'));
const started = Date.now();
let well = false;
const all = await startAll(folder, {});
try {
  const call = await client(all.address, all.owner);
  const [blog] = await connect(call, all.standIns, { model, blogs: [rain ? 'barrels' : 'journal'] });
  const { id: source } = await call('POST', '/sources', { name: 'Smoke' });
  await call('POST', `/sources/${source}/keywords`, { paste: keywords.join('\n') });
  const { id: pipeline } = await call('POST', '/pipelines', {
    name: 'Smoke',
    document: guide(source, blog, 'at once'),
  });
  await call('POST', `/pipelines/${pipeline}/take`, {});
  await until(
    async () =>
      (await call('GET', '/briefs')).briefs.every((brief) => ['out', 'stopped', 'set aside'].includes(brief.standing)),
    60_000,
    'the end of all briefs',
  );
  const { articles } = await call('GET', '/articles');
  const published = articles.filter((article) => article.standing === 'out');
  let verified = 0;
  for (const { address, title } of published) {
    const page = await (await fetch(address)).text();
    const links = [...page.matchAll(/<a href="([^"#]+)">/g)].filter(([, href]) =>
      href.startsWith(`${all.standIns}/blogs/`),
    );
    const image = /<figure class="lead"><img src="([^"]+)"/.exec(page)?.[1];
    const drawn = image ? await fetch(image) : null;
    const lacks = [
      page.includes(title.replace(/&/g, '&amp;')) ? null : 'the title',
      drawn?.headers.get('content-type') === 'image/webp' ? null : 'the lead picture',
      links.length > 0 ? null : 'links',
    ].filter(Boolean);
    if (lacks.length === 0) verified++;
    else console.error(`${address} lacks ${lacks.join(' and ')}`);
  }
  well = articles.length === 3 && published.length === 3 && verified === 3;
  console.log(
    JSON.stringify({
      articles: articles.length,
      published: published.length,
      verified,
      seconds: Math.round((Date.now() - started) / 100) / 10,
    }),
  );
} catch (error) {
  // What stands where, so that a failure can be read.
  const call = await client(all.address, all.owner);
  for (const { id } of (await call('GET', '/briefs')).briefs) {
    const brief = await call('GET', `/briefs/${id}`);
    console.error(
      brief.subject,
      brief.standing,
      brief.runs.map((run) => [run.kind, run.state, run.failure?.sentence]),
    );
  }
  throw error;
} finally {
  await all.stop();
  rmSync(folder, { recursive: true, force: true });
}
process.exit(well ? 0 : 1);
