import { visibleText } from '@grivo/core';
import { z } from 'zod';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Network } from '../../ground/network/network.ts';
import type { ServiceRow } from '../services/entity.ts';
import { waitForTurn } from '../services/turns.ts';
import { bad, failureOf, good, jsonOf, type Result, refusalOf, type TestLine } from './port.ts';

/**
 * Pictures by what they show. No open standard exists, so this is Grivo's own small port, below the address of the library:
 * GET /search?words=…&language=en&most=20 →
 *   { "pictures": [{ "id", "shows", "file": "https://…", "page": "https://…", "maker", "licence": { "name", "address" },
 *     "owed": true, "width", "height" }] }, the fittest first
 * `file` is read without the key of the library, and may lie elsewhere; `owed` says whether its maker must be named.
 */
const line = (most: number) =>
  z
    .string()
    .max(5_000)
    .transform((text) => visibleText(text).replace(/\s+/g, ' ').trim().slice(0, most));
const address = z.url({ protocol: /^https?$/ }).max(1_000);
const Picture = z.object({
  id: z.string().min(1).max(200),
  shows: line(500),
  file: address,
  page: address.nullish().catch(null),
  maker: line(120).nullish().catch(null),
  licence: z
    .object({ name: line(120), address: address.nullish().catch(null) })
    .nullish()
    .catch(null),
  /** Named where it is not said otherwise: that can never be wrong. */
  owed: z.boolean().catch(true),
  width: z.int().nullish().catch(null),
  height: z.int().nullish().catch(null),
});
const Found = z.object({ pictures: z.array(z.unknown()).max(500) });

/** A picture a library has. */
export interface LibraryPicture {
  id: string;
  /** What is seen. */
  shows: string;
  file: string;
  page: string | null;
  /** Who made it, the library and the licence in one line; empty where nothing is owed. */
  credit: string;
}

const MOST_BYTES = 30_000_000;
const MOST_FOUND = 30;

export class PictureLibrary {
  constructor(private readonly ports: { ground: Ground; network: Network; secrets: Secrets }) {}

  /** The pictures that fit some words best; one whose description cannot be used is left out. */
  async find(
    service: ServiceRow,
    words: string,
    language: string,
    signal: AbortSignal,
  ): Promise<Result<LibraryPicture[]>> {
    const { ground, network, secrets } = this.ports;
    if (!(await waitForTurn(ground, service, signal)))
      return bad({ code: 'service-busy', service: service.id, retryAfterMs: null });
    const query = new URLSearchParams({ words: words.slice(0, 300), language, most: String(MOST_FOUND) });
    const outcome = await network.call({
      method: 'GET',
      address: `${service.address.replace(/\/$/, '')}/search?${query}`,
      headers: service.secret ? { authorization: `Bearer ${secrets.open(service.secret)}` } : {},
      timeLimitMs: service.time_limit_ms,
      signal,
    });
    // Asking twice harms nothing, so an unknown outcome is the same as none.
    if (outcome.kind === 'unknown')
      return bad({ code: 'service-unreachable', service: service.id, detail: outcome.detail });
    if (outcome.kind !== 'reply')
      return bad(failureOf(outcome, service.id, service.address, 'look for pictures').failure);
    const refusal = refusalOf(outcome.reply, service.id);
    if (refusal) return bad(refusal.failure);
    const parsed = jsonOf(outcome.reply.body);
    const read = parsed.ok ? Found.safeParse(parsed.value) : null;
    if (!read?.success)
      return bad({ code: 'reply-unusable', service: service.id, problem: 'it holds no list of pictures' });
    return good(
      read.data.pictures.slice(0, MOST_FOUND).flatMap((one) => {
        const picture = Picture.safeParse(one).data;
        return picture && picture.shows !== '' ? [asFound(picture, service.name)] : [];
      }),
    );
  }

  /** The bytes of a picture; the key of the library does not go along. */
  async bring(service: ServiceRow, { file }: LibraryPicture, signal: AbortSignal): Promise<Result<Buffer>> {
    const outcome = await this.ports.network.call({
      method: 'GET',
      address: file,
      timeLimitMs: service.time_limit_ms,
      maxBytes: MOST_BYTES,
      signal,
    });
    if (outcome.kind === 'unknown')
      return bad({ code: 'service-unreachable', service: service.id, detail: outcome.detail });
    if (outcome.kind !== 'reply') return bad(failureOf(outcome, service.id, file, 'read a picture').failure);
    const refusal = refusalOf(outcome.reply, service.id);
    return refusal ? bad(refusal.failure) : good(outcome.reply.body);
  }

  async test(service: ServiceRow): Promise<TestLine[]> {
    const started = this.ports.ground.now();
    const found = await this.find(service, 'a jar on a table', 'en', AbortSignal.timeout(15_000));
    const lines: TestLine[] = [
      {
        tried: 'Looked for “a jar on a table”',
        came: found.ok
          ? found.value.length === 0
            ? 'It answers, and has no picture of one'
            : `It has ${found.value.length}, the first: ${found.value[0]!.shows}`
          : 'Its answer holds no list of pictures',
        well: found.ok,
        change: found.ok ? null : 'Check the address and the key',
        ms: this.ports.ground.now() - started,
      },
    ];
    const [first] = found.ok ? found.value : [];
    if (!first) return lines;
    const begun = this.ports.ground.now();
    const brought = await this.bring(service, first, AbortSignal.timeout(15_000));
    lines.push({
      tried: 'Read the file of the first',
      came: brought.ok ? `It came, ${Math.ceil(brought.value.length / 1_000)} kB` : 'It cannot be read',
      well: brought.ok,
      change: brought.ok ? null : 'Ask the library whether files may be read without a key',
      ms: this.ports.ground.now() - begun,
    });
    return lines;
  }
}

function asFound(
  { id, shows, file, page, maker, licence, owed }: z.infer<typeof Picture>,
  library: string,
): LibraryPicture {
  const credit = owed ? [maker, library, licence?.name].filter(Boolean).join(', ') : '';
  return { id, shows, file, page: page ?? null, credit };
}
