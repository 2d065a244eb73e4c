import { createHash } from 'node:crypto';
import { type ArticleDocument, articleHtml, articleText, type StepOf, tagsOf } from '@grivo/core';
import type { BlogTarget, Entry } from '../adapters/micropub.ts';
import { good } from '../adapters/port.ts';
import { ArticleField, field, missing } from '../articles/fields.ts';
import { uploadKey } from '../articles/inTexts.ts';
import { readRevision } from '../articles/repository.ts';
import { resolverFor } from '../articles/resolver.ts';
import { blogTarget } from '../blogs/repository.ts';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { fileAbout, fileBody } from '../files/repository.ts';
import { type Done, effect, leftOpen, settleLeft } from '../intents/effect.ts';
import type { Tools } from '../ports/tools.ts';
import { claimTurn, placeArticle } from '../publishing/placements.ts';
import {
  draftWrite,
  ensurePublication,
  type PublicationRow,
  pinRevision,
  publicationBy,
} from '../publishing/publications.ts';
import { wakesFollowers } from '../schedules/followers.ts';
import { articleWrites } from '../sketches/nearRepeats.ts';
import type { Write } from '../store/write.ts';
import { filled } from './asking.ts';

/**
 * Publishes the article once, whatever fails and whenever: waits for its slot, sends its pictures, creates it as a draft
 * whose address carries the publication's key, then turns the draft live.
 */
export function performPublish(tools: Tools): Performer<StepOf<'publish'>> {
  const { ground } = tools;
  return async (step, context) => {
    const article = field(context.fields, 'article', ArticleField);
    if (!article) return missing('article');
    if (context.brief.trial) {
      // What comes after may speak of the address; a trial has none.
      const publication = { would: step.as, blog: step.blog, when: step.when, address: '(its address)' };
      return { kind: 'done', fields: { publication } };
    }
    const blog = await blogTarget(ground.db, step.blog);
    if (!blog) return missing('blog');
    const publication = await ensurePublication(ground, article.id, blog.id, step.as);
    if (publication.state === 'live' || (publication.state === 'draft' && step.as === 'draft'))
      return ended(tools, publication, publication.address!, step.as, null);
    const due = await turn(tools, step, publication, context);
    if (due.kind !== 'go') return due.result;
    const revision = await pinRevision(ground.db, publication, article.revision);
    const document = await readRevision(ground.db, revision);
    const files = await sendPictures(tools, context, blog, document);
    if (files.kind !== 'done') return files;
    const categories = await categoriesOf(tools, step, context, document);
    if (!categories.ok) return categories.result;
    const draft = await createDraft(tools, context, blog, publication, document, files.value, categories.names);
    if (draft.kind !== 'done') return draft;
    const { text, parameters } = draftWrite(publication.id, draft.value);
    await ground.db.run(text, parameters);
    if (step.as === 'live') {
      const live = await turnLive(tools, context, blog, publication, {
        address: draft.value,
        desk: due.desk,
        document,
      });
      if (live.kind !== 'done') return live;
      return ended(tools, publication, live.value, 'live', due.desk, document);
    }
    return ended(tools, publication, draft.value, 'draft', due.desk, document);
  };
}

type Turn = { kind: 'go'; desk: number } | { kind: 'wait'; result: StepResult };

/** Waits for the slot and for the gap to the last post; 'at once' waits for neither. */
async function turn(
  tools: Tools,
  step: StepOf<'publish'>,
  publication: PublicationRow,
  context: StepContext,
): Promise<Turn> {
  const { ground } = tools;
  const now = ground.desk.now();
  if (step.when === 'at once') return { kind: 'go', desk: now };
  const due = await placeArticle(ground, publication.article, publication.blog);
  if (due === null)
    return { kind: 'wait', result: { kind: 'failed', failure: { code: 'no-slots', blog: publication.blog } } };
  if (due > now) {
    await ground.db.run(
      "UPDATE article SET standing = 'ready', blog = ?, rev = rev + 1 WHERE id = ? AND standing = 'in work'",
      [publication.blog, publication.article],
    );
    return { kind: 'wait', result: { kind: 'at', desk: due, forSlot: true } };
  }
  if (publication.state === 'planned') {
    const later = await claimTurn(ground, publication.id, publication.blog, due);
    if (later !== null) return { kind: 'wait', result: { kind: 'at', desk: later, forSlot: true } };
  }
  return { kind: 'go', desk: context.run.forSlot ? Math.max(due, now) : now };
}

