import type { ArticleDocument, OutAs } from '@grivo/core';
import type { Write } from '../../ground/store/write.ts';
import { bad, good } from '../../ports/adapters/port.ts';
import type { Begins, BlogTarget, Capability, Placed, Post } from '../../ports/blogs/blog.ts';
import type { Done, Intended } from '../../ports/intents/effect.ts';
import { sentFiles } from '../articles/inTexts.ts';
import { readRevision } from '../articles/repository.ts';
import { type Deed, draftWrite, keyOf } from './editions.ts';
import { outWrites, updatedWrites, withdrawnWrites } from './out.ts';
import { type PublishingPorts, postOf, turnAt } from './post.ts';
import { markOf, type PublicationRow, placeOf, publicationOf } from './publications.ts';

/** A deed at a blog, but for its key: how it is done, how one looks whether it is, and what is true then. */
export type DeedOf = Pick<Intended<Placed>, 'call' | 'find' | 'recording'>;

export const KINDS: Record<Deed, Intended<Placed>['kind']> = {
  create: 'create',
  date: 'date',
  live: 'turn live',
  update: 'update',
  withdraw: 'withdraw',
};

/**
 * A deed of an edition. Once its intent is kept nobody begins another edition or pins another revision; what was begun
 * between the two is seen under the publication's lock, and then nothing is called.
 */
export function intended(
  ports: PublishingPorts,
  deed: Deed,
  blog: BlogTarget,
  publication: PublicationRow,
  { call, ...how }: DeedOf,
): Intended<Placed> {
  const { ground } = ports;
  const { id: service, timeLimitMs } = blog;
  const { id, edition, revision } = publication;
  return {
    key: keyOf(deed, publication),
    kind: KINDS[deed],
    service,
    timeLimitMs,
    turn: turnAt(ports, blog),
    ...how,
    call: async () => {
      const now = await publicationOf(ground.db, id, true);
      return now?.edition === edition && now.revision === revision
        ? call()
        : { kind: 'not done', failure: { code: 'overtaken', service, action: deed } };
    },
  };
}

const unfindable = ({ id }: BlogTarget) => bad({ code: 'outcome-unfindable', service: id, action: 'create' });

export const cannot = (blog: BlogTarget, what: Capability): Done<never> => ({
  kind: 'failed',
  failure: { code: 'blog-cannot', service: blog.id, what },
});

/** Where a post is looked for after an unknown outcome, and what is true once it is there. */
export function creating(
  { ground, blogs }: PublishingPorts,
  blog: BlogTarget,
  publication: PublicationRow,
  signal: AbortSignal,
  recording: (at: Placed) => Write[],
): Omit<DeedOf, 'call'> {
  return {
    find: async () => {
      const [row] = await ground.db.rows<{ at: Date }>('SELECT created_at AS at FROM article WHERE id = ?', [
        publication.article,
      ]);
      const found = await blogs(blog).find(blog, markOf(publication), row?.at.getTime() ?? 0, signal);
      // Where the last test could not find its own draft again, one that is not found may be there all the same.
      return found.ok && found.value === null && blog.settings.findable === false ? unfindable(blog) : found;
    },
    recording,
  };
}

export function turningLive(
  { blogs }: PublishingPorts,
  blog: BlogTarget,
  at: Placed,
  signal: AbortSignal,
  recording: (at: Placed) => Write[],
): Omit<DeedOf, 'call'> {
  return {
    find: async () => {
      const there = await blogs(blog).read(blog, at, signal);
      return there.ok ? good(there.value?.status === 'published' ? placeIn(there.value) : null) : there;
    },
    recording,
  };
}

const placeIn = ({ handle, address }: Placed): Placed => ({ handle, address });

/** How a post begins on a blog: what is to be live waits as a draft where there are any. */
export const beginsAs = (as: OutAs, can: ReadonlySet<Capability>): Begins =>
  as === 'live' ? (can.has('drafts') ? 'draft' : 'published') : as;

export function updating(
  { ground, blogs }: PublishingPorts,
  blog: BlogTarget,
  publication: PublicationRow,
  { post, document }: { post: Post; document: ArticleDocument },
  signal: AbortSignal,
): DeedOf {
  const at = placeOf(publication)!;
  return {
    call: () => blogs(blog).update(blog, at, post, signal),
    // What is not as it should be, or not told, is sent again: that changes nothing more.
    find: async () => {
      const there = await blogs(blog).read(blog, at, signal);
      if (!there.ok) return there;
      return good(there.value?.html === post.html && there.value.name === post.name ? placeIn(there.value) : null);
    },
    recording: (there) => updatedWrites(ground, publication, there, document),
  };
}

export function withdrawing(
  { ground, blogs }: PublishingPorts,
  blog: BlogTarget,
  publication: PublicationRow,
  signal: AbortSignal,
): DeedOf {
  const at = placeOf(publication)!;
  return {
    call: () => blogs(blog).withdraw(blog, at, signal),
    find: async () => {
      const gone = await blogs(blog).isWithdrawn(blog, at, signal);
      return gone.ok ? good(gone.value ? at : null) : gone;
    },
    recording: () => withdrawnWrites(ground, publication),
  };
}

/** How one looks whether a deed of an edition is done, and what is true then; null for one that cannot have been begun. */
export async function deedOf(
  ports: PublishingPorts,
  deed: Deed,
  publication: PublicationRow,
  blog: BlogTarget,
  signal: AbortSignal,
): Promise<Pick<DeedOf, 'find' | 'recording'> | null> {
  const { ground } = ports;
  const { revision, wanted } = publication;
  const at = placeOf(publication);
  const begins = beginsAs(publication.as_, ports.blogs(blog).can(blog));
  const out = async (as: OutAs) => {
    const document = revision === null ? null : await readRevision(ground.db, revision);
    const desk = publication.out_desk ?? ground.desk.now();
    return (there: Placed) => outWrites(ground, publication, { at: there, as, desk, document });
  };
  switch (deed) {
    case 'create':
      return creating(
        ports,
        blog,
        publication,
        signal,
        begins === 'draft' ? (there) => [draftWrite(publication, there)] : await out(publication.as_),
      );
    case 'date':
      // Whoever dates it looks how that stands and dates it anew; here it only ends that nobody knows.
      return { find: async () => good(null), recording: () => [] };
    case 'live':
      return at === null ? null : turningLive(ports, blog, at, signal, await out('live'));
    case 'withdraw':
      return at === null ? null : withdrawing(ports, blog, publication, signal);
    case 'update': {
      if (at === null || wanted === null) return null;
      const document = await readRevision(ground.db, wanted);
      const files = await sentFiles(ground.db, document, blog.id);
      const post = await postOf(ports, blog, publication, { document, files });
      return updating(ports, blog, publication, { post, document }, signal);
    }
  }
}
