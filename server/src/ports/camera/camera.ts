import { existsSync } from 'node:fs';
import { guardedProxy } from '../../ground/network/guardedProxy.ts';
import type { Network } from '../../ground/network/network.ts';

/** A page as a browser showed it. */
export type Shot =
  | { ok: true; png: Buffer; title: string; address: string }
  /** Why there is none, in words that go on from ‘it cannot be pictured: ’. */
  | { ok: false; why: string };

/** A browser without a screen, by which pages are pictured. */
export interface Camera {
  picture(address: string, signal: AbortSignal): Promise<Shot>;
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
    const taken = this.turn.then(() => this.take(address, signal));
    this.turn = taken.catch(() => undefined);
    return taken;
  }

  private async take(address: string, signal: AbortSignal): Promise<Shot> {
    const target = URL.parse(address);
    if (!target || !/^https?:$/.test(target.protocol)) return { ok: false, why: 'it has no address of the web' };
    if ((await this.network.placeOf(target)) === null)
      return { ok: false, why: 'there is no such site, or it is on a private network' };
    // Loaded where it is used: most installations picture no page.
    const { chromium } = await import('playwright-core');
    const proxy = await guardedProxy(this.network, MOST_BYTES);
    const browser = await chromium
      .launch({
        executablePath: this.executable,
        // A browser that runs as root cannot shut itself in (Chromium, design of the Linux sandbox).
        chromiumSandbox: process.getuid?.() !== 0,
        proxy: { server: proxy.address, bypass: '<-loopback>' },
        args: ['--force-webrtc-ip-handling-policy=disable_non_proxied_udp', '--disable-dev-shm-usage'],
        timeout: LOAD_MS,
      })
      .catch((error: unknown) => {
        proxy.close();
        throw error;
      });
    const stop = () => void browser.close();
    signal.addEventListener('abort', stop);
    try {
      const context = await browser.newContext({
        viewport: { width: WIDE, height: HIGH },
        acceptDownloads: false,
        serviceWorkers: 'block',
      });
      const page = await context.newPage();
      // Nothing but reading, and nothing but the web.
      await page.route('**', (route) =>
        /^https?:/.test(route.request().url()) && /^(?:GET|HEAD)$/.test(route.request().method())
          ? route.continue()
          : route.abort(),
      );
      const reply = await page.goto(address, { waitUntil: 'load', timeout: LOAD_MS });
      if (!reply || reply.status() >= 400) return { ok: false, why: `it answers ${reply?.status() ?? 'nothing'}` };
      await page.waitForLoadState('networkidle', { timeout: SETTLE_MS }).catch(() => undefined);
      const png = await page.screenshot({ type: 'png', animations: 'disabled', timeout: LOAD_MS });
      return { ok: true, png, title: (await page.title()).trim().slice(0, 200), address: page.url() };
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      return { ok: false, why: /Timeout/i.test(error.message) ? 'it took too long to load' : 'the browser gave it up' };
    } finally {
      signal.removeEventListener('abort', stop);
      await browser.close().catch(() => undefined);
      proxy.close();
    }
  }
}
