import type { PublicationLine } from '@grivo/contract';
import type { Act, PublicationState } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { seal } from '../articles/edits.ts';
import { readRevision } from '../articles/repository.ts';
import { blogTarget, getBlog, targetOf } from '../blogs/repository.ts';
import { type Acted, byHand, updateOn, withdrawFrom } from './acts.ts';
import { beginAct, isSettled, pinRevision } from './editions.ts';
import { publishOn } from './going.ts';
import { lookOutside, type OutsidePorts } from './outside.ts';
import type { PublishingPorts } from './post.ts';
import { PUBLICATION_COLUMNS, type PublicationRow, placeOf, publicationOf } from './publications.ts';

/** Where an article is or was, with what can be done about it there. */
export async function publicationsOf(
  { ground: { db }, blogs }: Pick<PublishingPorts, 'ground' | 'blogs'>,
  article: string,
  current: string,
): Promise<PublicationLine[]> {
  const rows = await db.rows<PublicationRow>(`SELECT ${PUBLICATION_COLUMNS} WHERE article = ? ORDER BY id`, [article]);
  return Promise.all(
    rows.map(async (row): Promise<PublicationLine> => {
      const blog = await getBlog(db, row.blog);
      const can = blog ? blogs(targetOf(blog)).can(targetOf(blog)) : new Set();
      const there = isThere(row.state);
      return {
        id: row.id,
        blog: row.blog,
        blogName: blog?.name ?? 'a blog that was removed',
        state: row.state,
        address: row.address,
        outDesk: row.out_desk,
        as: row.as_,
        datedDesk: row.dated_desk === null ? null : Number(row.dated_desk),
        newest: there ? row.revision === current : null,
        underWay: isSettled(row) ? null : row.act,
        outside: there && row.outside ? { kind: row.outside.kind, at: row.outside.at } : null,
        can: (['update', 'withdraw'] as const).filter((one) => there && can.has(one)),
      };
    }),
  );
}

const isThere = (state: PublicationState): boolean => state === 'live' || state === 'draft';

/**
 * Does with an article on a blog what a person asks for, once: brings its newest revision there, takes it away, or puts it
 * there again after that. Asked for again while it is under way, it is the same act.
 */
export async function actByHand(
  ports: OutsidePorts,
  publication: PublicationRow,
  act: Act,
  revision: string,
  signal: AbortSignal,
  /** What was changed on the blog and may be written over: it was looked at. */
  over: string | null = null,
): Promise<Acted> {
  const doing = byHand(ports.ground, signal, true);
  if (act === 'withdraw') return withdrawFrom(ports, doing, publication.id);
  if (!(await seal(ports.ground.db, revision))) return { kind: 'nothing there' };
  if (act === 'update') {
    const changed = await changedThere(ports, publication, over, signal);
    return changed ?? updateOn(ports, doing, publication.id, revision);
  }
  const begun = await beginAct(ports.ground, publication.id, 'publish', revision);
  if (begun.kind === 'nothing there') return begun;
  if (begun.kind === 'true already')
    return { kind: 'done', value: placeOf(begun.publication) ?? { handle: '', address: '' } };
  const blog = await blogTarget(ports.ground.db, publication.blog);
  if (!blog) return { kind: 'nothing there' };
  if (begun.kind === 'not known yet') return { kind: 'later', inMs: blog.timeLimitMs };
  const pinned = await pinRevision(ports.ground.db, begun.publication, revision);
  const document = await readRevision(ports.ground.db, pinned);
  const { as_: as, categories, author, carried } = publication;
  return publishOn(
    ports,
    doing,
    blog,
    { ...begun.publication, revision: pinned },
    {
      as,
      document,
      categories: categories ?? [],
      author,
      carried,
      desk: ports.ground.desk.now(),
    },
  );
}

/** Brings the revision that is on a blog there once more, as it would be sent now; what somebody changed there is not written over. */
export async function bringAnew(
  ports: OutsidePorts,
  publication: PublicationRow & { revision: string },
  signal: AbortSignal,
): Promise<Acted> {
  const changed = await changedThere(ports, publication, null, signal);
  return changed ?? updateOn(ports, byHand(ports.ground, signal), publication.id, publication.revision, true);
}

/** Whether somebody else changed a post meanwhile: it is not written over before a person has seen it. */
async function changedThere(
  ports: OutsidePorts,
  publication: PublicationRow,
  over: string | null,
  signal: AbortSignal,
): Promise<Acted | null> {
  const looked = await lookOutside(ports, publication, signal);
  if (looked && !looked.ok) return { kind: 'failed', failure: looked.failure };
  const now = await publicationOf(ports.ground.db, publication.id);
  const outside = now?.outside ?? null;
  return outside === null || outside.digest === over
    ? null
    : { kind: 'failed', failure: { code: 'changed-outside', service: publication.blog } };
}

/** A publication of an article, for what is asked of it. */
export async function publicationAt(sql: Sql, article: string, id: string): Promise<PublicationRow | null> {
  const row = await publicationOf(sql, id);
  return row?.article === article ? row : null;
}
