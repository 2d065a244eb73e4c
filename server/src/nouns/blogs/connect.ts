import type { TestLine } from '@grivo/contract';
import { type Failure, wordsOf } from '@grivo/core';
import { linksOf } from '../../formats/feeds/linkHeader.ts';
import type { Ground } from '../../ground/ground.ts';
import { whyNot } from '../../ground/network/network.ts';
import { tellChange } from '../../ground/store/event.ts';
import type { BlogTarget } from '../../ports/blogs/blog.ts';
import type { Tools } from '../../ports/tools.ts';
import { getBlog, targetOf } from './repository.ts';

interface Ports {
  ground: Ground;
  tools: Tools;
}

export interface FoundBlog {
  address: string;
  name: string | null;
  endpoint: string | null;
  language: string | null;
}

/** Looks at a blog's address for where it takes posts (Micropub, section 5.3: a Link header or a link element). */
export async function findEndpoint({ tools }: Ports, address: string): Promise<FoundBlog | { failed: string }> {
  const outcome = await tools.network.call({
    method: 'GET',
    address,
    headers: { accept: 'text/html' },
    timeLimitMs: 15_000,
    signal: AbortSignal.timeout(20_000),
  });
  if (outcome.kind !== 'reply') return { failed: whyNot(outcome) };
  if (outcome.reply.status >= 400) return { failed: `it answers ${outcome.reply.status}` };
  const read = await tools.reader.read('head', {
    bytes: outcome.reply.body,
    mime: outcome.reply.headers['content-type'] ?? '',
  });
  if (!read.ok) return { failed: read.problem };
  const head = read.value;
  const header = linksOf(outcome.reply.headers['link'] ?? '', outcome.reply.address).get('micropub');
  const link = header ?? head.links.find(({ rel }) => rel.includes('micropub'))?.href;
  return {
    address: outcome.reply.address,
    name: head.title || null,
    endpoint: link && URL.canParse(link, outcome.reply.address) ? new URL(link, outcome.reply.address).href : null,
    language: /^[a-z]{2}/i.exec(head.language)?.[0]?.toLowerCase() ?? null,
  };
}

/**
 * Tests a blog with a harmless draft: asks what it can do, creates a draft, reads it back, takes it away. Each line says
 * what was tried, what came back, and what to change. What came of it is kept, and where the blog takes pictures.
 * @returns null when there is no such blog
 */
export async function testBlog(tools: Ports, id: string): Promise<TestLine[] | null> {
  const { ground } = tools;
  const row = await getBlog(ground.db, id);
  if (!row) return null;
  const { lines, mediaEndpoint } = await tried(tools, targetOf(row), row.name);
  // What the blog says of itself may have changed, or could not be asked before.
  await ground.db.run(
    `UPDATE blog SET last_test = ?, tested_desk = ?${mediaEndpoint === undefined ? '' : ', media_endpoint = ?'} WHERE id = ?`,
    [JSON.stringify(lines), ground.desk.now(), ...(mediaEndpoint === undefined ? [] : [mediaEndpoint]), id],
  );
  await tellChange(ground.db, ground, 'blog', id);
  return lines;
}

async function tried(
  { ground, tools }: Ports,
  blog: BlogTarget,
  name: string,
): Promise<{ lines: TestLine[]; mediaEndpoint?: string | null }> {
  const lines: TestLine[] = [];
  let mediaEndpoint: string | null | undefined;
  const signal = AbortSignal.timeout(blog.timeLimitMs * 4);
  const line = (tried: string, from: number, came: string, change: string | null = null) =>
    lines.push({ tried, came, well: change === null, change, ms: ground.now() - from });
  const failed = (tried: string, from: number, failure: Failure) => {
    const { sentence } = wordsOf(failure, () => name);
    line(tried, from, sentence, changeFor(failure));
    return mediaEndpoint === undefined ? { lines } : { lines, mediaEndpoint };
  };
  let from = ground.now();
  const port = tools.blogs(blog);
  const config = await port.config(blog, signal);
  const asked = 'Asked what it can do';
  if (!config.ok) return failed(asked, from, config.failure);
  mediaEndpoint = config.value.mediaEndpoint;
  line(
    asked,
    from,
    config.value.mediaEndpoint
      ? 'It takes posts, and pictures at an address of their own'
      : 'It takes posts; it names no address for pictures',
  );
  from = ground.now();
  const draft = await port.create(
    blog,
    {
      name: 'A test by Grivo',
      html: '<p>This draft shows that the connection works. It is taken away at once.</p>',
      summary: '',
      slug: `grivo-test-${ground.ids().slice(-6)}`,
      categories: [],
      photo: null,
    },
    'draft',
    signal,
  );
  if (draft.kind !== 'done') return failed('Sent a draft', from, draft.failure);
  line('Sent a draft', from, `It is at ${draft.value}`);
  from = ground.now();
  const read = await port.read(blog, draft.value, signal);
  if (!read.ok) failed('Read the draft back', from, read.failure);
  else if (read.value?.status === 'published')
    line(
      'Read the draft back',
      from,
      'It came out live instead of as a draft',
      'Allow drafts in the blog’s settings for this key.',
    );
  else
    line(
      'Read the draft back',
      from,
      read.value ? 'It is there, as a draft' : 'It is not found by its address',
      read.value ? null : 'The blog must answer source queries; ask its maker.',
    );
  from = ground.now();
  const gone = await port.withdraw(blog, draft.value, signal);
  if (gone.kind !== 'done') return failed('Took the draft away', from, gone.failure);
  line('Took the draft away', from, 'It is gone');
  return { lines, mediaEndpoint };
}

function changeFor(failure: Failure): string {
  switch (failure.code) {
    case 'key-refused':
      return 'Paste the secret again, whole and without spaces; make a new one at the blog if it was revoked.';
    case 'service-unreachable':
    case 'address-refused':
      return 'Check the address, also the folder after the name; open it in a browser.';
    case 'reply-unusable':
      return 'The address answers, but not as the standard says: look for the endpoint on the blog’s front page.';
    case 'service-busy':
      return 'Wait a minute, then test again.';
    case 'blog-refuses':
      return failure.status === 404
        ? 'Check the folder in the address of the endpoint.'
        : 'Give the key the right to create and delete posts.';
    default:
      return wordsOf(failure).mend;
  }
}
