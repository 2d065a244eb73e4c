import { z } from 'zod';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Network } from '../../ground/network/network.ts';
import type { ServiceRow } from '../services/entity.ts';
import { waitForTurn } from '../services/turns.ts';
import { bad, failureOf, good, jsonOf, type Result, refusalOf, type TestLine } from './port.ts';

/**
 * Look-up of pages by subject. No open standard exists, so this is Grivo's own small port:
 * GET {address}?q=subject&n=5[&country=IE][&since=2024-01-01][&language=en]
 * → { "pages": [{ "address": "https://…", "title": "…", "date": "2024-05-01" | null }] }, best first.
 */
const Found = z.object({
  pages: z.array(z.object({ address: z.string().max(1_000), title: z.string(), date: z.string().nullish() })).max(100),
});

export interface LookUpQuestion {
  subject: string;
  pages: number;
  language: string;
  country: string | null;
  since: string | null;
}

export interface FoundPage {
  address: string;
  title: string;
  date: string | null;
}

export class LookUp {
  constructor(private readonly ports: { ground: Ground; network: Network; secrets: Secrets }) {}

  async find(service: ServiceRow, question: LookUpQuestion, signal: AbortSignal): Promise<Result<FoundPage[]>> {
    const address = new URL(service.address);
    address.searchParams.set('q', question.subject);
    address.searchParams.set('n', String(question.pages));
    address.searchParams.set('language', question.language);
    if (question.country) address.searchParams.set('country', question.country);
    if (question.since) address.searchParams.set('since', question.since);
    if (!(await waitForTurn(this.ports.ground, service, signal)))
      return bad({ code: 'service-busy', service: service.id, retryAfterMs: null });
    const outcome = await this.ports.network.call({
      method: 'GET',
      address: address.href,
      headers: service.secret ? { authorization: `Bearer ${this.ports.secrets.open(service.secret)}` } : {},
      timeLimitMs: service.time_limit_ms,
      signal,
    });
    // Asking twice harms nothing, so an unknown outcome is the same as none.
    if (outcome.kind === 'unknown')
      return bad({ code: 'service-unreachable', service: service.id, detail: outcome.detail });
    if (outcome.kind !== 'reply') return bad(failureOf(outcome, service.id, service.address, 'look up').failure);
    const refusal = refusalOf(outcome.reply, service.id);
    if (refusal) return bad(refusal.failure);
    const parsed = jsonOf(outcome.reply.body);
    const found = parsed.ok ? Found.safeParse(parsed.value) : null;
    if (!found?.success)
      return bad({ code: 'reply-unusable', service: service.id, problem: 'it holds no list of pages' });
    return good(
      found.data.pages.map(({ address, title, date }) => ({
        address: new URL(address, service.address).href,
        title,
        date: date ?? null,
      })),
    );
  }

  async test(service: ServiceRow): Promise<TestLine[]> {
    const started = this.ports.ground.now();
    const found = await this.find(
      service,
      { subject: 'test', pages: 1, language: 'en', country: null, since: null },
      AbortSignal.timeout(15_000),
    );
    const ms = this.ports.ground.now() - started;
    return [
      {
        tried: 'Looked up one page',
        came: found.ok ? `It answers, with ${found.value.length} found` : found.failure.code.replace(/-/g, ' '),
        well: found.ok,
        change: found.ok ? null : 'Check the address and the key',
        ms,
      },
    ];
  }
}
