import type { Service } from '@grivo/contract';
import type { Price, ServiceRole } from '@grivo/core';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { serviceEntity } from './entity.ts';

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
  const { role, name, address, model, secret, price, permits, callsAMinute = null, timeLimitMs } = service;
  await ground.db.of(serviceEntity).insert({
    id,
    role,
    name,
    address,
    model,
    secret: secret === null ? null : secrets.seal(secret.trim()),
    price,
    permits,
    calls_a_minute: callsAMinute,
    time_limit_ms: timeLimitMs,
  });
  return id;
}

/** A new key for a service; whoever pasted it with spaces around meant it without. */
export async function changeSecret(ground: Ground, secrets: Secrets, service: string, secret: string): Promise<void> {
  await ground.db
    .of(serviceEntity)
    .update({ id: service }, { secret: secrets.seal(secret.trim()), rev: () => 'rev + 1' });
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
  const { name, model, price, permits, callsAMinute, timeLimitMs } = change;
  const { affected } = await ground.db.of(serviceEntity).update(
    { id, rev },
    {
      ...(name !== undefined && { name }),
      ...(model !== undefined && { model }),
      ...(price !== undefined && { price }),
      ...(permits !== undefined && { permits }),
      ...(callsAMinute !== undefined && { calls_a_minute: callsAMinute }),
      ...(timeLimitMs !== undefined && { time_limit_ms: timeLimitMs }),
      rev: rev + 1,
    },
  );
  return affected === 1;
}

/** Every service, and of each role which is used: the one that was chosen, else the oldest. */
export async function listServices(sql: Sql): Promise<Service[]> {
  const rows = await sql.of(serviceEntity).find({ order: { standard: 'DESC', id: 'ASC' } });
  const used = new Map([...rows].reverse().map(({ role, id }) => [role, id]));
  return rows
    .map(({ id, role, name, address, model, price, permits, calls_a_minute, secret, rev }) => ({
      id,
      role,
      name,
      address,
      model,
      price: { ...price, microsPerMinute: price.microsPerMinute ?? 0 },
      permits,
      callsAMinute: calls_a_minute,
      hasSecret: secret !== null,
      rev,
      used: used.get(role) === id,
    }))
    .sort((a, b) => (a.id < b.id ? -1 : 1));
}

/** Makes a service the one of its role that steps use. */
export async function useService(sql: Sql, id: string): Promise<void> {
  await sql.run(
    'UPDATE service s JOIN service o ON o.role = s.role SET s.standard = (s.id = ?), s.rev = s.rev + 1 WHERE o.id = ?',
    [id, id],
  );
}
