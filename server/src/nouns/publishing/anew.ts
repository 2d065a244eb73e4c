import type { Ground } from '../../ground/ground.ts';
import { tellChange } from '../../ground/store/event.ts';
import { getBlog, targetOf } from '../blogs/repository.ts';
import { bringAnew } from './byHand.ts';
import { isSettled } from './editions.ts';
import type { OutsidePorts } from './outside.ts';
import { publicationOf } from './publications.ts';

/** How long posts are brought in one go, and how long one that could not be is let be. */
const ROUND_MS = 3_000;
const AGAIN_MINUTES = 30;
const TIME_LIMIT_MS = 60_000;

/**
 * Sends posts that are due once more as they would be sent now, each with the revision it shows. One that somebody changed
 * on the blog is not written over; it waits until that is settled.
 * @returns how many were looked at
 */
export async function bringPosts(ports: OutsidePorts): Promise<number> {
  const { db, now } = ports.ground;
  const end = now() + ROUND_MS;
  for (let looked = 0; ; looked++) {
    const [next] = await db.rows<{ id: string }>(
      "SELECT id FROM publication WHERE anew_at <= UTC_TIMESTAMP(3) AND state IN ('live', 'draft') ORDER BY anew_at LIMIT 1",
    );
    if (!next || now() > end) return looked;
    await bringOne(ports, next.id);
  }
}

async function bringOne(ports: OutsidePorts, id: string): Promise<void> {
  const { db } = ports.ground;
  // Kept first: whoever wishes otherwise meanwhile makes it due again.
  await db.run('UPDATE publication SET anew_at = UTC_TIMESTAMP(3) + INTERVAL ? MINUTE WHERE id = ?', [
    AGAIN_MINUTES,
    id,
  ]);
  const [before] = await db.rows<{ anew_at: Date }>('SELECT anew_at FROM publication WHERE id = ?', [id]);
  const publication = (await publicationOf(db, id))!;
  const blog = await getBlog(db, publication.blog);
  if (!blog || publication.revision === null || !isSettled(publication)) return;
  const { revision } = publication;
  const can = ports.blogs(targetOf(blog)).can(targetOf(blog)).has('update');
  const acted = can ? await bringAnew(ports, { ...publication, revision }, AbortSignal.timeout(TIME_LIMIT_MS)) : null;
  if (acted === null || acted.kind === 'done' || acted.kind === 'nothing there')
    await db.run('UPDATE publication SET anew_at = NULL WHERE id = ? AND anew_at = ?', [id, before!.anew_at]);
  await tellChange(db, ports.ground, 'blog', publication.blog);
}

/** Posts of a blog that are still to be brought. */
export async function anewLeft({ db }: Pick<Ground, 'db'>, blog: string): Promise<number> {
  const [row] = await db.rows<{ many: number }>(
    "SELECT COUNT(*) AS many FROM publication WHERE blog = ? AND anew_at IS NOT NULL AND state IN ('live', 'draft')",
    [blog],
  );
  return Number(row!.many);
}
