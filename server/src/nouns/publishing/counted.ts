import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { getBlog, targetOf } from '../blogs/repository.ts';
import { bringAnew } from './byHand.ts';
import { isSettled } from './editions.ts';
import type { OutsidePorts } from './outside.ts';
import { publicationOf } from './publications.ts';

/** Posts that are brought in one go, and how long one that could not be is let be. */
const AT_ONCE = 5;
const AGAIN_MINUTES = 30;
const TIME_LIMIT_MS = 60_000;

/** From now on the links of a blog are counted, or are not: every post there is brought to it. */
export async function linksDue(sql: Sql, blog: string): Promise<void> {
  await sql.run('UPDATE publication SET links_due = UTC_TIMESTAMP(3) WHERE blog = ?', [blog]);
}

/**
 * Brings posts to what is wanted of their links: counted, or plain. Each keeps the revision it shows. One that somebody
 * changed on the blog is not written over; it waits until that is settled.
 * @returns how many were looked at
 */
export async function bringLinks(ports: OutsidePorts): Promise<number> {
  const { db } = ports.ground;
  const due = await db.rows<{ id: string }>(
    `SELECT id FROM publication WHERE links_due <= UTC_TIMESTAMP(3) AND state IN ('live', 'draft') ORDER BY links_due LIMIT ${AT_ONCE}`,
  );
  for (const { id } of due) {
    // Kept first: whoever changes the wish meanwhile makes it due again.
    await db.run('UPDATE publication SET links_due = UTC_TIMESTAMP(3) + INTERVAL ? MINUTE WHERE id = ?', [
      AGAIN_MINUTES,
      id,
    ]);
    const [before] = await db.rows<{ links_due: Date }>('SELECT links_due FROM publication WHERE id = ?', [id]);
    const publication = (await publicationOf(db, id))!;
    const blog = await getBlog(db, publication.blog);
    if (!blog || publication.revision === null || !isSettled(publication)) continue;
    const can = ports.blogs(targetOf(blog)).can(targetOf(blog)).has('update');
    const { revision } = publication;
    const acted = can ? await bringAnew(ports, { ...publication, revision }, AbortSignal.timeout(TIME_LIMIT_MS)) : null;
    if (acted === null || acted.kind === 'done' || acted.kind === 'nothing there')
      await db.run('UPDATE publication SET links_due = NULL WHERE id = ? AND links_due = ?', [id, before!.links_due]);
    await tellChange(db, ports.ground, 'blog', publication.blog);
  }
  return due.length;
}

/** Posts of a blog whose links are not yet as they should be. */
export async function linksLeft({ db }: Pick<Ground, 'db'>, blog: string): Promise<number> {
  const [row] = await db.rows<{ many: number }>(
    "SELECT COUNT(*) AS many FROM publication WHERE blog = ? AND links_due IS NOT NULL AND state IN ('live', 'draft')",
    [blog],
  );
  return Number(row!.many);
}
