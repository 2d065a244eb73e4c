// Publishing: what ten thousand posts on one blog ask for. A post whose creation is uncertain is looked for, all posts are
// compared with what was sent, and ten thousand pages are read into the link index; each over what its pace sets.
import { stepKinds } from '@grivo/core';
import { Procedures } from '../../server/src/engine/briefState.ts';
import { blogTarget } from '../../server/src/nouns/blogs/repository.ts';
import { readLinkIndex } from '../../server/src/nouns/links/read.ts';
import { createPipeline } from '../../server/src/nouns/pipelines/repository.ts';
import { compareOutside } from '../../server/src/nouns/publishing/outside.ts';
import { lookAndTake } from '../../server/src/nouns/sources/look.ts';
import { connected } from './connected.mjs';
import { fillStore } from './fill.mjs';
import { ground, pause } from './ground.mjs';
import { slowBlog } from './slowBlog.mjs';

const MANY = 10_000;
/** How long the blog takes for an answer: as any does where it is asked once, less where it is asked ten thousand times. */
const [ANSWERS_MS, MANY_ANSWERS_MS] = [50, 10];
/** A go of comparing begins every so often, and one of reading pages. */
const COMPARES_EVERY_MS = 5_000;
const READS_EVERY_MS = 60_000;

export async function compare(tell) {
  const bench = await ground();
  const blog = await slowBlog(ANSWERS_MS);
  const { product } = await bench.product({ allowedOrigins: [blog.address] });
  try {
    const id = await published(product, blog);
    const found = await finding(product, blog, id);
    await blog.answersIn(MANY_ANSWERS_MS);
    const seen = await comparing(product, blog);
    const read = await reading(product, blog, id);
    for (const [what, { calls, ms, ratio }] of Object.entries({ found, seen, read }))
      tell(
        `${what}: ${calls} requests, ${(ms / 1_000).toFixed(1)} s of work, ${ratio.toFixed(2)} of what the pace sets`,
      );
    return {
      'publish.compare10k': Number(Math.max(found.ratio, seen.ratio, read.ratio).toFixed(2)),
      'publish.compare10kRequests': seen.calls,
      'publish.compare10kBusy': Number((seen.ms / (seen.goes * COMPARES_EVERY_MS)).toFixed(3)),
    };
  } finally {
    await product.close();
    await blog.close();
    await bench.end();
  }
}

/** An article that is out, and ten thousand like it. @returns the blog */
async function published({ ground: floor, tools, bell, work }, blog) {
  const { id, source } = await connected({ ground: floor, tools }, blog, ['rehairing a bow']);
  const steps = [
    { ...stepKinds.take.fresh('s1'), sources: [source], most: null },
    {
      ...stepKinds['lay out'].fresh('s2'),
      body: 'Of {{ subject }}.\n\nIt is combed wet, and dries for a day.\n\n'.repeat(8),
    },
    { ...stepKinds.publish.fresh('s3'), blog: id, when: 'at once' },
  ];
  const document = { grivo: 1, language: 'en', steps };
  const pipeline = await createPipeline(floor, { name: 'Bench', document, person: null });
  const engine = await work('both', { chores: [], upkeep: [] });
  const { briefs } = await floor.db.transaction((sql) => lookAndTake(sql, floor, new Procedures(), pipeline));
  bell.ring({ kind: 'admit' });
  for (;;) {
    const [{ standing }] = await floor.db.rows('SELECT standing FROM brief WHERE id = ?', [briefs[0]]);
    if (standing === 'out') break;
    await pause(20);
  }
  await engine.stop();
  await fillStore(floor.db, { brief: briefs[0], source, briefs: MANY, items: 0 });
  await blog.fill(MANY);
  return id;
}

/** Looks for a post that is not there: every page of what is has to be read. */
async function finding({ ground: floor, tools }, blog, id) {
  const target = await blogTarget(floor.db, id);
  const before = (await blog.seen()).calls;
  const begun = performance.now();
  const found = await tools.blogs(target).find(target, 'nosuchpost', Date.now(), AbortSignal.timeout(60_000));
  const ms = performance.now() - begun;
  if (!found.ok || found.value !== null) throw new Error(JSON.stringify(found));
  const calls = (await blog.seen()).calls - before;
  return { calls, ms, ratio: ms / (calls * ANSWERS_MS) };
}

/** Goes one after the other without a pause between; where one takes longer than the time to the next, the pace is not kept. */
async function comparing({ ground: { db }, tools }, blog) {
  await db.run("UPDATE publication SET compare_at = UTC_TIMESTAMP(3) WHERE state = 'live'");
  const before = (await blog.seen()).calls;
  let [ms, kept, goes] = [0, 0, 0];
  for (;;) {
    const [{ n }] = await db.rows('SELECT COUNT(*) AS n FROM publication WHERE compare_at <= UTC_TIMESTAMP(3)');
    if (Number(n) === 0) break;
    for (let i = 0; i < 100; i++, goes++) {
      const begun = performance.now();
      await compareOutside(tools);
      const took = performance.now() - begun;
      ms += took;
      kept += Math.max(COMPARES_EVERY_MS, took);
    }
  }
  const [{ wrong }] = await db.rows('SELECT COUNT(*) AS wrong FROM publication WHERE outside IS NOT NULL');
  if (Number(wrong) > 0) throw new Error(`${wrong} posts are said to be changed`);
  return { calls: (await blog.seen()).calls - before, ms, goes, ratio: kept / (goes * COMPARES_EVERY_MS) };
}

async function reading({ ground: { db }, tools }, blog, id) {
  await blog.write(MANY);
  const before = (await blog.seen()).calls;
  let [ms, kept, goes] = [0, 0, 0];
  for (let left = 1; left > 0; goes++) {
    const begun = performance.now();
    const of = { id, address: blog.address, language: 'en' };
    const read = await readLinkIndex(db, tools, of, AbortSignal.timeout(240_000));
    if (!read.ok) throw new Error(read.reason);
    left = read.left;
    const took = performance.now() - begun;
    ms += took;
    kept += Math.max(READS_EVERY_MS, took);
  }
  return { calls: (await blog.seen()).calls - before, ms, ratio: kept / (goes * READS_EVERY_MS) };
}
