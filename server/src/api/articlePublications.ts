import { OutsideShown, PublicationAct, PublicationActed, PublishElsewhere, SettleOutside } from '@grivo/contract';
import { pressedWords } from '@grivo/core';
import type { Sql } from '../ground/store/database.ts';
import { isBusy } from '../nouns/articles/edits.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { namer } from '../nouns/incidents/words.ts';
import type { Acted } from '../nouns/publishing/acts.ts';
import { actByHand, publicationAt, publicationsOf } from '../nouns/publishing/byHand.ts';
import { actsOn } from '../nouns/publishing/history.ts';
import { lookOutside } from '../nouns/publishing/outside.ts';
import { ensurePublication } from '../nouns/publishing/publications.ts';
import { type Settled, settleOutside } from '../nouns/publishing/settle.ts';
import { outBeforeSlot } from '../nouns/publishing/slots.ts';
import { must } from './articleEdits.ts';
import { BUSY } from './articles.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** The longest an act on a blog is waited for, in milliseconds; it goes on by itself after that. */
const LONGEST_ACT_MS = 60_000;

/** What is done with an article on blogs by hand. */
export function articlePublicationRoutes(product: Product): Route[] {
  return [...afterwards(product), ...lookedOutside(product), ...settledOutside(product)];
}

/** @throws where the text somebody looked at is not the newest */
function refuseOlder(revision: string, current: string): void {
  if (revision !== current)
    throw problem(412, 'Changed meanwhile', 'There is a newer text of this article.', 'Look at it, then ask again.');
}

/** What came of an act: done, or not known yet. @throws why it was not done */
async function endOf(acted: Acted, db: Sql): Promise<{ done: boolean }> {
  if (acted.kind === 'done') return { done: true };
  if (acted.kind === 'later') return { done: false };
  if (acted.kind === 'nothing there')
    throw problem(
      409,
      'Nothing there',
      'There is no post of this article on that blog with which this could be done.',
      'Load the page again to see how it stands.',
    );
  const { sentence, mend } = pressedWords(acted.failure, await namer(db));
  throw problem(502, 'The blog did not do it', sentence, mend);
}

function afterwards(product: Product): Route[] {
  const { ground, tools, bell } = product;
  return [
    route({
      method: 'post',
      path: '/articles/{id}/publications/{publication}',
      says: 'Brings a revision of an article to the blog it is on, takes it from there, or publishes it there again',
      role: 'editor',
      body: PublicationAct,
      answer: PublicationActed,
      status: 200,
      handle: async ({ params, body: { act, revision } }) => {
        const article = await must(product, params['id']!);
        const publication = await publicationAt(ground.db, article.id, params['publication']!);
        if (!publication) throw notFound('publication');
        refuseOlder(revision, article.current);
        const acted = await actByHand(tools, publication, act, revision, AbortSignal.timeout(LONGEST_ACT_MS));
        bell.ring({ kind: 'event' });
        return endOf(acted, ground.db);
      },
    }),
    route({
      method: 'post',
      path: '/articles/{id}/publications',
      says: 'Publishes an article on a further blog, at once and once',
      role: 'editor',
      body: PublishElsewhere,
      answer: PublicationActed,
      status: 200,
      handle: async ({ params, body: { blog: id, as, revision } }) => {
        const article = await must(product, params['id']!);
        const blog = await getBlog(ground.db, id);
        if (!blog) throw notFound('blog');
        if (blog.archived)
          throw problem(409, 'Put away', `${blog.name} is archived.`, 'Bring it back first, or choose another.');
        refuseOlder(revision, article.current);
        if (await isBusy(ground.db, article.brief))
          throw problem(409, 'A step is at it', BUSY, 'Wait until it is done, then ask again.');
        const known = (await publicationsOf(tools, article.id, article.current)).find((one) => one.blog === id);
        if (known && known.state !== 'planned' && known.underWay !== 'publish')
          throw problem(
            409,
            'There already',
            `This article is or was on ${blog.name}.`,
            'What can be done about it there stands beside the article.',
          );
        const publication = await ensurePublication(ground, article.id, id, as);
        const acted = await actByHand(tools, publication, 'publish', revision, AbortSignal.timeout(LONGEST_ACT_MS));
        if (acted.kind === 'done') await outBeforeSlot(ground, article.id, id);
        bell.ring({ kind: 'admit' });
        bell.ring({ kind: 'event' });
        return endOf(acted, ground.db);
      },
    }),
  ];
}

