// What every measurement of screens needs: an installation with a blog and a list, and a page signed in to it.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { buildScreens } from '../build.mjs';
import { client } from '../client.mjs';
import { connect } from '../crockhaven.mjs';
import { startAll } from '../processes.mjs';

/** Does the work on an installation and a page of its own, and ends both. */
export async function onScreens(work) {
  await buildScreens();
  const folder = mkdtempSync(join(tmpdir(), 'grivo-bench-screens-'));
  const all = await startAll(folder, { durable: false });
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  try {
    const call = await client(all.address, all.owner);
    const [blog] = await connect(call, all.standIns);
    const { id: source } = await call('POST', '/sources', { name: 'Bench' });
    const context = await browser.newContext({ viewport: { width: 1_280, height: 800 } });
    await context.request.post(`${all.address}/api/session`, {
      data: { email: all.owner.email, password: all.owner.password },
    });
    return await work({ all, call, blog, source, page: await context.newPage() });
  } finally {
    await browser.close();
    await all.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The longest task of the page while something is done, in milliseconds (Long Tasks: nothing under 50 is reported). */
export async function longest(page, act) {
  await page.evaluate(() => {
    window.longest = 0;
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) window.longest = Math.max(window.longest, entry.duration);
    }).observe({ type: 'longtask' });
  });
  await act();
  return page.evaluate(() => window.longest);
}

/** What each key takes that is pressed while something is done, from the press until it is painted, in milliseconds. */
export async function strokesOf(page, act) {
  await page.evaluate(() => {
    window.strokes = [];
    window.addEventListener(
      'keydown',
      () => {
        const from = performance.now();
        requestAnimationFrame(() => {
          const channel = new MessageChannel();
          channel.port1.onmessage = () => window.strokes.push(performance.now() - from);
          channel.port2.postMessage(null);
        });
      },
      true,
    );
  });
  await act();
  return page.evaluate(() => window.strokes);
}
