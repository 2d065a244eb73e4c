import {
  BehindList,
  type Blog,
  BlogChange,
  BlogMoves,
  Blogs,
  BlogWords,
  ByLabel,
  ChangedBlog,
  FindEndpoint,
  Folders,
  FoundEndpoint,
  MadeBlog,
  MoveArticle,
  NewBlog,
  NewBlogSecret,
  OutsideList,
  Slots,
  SlotsQuery,
  type TestLine,
  TestLog,
} from '@grivo/contract';
import { CadenceRule, cadenceSentence } from '@grivo/core';
import { Procedures } from '../engine/briefState.ts';
import { isThere } from '../ground/store/there.ts';
import { changeBlog, changeBlogSecret, changeBlogWords, movesOf } from '../nouns/blogs/change.ts';
import { testBlog } from '../nouns/blogs/connect.ts';
import { createBlog } from '../nouns/blogs/create.ts';
import { discoverBlog } from '../nouns/blogs/discover.ts';
import { blogTarget, countsOfBlogs, getBlog, listBlogs, targetOf } from '../nouns/blogs/repository.ts';
import { carrying, labelsOf } from '../nouns/labels/repository.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { behindOf } from '../nouns/publishing/behind.ts';
import { outsideOf } from '../nouns/publishing/outside.ts';
import { moveArticle, slotsOfBlogs } from '../nouns/publishing/slots.ts';
import { lackingIn } from '../ports/blogs/ways/carries.ts';
import { actorOf } from './access.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom } from './tags.ts';

const DAY = 86_400_000;

/** What the routes share. */
function helpers(product: Product) {
  const { ground, bell, secrets } = product;
  const { db, desk } = ground;
  const procedures = new Procedures();
  const all = async (): Promise<Blog[]> => {
    const [rows, labels] = await Promise.all([listBlogs(db), labelsOf(db, 'blog')]);
    const counts = await countsOfBlogs(
      db,
      rows.map(({ id }) => id),
    );
    return rows.map((row) => {
      const cadence = CadenceRule.parse(row.cadence);
      return {
        id: row.id,
        name: row.name,
        address: row.address,
        way: row.way,
        endpoint: row.endpoint,
        settings: row.settings,
        categories: row.categories,
        lacks: lackingIn(product.tools.blogs(targetOf(row)).can(targetOf(row))),
        mediaEndpoint: row.media_endpoint,
        language: row.language,
        cadence,
        cadenceSentence: cadenceSentence(cadence),
        timeLimitMs: row.time_limit_ms,
        ...counts(row.id),
        test:
          row.last_test && row.tested_desk !== null ? { atDesk: Number(row.tested_desk), lines: row.last_test } : null,
        archived: row.archived === 1,
        labels: labels(row.id),
        note: row.note,
        style: row.style,
        rev: row.rev,
      };
    });
  };
  const must = async (id: string) => {
    const row = await getBlog(db, id);
    if (!row) throw notFound('blog');
    return row;
  };
  const hasStyle = async (style: string | null | undefined) => {
    if (style && !(await isThere(db, 'house_style', style))) throw notFound('house style');
  };
  return { ground, bell, secrets, db, desk, procedures, all, must, hasStyle, product };
}

type Helpers = ReturnType<typeof helpers>;

/** Blogs, their slots, and moving articles among them. */
export function blogRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...connecting(shared), ...connected(shared), ...changing(shared), ...lookedAt(shared), ...slots(shared)];
}

/** Blogs: found, connected, tested. */
function connecting({ all, product }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/blogs',
      shared: true,
      says: 'All blogs',
      role: 'proofreader',
      query: ByLabel,
      answer: Blogs,
      handle: async ({ query: { label } }) => ({ blogs: carrying(await all(), label) }),
    }),
    route({
      method: 'get',
      path: '/blogs/folders',
      says: 'Folders of this server blogs may be written to below',
      role: 'owner',
      answer: Folders,
      handle: async () => ({ folders: [...product.tools.folders] }),
    }),
    route({
      method: 'post',
      path: '/blogs/find',
      says: 'Looks at an address for where the blog takes posts',
      role: 'owner',
      body: FindEndpoint,
      answer: FoundEndpoint,
      handle: async ({ body }) => {
        const found = await discoverBlog(product.tools, body.address);
        if ('failed' in found) throw problem(422, 'No blog there', `${body.address} ${found.failed}.`, found.mend);
        return found;
      },
    }),
  ];
}

/** A blog connected, and a new secret for it. */
function connected({ ground, bell, secrets, must, product }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/blogs',
      says: 'Connects a blog and tests it; one that is connected already gets the new secret',
      role: 'owner',
      body: NewBlog,
      answer: MadeBlog,
      status: 201,
      handle: async ({ body }) => {
        const { secret, cut } = pastedSecret(body.secret);
        const made = await createBlog(product.tools, { ...body, secret });
        if (made.kind === 'unfit')
          throw problem(422, 'Cannot be connected', made.problem, made.mend, [
            { place: made.place, problem: made.problem },
          ]);
        const lines = [...cut, ...((await testBlog(product, made.id)) ?? [])];
        bell.ring({ kind: 'event' });
        bell.ring({ kind: 'settings' });
        return { id: made.id, joined: made.joined, lines };
      },
    }),
    route({
      method: 'put',
      path: '/blogs/{id}/secret',
      says: 'Gives a blog a new secret and tests it',
      role: 'owner',
      body: NewBlogSecret,
      answer: TestLog,
      status: 200,
      handle: async ({ params, body, person, request }) => {
        const { id, name } = await must(params['id']!);
        const { secret, cut } = pastedSecret(body.secret);
        await changeBlogSecret(ground, secrets, id, { ...body, secret });
        await noteAct(ground, actorOf(person, request), 'blog secret changed', name);
        bell.ring({ kind: 'settings' });
        const lines = [...cut, ...((await testBlog(product, id)) ?? [])];
        bell.ring({ kind: 'event' });
        return { lines };
      },
    }),
  ];
}

