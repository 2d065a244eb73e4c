import { EntitySchema } from 'typeorm';

export interface SourceRow {
  id: string;
  kind: 'keywords';
  name: string;
  rev: number;
  created_at: Date;
}

export const sourceEntity = new EntitySchema<SourceRow>({
  name: 'source',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    kind: { type: 'varchar', length: 24, charset: 'ascii', collation: 'ascii_bin' },
    name: { type: 'varchar', length: 120 },
    rev: { type: 'int', default: 1 },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
});
