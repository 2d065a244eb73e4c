import {
  BarPage,
  BlogLinks,
  Forwards,
  Ids,
  KeptAddressFields,
  LinkForward,
  LinkOffers,
  LinkOffersQuery,
  LookedAgain,
  Made,
  MendedLinks,
  MendLink,
  NewKeptAddress,
  Pages,
  PagesQuery,
  Rule,
  RuleFields,
  Rules,
  RulesFile,
  RulesQuery,
  RulesRead,
  RulesTried,
  TryQuery,
} from '@grivo/contract';
import { getArticle, readRevision } from '../nouns/articles/repository.ts';
import { getBlog } from '../nouns/blogs/repository.ts';
import { addAddress, addressesFor, changeAddress, getAddress, removeAddress } from '../nouns/links/addresses.ts';
import { nearTo, offersFor } from '../nouns/links/offers.ts';
import { addressDigest, barPage, pagesShown } from '../nouns/links/pages.ts';
import {
  addRules,
  changeRule,
  getRule,
  placedBy,
  removeRules,
  ruleSetFor,
  rulesFor,
  rulesShown,
} from '../nouns/links/rules.ts';
import { rulesAsCsv, rulesInCsv } from '../nouns/links/rulesFile.ts';
import { tried } from '../nouns/links/tried.ts';
import { noteAct } from '../nouns/people/acts.ts';
import { blogOfArticle, newestLive } from '../nouns/publishing/publications.ts';
import { deadLinks, linksStand } from '../nouns/upkeep/dead.ts';
import { forwardLinks } from '../nouns/upkeep/forward.ts';
import { lookAgain } from '../nouns/upkeep/look.ts';
import { linkForward, mendLinks } from '../nouns/upkeep/mend.ts';
import { actorOf } from './access.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom } from './tags.ts';

const RULES_SHOWN = 100;
const PAGES_SHOWN = 100;
/** The longest that bringing changed articles to a blog is waited for, in milliseconds. */
const LONGEST_MEND_MS = 90_000;

/** Links of a blog: rules for words, addresses kept for linking, dead ones, older articles that could lead to newer ones. */
export function linkRoutes(product: Product): Route[] {
  return [rules, trying, ruleFiles, addresses, upkeep, forward, pages].flatMap((routes) => routes(product));
}

/** Who changes articles here; what is changed by one press is one sitting. */
const by = ({ ground }: Product, person: string) => ({ person, sitting: `links-${ground.ids()}` });

async function must({ ground }: Product, id: string) {
  const blog = await getBlog(ground.db, id);
  if (!blog) throw notFound('blog');
  return blog;
}

/** Rules: read, made, changed, removed. */
function rules(product: Product): Route[] {
  const { ground } = product;
  const { db } = ground;
  return [
    route({
      method: 'get',
      path: '/blogs/{id}/links/rules',
      says: 'Words that are linked wherever articles of a blog say them, by their words',
      role: 'editor',
      query: RulesQuery,
      answer: Rules,
      handle: async ({ params, query }) => {
        const blog = await must(product, params['id']!);
        const shown = await rulesShown(db, blog.id, { ...query, most: RULES_SHOWN });
        const placed = await placedBy(
          db,
          blog.id,
          shown.rules.map(({ address }) => addressDigest(address)),
        );
        const next = query.from + RULES_SHOWN;
        return {
          rules: shown.rules.map((rule) => ({ ...rule, placed: placed.get(addressDigest(rule.address)) ?? 0 })),
          total: shown.total,
          found: shown.found,
          next: next < shown.found ? next : null,
        };
      },
    }),
    route({
      method: 'post',
      path: '/link-rules',
      says: 'Makes a rule that links words',
      role: 'editor',
      body: RuleFields,
      answer: Made,
      status: 201,
      handle: async ({ body, person, request }) => {
        if (body.blog !== null) await must(product, body.blog);
        const [id] = await addRules(ground, [body]);
        await noteAct(ground, actorOf(person, request), 'link rule made', body.words);
        return { id: id! };
      },
    }),
    ...ruleChanges(product),
  ];
}

