import type { Act, ArticleDocument, Failure } from '@grivo/core';
import type { Write } from '../../ground/store/write.ts';
import { bad, good } from '../../ports/adapters/port.ts';
import type { BlogTarget, Capability, Placed, Post } from '../../ports/blogs/blog.ts';
import { type Doing, type Done, effect, type Intended, leftOpen, settleLeft } from '../../ports/intents/effect.ts';
import { sentFiles } from '../articles/inTexts.ts';
import { readRevision } from '../articles/repository.ts';
import { blogTarget } from '../blogs/repository.ts';
import { beginAct, type Deed, draftWrite, keyOf, readKey } from './editions.ts';
import { outWrites, updatedWrites, withdrawnWrites } from './out.ts';
import { type PublishingPorts, postOf, sendPictures } from './post.ts';
import { asPlaced, markOf, type PublicationRow, placeOf, publicationBy, publicationOf } from './publications.ts';

/** A deed at a blog, but for its key: how it is done, how one looks whether it is, and what is true then. */
type DeedOf = Pick<Intended<Placed>, 'call' | 'find' | 'recording'>;

const KINDS: Record<Deed, Intended<Placed>['kind']> = {
  create: 'create',
  live: 'turn live',
  update: 'update',
  withdraw: 'withdraw',
};

/**
 * A deed of an edition. Once its intent is kept nobody begins another edition or pins another revision; what was begun
 * between the two is seen under the publication's lock, and then nothing is called.
 */
function intended(
  { ground }: PublishingPorts,
  deed: Deed,
  blog: BlogTarget,
  publication: PublicationRow,
  { call, ...how }: DeedOf,
): Intended<Placed> {
  const { id: service, timeLimitMs } = blog;
  const { id, edition, revision } = publication;
  return {
    key: keyOf(deed, publication),
    kind: KINDS[deed],
    service,
    timeLimitMs,
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

const cannot = (blog: BlogTarget, what: Capability): Done<never> => ({
  kind: 'failed',
  failure: { code: 'blog-cannot', service: blog.id, what },
});

/** Where a post is looked for after an unknown outcome, and what is true once it is there. */
function creating(
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

export interface Going {
  as: 'live' | 'draft';
  document: ArticleDocument;
  categories: readonly string[];
  /** Who it is by; whoever the blog says where nobody is named. */
  author?: string | null;
  /** The moment readers see on it, of the desk clock. */
  desk: number;
}

/**
 * Publishes an article once, whatever fails and whenever: sends its pictures, creates it as a draft whose address carries
 * the edition's mark, then turns the draft live. A blog without drafts gets it live at once.
 * @returns where it is
 */
export async function publishOn(
  ports: PublishingPorts,
  doing: Doing,
  blog: BlogTarget,
  publication: PublicationRow,
  { as, document, categories, author = null, desk }: Going,
): Promise<Done<Placed>> {
  const { ground } = ports;
  const port = ports.blogs(blog);
  const hasDrafts = port.can(blog).has('drafts');
  if (as === 'draft' && !hasDrafts) return cannot(blog, 'drafts');
  const out = (at: Placed) => outWrites(ground, publication, { at, as, desk, document, categories, author });
  let at = placeOf(publication);
  if (publication.state !== 'draft' || at === null) {
    const files = await sendPictures(ports, doing, blog, document);
    if (files.kind !== 'done') return files;
    const post = { ...(await postOf(ground.db, publication, document, files.value, categories)), author };
    const made = await effect(
      ground,
      doing,
      intended(ports, 'create', blog, publication, {
        call: () => port.create(blog, post, hasDrafts ? 'draft' : 'published', doing.signal),
        ...creating(ports, blog, publication, doing.signal, (made) =>
          hasDrafts && as === 'live' ? [draftWrite(publication, made)] : out(made),
        ),
      }),
    );
    if (made.kind !== 'done') return made;
    at = asPlaced(made.value);
    // Told again: what is true of it may not have been recorded when the deed was found done.
    for (const { text, parameters } of hasDrafts ? [draftWrite(publication, at)] : [])
      await ground.db.run(text, parameters);
  }
  if (as === 'draft' || !hasDrafts) return { kind: 'done', value: at };
  const there = at;
  const live = await effect(
    ground,
    doing,
    intended(ports, 'live', blog, publication, {
      call: () => port.turnLive(blog, there, new Date(desk).toISOString(), doing.signal),
      ...turningLive(ports, blog, there, doing.signal, out),
    }),
  );
  return live.kind === 'done' ? { kind: 'done', value: asPlaced(live.value) } : live;
}

function turningLive(
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
  const post = await postOf(ground.db, publication, document, files.value, publication.categories ?? []);
  return effect(
    ground,
    doing,
    intended(ports, 'update', blog, publication, updating(ports, blog, publication, { post, document }, doing.signal)),
  );
}

function updating(
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

function withdrawing(
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
  const keys = (['create', 'live', 'update', 'withdraw'] as const).map((deed) => keyOf(deed, publication));
  const rows = await ports.ground.db.rows<{ key_: string; token: string; early: number }>(
    "SELECT key_, token, due_at > UTC_TIMESTAMP(3) AS early FROM intent WHERE key_ IN (?) AND state = 'open'",
    [keys],
  );
  for (const { key_, token, early } of rows) {
    if (early) return false;
    await settleDeed(ports, publication, blog, { key: key_, token }, signal);
  }
  return (await ports.ground.db.rows("SELECT 1 FROM intent WHERE key_ IN (?) AND state = 'open'", [keys])).length === 0;
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

async function deedOf(
  ports: PublishingPorts,
  deed: Deed,
  publication: PublicationRow,
  blog: BlogTarget,
  signal: AbortSignal,
): Promise<Pick<DeedOf, 'find' | 'recording'> | null> {
  const { ground } = ports;
  const { revision, wanted } = publication;
  const at = placeOf(publication);
  const hasDrafts = ports.blogs(blog).can(blog).has('drafts');
  const out = async (as: 'live' | 'draft') => {
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
        hasDrafts ? (there) => [draftWrite(publication, there)] : await out('live'),
      );
    case 'live':
      return at === null ? null : turningLive(ports, blog, at, signal, await out('live'));
    case 'withdraw':
      return at === null ? null : withdrawing(ports, blog, publication, signal);
    case 'update': {
      if (at === null || wanted === null) return null;
      const document = await readRevision(ground.db, wanted);
      const files = await sentFiles(ground.db, document, blog.id);
      const post = await postOf(ground.db, publication, document, files, publication.categories ?? []);
      return updating(ports, blog, publication, { post, document }, signal);
    }
  }
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
export function byHand(ground: { ids: () => string }, signal: AbortSignal): Doing {
  return { run: { id: ground.ids() }, signal, leaseOutlasts: async () => true };
}
