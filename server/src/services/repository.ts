import type { Price, ServiceRole } from '@grivo/core';
import type { Secrets } from '../config/secrets.ts';
import type { Ground } from '../engine/outside.ts';

export interface NewService {
  role: ServiceRole;
  name: string;
  address: string;
  model: string;
  secret: string | null;
  price: Price;
  permits: number;
  timeLimitMs: number;
}

export async function createService(ground: Ground, secrets: Secrets, service: NewService): Promise<string> {
  const id = ground.ids();
  const secret = service.secret === null ? null : secrets.seal(service.secret.trim());
  await ground.db.run(
    'INSERT INTO service (id, role, name, address, model, secret, price, permits, time_limit_ms) VALUES (?)',
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
