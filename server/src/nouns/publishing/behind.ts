import type { ArticleDocument } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import { tellChange } from '../../ground/store/event.ts';
import { readRevision } from '../articles/repository.ts';
import { getBlog } from '../blogs/repository.ts';
import { actByHand } from './byHand.ts';
import { isSettled } from './editions.ts';
import type { OutsidePorts } from './outside.ts';
import { publicationOf } from './publications.ts';

/** Articles that are looked at in one go, and blocks that may differ of what is brought by itself. */
const AT_ONCE = 5;
const FEW_BLOCKS = 3;
const TIME_LIMIT_MS = 60_000;

/** Whether a change is small: the title and the lead picture stay, and few paragraphs differ. */
export function isSmall(before: ArticleDocument, after: ArticleDocument): boolean {
  const told = ({ title, slug, body }: ArticleDocument) =>
    JSON.stringify([title, slug, body.find((block) => block.type === 'figure' && block.lead) ?? null]);
  if (told(before) !== told(after)) return false;
  const texts = (document: ArticleDocument) => new Map(document.body.map((block) => [block.id, JSON.stringify(block)]));
  const [old, now] = [texts(before), texts(after)];
  const differing = [...new Set([...old.keys(), ...now.keys()])].filter((id) => old.get(id) !== now.get(id));
  return differing.length <= FEW_BLOCKS;
}

/**
 * Looks at live articles that were changed here since their blogs got them. Where the blog says so a change is brought
 * there by itself, once it has come to rest; all others are left for a person.
 */
export async function bringChanges(ports: OutsidePorts): Promise<number> {
  const { ground } = ports;
  const due = await ground.db.rows<{ id: string; current: string }>(
    `SELECT p.id, a.current FROM publication p JOIN article a ON a.id = p.article WHERE p.behind = 1 LIMIT ${AT_ONCE}`,
  );
  for (const { id, current } of due) {
    // Whoever looks at it decides; what comes meanwhile is noted anew.
    await ground.db.run('UPDATE publication SET behind = 2 WHERE id = ?', [id]);
    const publication = (await publicationOf(ground.db, id))!;
    const blog = await getBlog(ground.db, publication.blog);
    const updates = blog?.settings.updates ?? 'asked';
    const isDue = publication.state === 'live' && publication.revision !== current && isSettled(publication);
    const brings =
      isDue &&
      updates !== 'asked' &&
      (updates === 'all' ||
        isSmall(await readRevision(ground.db, publication.revision!), await readRevision(ground.db, current)));
    if (brings) await actByHand(ports, publication, 'update', current, AbortSignal.timeout(TIME_LIMIT_MS));
    await tellChange(ground.db, ground, 'blog', publication.blog);
  }
  return due.length;
}

/** Live articles of a blog that were changed here since it got them, the first hundred. */
export async function behindOf(
  { db }: Pick<Ground, 'db'>,
  blog: string,
): Promise<{ publication: string; article: string; title: string }[]> {
  return db.rows(
    `SELECT p.id AS publication, p.article, a.title FROM publication p JOIN article a ON a.id = p.article
     WHERE p.behind IN (1, 2) AND p.blog = ? AND p.state = 'live' AND a.current <> p.revision ORDER BY p.id DESC LIMIT 100`,
    [blog],
  );
}
