import { EMPTY_ARTICLE } from '@grivo/core';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { blogTarget } from '../src/nouns/blogs/repository.ts';
import { type Acted, byHand, settlePublishing, updateOn, withdrawFrom } from '../src/nouns/publishing/acts.ts';
import { takeBackDated } from '../src/nouns/publishing/dated.ts';
import { beginAct, pinRevision } from '../src/nouns/publishing/editions.ts';
import { dateOn, publishOn } from '../src/nouns/publishing/going.ts';
import { outWrites } from '../src/nouns/publishing/out.ts';
import type { PublishingPorts } from '../src/nouns/publishing/post.ts';
import { ensurePublication, placeOf, publicationOf } from '../src/nouns/publishing/publications.ts';
import { type Luck, PretendBlog } from './ground/pretendBlog.ts';
import { type World, world } from './ground/world.ts';

/** Two blogs: one has drafts, one gets a post live at once. */
const WAYS = ['drafting', 'plain'] as const;
type Way = (typeof WAYS)[number];
const REVISIONS = 3;

let w: World;
const blogs = {} as Record<Way, string>;
beforeAll(async () => {
  w = await world();
  for (const way of WAYS) {
    blogs[way] = w.product.ground.ids();
    await w.product.ground.db.run(
      "INSERT INTO blog (id, name, address, endpoint, language, time_limit_ms, cadence, way) SELECT ?, ?, address, endpoint, 'en', 50, cadence, ? FROM blog WHERE id = ?",
      [blogs[way], way, way, w.blog],
    );
  }
});
afterAll(() => w.close());

/** Desk moments posts may be dated for, in milliseconds. */
const MONTH = 30 * 86_400_000;

type Ask =
  | { act: 'publish'; way: Way; revision: number }
  /** Handed over, to be kept until a moment. */
  | { act: 'date'; way: Way; revision: number; moment: number }
  | { act: 'update'; way: Way; revision: number }
  | { act: 'withdraw'; way: Way };
type Command =
  | { do: 'ask'; ask: Ask }
  /** Two workers ask the same at once. */
  | { do: 'ask twice'; ask: Ask }
  /** Two people ask for two things at once. */
  | { do: 'ask both'; ask: Ask; other: Ask }
  | { do: 'luck'; way: Way; luck: Luck[] }
  | { do: 'time passes' }
  | { do: 'the chore' };

/** An article with its revisions, on both blogs in whatever order. */
class Article {
  readonly id = w.product.ground.ids();
  readonly revisions: string[] = [];
  readonly publications = {} as Record<Way, string>;
  readonly there: Record<Way, PretendBlog> = {
    drafting: new PretendBlog('drafting', ['drafts', 'find', 'update', 'withdraw']),
    plain: new PretendBlog('plain', ['find', 'update', 'withdraw']),
  };
  readonly ports: PublishingPorts = {
    ...w.product.tools,
    blogs: ({ way }) => this.there[way as Way],
  };

  async make(): Promise<void> {
    const { db, ids } = w.product.ground;
    await db.run("INSERT INTO article (id, brief, line, family, language) VALUES (?, ?, '', ?, 'en')", [
      this.id,
      this.id,
      this.id,
    ]);
    for (let n = 0; n < REVISIONS; n++) {
      const document = {
        ...EMPTY_ARTICLE,
        title: `Bows, ${n}`,
        slug: 'bows',
        body: [{ type: 'paragraph' as const, id: 'b1', content: [{ text: `Rehair it, says ${n}.` }] }],
      };
      this.revisions.push(ids());
      await db.run('INSERT INTO article_revision (id, article, document, words) VALUES (?, ?, ?, 4)', [
        this.revisions[n],
        this.id,
        JSON.stringify(document),
      ]);
    }
    for (const way of WAYS)
      this.publications[way] = (await ensurePublication(w.product.ground, this.id, blogs[way], 'live')).id;
  }

