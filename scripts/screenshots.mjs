// One current picture of each main view, from the demonstration's data. Starts an installation of its own.
import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildScreens } from './build.mjs';
import { installMissing, ROOT } from './install.mjs';

installMissing({ browser: true });
if (!process.execArgv.includes('tsx')) {
  await buildScreens();
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', import.meta.filename, ...process.argv.slice(2)], {
    stdio: 'inherit',
    env: { ...process.env, TZ: 'UTC' },
  });
  process.exit(status ?? 1);
}
const { chromium } = await import('@playwright/test');
const { client } = await import('./client.mjs');
const { live, setUp } = await import('./crockhaven.mjs');
const { startAll } = await import('./processes.mjs');

const out = join(ROOT, 'docs', 'screenshots');
mkdirSync(out, { recursive: true });
const folder = mkdtempSync(join(tmpdir(), 'grivo-pictures-'));
const [demo, empty] = await Promise.all([
  startAll(join(folder, 'demo'), { durable: false }),
  startAll(join(folder, 'empty'), { durable: false }),
]);
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
try {
  const call = await client(demo.address, demo.owner);
  console.log('Making four weeks of history …');
  await live(call, await setUp(call, demo.standIns), 4, Date.now(), () => undefined);
  const first = async (path, name, wanted = () => true) => (await call('GET', path))[name].find(wanted).id;
  const pipeline = await first('/pipelines', 'pipelines', ({ name }) => name === 'Guides for the Journal');
  const context = await browser.newContext({ viewport: { width: 1_280, height: 800 }, timezoneId: 'Europe/Dublin' });
  const page = await context.newPage();
  const picture = async (name, base, path, act = async () => undefined) => {
    await page.goto(base + path);
    await page.getByRole('heading', { level: 1 }).first().waitFor();
    await page.waitForTimeout(350);
    await act();
    await page.waitForTimeout(400);
    await page.screenshot({ path: join(out, `${name}.png`) });
    console.log(name);
  };
  for (const { address, owner } of [empty, demo])
    await context.request
      .post(`${address}/api/session`, { data: { email: owner.email, password: owner.password } })
      .then(async () => {
        if (address === empty.address) await picture('first-run', address, '/');
      });
  const at = demo.address;
  await picture('today', at, '/');
  await picture('pipelines', at, '/pipelines');
  await picture('pipeline', at, `/pipelines/${pipeline}`, async () => {
    await page.keyboard.press('r');
    await page.getByText(/The trial is done/).waitFor({ timeout: 30_000 });
    await page.getByRole('button', { name: /^write, words/ }).click();
  });
  const careful = await first('/pipelines', 'pipelines', ({ name }) => name === 'What readers asked');
  await picture('pipeline-blocks', at, `/pipelines/${careful}`, async () => {
    await page.getByRole('button', { name: 'Line 7, when' }).focus();
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('a');
    await page.keyboard.type('tr');
  });
  await picture('pipeline-beside', at, `/pipelines/${careful}`, async () => {
    await page.getByRole('button', { name: /^Trial on/ }).click();
    for (const n of [1, 2])
      await page
        .getByRole('checkbox', { name: /beside the others/ })
        .nth(n)
        .click();
    await page.keyboard.press('Escape');
    await page.keyboard.press('r');
    await page.getByRole('button', { name: /Run what changed/ }).waitFor({ timeout: 30_000 });
    await page.getByRole('button', { name: /^judge, least/ }).click();
    await page.getByText(/Of the last/).waitFor();
  });
  await call('GET', `/pipelines/${careful}`).then(async ({ document, rev }) => {
    const steps = document.steps
      .filter(({ kind }) => kind !== 'judge')
      .map((step) => (step.kind === 'outline' ? { ...step, sections: { from: 3, to: 5 } } : step));
    await call('PUT', `/pipelines/${careful}`, { document: { ...document, steps } }, { 'if-match': `"${rev}"` });
  });
  await picture('versions', at, `/pipelines/${careful}?show=versions`);
  const { holds } = await call('GET', '/holds');
  await picture('brief-held', at, `/pipelines/${careful}?show=briefs&brief=${holds[0].brief}`);
  const brief = await first(`/briefs?pipeline=${pipeline}`, 'briefs', (one) => one.standing === 'ready');
  await picture('pipeline-briefs', at, `/pipelines/${pipeline}?show=briefs&brief=${brief}`);
  await picture('intake', at, '/intake');
  await picture(
    'intake-keywords',
    at,
    `/intake/${await first('/sources', 'sources', ({ name }) => name === 'Salt, brine and crocks')}`,
    async () => {
      const canvas = page.getByRole('img', { name: /by searches a month and difficulty/ });
      const { x, y } = await canvas.boundingBox();
      await page.mouse.move(x + 70, y + 120);
      await page.mouse.down();
      // Round the easy and much sought, as a hand would.
      for (let turn = 1; turn <= 24; turn++)
        await page.mouse.move(
          x + 170 - 105 * Math.cos((turn / 24) * 2 * Math.PI) * (1 + 0.08 * Math.sin(turn)),
          y + 85 - 72 * Math.sin((turn / 24) * 2 * Math.PI),
        );
      await page.mouse.up();
      await page.mouse.move(x + 20, y + 280);
    },
  );
  const ofKind = (wanted) => first('/sources', 'sources', ({ kind }) => kind === wanted);
  await picture('intake-sheet', at, `/intake/${await ofKind('sheet')}`, () => page.getByRole('row').nth(3).waitFor());
  await picture('intake-video', at, `/intake/${await ofKind('videos')}`, async () => {
    await page.getByRole('button', { name: /^How full to fill/ }).click();
    await page.getByText('00:00').first().waitFor();
  });
  await picture('articles', at, '/articles');
  await picture('article', at, `/articles/${await first('/articles?standing=ready', 'articles')}`, async () => {
    await page.keyboard.press('j');
  });
  await picture('cadence', at, '/cadence');
  await picture('blogs', at, '/blogs');
  await picture('blog', at, `/blogs/${await first('/blogs', 'blogs')}`, async () => {
    await page.getByRole('button', { name: 'Test it' }).click();
    await page.getByText('Took the draft away').waitFor();
  });
  await picture('settings', at, '/settings');
} finally {
  await browser.close();
  await Promise.all([demo.stop(), empty.stop()]);
  rmSync(folder, { recursive: true, force: true });
}
process.exit(0);
