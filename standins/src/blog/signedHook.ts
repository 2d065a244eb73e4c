import { createHmac, timingSafeEqual } from 'node:crypto';
import express, { type Request, Router } from 'express';
import type { Answer, Troubles } from '../ground/trouble.ts';
import { type BlogSite, type Post, type Posts, slugify } from './posts.ts';

interface Call {
  type: string;
  data: Record<string, never> & {
    key: string;
    title?: string;
    html?: string;
    description?: string;
    slug?: string;
    categories?: string[];
    picture?: Post['photo'];
    status?: 'draft' | 'review' | 'private' | 'published';
    shape?: 'article' | 'page';
    replies?: boolean | null;
    properties?: Record<string, string>;
    canonical?: string | null;
    siblings?: NonNullable<Post['siblings']>;
    published?: string;
    author?: string;
    type?: string;
    base64?: string;
  };
}

const FIVE_MINUTES = 300;

const STATUS: Record<NonNullable<Call['data']['status']>, Post['status']> = {
  draft: 'draft',
  review: 'pending',
  private: 'published',
  published: 'published',
};

const saidOf = ({ status, private: hidden }: Post): string =>
  status === 'pending' ? 'review' : hidden === true ? 'private' : status;

/**
 * A site of somebody's own that takes articles by signed calls (Standard Webhooks, version 1): made or changed by their
 * keys, so that a repeat makes nothing twice.
 */
export function signedHook(sites: readonly BlogSite[], posts: Posts, troubles: Troubles, origin: () => string): Router {
  const router = Router();
  /** Slugs by key: what an article is called may change, its address does not. */
  router.post(
    '/blogs/:blog/hook',
    express.raw({ type: () => true, limit: '30mb' }),
    troubles.around('blog', (request): Answer => {
      const site = sites.find(({ slug }) => slug === request.params['blog']);
      if (!site) return { status: 404, type: 'text/plain', body: 'no such site' };
      const wrong = unsigned(request, site.token);
      if (wrong) return { status: 401, type: 'text/plain', body: wrong };
      return act(JSON.parse((request.body as Buffer).toString('utf8')) as Call, site, posts, origin());
    }),
  );
  return router;
}

function unsigned(request: Request, secret: string): string | null {
  const [id, at, given] = ['webhook-id', 'webhook-timestamp', 'webhook-signature'].map(
    (name) => request.header(name) ?? '',
  );
  if (Math.abs(Date.now() / 1_000 - Number(at)) > FIVE_MINUTES) return 'the call is too old or too new';
  const body = (request.body as Buffer).toString('utf8');
  const made = `v1,${createHmac('sha256', Buffer.from(secret, 'utf8')).update(`${id}.${at}.${body}`).digest('base64')}`;
  const same = made.length === given!.length && timingSafeEqual(Buffer.from(made), Buffer.from(given!));
  return same ? null : 'the signature does not fit';
}

function act({ type, data }: Call, site: BlogSite, posts: Posts, origin: string): Answer {
  const now = new Date().toISOString();
  const found = posts.all(site.slug).find(({ slug }) => slug.endsWith(`-${data.key}`)) ?? null;
  const none: Answer = { status: 404, type: 'text/plain', body: 'no such article' };
  const say = (post: Post): Answer => ({
    status: 200,
    body: { address: post.address, status: saidOf(post), title: post.name, html: post.html },
  });
  const change = (post: Post, to: Partial<Post>): Answer => {
    posts.do({ act: 'update', at: now, blog: site.slug, address: post.address, change: to });
    return say({ ...post, ...to });
  };
  switch (type) {
    case 'about.ask':
      return { status: 200, body: { pictures: true, categories: posts.categories(site) } };
    case 'picture.put':
      return {
        status: 200,
        body: {
          address: posts.keepMedia(site.slug, origin, data.type ?? '', Buffer.from(data.base64 ?? '', 'base64')),
        },
      };
    case 'article.ask':
      return found ? say(found) : none;
    case 'article.live':
      return found ? change(found, { status: 'published', published: data.published ?? now }) : none;
    case 'article.withdraw':
      return found ? change(found, { deleted: true }) : none;
    case 'article.put': {
      const words = {
        name: data.title ?? '',
        html: data.html ?? '',
        summary: data.description ?? '',
        categories: data.categories ?? [],
        photo: data.picture ?? null,
        ...(data.author ? { author: data.author } : {}),
        status: STATUS[data.status ?? 'published'],
        private: data.status === 'private',
        page: data.shape === 'page',
        ...(typeof data.replies === 'boolean' ? { replies: data.replies } : {}),
        more: data.properties ?? {},
        ...(data.canonical ? { canonical: data.canonical } : {}),
        siblings: data.siblings ?? [],
      };
      if (found) return change(found, words);
      const slug = slugify((data.slug ?? words.name).endsWith(data.key) ? data.slug! : `${data.slug}-${data.key}`);
      const post: Post = {
        ...words,
        address: `${origin}/blogs/${site.slug}/${slug}`,
        slug,
        published: now,
        deleted: false,
      };
      posts.do({ act: 'create', at: now, blog: site.slug, post });
      return say(post);
    }
    default:
      return { status: 400, type: 'text/plain', body: `there is no ${type}` };
  }
}
