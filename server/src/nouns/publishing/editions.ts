import { type Act, decide, MAY_BEGIN, type OutAs, PUBLICATION } from '@grivo/core';
import { movesOf } from '../../engine/moves.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { Write } from '../../ground/store/write.ts';
import type { Placed } from '../../ports/blogs/blog.ts';
import { type Carried, isOut, type PublicationRow, publicationOf } from './publications.ts';

/** Every way the state of a publication is changed. */
export const publicationMoves = movesOf(PUBLICATION, 'state', () => 'rev = rev + 1');

/** What is done at a blog, each with a key of its own for every edition. */
export type Deed = 'create' | 'date' | 'live' | 'update' | 'withdraw';

/** A post that nobody reads goes no further by itself. */
const STATE_OF: Readonly<Record<OutAs, 'live' | 'draft'>> = {
  live: 'live',
  private: 'live',
  draft: 'draft',
  review: 'draft',
};

/**
 * The key of an act outside: this deed of this edition, for ever.
 * @param again how often it was dated before: a post is dated anew for each moment it is moved to
 */
export const keyOf = (
  deed: Deed,
  { key_, edition }: Pick<PublicationRow, 'key_' | 'edition'>,
  again?: number,
): string => `${deed}/${key_}/${edition}${again === undefined ? '' : `/${again}`}`;

/** The keys of what is done at most once in an edition. */
export const keysOf = (publication: Pick<PublicationRow, 'key_' | 'edition'>): string[] =>
  (['create', 'live', 'update', 'withdraw'] as const).map((deed) => keyOf(deed, publication));

/** What the keys of every dating of an edition begin with. */
export const datingsOf = (publication: Pick<PublicationRow, 'key_' | 'edition'>): string =>
  `${keyOf('date', publication)}/`;

/** The publication and the edition a key is of. */
export function readKey(key: string): { key: string; edition: number } {
  const [, publication = '', edition = ''] = key.split('/');
  return { key: publication, edition: Number(edition) };
}

export type Begun =
  /** This act is under way, begun now or before: it is to be brought to its end. */
  | { kind: 'under way'; publication: PublicationRow }
  /** It is so already. */
  | { kind: 'true already'; publication: PublicationRow }
  /** Nobody knows yet what came of what was done before; that is found out first. */
  | { kind: 'not known yet'; publication: PublicationRow }
  /** There is nothing on the blog that this could be done with. */
  | { kind: 'nothing there' };

/**
 * Begins an act with an article on a blog as a new edition, or goes on with the same one. A new edition begins only when
 * the end of the one before is known, so publishing, changing, withdrawing and publishing again are each done once, in the
 * order they were asked for.
 * @param revision what the blog is to show, for publishing and changing
 * @param again whether it is done once more though it was done: somebody else changed what is there
 */
export async function beginAct(
  ground: Ground,
  id: string,
  act: Act,
  revision: string | null,
  again = false,
): Promise<Begun> {
  return ground.db.transaction<Begun>(
    async (sql) => {
      const publication = await publicationOf(sql, id, true);
      if (!publication) return { kind: 'nothing there' };
      if (!again && isTrue(publication, act, revision)) {
        // What is true may still be under way to something else.
        return (await unknownOf(sql, publication))
          ? { kind: 'not known yet', publication }
          : { kind: 'true already', publication };
      }
      if (!again && isUnderWay(publication, act, revision)) return { kind: 'under way', publication };
      if (await unknownOf(sql, publication)) return { kind: 'not known yet', publication };
      if (!MAY_BEGIN[act].includes(publication.state)) return { kind: 'nothing there' };
      const edition = publication.edition + 1;
      const anew = publication.state === 'withdrawn';
      await sql.run('UPDATE publication SET edition = ?, act = ?, wanted = ?, rev = rev + 1 WHERE id = ?', [
        edition,
        act,
        act === 'withdraw' ? null : revision,
        id,
      ]);
      if (anew)
        await sql.run(
          `UPDATE publication SET ${publicationMoves.begin.set}, revision = ?, address = NULL, handle = NULL, out_desk = NULL, dated_desk = NULL, dating = 0, seen = NULL, outside = NULL WHERE id = ?`,
          [revision, id],
        );
      return { kind: 'under way', publication: (await publicationOf(sql, id))! };
    },
    async () => undefined,
  );
}

/** Whether what was begun last is done, or waits for its slot: nothing is under way on the blog. */
export function isSettled(publication: PublicationRow): boolean {
  const { state, act, wanted } = publication;
  if (act === 'publish') return state === 'planned' || isOut(publication) || publication.dated_desk !== null;
  return isTrue(publication, act, wanted);
}

/** Whether what an act brings about is so. */
function isTrue({ act: last, state, revision: there }: PublicationRow, act: Act, revision: string | null): boolean {
  if (act === 'publish') return state === 'live';
  if (act === 'withdraw') return state === 'withdrawn' || (last === 'withdraw' && state === 'planned');
  return decide(PUBLICATION, state, 'withdraw') !== null && state !== 'withdrawn' && there === revision;
}