/** A secret as it was pasted, without what is not seen and comes along, and a line that says so. */
function pastedSecret(text: string): { secret: string; cut: TestLine[] } {
  const secret = text.replace(/[\s\u200b-\u200d\u2060\ufeff]+/g, (white) => (/^ $/.test(white) ? white : '')).trim();
  if (secret === text) return { secret, cut: [] };
  return {
    secret,
    cut: [
      { tried: 'Read the secret', came: 'Blanks pasted along with it were cut off', well: true, change: null, ms: 0 },
    ],
  };
}

/** Their words, their cadence and what a change of it moves. */
function changing({ ground, bell, db, all, must, hasStyle, product }: Helpers) {
  const followsThere = async (id: string) => {
    const target = await blogTarget(db, id);
    if (target) await product.tools.blogs(target).changed?.(target);
  };
  return [
    route({
      method: 'put',
      path: '/blogs/{id}',
      says: 'Changes a blog; finished articles keep their moments unless `move` is said',
      role: 'owner',
      body: BlogChange,
      answer: Blogs,
      handle: async ({ params, body, request }) => {
        const { id } = await must(params['id']!);
        await hasStyle(body.style);
        if (!(await changeBlog(ground, id, revFrom(request), body)))
          throw changedMeanwhile(
            'blog',
            (await all()).find((blog) => blog.id === id),
          );
        if (body.folder) await followsThere(id);
        bell.ring({ kind: 'event' });
        return { blogs: await all() };
      },
    }),
    route({
      method: 'patch',
      path: '/blogs/{id}',
      says: 'Changes the words of a blog that are named, and says what finished articles would do by its cadence now',
      role: 'owner',
      body: BlogWords,
      answer: ChangedBlog,
      handle: async ({ params, body }) => {
        const { id } = await must(params['id']!);
        await hasStyle(body.style);
        await changeBlogWords(ground, id, body);
        if (body.folder) await followsThere(id);
        bell.ring({ kind: 'event' });
        return { blogs: await all(), moves: await movesOf(db, ground, id) };
      },
    }),
  ];
}

/** What was moved, what changed outside, and a test. */
function lookedAt({ ground, bell, db, must, product }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/blogs/{id}/moves',
      says: 'Where finished articles would go by the cadence, those that are not there',
      role: 'proofreader',
      answer: BlogMoves,
      handle: async ({ params }) => ({ moves: await movesOf(db, ground, (await must(params['id']!)).id) }),
    }),
    route({
      method: 'get',
      path: '/blogs/{id}/outside',
      says: 'Posts of ours that somebody changed on the blog itself',
      role: 'proofreader',
      answer: OutsideList,
      handle: async ({ params }) => ({ posts: await outsideOf(db, (await must(params['id']!)).id) }),
    }),
    route({
      method: 'get',
      path: '/blogs/{id}/behind',
      says: 'Articles that are out on a blog and were changed here since',
      role: 'proofreader',
      answer: BehindList,
      handle: async ({ params }) => ({ posts: await behindOf(ground, (await must(params['id']!)).id) }),
    }),
    route({
      method: 'post',
      path: '/blogs/{id}/test',
      says: 'Tests a blog with a harmless draft and says what was tried',
      role: 'owner',
      answer: TestLog,
      handle: async ({ params }) => {
        const { id } = await must(params['id']!);
        const lines = (await testBlog(product, id)) ?? [];
        bell.ring({ kind: 'event' });
        return { lines };
      },
    }),
  ];
}

/** Slots, and moving an article to another. */
function slots({ ground, bell, desk, procedures }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/slots',
      shared: true,
      says: 'The slots of every blog: what went out, what is placed, what is foreseen, what is empty',
      role: 'proofreader',
      query: SlotsQuery,
      answer: Slots,
      handle: async ({ query: { from: asked, days, label } }) => {
        const now = desk.now();
        const from = asked ?? now;
        const to = from + days * DAY;
        return { now, speed: desk.speed, from, to, blogs: await slotsOfBlogs(ground, procedures, { from, to }, label) };
      },
    }),
    route({
      method: 'put',
      path: '/articles/{id}/slot',
      says: 'Puts an article at another moment; what breaks a rule is said and not done unless forced',
      role: 'editor',
      body: MoveArticle,
      handle: async ({ params, body }) => {
        const moved = await moveArticle(ground, params['id']!, body);
        if (moved.kind === 'gone')
          throw problem(
            409,
            'Cannot be moved',
            'It has no slot on this blog, or it is going out already.',
            'Look at the slots again.',
          );
        if (moved.kind === 'faults')
          throw problem(
            422,
            'Breaks a rule',
            `${moved.faults.join('; ')}.`,
            'Choose another slot, or move it anyway.',
            moved.faults.map((fault) => ({ place: 'at', problem: fault })),
          );
        bell.ring({ kind: 'event' });
      },
    }),
  ];
}