  async ask(ask: Ask): Promise<Acted> {
    const doing = byHand(w.product.ground, new AbortController().signal);
    const id = this.publications[ask.way];
    if (ask.act === 'withdraw') return withdrawFrom(this.ports, doing, id);
    const revision = this.revisions[ask.revision]!;
    if (ask.act === 'update') return updateOn(this.ports, doing, id, revision);
    return this.publish(ask.way, revision, ask.act === 'date' ? ask.moment : null);
  }

  /** What the step does, its slot come, or before it where the blog keeps it until then. */
  private async publish(way: Way, revision: string, ahead: number | null): Promise<Acted> {
    const { ground } = w.product;
    const begun = await beginAct(ground, this.publications[way], 'publish', revision);
    if (begun.kind === 'nothing there') return begun;
    if (begun.kind === 'not known yet') return { kind: 'later', inMs: 50 };
    const { publication } = begun;
    if (begun.kind === 'true already') return { kind: 'done', value: placeOf(publication)! };
    const pinned = await pinRevision(ground.db, publication, revision);
    const going = {
      as: 'live' as const,
      document: await readRevision(ground.db, pinned),
      categories: ['bows'],
      desk: ahead ?? 1_000,
    };
    const doing = byHand(ground, new AbortController().signal);
    const blog = (await blogTarget(ground.db, blogs[way]))!;
    // A blog without drafts keeps nothing until later.
    if (ahead !== null && way === 'drafting')
      return dateOn(this.ports, doing, blog, { ...publication, revision: pinned }, going);
    const out = await publishOn(this.ports, doing, blog, { ...publication, revision: pinned }, going);
    if (out.kind === 'done')
      await ground.db.transaction(async (sql) => {
        for (const { text, parameters } of outWrites(ground, publication, { ...going, at: out.value }))
          await sql.run(text, parameters);
      });
    return out;
  }

  /** What was asked of each blog last, where that was said to be done. */
  readonly last: Partial<Record<Way, Ask>> = {};

  /** Everything sent before has happened or never will, and may be looked at. */
  async timePasses(): Promise<void> {
    for (const way of WAYS) this.there[way].timePasses();
    await w.product.ground.db.run("UPDATE intent SET due_at = '2000-01-01' WHERE state = 'open'");
  }

  async run(command: Command): Promise<void> {
    switch (command.do) {
      case 'ask': {
        const { way } = command.ask;
        delete this.last[way];
        if ((await this.ask(command.ask)).kind === 'done') this.last[way] = command.ask;
        return;
      }
      case 'ask twice':
        delete this.last[command.ask.way];
        await Promise.all([this.ask(command.ask), this.ask(command.ask)]);
        return;
      case 'ask both':
        delete this.last[command.ask.way];
        delete this.last[command.other.way];
        await Promise.all([this.ask(command.ask), this.ask(command.other)]);
        return;
      case 'luck':
        this.there[command.way].luck.splice(0, Number.POSITIVE_INFINITY, ...command.luck);
        return;
      case 'time passes':
        return this.timePasses();
      case 'the chore':
        return settlePublishing(this.ports);
    }
  }

  /** What holds whatever happened: no post twice, never two of the article at once. */
  holds(): void {
    for (const way of WAYS) {
      const { made, posts } = this.there[way];
      expect(made).toEqual([...new Set(made)]);
      expect(posts.size).toBeLessThanOrEqual(1);
    }
  }

  /** Set aside, nothing of it goes out by itself at a later moment, whatever its blog was asked to keep. */
  async staysSilent(): Promise<void> {
    await w.product.ground.db.run('UPDATE article SET aside = 1 WHERE id = ?', [this.id]);
    await takeBackDated(this.ports);
    for (const way of WAYS) {
      const row = (await publicationOf(w.product.ground.db, this.publications[way]))!;
      const [post] = this.there[way].posts.values();
      if (row.state !== 'live') expect([row.state, post?.status]).not.toEqual([row.state, 'published']);
    }
  }

