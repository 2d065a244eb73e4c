import { EntitySchema } from 'typeorm';

export type Role = 'owner' | 'editor' | 'proofreader';

export interface PersonRow {
  id: string;
  email: string;
  name: string;
  role: Role;
  password_hash: string;
  rev: number;
  removed_at: Date | null;
  created_at: Date;
}

export const personEntity = new EntitySchema<PersonRow>({
  name: 'person',
  columns: {
    id: { type: 'char', length: 20, primary: true, charset: 'ascii', collation: 'ascii_bin' },
    email: { type: 'varchar', length: 190, collation: 'utf8mb4_bin' },
    name: { type: 'varchar', length: 120 },
    role: { type: 'varchar', length: 16, charset: 'ascii', collation: 'ascii_bin' },
    password_hash: { type: 'varchar', length: 255 },
    rev: { type: 'int', default: 1 },
    removed_at: { type: 'datetime', precision: 3, nullable: true },
    created_at: { type: 'datetime', precision: 3, default: () => 'utc_timestamp(3)', insert: false },
  },
  uniques: [{ name: 'person_email', columns: ['email'] }],
});
