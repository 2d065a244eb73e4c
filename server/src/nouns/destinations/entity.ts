import type { DestinationKind, TestLine } from '@grivo/contract';
import { EntitySchema } from 'typeorm';

export interface DestinationRow {
  id: string;
  kind: DestinationKind;
  /** Chosen by it. */
  name: string;
  address: string;
  note: string;
  /** What its last test tried, and when by the desk clock. */
  last_test: TestLine[] | null;
  tested_desk: number | null;
  rev: number;
  created_at: Date;
}

export const destinationEntity = new EntitySchema<DestinationRow>({
  name: 'destination',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    kind: { type: 'varchar', length: 16, charset: 'ascii', collation: 'ascii_bin' },
    name: { type: 'varchar', length: 120 },
    address: { type: 'varchar', length: 1000 },
    note: { type: 'varchar', length: 300, default: '' },
    last_test: { type: 'json', nullable: true },
    tested_desk: { type: 'bigint', nullable: true },
    rev: { type: 'int', default: 1 },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
  uniques: [{ name: 'destination_name', columns: ['name'] }],
});
