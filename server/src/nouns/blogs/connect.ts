import type { TestLine, WaySettings } from '@grivo/contract';
import { type Failure, wordsOf } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import { tellChange } from '../../ground/store/event.ts';
import { type BlogPort, type BlogTarget, PLAIN, type Placed, type Post } from '../../ports/blogs/blog.ts';
import type { Result } from '../../ports/outcome/outcome.ts';
import type { Tools } from '../../ports/tools.ts';
import { getBlog, targetOf } from './repository.ts';

interface Ports {
  ground: Ground;
  tools: Tools;
}

/** What a test found out that is kept with the blog. */
interface Learnt {
  endpoint?: string;
  mediaEndpoint?: string | null;
  settings?: WaySettings;
  categories?: string[];
}

/**
 * Tests a blog with a harmless draft: asks what it can do, creates a draft, finds and reads it back, sends a small picture,
 * takes the draft away. Each line says what was tried, what came back, and what to change. What came of it is kept, and
 * what the blog says of itself.
 * @returns null when there is no such blog
 */
export async function testBlog(tools: Ports, id: string): Promise<TestLine[] | null> {
  const { ground } = tools;
  const row = await getBlog(ground.db, id);
  if (!row) return null;
  const { lines, learnt } = await new Test(tools, targetOf(row)).run();
  // What the blog says of itself may have changed, or could not be asked before.
  await ground.db.run(
    `UPDATE blog SET last_test = ?, tested_desk = ?, endpoint = COALESCE(?, endpoint), settings = JSON_MERGE_PATCH(settings, ?), categories = COALESCE(?, categories)${learnt.mediaEndpoint === undefined ? '' : ', media_endpoint = ?'} WHERE id = ?`,
    [
      JSON.stringify(lines),
      ground.desk.now(),
      learnt.endpoint ?? null,
      JSON.stringify(learntIn(learnt.settings)),
      learnt.categories ? JSON.stringify(learnt.categories) : null,
      ...(learnt.mediaEndpoint === undefined ? [] : [learnt.mediaEndpoint]),
      id,
    ],
  );
  await tellChange(ground.db, ground, 'blog', id);
  return lines;
}

/**
 * What a test tells of a blog, as a change of what is kept: what it does not tell any more goes, everything people set stays.
 * One that showed a post too early gets another chance.
 */
function learntIn(settings: WaySettings | undefined): Record<string, unknown> {
  if (!settings) return {};
  const { told = null, collection = null, pages = null, findable = null } = settings;
  return { told, collection, pages, findable, keepsDates: null };
}

/** The smallest picture there is: one dot (PNG, ISO/IEC 15948). */
const DOT = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII=',
  'base64',
);

class Test {
  private readonly lines: TestLine[] = [];
  private readonly learnt: Learnt = {};
  private readonly signal: AbortSignal;
  private readonly port: BlogPort;
  private from: number;

  constructor(
    private readonly ports: Ports,
    private blog: BlogTarget,
  ) {
    this.signal = AbortSignal.timeout(blog.timeLimitMs * 6);
    this.port = ports.tools.blogs(blog);
    this.from = ports.ground.now();
  }

  async run(): Promise<{ lines: TestLine[]; learnt: Learnt }> {
    if (await this.asked()) await this.drafted();
    return { lines: this.lines, learnt: this.learnt };
  }

  private line(tried: string, came: string, change: string | null = null): void {
    const now = this.ports.ground.now();
    this.lines.push({ tried, came, well: change === null, change, ms: now - this.from });
    this.from = now;
  }

  private failed(tried: string, failure: Failure): false {
    const { sentence, mend } = wordsOf(failure, () => this.blog.name);
    this.line(tried, sentence, changeFor(failure) ?? mend);
    return false;
  }

  /** Asks what it can do, at the address it has moved to where it says so over a safe line. */
  private async asked(): Promise<boolean> {
    const tried = 'Asked what it can do';
    let says = await this.port.config(this.blog, this.signal);
    const moved = saferAddress(says, this.blog.endpoint);
    if (moved) {
      this.blog = { ...this.blog, endpoint: moved };
      this.line('Followed it to a safe line', `Posts go to ${moved} from now on`);
      this.learnt.endpoint = moved;
      says = await this.port.config(this.blog, this.signal);
    }
    if (!says.ok) return this.failed(tried, says.failure);
    const { mediaEndpoint, settings } = says.value;
    this.learnt.mediaEndpoint = mediaEndpoint;
    if (settings) this.learnt.settings = settings;
    this.blog = { ...this.blog, mediaEndpoint, settings: settings ?? this.blog.settings };
    this.line(
      tried,
      mediaEndpoint === null
        ? 'It takes posts; it names no place for pictures'
        : mediaEndpoint === this.blog.endpoint
          ? 'It takes posts and pictures'
          : 'It takes posts, and pictures at a place of their own',
    );
    return this.toldCategories();
  }

