import { EntitySchema } from 'typeorm';

export interface LabelRow {
  id: string;
  name: string;
  rev: number;
  created_at: Date;
}

export const labelEntity = new EntitySchema<LabelRow>({
  name: 'label',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    name: { type: 'varchar', length: 120 },
    rev: { type: 'int', default: 1 },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
  uniques: [{ name: 'label_name', columns: ['name'] }],
});