async function sendPictures(
  tools: Tools,
  context: StepContext,
  blog: BlogTarget,
  document: ArticleDocument,
): Promise<Done<Map<string, string>>> {
  const { ground } = tools;
  const sent = new Map<string, string>();
  for (const block of document.body) {
    if (block.type !== 'figure' || sent.has(block.file)) continue;
    const about = await fileAbout(ground.db, block.file);
    if (!about) throw new Error(`file ${block.file} is gone`);
    const done = await effect<string>(ground, context, {
      key: uploadKey(blog.id, block.file),
      kind: 'upload',
      service: blog.id,
      timeLimitMs: blog.timeLimitMs,
      call: async () =>
        tools.micropub.upload(
          blog,
          {
            bytes: await fileBody(ground.db, block.file),
            mime: about.mime,
            name: `${document.slug || 'picture'}.${about.mime.split('/')[1]}`,
          },
          context.signal,
        ),
      // The standard has no way to ask for a file; sending it again leaves an unused copy at worst.
      find: async () => good(null),
    });
    if (done.kind !== 'done') return done;
    sent.set(block.file, done.value);
  }
  return { kind: 'done', value: sent };
}

/** Where a post is looked for after an unknown outcome, and what is true once it is there. */
function creating(tools: Tools, blog: BlogTarget, publication: PublicationRow, signal: AbortSignal) {
  return {
    find: async () => {
      const [row] = await tools.ground.db.rows<{ at: Date }>('SELECT created_at AS at FROM article WHERE id = ?', [
        publication.article,
      ]);
      return tools.micropub.find(blog, publication.key_, row?.at.getTime() ?? 0, signal);
    },
    recording: (address: string) => [draftWrite(publication.id, address)],
  };
}

/** What the post goes under: the categories chosen in the step, and the article's own tags where they are wanted. */
async function categoriesOf(
  tools: Tools,
  step: StepOf<'publish'>,
  context: StepContext,
  document: ArticleDocument,
): Promise<{ ok: true; names: string[] } | { ok: false; result: StepResult }> {
  const own = await filled(tools, Object.fromEntries(step.categories.map((text, i) => [`${i}`, text])), context);
  if (!own.ok) return own;
  const chosen = Object.values(own.texts).map((text) => text.replace(/\s+/g, ' ').trim());
  const all = [...chosen, ...(step.tags === 'its own' ? tagsOf(document) : [])].filter((name) => name !== '');
  const once = new Map<string, string>();
  for (const name of all) if (!once.has(name.toLowerCase())) once.set(name.toLowerCase(), name);
  return { ok: true, names: [...once.values()] };
}

async function createDraft(
  tools: Tools,
  context: StepContext,
  blog: BlogTarget,
  publication: PublicationRow,
  document: ArticleDocument,
  files: ReadonlyMap<string, string>,
  categories: readonly string[],
): Promise<Done<string>> {
  const entry = await entryOf(tools, publication, document, files, categories);
  return effect<string>(tools.ground, context, {
    key: `create/${publication.key_}`,
    kind: 'create',
    service: blog.id,
    timeLimitMs: blog.timeLimitMs,
    call: () => tools.micropub.create(blog, entry, 'draft', context.signal),
    ...creating(tools, blog, publication, context.signal),
  });
}

function turningLive(
  tools: Tools,
  blog: BlogTarget,
  publication: PublicationRow,
  { address, desk, document }: { address: string; desk: number; document: ArticleDocument },
  signal: AbortSignal,
) {
  return {
    find: async () => {
      const post = await tools.micropub.source(blog, address, signal);
      return post.ok ? good(post.value?.status === 'published' ? post.value.address : null) : post;
    },
    recording: (at: string) => outWrites(tools, publication, { address: at, as: 'live', desk, document }),
  };
}

