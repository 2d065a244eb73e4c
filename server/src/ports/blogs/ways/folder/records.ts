import { join } from 'node:path';
import { FOLDER_AS_MADE, type FolderSettings } from '@grivo/contract';
import { type BlogTarget, PLAIN, type Placed, type Post } from '../../blog.ts';
import { pictured } from '../mark.ts';
import { type Files, OWN } from './files.ts';
import { POSTS } from './kept.ts';
import { type Kept, under } from './pages.ts';

export const settingsOf = ({ settings }: BlogTarget): FolderSettings => settings.folder ?? FOLDER_AS_MADE;

export const keptFile = (key: string): string => join(POSTS, `${plain(key)}.json`);
export const postFile = (key: string): string => join(POSTS, `${plain(key)}.post.json`);
/** Where a page nobody reads yet waits. */
export const waiting = ({ key }: Pick<Kept, 'key'>): string => join(OWN, 'drafts', `${plain(key)}.html`);

export const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 100)
    .replace(/^-|-$/g, '') || 'post';

export const placeOf = ({ key, address }: Kept): Placed => ({ handle: key, address });

/** What is kept of a post from now on; where it lies and is read stays as it was first. */
export function keptOf(
  blog: BlogTarget,
  post: Post,
  { now, status, published }: { now: string; status: Kept['status']; published: string | null },
  known: Kept | null,
): Kept {
  const settings = settingsOf(blog);
  const stands = { slug: plain(post.slug), date: now.slice(0, 10), year: now.slice(0, 4), month: now.slice(5, 7) };
  const filled = (pattern: string) =>
    pattern.replace(/\{(slug|date|year|month)\}/g, (_, name: keyof typeof stands) => stands[name]);
  const form = known?.form ?? settings.form;
  const end = form === 'HTML' ? '.html' : '.md';
  // A standing page lies by itself, and its address has no date in it.
  const file = post.shape === 'page' ? stands.slug : filled(settings.file);
  return {
    key: post.key,
    form,
    file: known?.file ?? (file.endsWith(end) ? file : `${file.replace(/\.(?:md|markdown|html?)$/, '')}${end}`),
    address:
      known?.address ??
      under(
        blog.address,
        post.shape === 'page'
          ? `${stands.slug}${form === 'HTML' ? '.html' : ''}`
          : filled(settings.link).replace(/^\//, ''),
      ),
    title: post.name,
    summary: post.summary,
    status,
    published,
    updated: now,
    language: post.language,
    categories: post.categories,
    author: post.author,
    html: pictured(post),
    shape: post.shape,
    canonical: post.canonical,
    siblings: post.siblings,
    structured: post.structured,
  };
}

/** What is kept of the post with a key; null when there is none. */
export async function keptIn(files: Files, key: string): Promise<Kept | null> {
  const body = await files.read(keptFile(key));
  return body ? (JSON.parse(body.toString('utf8')) as Kept) : null;
}

/** A post nobody reads yet, whole; null when it is live or there is none. */
export async function postIn(files: Files, key: string): Promise<Post | null> {
  const body = await files.read(postFile(key));
  return body ? { ...PLAIN, ...(JSON.parse(body.toString('utf8')) as Post) } : null;
}