  /** Once all is known, what Grivo says of a blog is what is there. */
  async isAsSaid(): Promise<void> {
    for (const way of WAYS) {
      const row = (await publicationOf(w.product.ground.db, this.publications[way]))!;
      const [post] = this.there[way].posts.values();
      const said = `${way}: ${JSON.stringify(row)}`;
      const last = this.last[way];
      const isDated = row.state === 'draft' && row.dated_desk !== null;
      if (last?.act === 'date' && row.state === 'draft') expect(Number(row.dated_desk), said).toBe(last.moment);
      if (last?.act === 'publish') expect(row.state, said).toBe('live');
      if (last?.act === 'update') expect(row.revision, said).toBe(this.revisions[last.revision]);
      if (last?.act === 'withdraw') expect(['withdrawn', 'planned'], said).toContain(row.state);
      if (row.state === 'planned' || row.state === 'creating' || row.state === 'withdrawn')
        expect(post, said).toBeUndefined();
      else {
        const document = await readRevision(w.product.ground.db, row.revision!);
        expect(post, said).toMatchObject({
          address: row.address,
          // What a blog may have been asked to keep until later, nobody knows, may be so.
          status: row.state === 'live' || isDated ? 'published' : expect.stringMatching(/draft|published/),
          ...(isDated ? { published: new Date(Number(row.dated_desk)).toISOString() } : {}),
          name: document.title,
          html: expect.stringContaining(`says ${document.title.at(-1)}`),
        });
      }
    }
  }
}

const way = fc.constantFrom(...WAYS);
const revision = fc.nat(REVISIONS - 1);
const ask: fc.Arbitrary<Ask> = fc.oneof(
  fc.record({ act: fc.constant('publish' as const), way, revision }),
  fc.record({ act: fc.constant('update' as const), way, revision }),
  fc.record({ act: fc.constant('withdraw' as const), way }),
  fc.record({ act: fc.constant('date' as const), way, revision, moment: fc.constantFrom(MONTH, 2 * MONTH) }),
);
const luck = fc.constantFrom<Luck[]>('well', 'refused', 'lost, done', 'lost, done late', 'lost, not done');
const command: fc.Arbitrary<Command> = fc.oneof(
  { weight: 5, arbitrary: fc.record({ do: fc.constant('ask' as const), ask }) },
  { weight: 2, arbitrary: fc.record({ do: fc.constant('ask twice' as const), ask }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('ask both' as const), ask, other: ask }) },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('luck' as const),
      way,
      luck: fc.array(luck, { minLength: 1, maxLength: 3 }),
    }),
  },
  { weight: 3, arbitrary: fc.constant({ do: 'time passes' as const }) },
  { weight: 2, arbitrary: fc.constant({ do: 'the chore' as const }) },
);

test('whatever is asked in whatever order, a post is made once and what is said of a blog is what is there', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(command, { minLength: 4, maxLength: 18 }),
      fc.array(ask, { minLength: 1, maxLength: 2 }),
      async (commands, last) => {
        const article = new Article();
        await article.make();
        for (const one of commands) {
          await article.run(one);
          article.holds();
        }
        for (const one of WAYS) article.there[one].luck.length = 0;
        await article.timePasses();
        await settlePublishing(article.ports);
        await article.isAsSaid();
        // From then on nothing fails, and what is asked is so.
        for (const one of last) {
          delete article.last[one.way];
          const acted = await article.ask(one);
          article.holds();
          await article.isAsSaid();
          const [post] = article.there[one.way].posts.values();
          if (one.act === 'withdraw') expect(post).toBeUndefined();
          else if (one.act === 'publish' || one.act === 'date')
            expect([acted.kind, post?.status]).toEqual(['done', 'published']);
          else if (acted.kind === 'done') expect(post?.name).toBe(`Bows, ${one.revision}`);
          else expect([acted.kind, post]).toEqual(['nothing there', undefined]);
        }
        await article.staysSilent();
      },
    ),
    { numRuns: 200 },
  );
});