async function turnLive(
  tools: Tools,
  context: StepContext,
  blog: BlogTarget,
  publication: PublicationRow,
  post: { address: string; desk: number; document: ArticleDocument },
): Promise<Done<string>> {
  return effect<string>(tools.ground, context, {
    key: `live/${publication.key_}`,
    kind: 'turn live',
    service: blog.id,
    timeLimitMs: blog.timeLimitMs,
    call: () => tools.micropub.turnLive(blog, post.address, new Date(post.desk).toISOString(), context.signal),
    ...turningLive(tools, blog, publication, post, context.signal),
  });
}

/**
 * Finds out what became of publishing that was given up while nobody knew, as when a brief is set aside in the middle: what
 * the outside did is always recorded.
 */
export async function settlePublishing(tools: Tools): Promise<void> {
  const { ground } = tools;
  for (const left of await leftOpen(ground.db)) {
    const publication = await publicationBy(ground.db, left.key.slice(left.key.indexOf('/') + 1));
    const blog = publication && (await blogTarget(ground.db, publication.blog));
    if (!publication || !blog) continue;
    const signal = AbortSignal.timeout(blog.timeLimitMs * 4);
    if (left.kind === 'create') await settleLeft(ground, left, creating(tools, blog, publication, signal));
    else if (publication.address !== null && publication.revision !== null) {
      const document = await readRevision(ground.db, publication.revision);
      const post = { address: publication.address, desk: publication.out_desk ?? ground.desk.now(), document };
      await settleLeft(ground, left, turningLive(tools, blog, publication, post, signal));
    }
  }
}

async function entryOf(
  tools: Tools,
  publication: PublicationRow,
  document: ArticleDocument,
  files: ReadonlyMap<string, string>,
  categories: readonly string[],
): Promise<Entry> {
  const lead = document.body.find((block) => block.type === 'figure' && block.lead);
  const body = document.body.filter((block) => block !== lead);
  const html = articleHtml({ body }, await resolverFor(tools.ground.db, document, (digest) => files.get(digest) ?? ''));
  return {
    name: document.title,
    html,
    summary: document.description,
    slug: `${document.slug || 'article'}-${publication.key_}`,
    categories: [...categories],
    photo: lead?.type === 'figure' ? { address: files.get(lead.file) ?? '', alternative: lead.alternative } : null,
  };
}

/** The end of the step, with everything that must become true together. */
async function ended(
  tools: Tools,
  publication: PublicationRow,
  address: string,
  as: 'live' | 'draft',
  desk: number | null,
  document?: ArticleDocument,
): Promise<StepResult> {
  const at = desk ?? publication.out_desk ?? tools.ground.desk.now();
  return {
    kind: 'done',
    fields: { publication: { blog: publication.blog, address, as, at } },
    writes: [
      ...outWrites(tools, publication, { address, as, desk: at, ...(document ? { document } : {}) }),
      ...(as === 'live' ? await wakesFollowers(tools.ground, publication.blog) : []),
    ],
  };
}

/** Titles of the link index; longer ones are cut. */
const LONGEST_TITLE = 500;

/** What is true of an article once it is out, as it was asked for. */
function outWrites(
  { ground }: Tools,
  publication: PublicationRow,
  { address, as, desk, document }: { address: string; as: 'live' | 'draft'; desk: number; document?: ArticleDocument },
): Write[] {
  const { article, blog } = publication;
  const writes: Write[] = [
    {
      text: 'UPDATE publication SET state = ?, address = ?, out_desk = COALESCE(out_desk, ?), rev = rev + 1 WHERE id = ?',
      parameters: [as, address, desk, publication.id],
    },
    {
      text: "UPDATE article SET standing = 'out', blog = ?, rev = rev + 1 WHERE id = ?",
      parameters: [blog, article],
    },
    { text: "INSERT INTO event (id, noun, noun_id) VALUES (?, 'article', ?)", parameters: [ground.ids(), article] },
  ];
  const title = document?.title;
  if (as === 'live' && document && title) {
    const digest = createHash('sha256').update(address).digest('hex');
    writes.push({
      text: 'INSERT INTO link_page (blog, address_digest, address, title, article) VALUES (?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE title = VALUES(title), article = VALUES(article)',
      parameters: [blog, digest, address.slice(0, 1_000), title.slice(0, LONGEST_TITLE), article],
    });
    writes.push(...articleWrites(article, { title, text: articleText(document), language: document.language }));
  }
  return writes;
}