function isUnderWay({ act: last, state, wanted }: PublicationRow, act: Act, revision: string | null): boolean {
  if (last !== act) return false;
  if (act === 'publish') return state !== 'withdrawn';
  return act === 'withdraw' ? MAY_BEGIN.withdraw.includes(state) : wanted === revision;
}

/** Whether nobody knows what came of a deed of this edition. */
async function unknownOf(sql: Sql, publication: PublicationRow): Promise<boolean> {
  const open = await sql.rows(
    "SELECT 1 FROM intent WHERE state = 'open' AND (key_ IN (?) OR key_ LIKE CONCAT(?, '%')) LIMIT 1",
    [keysOf(publication), datingsOf(publication)],
  );
  return open.length > 0;
}

/**
 * Pins the revision that goes out. As long as nothing of it can have reached the blog a newer one takes its place, as after
 * a refusal and another writing; from then on what is written is not published by this.
 */
export async function pinRevision(sql: Sql, publication: PublicationRow, revision: string): Promise<string> {
  await sql.run(
    `UPDATE publication SET ${publicationMoves.begin.set}, revision = ? WHERE id = ? AND state IN ('planned', 'creating')
     AND (revision IS NULL OR revision <> ?) AND NOT EXISTS (SELECT 1 FROM intent WHERE intent.key_ = ?)`,
    [revision, publication.id, revision, keyOf('create', publication)],
  );
  const [row] = await sql.rows<{ revision: string }>('SELECT revision FROM publication WHERE id = ?', [publication.id]);
  return row!.revision;
}

/** What is there is ours as it was sent, until it is looked at again. */
const SOON = 'seen = NULL, outside = NULL, compare_at = UTC_TIMESTAMP(3) + INTERVAL 10 MINUTE';

/** What a blog calls a post, kept where it is not the address. */
const handleIn = ({ handle, address }: Placed): string | null => (handle === address ? null : handle);

/** A draft is there, at an address; one that went further meanwhile stays what it is. */
export function draftWrite({ id, edition }: PublicationRow, at: Placed): Write {
  return {
    text: `UPDATE publication SET ${publicationMoves.draft.set}, address = ?, handle = ? WHERE id = ? AND edition = ? AND ${publicationMoves.draft.from}`,
    parameters: [at.address, handleIn(at), id, edition],
  };
}

/** It is out as it was asked for. */
export function outAsWrite(
  { id, edition }: PublicationRow,
  as: OutAs,
  {
    at,
    desk,
    categories,
    author,
    carried,
  }: {
    at: Placed;
    desk: number;
    categories: readonly string[] | null;
    author: string | null;
    carried: Carried | null;
  },
): Write {
  const move = publicationMoves[STATE_OF[as]];
  return {
    text: `UPDATE publication SET ${move.set}, links_stale = 1, address = ?, handle = ?, ${SOON}, dated_desk = NULL, dating = 0, out_desk = COALESCE(out_desk, ?), categories = COALESCE(?, categories), author = COALESCE(?, author), carried = COALESCE(?, carried) WHERE id = ? AND edition = ? AND ${move.from}`,
    parameters: [
      at.address,
      handleIn(at),
      desk,
      categories === null ? null : JSON.stringify(categories),
      author,
      carried === null ? null : JSON.stringify(carried),
      id,
      edition,
    ],
  };
}

/** The blog is asked to keep it until a moment: from now on it may go out by itself. */
export function datingWrite({ id, edition }: PublicationRow): Write {
  return {
    text: 'UPDATE publication SET dating = 1, dated_desk = NULL WHERE id = ? AND edition = ?',
    parameters: [id, edition],
  };
}

/** The blog keeps it until a moment. */
export function datedWrite({ id, edition }: PublicationRow, at: Placed, moment: number): Write {
  return {
    text: "UPDATE publication SET dated_desk = ?, address = ?, handle = ?, rev = rev + 1 WHERE id = ? AND edition = ? AND state = 'draft'",
    parameters: [moment, at.address, handleIn(at), id, edition],
  };
}

/** The blog shows what was wanted. */
export function updatedWrite({ id, edition }: PublicationRow, at: Placed): Write {
  return {
    text: `UPDATE publication SET revision = wanted, behind = IF(wanted = (SELECT current FROM article WHERE id = publication.article), 0, behind), links_stale = 1, address = ?, handle = ?, ${SOON}, rev = rev + 1 WHERE id = ? AND edition = ?`,
    parameters: [at.address, handleIn(at), id, edition],
  };
}

export function withdrawnWrite({ id, edition }: PublicationRow): Write {
  return {
    text: `UPDATE publication SET ${publicationMoves.withdraw.set}, links_stale = 1, dated_desk = NULL, dating = 0 WHERE id = ? AND edition = ? AND ${publicationMoves.withdraw.from}`,
    parameters: [id, edition],
  };
}
