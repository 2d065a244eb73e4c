import { EntitySchema } from 'typeorm';

export interface PipelineRow {
  id: string;
  name: string;
  procedure_id: string;
  /** The version new briefs are pinned to. */
  version: number;
  is_on: number;
  /** Most briefs in work at once. */
  open_limit: number;
  /** Minutes a brief may be in work at a stretch; null for any time. */
  most_minutes: number | null;
  /** 0 first, 9 last. */
  priority: number;
  /** Desk moment the newest brief was let into work. */
  admitted_desk: number | null;
  /** Kept for what came of it, and not offered any more. */
  archived: number;
  note: string;
  rev: number;
  created_at: Date;
}

export const pipelineEntity = new EntitySchema<PipelineRow>({
  name: 'pipeline',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    name: { type: 'varchar', length: 120 },
    procedure_id: { type: 'char', length: 20, charset: 'ascii', collation: 'ascii_bin' },
    version: { type: 'int' },
    is_on: { type: 'tinyint', default: 0 },
    open_limit: { type: 'int', default: 10 },
    most_minutes: { type: 'int', nullable: true },
    priority: { type: 'tinyint', default: 5 },
    admitted_desk: { type: 'bigint', nullable: true },
    archived: { type: 'tinyint', default: 0 },
    note: { type: 'varchar', length: 300, default: '' },
    rev: { type: 'int', default: 1 },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
});
