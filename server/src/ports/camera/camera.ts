import { existsSync } from 'node:fs';
import type { Browser, Page } from 'playwright-core';
import { guardedProxy } from '../../ground/network/guardedProxy.ts';
import type { Network } from '../../ground/network/network.ts';

/** A page as a browser showed it. */
export type Shot =
  | { ok: true; png: Buffer; title: string; address: string }
  /** Why there is none, in words that go on from ‘it cannot be pictured: ’. */
  | { ok: false; why: string };

/** A browser without a screen, by which pages and moments of films are pictured. */
export interface Camera {
  picture(address: string, signal: AbortSignal): Promise<Shot>;
  /** What a film shows at a second of it. */
  moment(film: string, second: number, signal: AbortSignal): Promise<Shot>;
}

const WIDE = 1_280;
const HIGH = 800;
const LOAD_MS = 20_000;
const SETTLE_MS = 3_000;
const MOST_BYTES = 60_000_000;

/** Where Debian and others have it. */
const KNOWN = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];

/** The browser of this machine; null where it has none. */
export function browserHere(named: string | null): string | null {
  return [...(named === null ? [] : [named]), ...KNOWN].find(existsSync) ?? null;
}

/**
 * A browser made for one picture at a time and ended after it: it has no profile, knows nobody, and everything it loads goes
 * through a proxy of ours, which lets it go where we may go and nowhere else; files of this machine are shut to it.
 */
export class HeadlessCamera implements Camera {
  private turn: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly network: Network,
    private readonly executable: string,
  ) {}

  picture(address: string, signal: AbortSignal): Promise<Shot> {
    return this.inTurn(address, signal, async (page) => {
      const reply = await page.goto(address, { waitUntil: 'load', timeout: LOAD_MS });
      if (!reply || reply.status() >= 400) return { ok: false, why: `it answers ${reply?.status() ?? 'nothing'}` };
      await page.waitForLoadState('networkidle', { timeout: SETTLE_MS }).catch(() => undefined);
      const png = await page.screenshot({ type: 'png', animations: 'disabled', timeout: LOAD_MS });
      return { ok: true, png, title: (await page.title()).trim().slice(0, 200), address: page.url() };
    });
  }

  moment(film: string, second: number, signal: AbortSignal): Promise<Shot> {
    return this.inTurn(film, signal, async (page) => {
      await page.setContent('<body style="margin:0"><video muted preload="metadata" style="display:block"></video>');
      const said = await page.evaluate(wentTo, { film, second, mostMs: LOAD_MS, wide: WIDE });
      if (said !== null) return { ok: false, why: said };
      const png = await page.locator('video').screenshot({ type: 'png', timeout: LOAD_MS });
      return { ok: true, png, title: '', address: film };
    });
  }

  /** One after the other: a browser takes much memory. */
  private inTurn(address: string, signal: AbortSignal, take: (page: Page) => Promise<Shot>): Promise<Shot> {
    const taken = this.turn.then(() =>
      signal.aborted ? { ok: false as const, why: 'it was stopped' } : this.take(address, signal, take),
    );
    this.turn = taken.catch(() => undefined);
    return taken;
  }

  private async take(address: string, signal: AbortSignal, how: (page: Page) => Promise<Shot>): Promise<Shot> {
    const target = URL.parse(address);
    if (!target || !/^https?:$/.test(target.protocol)) return { ok: false, why: 'it has no address of the web' };
    if ((await this.network.placeOf(target)) === null)
      return { ok: false, why: 'there is no such site, or it is on a private network' };
    // Loaded where it is used: most installations picture no page.
    const { chromium } = await import('playwright-core');
    const proxy = await guardedProxy(this.network, MOST_BYTES);
    let browser: Browser | null = null;
    const stop = () => void browser?.close();
    signal.addEventListener('abort', stop);
    try {
      browser = await chromium.launch({
        executablePath: this.executable,
        // A browser that runs as root cannot shut itself in (Chromium, design of the Linux sandbox).
        chromiumSandbox: process.getuid?.() !== 0,
        proxy: { server: proxy.address, bypass: '<-loopback>' },
        args: ['--force-webrtc-ip-handling-policy=disable_non_proxied_udp', '--disable-dev-shm-usage'],
        timeout: LOAD_MS,
      });
      return await how(await pageIn(browser));
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      return { ok: false, why: /Timeout/i.test(error.message) ? 'it took too long to load' : 'the browser gave it up' };
    } finally {
      signal.removeEventListener('abort', stop);
      await browser?.close().catch(() => undefined);
      proxy.close();
    }
  }
}

/** A page of a browser that nobody knows; nothing but reading goes out of it, and nothing but the web. */
async function pageIn(browser: Browser): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: WIDE, height: HIGH },
    acceptDownloads: false,
    serviceWorkers: 'block',
  });
  const page = await context.newPage();
  await page.route('**', (route) =>
    /^https?:/.test(route.request().url()) && /^(?:GET|HEAD)$/.test(route.request().method())
      ? route.continue()
      : route.abort(),
  );
  return page;
}

/** Done within the page: loads a film and goes to a second of it (HTML Living Standard 4.8.11.9). @returns why it could not */
async function wentTo({
  film,
  second,
  mostMs,
  wide,
}: {
  film: string;
  second: number;
  mostMs: number;
  wide: number;
}): Promise<string | null> {
  const page = globalThis as unknown as { document: { querySelector: (name: string) => Film } };
  const video = page.document.querySelector('video');
  return new Promise((done) => {
    const late = setTimeout(() => done('it took too long to load'), mostMs);
    const end = (why: string | null) => {
      clearTimeout(late);
      done(why);
    };
    video.onerror = () => end('it is no film that can be played');
    video.onloadedmetadata = () => {
      if (second > video.duration) return end(`it lasts ${Math.floor(video.duration)} seconds`);
      video.style.width = `${Math.min(wide, video.videoWidth)}px`;
      video.onseeked = () =>
        end(Math.abs(video.currentTime - second) < 1 ? null : 'its host gives it only from the beginning');
      video.currentTime = second;
    };
    video.src = film;
  });
}

/** What is used of a film in a page; the server has no words for what browsers are made of. */
interface Film {
  src: string;
  currentTime: number;
  readonly duration: number;
  readonly videoWidth: number;
  readonly style: { width: string };
  onerror: () => void;
  onloadedmetadata: () => void;
  onseeked: () => void;
}
