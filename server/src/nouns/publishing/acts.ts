import type { Act, Failure } from '@grivo/core';
import type { BlogTarget, Placed } from '../../ports/blogs/blog.ts';
import { type Doing, type Done, effect, leftOpen, settleLeft } from '../../ports/intents/effect.ts';
import { readRevision } from '../articles/repository.ts';
import { blogTarget } from '../blogs/repository.ts';
import { cannot, deedOf, intended, KINDS, updating, withdrawing } from './deeds.ts';
import { beginAct, type Deed, datingsOf, keysOf, readKey } from './editions.ts';
import { type PublishingPorts, postOf, sendPictures } from './post.ts';
import { type PublicationRow, placeOf, publicationBy } from './publications.ts';

/** What became of an act that was asked for, when it is not simply done. */
export type Acted =
  | Done<Placed>
  /** There is nothing on the blog that it could be done with. */
  | { kind: 'nothing there' };

/**
 * Brings another revision of a published article to its blog, once; what readers see on it stays, but for what changed.
 * @param again whether it is brought though it is there, since somebody else changed what is shown
 * @returns its address
 */
export async function updateOn(
  ports: PublishingPorts,
  doing: Doing,
  id: string,
  revision: string,
  again = false,
): Promise<Acted> {
  const { ground } = ports;
  const begun = await begin(ports, doing, id, 'update', revision, again);
  if ('result' in begun) return begun.result;
  const { publication, blog } = begun;
  if (!ports.blogs(blog).can(blog).has('update')) return cannot(blog, 'update');
  const document = await readRevision(ground.db, revision);
  const files = await sendPictures(ports, doing, blog, document);
  if (files.kind !== 'done') return files;
  const post = await postOf(ports, blog, publication, { document, files: files.value });
  return effect(
    ground,
    doing,
    intended(ports, 'update', blog, publication, updating(ports, blog, publication, { post, document }, doing.signal)),
  );
}

/** Takes a published article from its blog, once. */
export async function withdrawFrom(ports: PublishingPorts, doing: Doing, id: string): Promise<Acted> {
  const begun = await begin(ports, doing, id, 'withdraw', null);
  if ('result' in begun) return begun.result;
  const { publication, blog } = begun;
  if (!ports.blogs(blog).can(blog).has('withdraw')) return cannot(blog, 'withdraw');
  return effect(
    ports.ground,
    doing,
    intended(ports, 'withdraw', blog, publication, withdrawing(ports, blog, publication, doing.signal)),
  );
}

/** Begins an act, once the end of the one before is known; what is not known is looked at first. */
async function begin(
  ports: PublishingPorts,
  doing: Doing,
  id: string,
  act: Act,
  revision: string | null,
  again = false,
): Promise<{ publication: PublicationRow; blog: BlogTarget } | { result: Acted }> {
  const begun = await beginAct(ports.ground, id, act, revision, again);
  if (begun.kind === 'nothing there') return { result: begun };
  const { publication } = begun;
  if (begun.kind === 'true already')
    return { result: { kind: 'done', value: placeOf(publication) ?? { handle: '', address: '' } } };
  const blog = await blogTarget(ports.ground.db, publication.blog);
  if (!blog) return { result: { kind: 'failed', failure: gone(publication.blog) } };
  if (begun.kind === 'under way') return { publication, blog };
  const known = await settle(ports, publication, blog, doing.signal);
  if (!known) return { result: { kind: 'later', inMs: blog.timeLimitMs } };
  return begin(ports, doing, id, act, revision, again);
}

const gone = (blog: string): Failure => ({ code: 'service-unreachable', service: blog, detail: 'it is not connected' });

/**
 * Finds out what came of the deeds of an edition that nobody knows yet, once the blog can no longer act on them.
 * @returns whether all of them are known now
 */
async function settle(
  ports: PublishingPorts,
  publication: PublicationRow,
  blog: BlogTarget,
  signal: AbortSignal,
): Promise<boolean> {
  const open = () =>
    ports.ground.db.rows<{ key_: string; token: string; early: number }>(
      "SELECT key_, token, due_at > UTC_TIMESTAMP(3) AS early FROM intent WHERE state = 'open' AND (key_ IN (?) OR key_ LIKE CONCAT(?, '%'))",
      [keysOf(publication), datingsOf(publication)],
    );
  const rows = await open();
  for (const { key_, token, early } of rows) {
    if (early) return false;
    await settleDeed(ports, publication, blog, { key: key_, token }, signal);
  }
  return (await open()).length === 0;
}

async function settleDeed(
  ports: PublishingPorts,
  publication: PublicationRow,
  blog: BlogTarget,
  left: { key: string; token: string },
  signal: AbortSignal,
): Promise<void> {
  const { ground } = ports;
  const deed = left.key.slice(0, left.key.indexOf('/')) as Deed;
  const how = await deedOf(ports, deed, publication, blog, signal);
  if (how) await settleLeft(ground, left, how);
}

/**
 * Finds out what became of deeds that were given up while nobody knew, as when a brief is set aside in the middle: what
 * the outside did is always recorded.
 */
export async function settlePublishing(ports: PublishingPorts): Promise<void> {
  const { ground } = ports;
  for (const left of await leftOpen(ground.db, Object.values(KINDS))) {
    const of = readKey(left.key);
    const publication = await publicationBy(ground.db, of.key);
    const blog = publication && (await blogTarget(ground.db, publication.blog));
    if (!publication || !blog || publication.edition !== of.edition) continue;
    await settleDeed(ports, publication, blog, left, AbortSignal.timeout(blog.timeLimitMs * 4));
  }
}

/** An act by hand or by a chore: no step of a brief is behind it, so its end is found out by a chore if it is not known. */
export function byHand(ground: { ids: () => string }, signal: AbortSignal, isWatched = false): Doing {
  return { run: { id: ground.ids() }, signal, leaseOutlasts: async () => true, isWatched };
}
