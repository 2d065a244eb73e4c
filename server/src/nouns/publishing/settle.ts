import type { Failure, OutsideChoice } from '@grivo/core';
import { saveEdit, seal } from '../articles/edits.ts';
import { readRevision } from '../articles/repository.ts';
import { type Acted, byHand, updateOn } from './acts.ts';
import { withdrawnWrites } from './out.ts';
import { chosenText, lookOutside, type OutsidePorts, settleSeen } from './outside.ts';
import { type PublicationRow, publicationOf } from './publications.ts';

/** What a person chose of a post somebody changed on its blog. */
export interface Chosen {
  /** Names what was seen. */
  digest: string;
  title: 'theirs' | 'ours';
  choices: readonly OutsideChoice[];
  person: string;
}

export type Settled =
  | Acted
  /** It was changed there again, or here, since it was looked at. */
  | { kind: 'overtaken' }
  /** A step is at the article. */
  | { kind: 'busy' }
  | { kind: 'failed'; failure: Failure };

/**
 * Does what was chosen: theirs becomes a revision of ours, ours goes back to the blog, and both are kept. What is there
 * already as it is meant to be is not sent again.
 */
export async function settleOutside(
  ports: OutsidePorts,
  publication: PublicationRow,
  article: { id: string; current: string },
  chosen: Chosen,
  signal: AbortSignal,
): Promise<Settled> {
  const looked = await lookOutside(ports, publication, signal);
  if (looked === null) return { kind: 'nothing there' };
  if (!looked.ok) return { kind: 'failed', failure: looked.failure };
  const beside = looked.value;
  if (beside.digest !== chosen.digest) return { kind: 'overtaken' };
  if (beside.there === null) return staysGone(ports, publication);
  const { db } = ports.ground;
  const newest = await readRevision(db, article.current);
  const document = chosenText(beside, chosen, newest);
  const saved = await saveEdit(ports.ground, {
    article: article.id,
    base: article.current,
    document,
    person: chosen.person,
    sitting: `o${chosen.digest.slice(0, 12)}`,
  });
  if (saved.kind === 'overtaken' || saved.kind === 'busy') return saved;
  await seal(db, saved.revision);
  const allTheirs = chosen.choices.every((choice) => choice === 'theirs');
  const titleStays = chosen.title === 'theirs' || beside.there.name === beside.document.title;
  if (allTheirs && titleStays && publication.revision === article.current) {
    await settleSeen(ports, publication, { revision: saved.revision, digest: chosen.digest });
    return { kind: 'done', value: beside.there };
  }
  return updateOn(ports, byHand(ports.ground, signal, true), publication.id, saved.revision, true);
}

/** A post that somebody removed there is not made again: it counts as taken back. */
async function staysGone({ ground }: OutsidePorts, publication: PublicationRow): Promise<Acted> {
  return ground.db.transaction<Acted>(async (sql) => {
    const now = await publicationOf(sql, publication.id, true);
    if (now?.edition !== publication.edition) return { kind: 'later', inMs: 1_000 };
    await sql.run(
      "UPDATE publication SET edition = edition + 1, act = 'withdraw', wanted = NULL, outside = NULL WHERE id = ?",
      [publication.id],
    );
    for (const { text, parameters } of withdrawnWrites(ground, { ...now, edition: now.edition + 1 }))
      await sql.run(text, parameters);
    return { kind: 'done', value: { handle: now.handle ?? '', address: now.address ?? '' } };
  });
}
