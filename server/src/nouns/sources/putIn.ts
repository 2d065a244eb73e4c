import { type NewRequest, SourceSettings } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import { sha } from '../../ground/sha.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { fingerprintOf } from './fingerprint.ts';
import { leaveOut } from './leaveOut.ts';

export interface PutIn {
  /** What tells it from others of the source. */
  identity: string;
  subject: string;
  fields: Record<string, unknown>;
  /** Whether a person has to say yes first. */
  toConfirm: boolean;
}

/** Puts an item into a source that holds what people and programs hand in. */
export async function putIn(
  sql: Sql,
  ground: Ground,
  source: string,
  { identity, subject, fields, toConfirm }: PutIn,
): Promise<string> {
  const id = ground.ids();
  const [row] = await sql.rows<{ settings: unknown }>('SELECT settings FROM source WHERE id = ?', [source]);
  const left = leaveOut({ subject, leftOut: null }, SourceSettings.parse(row?.settings));
  await sql.run(
    'INSERT INTO item (id, source, identity, content_digest, fingerprint, subject, fields, left_out, left_detail, published_desk) VALUES (?)',
    [
      [
        id,
        source,
        sha(identity),
        sha(`${subject}\n${JSON.stringify(fields)}`),
        fingerprintOf(source, sha(identity)),
        subject.slice(0, 500),
        JSON.stringify(fields),
        left?.reason ?? (toConfirm ? 'to confirm' : null),
        left?.detail ?? '',
        ground.desk.now(),
      ],
    ],
  );
  await tellChange(sql, ground, 'source', source);
  return id;
}

/** A subject with notes a person typed in. */
export async function putRequest(
  ground: Ground,
  source: string,
  { subject, notes, link }: NewRequest,
  by: string,
): Promise<string> {
  const fields = { ...(notes === '' ? {} : { text: notes }), ...(link === null ? {} : { link }), about: `by ${by}` };
  return ground.db.transaction((sql) =>
    putIn(sql, ground, source, { identity: `request ${ground.ids()}`, subject, fields, toConfirm: false }),
  );
}
