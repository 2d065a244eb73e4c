import type { SourceKind, SourceSettings } from '@grivo/contract';
import type { Failure } from '@grivo/core';
import { EntitySchema } from 'typeorm';

export interface SourceRow {
  id: string;
  kind: SourceKind;
  name: string;
  settings: SourceSettings;
  looked_desk: number | null;
  /** Digest of how items were read at the last look: another reading brings other fields, and is no change of an item. */
  looked_with: string | null;
  /** Until when somebody is looking at it, by the database's clock. */
  looking_until: Date | null;
  /** The worker that looks, so that its looks are given back when it dies. */
  looking_by: string | null;
  /** What went wrong at the last look. */
  failure: Failure | null;
  /** Kept for what came of it, and not offered any more. */
  archived: number;
  note: string;
  rev: number;
  created_at: Date;
}

export const sourceEntity = new EntitySchema<SourceRow>({
  name: 'source',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    kind: { type: 'varchar', length: 24, charset: 'ascii', collation: 'ascii_bin' },
    name: { type: 'varchar', length: 120 },
    settings: { type: 'json', nullable: true },
    looked_desk: { type: 'bigint', nullable: true },
    looked_with: { type: 'char', length: 64, nullable: true, charset: 'ascii', collation: 'ascii_bin' },
    looking_until: { type: 'datetime', precision: 3, nullable: true },
    looking_by: { type: 'char', length: 20, nullable: true, charset: 'ascii', collation: 'ascii_bin' },
    failure: { type: 'json', nullable: true },
    archived: { type: 'tinyint', default: 0 },
    note: { type: 'varchar', length: 300, default: '' },
    rev: { type: 'int', default: 1 },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
});
