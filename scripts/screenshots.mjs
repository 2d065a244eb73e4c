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
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  // A microphone that beeps, for the picture of recording.
  args: ['--no-sandbox', '--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream'],
});
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
  const { holds } = await call('GET', '/holds');
  await picture('brief-held', at, `/pipelines/${careful}?show=briefs&brief=${holds[0].brief}`);
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
  await picture('intake-catalogue', at, `/intake/${await ofKind('catalogue')}`, async () => {
    await page.getByText('Links as readers get them').waitFor();
    await page.keyboard.press('a');
    for (const name of ['Scale to a tenth of a gram', 'Wooden lid of beech'])
      await page.getByRole('checkbox', { name }).click();
  });
  await picture('articles', at, '/articles');
  await picture('article', at, `/articles/${await first('/articles?standing=ready', 'articles')}`, async () => {
    await page.keyboard.press('j');
  });
  await picture('proof', at, `/articles/${await first('/articles?standing=ready', 'articles')}`, async () => {
    await page.keyboard.press('e');
    const text = page.getByRole('textbox', { name: 'The text of the article' });
    await text.locator('> p').first().click();
    await text
      .locator('> p')
      .first()
      .evaluate((element) => {
        getSelection().selectAllChildren(element);
        getSelection().collapseToEnd();
      });
    await page.keyboard.type(' Give it 77 days.');
    await page.getByText('everything is kept').waitFor();
    await page.getByText('‘77 days’ stands in no source').first().waitFor();
  });
  await picture('pictures', at, '/articles/pictures');
  await picture('cadence', at, '/cadence');
  await picture('links', at, `/blogs/${await first('/blogs', 'blogs')}/links`, async () => {
    await page.getByRole('button', { name: 'crock', exact: true }).click();
  });
  await picture('blog', at, `/blogs/${await first('/blogs', 'blogs')}`, async () => {
    await page.getByRole('button', { name: 'Test it' }).click();
    await page.getByText('Took the draft away').waitFor();
  });
  await picture('house-style', at, `/styles/${await first('/styles', 'styles')}`, async () => {
    await page.getByRole('button', { name: 'Write it' }).click();
    await page.getByText(/their ranges/).waitFor();
  });
  await picture('card', at, `/styles/${await first('/styles', 'styles')}?show=cards`, async () => {
    await page.getByText(/of our titles, short to long/).waitFor();
    await page.getByRole('button', { name: /^Text {{ title }}/ }).click();
  });
  await picture('settings', at, '/settings');
} finally {
  await browser.close();
  await Promise.all([demo.stop(), empty.stop()]);
  rmSync(folder, { recursive: true, force: true });
}
process.exit(0);
