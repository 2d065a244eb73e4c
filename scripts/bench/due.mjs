// Publishing: two hundred posts due at the same moment on a blog that takes 50 ms for every answer, over the time the calls
// take when as many are under way as the blog is handed at a time.
import { stepKinds } from '@grivo/core';
import { Procedures } from '../../server/src/engine/briefState.ts';
import { createPipeline } from '../../server/src/nouns/pipelines/repository.ts';
import { lookAndTake } from '../../server/src/nouns/sources/look.ts';
import { CALLS_AT_ONCE } from '../../server/src/ports/blogs/atOnce.ts';
import { connected } from './connected.mjs';
import { ground, median, pause, phrases } from './ground.mjs';
import { slowBlog } from './slowBlog.mjs';

const MANY = 200;
const ANSWERS_MS = 50;
const ROUNDS = 3;
/** From when they were written until they are due. */
const AHEAD_MINUTES = 600;

export async function due(tell) {
  const bench = await ground();
  try {
    const rounds = [];
    for (let n = 0; n < ROUNDS; n++) rounds.push(await round(bench));
    tell(
      `${MANY} due at once, of ${ANSWERS_MS} ms a call: ${rounds.map(({ ms }) => Math.round(ms)).join(', ')} ms; ${rounds[0].calls} calls, at most ${Math.max(...rounds.map(({ most }) => most))} at a time`,
    );
    return { 'publish.dueVsBound': Number(median(rounds.map(({ ms, bound }) => ms / bound)).toFixed(2)) };
  } finally {
    await bench.end();
  }
}

async function round(bench) {
  const blog = await slowBlog(ANSWERS_MS);
  const { product } = await bench.product({ allowedOrigins: [blog.address] });
  try {
    const { ground: floor } = product;
    const { id, source } = await connected(product, blog, phrases(MANY));
    const steps = [
      { ...stepKinds.take.fresh('s1'), sources: [source], most: null },
      { ...stepKinds['lay out'].fresh('s2'), body: 'Of {{ subject }}.\n\nIt is combed wet, and dries for a day.' },
      { ...stepKinds.wait.fresh('s3'), minutes: AHEAD_MINUTES },
      { ...stepKinds.publish.fresh('s4'), blog: id, when: 'at once' },
    ];
    const document = { grivo: 1, language: 'en', steps };
    const pipeline = await createPipeline(floor, { name: 'Bench', document, person: null, openLimit: 1_000 });
    await product.work('both');
    const { briefs } = await floor.db.transaction((sql) => lookAndTake(sql, floor, new Procedures(), pipeline));
    product.bell.ring({ kind: 'admit' });
    const many = async (where) => Number((await floor.db.rows(`SELECT COUNT(*) AS n FROM ${where}`, [briefs]))[0].n);
    while ((await many("step_run WHERE brief IN (?) AND path = 's3' AND state = 'waiting'")) < MANY) await pause(50);
    const before = (await blog.seen()).calls;
    const begun = performance.now();
    await floor.desk.set(floor.desk.now() + (AHEAD_MINUTES + 1) * 60_000, 1);
    while ((await many("brief WHERE id IN (?) AND standing = 'out'")) < MANY) await pause(20);
    const ms = performance.now() - begun;
    const { calls: all, most } = await blog.seen();
    const calls = all - before;
    return { ms, calls, most, bound: (calls * ANSWERS_MS) / CALLS_AT_ONCE };
  } finally {
    await product.close();
    await blog.close();
  }
}