/** Rules are changed and removed. */
function ruleChanges(product: Product): Route[] {
  const { ground } = product;
  const { db } = ground;
  return [
    route({
      method: 'put',
      path: '/link-rules/{id}',
      says: 'Changes a rule that links words',
      role: 'editor',
      body: RuleFields,
      answer: Rule,
      handle: async ({ params, body, request }) => {
        const id = params['id']!;
        const now = await getRule(db, id);
        if (!now) throw notFound('rule');
        if (!(await changeRule(db, id, revFrom(request), body)))
          throw changedMeanwhile('rule', { ...(await getRule(db, id)), placed: 0 });
        return { ...body, id, rev: now.rev + 1, placed: 0 };
      },
    }),
    route({
      method: 'post',
      path: '/link-rules/remove',
      says: 'Removes rules; links that are there stay',
      role: 'editor',
      body: Ids,
      handle: async ({ body, person, request }) => {
        const n = await removeRules(db, body.ids);
        await noteAct(ground, actorOf(person, request), 'link rules removed', String(n));
      },
    }),
  ];
}

/** What rules make of an article, without changing it. */
function trying(product: Product): Route[] {
  const { db } = product.ground;
  return [
    route({
      method: 'get',
      path: '/blogs/{id}/links/try',
      says: 'What the rules of a blog make of an article, which is not changed by it',
      role: 'editor',
      query: TryQuery,
      answer: RulesTried,
      handle: async ({ params, query }) => {
        const blog = await must(product, params['id']!);
        const id = query.article ?? (await newestLive(db, blog.id));
        const article = id === null ? null : await getArticle(db, id);
        if (!article?.current) throw notFound('article');
        const document = await readRevision(db, article.current);
        return {
          article: article.id,
          title: document.title,
          ...tried(document, await ruleSetFor(db, blog.id, document.language)),
        };
      },
    }),
  ];
}

/** Rules as a file, out and in. */
function ruleFiles(product: Product): Route[] {
  const { ground } = product;
  const { db } = ground;
  return [
    route({
      method: 'get',
      path: '/blogs/{id}/links/rules.csv',
      says: 'The rules of a blog as CSV',
      role: 'editor',
      mime: 'text/csv',
      handle: async ({ params, response }) => {
        const blog = await must(product, params['id']!);
        response.setHeader('content-disposition', 'attachment; filename="link-rules.csv"');
        response.type('text/csv').send(rulesAsCsv(await rulesFor(db, blog.id)));
      },
    }),
    route({
      method: 'post',
      path: '/blogs/{id}/links/rules.csv',
      says: 'Reads rules from CSV; lines that cannot be read are told, the others are added',
      role: 'editor',
      body: RulesFile,
      answer: RulesRead,
      status: 200,
      handle: async ({ params, body, person, request }) => {
        const blog = await must(product, params['id']!);
        const { rules, unread } = await rulesInCsv(body.text, body.everyBlog ? null : blog.id);
        const sameOf = (rule: { words: string; address: string; blog: string | null }) =>
          `${rule.blog} ${rule.words.toLowerCase()} ${rule.address}`;
        const there = new Set((await rulesFor(db, blog.id)).map(sameOf));
        const fresh = [...new Map(rules.map((rule) => [sameOf(rule), rule])).values()].filter(
          (rule) => !there.has(sameOf(rule)),
        );
        await addRules(ground, fresh);
        if (fresh.length > 0) await noteAct(ground, actorOf(person, request), 'link rules read', String(fresh.length));
        return { added: fresh.length, known: rules.length - fresh.length, unread };
      },
    }),
  ];
}

/** Addresses kept for linking: of our own, and of others that are trusted. */
function addresses(product: Product): Route[] {
  const { ground } = product;
  const { db } = ground;
  return [
    route({
      method: 'post',
      path: '/kept-addresses',
      says: 'Keeps an address for linking, with what it is good for',
      role: 'editor',
      body: NewKeptAddress,
      answer: Made,
      status: 201,
      handle: async ({ body }) => {
        if (body.blog !== null) await must(product, body.blog);
        return { id: await addAddress(ground, body) };
      },
    }),
    route({
      method: 'put',
      path: '/kept-addresses/{id}',
      says: 'Changes an address kept for linking',
      role: 'editor',
      body: KeptAddressFields,
      handle: async ({ params, body, request }) => {
        const id = params['id']!;
        if (!(await getAddress(db, id))) throw notFound('address');
        if (!(await changeAddress(db, id, revFrom(request), body)))
          throw changedMeanwhile('address', await getAddress(db, id));
      },
    }),
    route({
      method: 'delete',
      path: '/kept-addresses/{id}',
      says: 'Keeps an address no longer; links to it stay',
      role: 'editor',
      handle: async ({ params }) => {
        if (!(await removeAddress(db, params['id']!))) throw notFound('address');
      },
    }),
  ];
}

