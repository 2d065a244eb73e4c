import type { CadenceRule } from '@grivo/core';
import { readLinkIndex } from '../links/read.ts';
import type { Product } from '../product.ts';

export interface NewBlog {
  name: string;
  address: string;
  endpoint: string;
  secret: string;
  language: string;
  cadence: CadenceRule;
  timeLimitMs: number;
}

/** Connects a blog: asks where it takes pictures, and reads its pages for links. Neither need succeed for it to be kept. */
export async function createBlog(
  { ground, secrets, tools }: Pick<Product, 'ground' | 'secrets' | 'tools'>,
  blog: NewBlog,
): Promise<string> {
  const id = ground.ids();
  const secret = secrets.seal(blog.secret.trim());
  const { timeLimitMs } = blog;
  const config = await tools.micropub.config(
    { id, endpoint: blog.endpoint, mediaEndpoint: null, secret, timeLimitMs },
    AbortSignal.timeout(timeLimitMs),
  );
  const media = config.ok ? config.value.mediaEndpoint : null;
  await ground.db.run(
    'INSERT INTO blog (id, name, address, endpoint, media_endpoint, secret, language, time_limit_ms, cadence) VALUES (?)',
    [
      [
        id,
        blog.name,
        blog.address,
        blog.endpoint,
        media,
        secret,
        blog.language,
        timeLimitMs,
        JSON.stringify(blog.cadence),
      ],
    ],
  );
  await readLinkIndex(ground.db, tools, { id, address: blog.address }, AbortSignal.timeout(60_000));
  return id;
}
