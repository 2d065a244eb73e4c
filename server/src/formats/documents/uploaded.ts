import { z } from 'zod';
import { fileAbout, fileBody } from '../../ground/files/repository.ts';
import type { Database } from '../../ground/store/database.ts';

/** A document that was uploaded, as an item brings it along. */
export const GivenDocument = z.object({ file: z.string(), fileName: z.string() });
export type GivenDocument = z.infer<typeof GivenDocument>;

/** Bytes of a document; one that is fetched has as many at most. */
export const MOST_DOCUMENT = 20_000_000;

/** The bytes of a document that was uploaded, or why it cannot be read. */
export async function uploadedDocument(
  db: Database,
  file: string,
): Promise<{ ok: true; bytes: Buffer } | { ok: false; problem: string }> {
  const about = await fileAbout(db, file);
  if (!about) return { ok: false, problem: 'the file is gone' };
  if (about.bytes > MOST_DOCUMENT)
    return { ok: false, problem: `it is larger than ${MOST_DOCUMENT / 1_000_000} MB; split it into several documents` };
  return { ok: true, bytes: await fileBody(db, file) };
}