  private async toldCategories(): Promise<true> {
    if (!this.port.can(this.blog).has('list categories')) return true;
    const told = await this.port.categories(this.blog, this.signal);
    // One that does not tell them takes posts all the same.
    if (told.ok) {
      this.learnt.categories = told.value.slice(0, 1_000);
      const [first, ...more] = told.value;
      const some =
        first === undefined
          ? 'It has none yet'
          : `${more.length + 1}: ${told.value.slice(0, 4).join(', ')}${more.length > 3 ? ' …' : ''}`;
      this.line('Asked for its categories', some);
    } else this.line('Asked for its categories', 'It does not tell them; they are typed by hand');
    return true;
  }

  private async drafted(): Promise<void> {
    const { ground } = this.ports;
    const key = `t${ground.ids().slice(-9)}`;
    const draft = await this.port.create(this.blog, testPost(key), 'draft', this.signal);
    if (draft.kind !== 'done') return void this.failed('Sent a draft', draft.failure);
    this.line('Sent a draft', `It is at ${draft.value.address}`);
    await this.found(key);
    await this.readBack(draft.value);
    await this.pictured();
    const gone = await this.port.withdraw(this.blog, draft.value, this.signal);
    if (gone.kind !== 'done') return void this.failed('Took the draft away', gone.failure);
    this.line(
      'Took the draft away',
      this.port.can(this.blog).has('removes')
        ? 'It is gone'
        : 'Nobody reads it; as a draft it stays, remove it there if you like',
    );
  }

  /** Whether a post is found again by its key: without that, one whose call broke off is shown to a person. */
  private async found(key: string): Promise<void> {
    const found = await this.port.find(this.blog, key, this.ports.ground.now() - 3_600_000, this.signal);
    const findable = found.ok && found.value !== null;
    this.learnt.settings = { ...this.blog.settings, findable };
    if (findable) return this.line('Looked for it', 'It is found again, should a call ever break off');
    if (!found.ok && found.failure.code !== 'outcome-unfindable')
      return void this.failed('Looked for it', found.failure);
    this.line(
      'Looked for it',
      'It is not found again: the blog changed what was sent',
      'Nothing has to be changed; should a call break off in the middle, you are asked to look there yourself.',
    );
  }

  private async readBack(at: Placed): Promise<void> {
    const read = await this.port.read(this.blog, at, this.signal);
    if (!read.ok) return void this.failed('Read the draft back', read.failure);
    if (read.value?.status === 'published')
      return this.line(
        'Read the draft back',
        'It came out live instead of as a draft',
        'Allow drafts in the blog’s settings for this secret.',
      );
    this.line(
      'Read the draft back',
      read.value ? 'It is there, as a draft' : 'It is not found by its address',
      read.value ? null : 'The blog must tell what its posts say (source queries); ask whoever makes it.',
    );
  }

  private async pictured(): Promise<void> {
    if (this.blog.mediaEndpoint === null) return;
    const picture = { bytes: DOT, mime: 'image/png', name: 'grivo-test.png' };
    const sent = await this.port.upload(this.blog, picture, this.signal);
    if (sent.kind === 'done') return this.line('Sent a picture of one dot', `It is at ${sent.value}, and stays there`);
    const { failure } = sent;
    if (failure.code === 'blog-refuses' && !failure.mistake) failure.mistake = 'pictures refused';
    this.failed('Sent a picture of one dot', failure);
  }
}

function testPost(key: string): Post {
  const says = 'This draft shows that the connection works. It is taken away at once.';
  return {
    key,
    name: 'A test by Grivo',
    html: `<p>${says}</p>`,
    markdown: says,
    summary: '',
    slug: `grivo-test-${key}`,
    categories: [],
    language: 'en',
    author: null,
    photo: null,
    ...PLAIN,
  };
}

/** The same address over https, where that is what the blog sends calls on to. */
function saferAddress(says: Result<unknown>, endpoint: string): string | null {
  if (says.ok || says.failure.code !== 'blog-refuses' || says.failure.mistake !== 'moved') return null;
  if (!URL.canParse(says.failure.said)) return null;
  const [from, to] = [new URL(endpoint), new URL(says.failure.said)];
  const same = from.hostname.replace(/^www\./, '') === to.hostname.replace(/^www\./, '');
  return same && (to.protocol === 'https:' || from.protocol === to.protocol) ? to.href : null;
}

/** What to change where the failure itself says too little: it concerns a connection that is being made. */
function changeFor(failure: Failure): string | null {
  if ('mistake' in failure && failure.mistake) return null;
  switch (failure.code) {
    case 'service-unreachable':
    case 'address-refused':
      return failure.code === 'address-refused' && /private network/.test(failure.reason)
        ? null
        : 'Check the address, also the folder after the name; open it in a browser.';
    case 'reply-unusable':
      return 'The address answers, but not as this way of posting says: look for the right one on the blog’s front page.';
    case 'service-busy':
      return 'Wait a minute, then test again.';
    case 'blog-refuses':
      return 'Give the secret the right to create and delete posts.';
    default:
      return null;
  }
}
