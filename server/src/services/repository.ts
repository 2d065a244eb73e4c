import type { Price, ServiceRole } from '@grivo/core';
import type { Secrets } from '../config/secrets.ts';
import type { Ground } from '../ground/ground.ts';

export interface NewService {
  role: ServiceRole;
  name: string;
  address: string;
  model: string;
  secret: string | null;
  price: Price;
  permits: number;
  callsAMinute?: number | null;
  timeLimitMs: number;
}

export async function createService(ground: Ground, secrets: Secrets, service: NewService): Promise<string> {
  const id = ground.ids();
  const secret = service.secret === null ? null : secrets.seal(service.secret.trim());
  await ground.db.run(
    'INSERT INTO service (id, role, name, address, model, secret, price, permits, calls_a_minute, time_limit_ms) VALUES (?)',
    [
      [
        id,
        service.role,
        service.name,
        service.address,
        service.model,
        secret,
        JSON.stringify(service.price),
        service.permits,
        service.callsAMinute ?? null,
        service.timeLimitMs,
      ],
    ],
  );
  return id;
}

/** A new key for a service; whoever pasted it with spaces around meant it without. */
export async function changeSecret(ground: Ground, secrets: Secrets, service: string, secret: string): Promise<void> {
  await ground.db.run('UPDATE service SET secret = ?, rev = rev + 1 WHERE id = ?', [
    secrets.seal(secret.trim()),
    service,
  ]);
}

export interface ServiceChange {
  name?: string | undefined;
  model?: string | undefined;
  price?: Price | undefined;
  permits?: number | undefined;
  /** Null takes the limit away. */
  callsAMinute?: number | null | undefined;
  timeLimitMs?: number | undefined;
}

/** Changes a service as it was read at `rev`; false when somebody else changed it meanwhile. */
export async function changeService(ground: Ground, id: string, rev: number, change: ServiceChange): Promise<boolean> {
  return (
    (await ground.db.run(
      'UPDATE service SET name = COALESCE(?, name), model = COALESCE(?, model), price = COALESCE(?, price), permits = COALESCE(?, permits), calls_a_minute = IF(?, ?, calls_a_minute), time_limit_ms = COALESCE(?, time_limit_ms), rev = rev + 1 WHERE id = ? AND rev = ?',
      [
        change.name ?? null,
        change.model ?? null,
        change.price ? JSON.stringify(change.price) : null,
        change.permits ?? null,
        change.callsAMinute === undefined ? 0 : 1,
        change.callsAMinute ?? null,
        change.timeLimitMs ?? null,
        id,
        rev,
      ],
    )) === 1
  );
}
