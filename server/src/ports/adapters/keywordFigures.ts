import { z } from 'zod';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Call, Network } from '../../ground/network/network.ts';
import type { ServiceRow } from '../services/entity.ts';
import { waitForTurn } from '../services/turns.ts';
import { bad, failureOf, good, jsonOf, type Result, refusalOf, type TestLine } from './port.ts';

/**
 * Figures of phrases. No open standard exists, so this is Grivo's own small port, below the address of the service:
 * POST /phrases { "phrases": ["…", at most 200], "language": "en", "country": "IE" | null }
 *   → { "phrases": [{ "phrase": "…", "volume": 880 | null, "difficulty": 25 | null, "results": ["https://…", …] }] }
 * GET /related?phrase=…&language=en[&country=IE] → { "phrases": [{ "phrase", "volume", "difficulty" }] }, the nearest first
 * GET /site?address=https://…&language=en[&country=IE] → the same: what the site is found for
 * Volume is searches a month, difficulty 0 to 100, results the pages a search gives, the first first.
 */
const Measure = z.object({
  phrase: z.string().max(500),
  volume: z.number().min(0).max(1e12).nullish(),
  difficulty: z.number().min(0).max(100).nullish(),
});
const Related = z.object({ phrases: z.array(Measure).max(2_000) });
const Measured = z.object({
  phrases: z.array(Measure.extend({ results: z.array(z.string().max(1_000)).max(100).default([]) })).max(200),
});

export interface PhraseFigures {
  phrase: string;
  volume: number | null;
  difficulty: number | null;
  /** Addresses a search gives; empty where the service does not say. */
  results: string[];
}

/** Who searches. */
export interface Searching {
  language: string;
  country: string | null;
}

/** Phrases asked for at once. */
export const MOST_PHRASES = 200;

export class KeywordFigures {
  constructor(private readonly ports: { ground: Ground; network: Network; secrets: Secrets }) {}

  async measure(
    service: ServiceRow,
    phrases: readonly string[],
    searching: Searching,
    signal: AbortSignal,
  ): Promise<Result<PhraseFigures[]>> {
    const asked = await this.call(service, 'phrases', Measured, signal, { phrases, ...searching });
    return asked.ok ? good(asked.value.phrases.map((one) => ({ ...figuresOf(one), results: one.results }))) : asked;
  }

  /** Phrases near a phrase, the nearest first. */
  async related(
    service: ServiceRow,
    phrase: string,
    searching: Searching,
    signal: AbortSignal,
  ): Promise<Result<PhraseFigures[]>> {
    const asked = await this.call(service, `related?${query({ phrase, ...searching })}`, Related, signal);
    return asked.ok ? good(asked.value.phrases.map(figuresOf)) : asked;
  }

  /** Phrases a site is found for. */
  async site(
    service: ServiceRow,
    address: string,
    searching: Searching,
    signal: AbortSignal,
  ): Promise<Result<PhraseFigures[]>> {
    const asked = await this.call(service, `site?${query({ address, ...searching })}`, Related, signal);
    return asked.ok ? good(asked.value.phrases.map(figuresOf)) : asked;
  }

  async test(service: ServiceRow): Promise<TestLine[]> {
    const started = this.ports.ground.now();
    const asked = await this.measure(
      service,
      ['sauerkraut'],
      { language: 'en', country: null },
      AbortSignal.timeout(15_000),
    );
    const found = asked.ok ? asked.value[0] : undefined;
    return [
      {
        tried: 'Asked for the figures of a phrase',
        came: asked.ok
          ? found
            ? `It answers: volume ${found.volume ?? 'not known'}, difficulty ${found.difficulty ?? 'not known'}`
            : 'It answers, but has no figures for it'
          : 'Its answer holds no figures of phrases',
        well: asked.ok,
        change: asked.ok ? null : 'Check the address and the key',
        ms: this.ports.ground.now() - started,
      },
    ];
  }

  private async call<T>(
    service: ServiceRow,
    below: string,
    shape: z.ZodType<T>,
    signal: AbortSignal,
    body?: object,
  ): Promise<Result<T>> {
    const request: Call = {
      method: body ? 'POST' : 'GET',
      address: `${service.address.replace(/\/$/, '')}/${below}`,
      headers: {
        ...(body ? { 'content-type': 'application/json' } : {}),
        ...(service.secret ? { authorization: `Bearer ${this.ports.secrets.open(service.secret)}` } : {}),
      },
      ...(body ? { body: JSON.stringify(body) } : {}),
      timeLimitMs: service.time_limit_ms,
      signal,
    };
    if (!(await waitForTurn(this.ports.ground, service, signal)))
      return bad({ code: 'service-busy', service: service.id, retryAfterMs: null });
    const outcome = await this.ports.network.call(request);
    // Asking twice harms nothing, so an unknown outcome is the same as none.
    if (outcome.kind === 'unknown')
      return bad({ code: 'service-unreachable', service: service.id, detail: outcome.detail });
    if (outcome.kind !== 'reply')
      return bad(failureOf(outcome, service.id, service.address, 'ask for figures').failure);
    const refusal = refusalOf(outcome.reply, service.id);
    if (refusal) return bad(refusal.failure);
    const parsed = jsonOf(outcome.reply.body);
    const read = parsed.ok ? shape.safeParse(parsed.value) : null;
    return read?.success
      ? good(read.data)
      : bad({ code: 'reply-unusable', service: service.id, problem: 'it holds no figures of phrases' });
  }
}

function figuresOf({ phrase, volume, difficulty }: z.infer<typeof Measure>): PhraseFigures {
  return { phrase, volume: volume ?? null, difficulty: difficulty ?? null, results: [] };
}

function query(given: Record<string, string | null>): string {
  return new URLSearchParams(
    Object.entries(given).flatMap(([name, value]): [string, string][] => (value === null ? [] : [[name, value]])),
  ).toString();
}
