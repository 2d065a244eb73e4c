// How much JavaScript the first screen needs, and how long the page is ever busy: scrolling ten thousand articles, and
// while twenty briefs run.
import { gzipSync } from 'node:zlib';
import { KEYWORDS } from '@grivo/standins';
import { Database } from '../../server/src/ground/store/database.ts';
import { until } from '../client.mjs';
import { guide } from '../crockhaven.mjs';
import { longest, onScreens } from './screens.mjs';

const ARTICLES = 10_000;

/** Ten thousand articles with briefs and places, straight into the tables: the list is what is measured. */
async function fill(url) {
  const db = await Database.open(url, 2);
  const id = (kind, i) => `${kind}${String(i).padStart(19, '0')}`;
  for (let at = 0; at < ARTICLES; at += 1_000) {
    const rows = Array.from({ length: 1_000 }, (_, i) => at + i);
    await db.run('INSERT INTO brief (id, pipeline, standing, seed, subject, fields, made_desk) VALUES ?', [
      rows.map((i) => [id('b', i), id('p', 0), 'out', 's', `subject ${i}`, '{}', 0]),
    ]);
    await db.run('INSERT INTO article (id, brief, family, language, out_as, title, words) VALUES ?', [
      rows.map((i) => [
        id('a', i),
        id('b', i),
        id('b', i),
        'en',
        'live',
        `How a long article number ${i} may be called`,
        900 + (i % 700),
      ]),
    ]);
    await db.run('INSERT INTO publication (id, article, blog, key_, state, as_, address, out_desk) VALUES ?', [
      rows.map((i) => [
        id('q', i),
        id('a', i),
        id('l', 0),
        `k${i}`,
        'live',
        'live',
        `https://blog.example/${i}`,
        Date.now() - i * 3_600_000,
      ]),
    ]);
  }
  await db.close();
}

export const web = (tell) =>
  onScreens(async ({ all, call, blog, source, page }) => {
    await call('POST', `/sources/${source}/keywords`, { paste: KEYWORDS.guides.slice(0, 20).join('\n') });
    const { id: pipeline } = await call('POST', '/pipelines', {
      name: 'Bench',
      document: guide(source, blog, 'at once'),
      openLimit: 20,
    });
    await fill(all.mariadb.url);
    const scripts = [];
    page.on('response', async (response) => {
      if (/\.js$/.test(new URL(response.url()).pathname)) scripts.push(response.body());
    });
    await page.goto(all.address);
    await page.getByRole('heading', { level: 1 }).waitFor();
    await page.waitForTimeout(500);
    const firstLoad = (await Promise.all(scripts)).reduce((sum, body) => sum + gzipSync(body).length, 0) / 1_000;
    tell(`first load: ${firstLoad.toFixed(0)} KB of JavaScript, gzip`);
    await page.goto(`${all.address}/articles`);
    await page.getByText('10,000 shown').waitFor({ timeout: 60_000 });
    await page.waitForTimeout(500);
    const scrolling = await longest(page, async () => {
      await page.mouse.move(600, 500);
      for (let i = 0; i < 120; i++) {
        await page.mouse.wheel(0, i % 10 === 0 ? 20_000 : 900);
        await page.waitForTimeout(16);
      }
    });
    tell(`longest task scrolling 10,000 articles: ${scrolling.toFixed(0)} ms`);
    await page.goto(`${all.address}/pipelines/${pipeline}?show=briefs`);
    await page.getByText('No brief yet').waitFor();
    await page.waitForTimeout(500);
    const running = await longest(page, async () => {
      await call('POST', `/pipelines/${pipeline}/take`, {});
      await until(
        async () =>
          (await call('GET', `/briefs?pipeline=${pipeline}`)).briefs.every((brief) =>
            ['out', 'set aside'].includes(brief.standing),
          ),
        90_000,
        'the end of twenty briefs',
      );
      await page.waitForTimeout(1_000);
    });
    tell(`longest task while 20 briefs run: ${running.toFixed(0)} ms`);
    return { 'web.firstLoadKB': firstLoad, 'web.longestTaskMs': Math.max(scrolling, running) };
  });
