import type { Price, ServiceRole } from '@grivo/core';
import { EntitySchema } from 'typeorm';

export interface ServiceRow {
  id: string;
  role: ServiceRole;
  name: string;
  address: string;
  model: string;
  /** Sealed; never leaves the server. */
  secret: Buffer | null;
  price: Price;
  /** Most calls at once, over all processes. */
  permits: number;
  /** Most calls begun in a minute, over all processes; null for any number. */
  calls_a_minute: number | null;
  time_limit_ms: number;
  standard: number;
  rev: number;
  created_at: Date;
}

export const serviceEntity = new EntitySchema<ServiceRow>({
  name: 'service',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    role: { type: 'varchar', length: 16, charset: 'ascii', collation: 'ascii_bin' },
    name: { type: 'varchar', length: 120 },
    address: { type: 'varchar', length: 500 },
    model: { type: 'varchar', length: 120, default: '' },
    secret: { type: 'varbinary', length: 2000, nullable: true },
    price: { type: 'json' },
    permits: { type: 'int', default: 4 },
    calls_a_minute: { type: 'int', nullable: true },
    time_limit_ms: { type: 'int', default: 60_000 },
    standard: { type: 'tinyint', default: 0 },
    rev: { type: 'int', default: 1 },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
  indices: [{ name: 'service_role', columns: ['role', 'standard', 'id'] }],
});
