import { z } from 'zod';
import type { Ground } from '../../ground/ground.ts';
import { type Network, whyNot } from '../../ground/network/network.ts';
import type { ServiceRow } from '../services/entity.ts';
import { waitForTurn } from '../services/turns.ts';
import { jsonOf, type TestLine } from './port.ts';

/**
 * Looks channels up by handle or name, and videos by subject. No open standard exists, so this is Grivo's own small port:
 * GET {address}?q=words → { "channels": [{ "address": "https://…", "name": "…" }] }, best first.
 * GET {address}?videos=words&language=en → { "videos": [{ "address": "https://…" }] }, best first. The pages of channels and
 * videos themselves are read by open standards.
 */
const Hosted = z.object({ channels: z.array(z.object({ address: z.string().max(1_000), name: z.string() })).max(100) });

const Videos = z.object({ videos: z.array(z.object({ address: z.string().max(1_000) })).max(100) });

export type HostedChannels =
  | { ok: true; channels: { address: string; name: string }[] }
  | { ok: false; reason: string };

export class VideoHost {
  constructor(private readonly ports: { ground: Ground; network: Network }) {}

  async find(service: ServiceRow, text: string, signal: AbortSignal): Promise<HostedChannels> {
    const asked = await this.ask(service, { q: text }, Hosted, 'channels', signal);
    if (!asked.ok) return asked;
    return {
      ok: true,
      channels: asked.value.channels.flatMap(({ address, name }) =>
        URL.canParse(address, service.address) ? [{ address: new URL(address, service.address).href, name }] : [],
      ),
    };
  }

  /** Pages of videos on a subject, the fittest first. */
  async videos(
    service: ServiceRow,
    words: string,
    language: string,
    signal: AbortSignal,
  ): Promise<{ ok: true; addresses: string[] } | { ok: false; reason: string }> {
    const asked = await this.ask(service, { videos: words.slice(0, 300), language }, Videos, 'videos', signal);
    if (!asked.ok) return asked;
    const addresses = asked.value.videos.flatMap(({ address }) =>
      URL.canParse(address, service.address) ? [new URL(address, service.address).href] : [],
    );
    return { ok: true, addresses: [...new Set(addresses)] };
  }

  private async ask<T>(
    service: ServiceRow,
    query: Record<string, string>,
    shape: z.ZodType<T>,
    what: string,
    signal: AbortSignal,
  ): Promise<{ ok: true; value: T } | { ok: false; reason: string }> {
    const url = new URL(service.address);
    for (const [name, value] of Object.entries(query)) url.searchParams.set(name, value);
    if (!(await waitForTurn(this.ports.ground, service, signal)))
      return { ok: false, reason: 'it may not be called more often just now; try again in a minute' };
    const outcome = await this.ports.network.call({
      method: 'GET',
      address: url.href,
      timeLimitMs: service.time_limit_ms,
      signal,
    });
    if (outcome.kind !== 'reply') return { ok: false, reason: whyNot(outcome) };
    if (outcome.reply.status !== 200) return { ok: false, reason: `it answers ${outcome.reply.status}` };
    const parsed = jsonOf(outcome.reply.body);
    const read = parsed.ok ? shape.safeParse(parsed.value) : null;
    return read?.success
      ? { ok: true, value: read.data }
      : { ok: false, reason: `its answer holds no list of ${what}` };
  }

  async test(service: ServiceRow): Promise<TestLine[]> {
    const started = this.ports.ground.now();
    const found = await this.find(service, 'test', AbortSignal.timeout(15_000));
    return [
      {
        tried: 'Looked a channel up',
        came: found.ok ? `It answers, with ${found.channels.length} found` : found.reason,
        well: found.ok,
        change: found.ok ? null : 'Check the address',
        ms: this.ports.ground.now() - started,
      },
    ];
  }
}
