import type { StyleSample } from '@grivo/contract';
import { EntitySchema } from 'typeorm';

export interface HouseStyleRow {
  id: string;
  name: string;
  note: string;
  /** The version articles are written in. */
  version: number;
  /** What was last written in it to hear it. */
  sample: StyleSample | null;
  /** Kept for what was written in it, and not offered any more. */
  archived: number;
  rev: number;
  created_at: Date;
}

export const houseStyleEntity = new EntitySchema<HouseStyleRow>({
  name: 'house_style',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    name: { type: 'varchar', length: 120 },
    note: { type: 'varchar', length: 300, default: '' },
    version: { type: 'int', default: 1 },
    sample: { type: 'json', nullable: true },
    archived: { type: 'tinyint', default: 0 },
    rev: { type: 'int', default: 1 },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
  uniques: [{ name: 'house_style_name', columns: ['name'] }],
});
