import type { ArticleDocument, OutAs } from '@grivo/core';
import { good } from '../../ports/adapters/port.ts';
import type { BlogTarget, Capability, Placed } from '../../ports/blogs/blog.ts';
import { type Doing, type Done, effect } from '../../ports/intents/effect.ts';
import { beginsAs, cannot, creating, intended, turningLive } from './deeds.ts';
import { datedWrite, datingsOf, datingWrite, draftWrite, keyOf } from './editions.ts';
import { outWrites } from './out.ts';
import { type PublishingPorts, postOf, sendPictures } from './post.ts';
import { asPlaced, type Carried, type PublicationRow, placeOf, publicationOf } from './publications.ts';

export interface Going {
  as: OutAs;
  document: ArticleDocument;
  categories: readonly string[];
  /** Who it is by; whoever the blog says where nobody is named. */
  author?: string | null;
  /** What else it carries; nothing where it is not said. */
  carried?: Carried | null;
  /** The moment readers see on it, of the desk clock. */
  desk: number;
}

/** What is asked for that a blog cannot; null when it can all of it. */
function lacking(can: ReadonlySet<Capability>, { as, carried }: Pick<Going, 'as' | 'carried'>): Capability | null {
  const wanted: [boolean, Capability][] = [
    [as === 'draft', 'drafts'],
    [as === 'review', 'review'],
    [as === 'private', 'private'],
    [carried?.shape === 'page', 'pages'],
    [(carried?.replies ?? null) !== null, 'replies'],
    [Object.keys(carried?.properties ?? {}).length > 0, 'properties'],
  ];
  return wanted.find(([is, what]) => is && !can.has(what))?.[1] ?? null;
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
  going: Going,
): Promise<Done<Placed>> {
  const { ground } = ports;
  const { as, desk } = going;
  const port = ports.blogs(blog);
  const begun = await begunOn(ports, doing, blog, publication, going);
  if (begun.kind !== 'done' || as !== 'live' || beginsAs(as, port.can(blog)) !== 'draft') return begun;
  const at = begun.value;
  const live = await effect(
    ground,
    doing,
    intended(ports, 'live', blog, publication, {
      call: () => port.turnLive(blog, at, new Date(desk).toISOString(), doing.signal),
      ...turningLive(ports, blog, at, doing.signal, (there) => outWrites(ground, publication, { at: there, ...going })),
    }),
  );
  return live.kind === 'done' ? { ...live, value: asPlaced(live.value) } : live;
}

/** Puts an article on a blog as its post begins there, with its pictures; one that is there already is not sent again. */
async function begunOn(
  ports: PublishingPorts,
  doing: Doing,
  blog: BlogTarget,
  publication: PublicationRow,
  going: Going,
): Promise<Done<Placed>> {
  const { ground } = ports;
  const { document, categories, author = null, carried = null } = going;
  const port = ports.blogs(blog);
  const can = port.can(blog);
  const cannotBe = lacking(can, going);
  if (cannotBe) return cannot(blog, cannotBe);
  const known = placeOf(publication);
  if (publication.state === 'draft' && known !== null) return { kind: 'done', value: known };
  const files = await sendPictures(ports, doing, blog, document);
  if (files.kind !== 'done') return files;
  const sent = { ...publication, categories: [...categories], author, carried };
  const post = await postOf(ports, blog, sent, { document, files: files.value });
  const begins = beginsAs(going.as, can);
  const goesOn = begins === 'draft' && going.as === 'live';
  const made = await effect(
    ground,
    doing,
    intended(ports, 'create', blog, publication, {
      call: () => port.create(blog, post, begins, doing.signal),
      ...creating(ports, blog, publication, doing.signal, (at) =>
        goesOn ? [draftWrite(publication, at)] : outWrites(ground, publication, { at, ...going }),
      ),
    }),
  );
  if (made.kind !== 'done') return made;
  const at = asPlaced(made.value);
  // Told again: what is true of it may not have been recorded when the deed was found done.
  for (const { text, parameters } of goesOn && !made.recorded ? [draftWrite(publication, at)] : [])
    await ground.db.run(text, parameters);
  return { ...made, value: at };
}

/** What came of dating a post ahead. */
export type Dated = Exclude<Done<Placed>, { kind: 'done' }> | { kind: 'done'; value: Placed; isReadAlready: boolean };

/**
 * Hands an article to a blog that keeps it until the moment it is dated for, once for each moment it is moved to.
 * Whether the blog truly keeps it is looked at: not every one does that says so.
 */
export async function dateOn(
  ports: PublishingPorts,
  doing: Doing,
  blog: BlogTarget,
  publication: PublicationRow,
  going: Going,
): Promise<Dated> {
  const { ground } = ports;
  const port = ports.blogs(blog);
  const begun = await begunOn(ports, doing, blog, publication, going);
  if (begun.kind !== 'done') return begun;
  const known = (await publicationOf(ground.db, publication.id))!;
  if (known.dated_desk !== null && Number(known.dated_desk) === going.desk)
    return { kind: 'done', value: begun.value, isReadAlready: false };
  const [before] = await ground.db.rows<{ n: number }>(
    "SELECT COUNT(*) AS n FROM intent WHERE state = 'done' AND key_ LIKE CONCAT(?, '%')",
    [datingsOf(publication)],
  );
  const at = begun.value;
  const { text, parameters } = datingWrite(publication);
  await ground.db.run(text, parameters);
  const dated = await effect(ground, doing, {
    ...intended(ports, 'date', blog, publication, {
      call: () => port.turnLive(blog, at, new Date(going.desk).toISOString(), doing.signal),
      // What is not known to be dated is dated again: that changes nothing more.
      find: async () => good(null),
      recording: (there) => [datedWrite(publication, asPlaced(there), going.desk)],
    }),
    key: keyOf('date', publication, before?.n ?? 0),
  });
  if (dated.kind !== 'done') return dated;
  const there = asPlaced(dated.value);
  const read = (await port.isRead?.(blog, there, doing.signal)) ?? good(false);
  return { kind: 'done', value: there, isReadAlready: read.ok && read.value };
}
