import type { BlogWay, TestLine, WaySettings } from '@grivo/contract';
import type { CadenceRule } from '@grivo/core';
import { EntitySchema } from 'typeorm';

export interface BlogRow {
  id: string;
  name: string;
  /** Where its readers find it. */
  address: string;
  /** The way posts go there: the name of an adapter. */
  way: BlogWay;
  endpoint: string;
  settings: WaySettings;
  media_endpoint: string | null;
  /** Sealed; never leaves the server. */
  secret: Buffer | null;
  language: string;
  time_limit_ms: number;
  cadence: CadenceRule;
  /** Compared and raised by every placement and rule edit. */
  cadence_rev: number;
  /** Desk moment of the newest publication by slot. */
  last_out_desk: number | null;
  /** What its last test tried, and when by the desk clock. */
  last_test: TestLine[] | null;
  tested_desk: number | null;
  /** Categories it told of when it was last asked; null before that, and where the way does not tell. */
  categories: string[] | null;
  /** Kept for what was published there, and not offered any more. */
  archived: number;
  note: string;
  /** The house style its articles keep to. */
  style: string | null;
  /** When its pages are read again. */
  pages_due: Date;
  rev: number;
  created_at: Date;
}

export const blogEntity = new EntitySchema<BlogRow>({
  name: 'blog',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    name: { type: 'varchar', length: 120 },
    address: { type: 'varchar', length: 500 },
    way: { type: 'varchar', length: 20, charset: 'ascii', collation: 'ascii_bin', default: 'micropub' },
    endpoint: { type: 'varchar', length: 500 },
    settings: { type: 'json', default: () => "'{}'" },
    media_endpoint: { type: 'varchar', length: 500, nullable: true },
    secret: { type: 'varbinary', length: 2000, nullable: true },
    language: { type: 'varchar', length: 35, default: 'en' },
    time_limit_ms: { type: 'int', default: 15_000 },
    cadence: { type: 'json' },
    cadence_rev: { type: 'int', default: 1 },
    last_out_desk: { type: 'bigint', nullable: true },
    last_test: { type: 'json', nullable: true },
    tested_desk: { type: 'bigint', nullable: true },
    categories: { type: 'json', nullable: true },
    archived: { type: 'tinyint', default: 0 },
    note: { type: 'varchar', length: 300, default: '' },
    style: { type: 'char', length: 20, charset: 'ascii', collation: 'ascii_bin', nullable: true },
    pages_due: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
    rev: { type: 'int', default: 1 },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
});