/** Links of what is live: looked at, mended, led forward. */
function upkeep(product: Product): Route[] {
  const { ground, bell, tools } = product;
  const { db } = ground;
  return [
    route({
      method: 'get',
      path: '/blogs/{id}/links',
      says: 'How the links of a blog’s live articles stand, which are dead and what would replace them',
      role: 'editor',
      answer: BlogLinks,
      handle: async ({ params }) => {
        const blog = await must(product, params['id']!);
        const [stand, dead, kept] = await Promise.all([
          linksStand(db, blog.id),
          deadLinks(ground, blog),
          addressesFor(db, blog.id),
        ]);
        const links = await placedBy(
          db,
          blog.id,
          kept.map(({ address }) => addressDigest(address)),
        );
        const lines = kept.map((one) => ({ ...one, links: links.get(addressDigest(one.address)) ?? 0 }));
        return { stand, dead, addresses: lines };
      },
    }),
    route({
      method: 'post',
      path: '/blogs/{id}/links/look',
      says: 'Has all links of a blog’s live articles looked at again, gently',
      role: 'editor',
      answer: LookedAgain,
      status: 200,
      handle: async ({ params }) => {
        const blog = await must(product, params['id']!);
        return { links: await lookAgain(tools, blog.id) };
      },
    }),
    route({
      method: 'post',
      path: '/blogs/{id}/links/mend',
      says: 'Leads every link to an address elsewhere, or takes it off, in all live articles of a blog and on the blog',
      role: 'editor',
      body: MendLink,
      answer: MendedLinks,
      status: 200,
      handle: async ({ params, body, person, request }) => {
        const blog = await must(product, params['id']!);
        if (body.from === body.to)
          throw problem(422, 'The same address', 'It leads there already.', 'Choose another address.');
        const limit = AbortSignal.timeout(LONGEST_MEND_MS);
        const mended = await mendLinks(tools, blog.id, body, by(product, person.id), limit);
        await noteAct(ground, actorOf(person, request), 'links mended', body.from.slice(0, 200));
        bell.ring({ kind: 'event' });
        return mended;
      },
    }),
  ];
}

/** Older articles led to newer ones. */
function forward(product: Product): Route[] {
  const { ground, bell, tools } = product;
  return [
    route({
      method: 'get',
      path: '/blogs/{id}/links/forward',
      says: 'What went out last, with older articles that could lead to it',
      role: 'editor',
      shared: true,
      answer: Forwards,
      handle: async ({ params }) => {
        const blog = await must(product, params['id']!);
        return { to: await forwardLinks(ground, blog.id, blog.language) };
      },
    }),
    route({
      method: 'post',
      path: '/blogs/{id}/links/forward',
      says: 'Links words of an older article to a newer one, and brings it to the blog',
      role: 'editor',
      body: LinkForward,
      answer: MendedLinks,
      status: 200,
      handle: async ({ params, body, person }) => {
        const blog = await must(product, params['id']!);
        const limit = AbortSignal.timeout(LONGEST_MEND_MS);
        const mended = await linkForward(tools, blog.id, body, by(product, person.id), limit);
        bell.ring({ kind: 'event' });
        return mended;
      },
    }),
  ];
}

/** Pages articles may link to. */
function pages(product: Product): Route[] {
  const { ground } = product;
  const { db } = ground;
  return [
    route({
      method: 'get',
      path: '/articles/{id}/link-offers',
      says: 'Where words of an article could lead: pages of its blog and kept addresses',
      role: 'proofreader',
      query: LinkOffersQuery,
      answer: LinkOffers,
      handle: async ({ params, query: { words, near } }) => {
        const article = await getArticle(db, params['id']!);
        if (!article) throw notFound('article');
        const blog = await blogOfArticle(db, article);
        if (blog === null) return { offers: [] };
        const asked = { blog, language: article.language, words, self: article.id };
        return { offers: await (near === 'yes' ? nearTo(ground, asked) : offersFor(ground, asked)) };
      },
    }),
    route({
      method: 'get',
      path: '/blogs/{id}/links/pages',
      says: 'Pages of a blog that its articles may link to, by their titles',
      role: 'editor',
      query: PagesQuery,
      answer: Pages,
      handle: async ({ params, query }) => {
        const blog = await must(product, params['id']!);
        const shown = await pagesShown(db, blog.id, { ...query, most: PAGES_SHOWN });
        return { ...shown, pages: shown.pages.map(({ article: _, ...page }) => page) };
      },
    }),
    route({
      method: 'post',
      path: '/blogs/{id}/links/pages',
      says: 'Says that nothing is linked to a page any more, or that it may be again',
      role: 'editor',
      body: BarPage,
      handle: async ({ params, body }) => {
        const blog = await must(product, params['id']!);
        if (!(await barPage(db, blog.id, body.page, body.barred))) throw notFound('page');
      },
    }),
  ];
}