/** An article and the post of it that is spoken of. */
async function there(product: Product, params: Record<string, string>) {
  const article = await must(product, params['id']!);
  const publication = await publicationAt(product.ground.db, article.id, params['publication']!);
  if (!publication) throw notFound('publication');
  return { article, publication };
}

/** What somebody changed on a blog itself, beside ours. */
function lookedOutside(product: Product): Route[] {
  const { ground, tools, bell } = product;
  return [
    route({
      method: 'get',
      path: '/articles/{id}/publications/{publication}/outside',
      says: 'Reads a post where it stands and sets it beside what was sent',
      role: 'editor',
      answer: OutsideShown,
      handle: async ({ params }) => {
        const { article, publication } = await there(product, params);
        const looked = await lookOutside(tools, publication, AbortSignal.timeout(LONGEST_ACT_MS));
        if (!looked) throw nothingThere();
        if (!looked.ok) {
          const { sentence, mend } = pressedWords(looked.failure, await namer(ground.db));
          throw problem(502, 'The blog cannot be looked at', sentence, mend);
        }
        bell.ring({ kind: 'event' });
        const { digest, document, places, there: post } = looked.value;
        const title =
          post && post.name.trim() !== document.title.trim() ? { ours: document.title, theirs: post.name } : null;
        const changed = title !== null || places.some((place) => place.changed);
        return {
          kind: post === null ? 'gone' : changed ? 'changed' : 'same',
          digest,
          title,
          places,
          document,
          newer: publication.revision !== article.current,
          // What was seen just now is among it.
          acts: await actsOn(ground.db, (await publicationAt(ground.db, article.id, publication.id)) ?? publication),
        };
      },
    }),
  ];
}

/** What somebody changed on a blog is settled. */
function settledOutside(product: Product): Route[] {
  const { ground, tools, bell } = product;
  return [
    route({
      method: 'post',
      path: '/articles/{id}/publications/{publication}/outside',
      says: 'Settles what somebody changed on a blog: theirs is taken, ours is put back, or both stand',
      role: 'editor',
      body: SettleOutside,
      answer: PublicationActed,
      status: 200,
      handle: async ({ params, body, person }) => {
        const { article, publication } = await there(product, params);
        const chosen = { ...body, person: person.id };
        const settled = await settleOutside(tools, publication, article, chosen, AbortSignal.timeout(LONGEST_ACT_MS));
        bell.ring({ kind: 'event' });
        return { done: await isDone(settled, ground.db) };
      },
    }),
  ];
}

/** Whether it is done already. @throws why it was not */
async function isDone(settled: Settled, db: Sql): Promise<boolean> {
  switch (settled.kind) {
    case 'done':
      return true;
    case 'later':
      return false;
    case 'nothing there':
      throw nothingThere();
    case 'busy':
      throw problem(409, 'Just now in work', BUSY, 'Wait a moment, then settle it again.');
    case 'overtaken':
      throw problem(412, 'Changed meanwhile', 'It was changed again since you looked.', 'Look again, and choose anew.');
    case 'failed': {
      const { sentence, mend } = pressedWords(settled.failure, await namer(db));
      throw problem(502, 'The blog did not do it', sentence, mend);
    }
  }
}

const nothingThere = () =>
  problem(
    409,
    'Nothing there',
    'There is no post of this article on that blog.',
    'Load the page again to see how it stands.',
  );
