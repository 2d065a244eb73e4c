// From 'take it' to a live post: one brief, stand-ins that answer at once, every step committed to disk.
import { stepKinds } from '@grivo/core';
import { BLOGS, KEYWORDS, PAGES, start } from '@grivo/standins';
import { Procedures } from '../../server/src/engine/briefState.ts';
import { createBlog } from '../../server/src/nouns/blogs/create.ts';
import { createPipeline } from '../../server/src/nouns/pipelines/repository.ts';
import { addKeywords } from '../../server/src/nouns/sources/keywords.ts';
import { lookAndTake } from '../../server/src/nouns/sources/look.ts';
import { createSource } from '../../server/src/nouns/sources/repository.ts';
import { createService } from '../../server/src/ports/services/repository.ts';
import { everyDay } from '../cadence.mjs';
import { ground, median, pause } from './ground.mjs';

export async function path(tell) {
  const bench = await ground();
  const standIns = await start({ pages: PAGES, blogs: BLOGS });
  try {
    const { product } = await bench.product({ allowedOrigins: [standIns.address] });
    const { ground: floor, secrets } = product;
    const price = { microsPerThousandIn: 400, microsPerThousandOut: 1_600, microsPerPicture: 40_000 };
    const model = {
      address: standIns.services.writerOne,
      model: 'stand-in',
      secret: standIns.keys.one,
      price,
      permits: 4,
      timeLimitMs: 20_000,
    };
    await createService(floor, secrets, { role: 'writer', name: 'Writer', ...model });
    await createService(floor, secrets, { role: 'illustrator', name: 'Illustrator', ...model });
    await createService(floor, secrets, {
      role: 'look-up',
      name: 'Look-up',
      ...model,
      address: standIns.services.lookUp,
      secret: null,
    });
    await product.tools.services.refresh();
    const site = standIns.blog('journal');
    const { id: blog } = await createBlog(product.tools, {
      name: 'Journal',
      address: site.address,
      endpoint: site.endpoint,
      secret: site.token,
      language: 'en',
      cadence: everyDay(5),
      timeLimitMs: 5_000,
    });
    await product.work('both');
    const times = [];
    for (const phrase of KEYWORDS.guides.slice(0, 14)) {
      const source = await createSource(floor, { kind: 'keywords' }, 'Bench');
      await addKeywords(product.tools, source, { paste: phrase });
      const steps = [
        { ...stepKinds.take.fresh('s1'), sources: [source], most: null },
        stepKinds['look up'].fresh('s2'),
        stepKinds.outline.fresh('s3'),
        { ...stepKinds.write.fresh('s4'), words: 700 },
        stepKinds.title.fresh('s5'),
        stepKinds.illustrate.fresh('s6'),
        { ...stepKinds.link.fresh('s7'), blog },
        { ...stepKinds.check.fresh('s8'), likeness: null, own: null, words: { from: 50, to: 2_000 } },
        { ...stepKinds.publish.fresh('s9'), blog, when: 'at once' },
      ];
      const pipeline = await createPipeline(floor, {
        name: 'Bench',
        document: { grivo: 1, language: 'en', steps },
        person: null,
      });
      const from = performance.now();
      const { briefs } = await floor.db.transaction((sql) => lookAndTake(sql, floor, new Procedures(), pipeline));
      product.bell.ring({ kind: 'admit' });
      let standing = 'waiting';
      while (standing === 'waiting' || standing === 'in work') {
        await pause(12);
        [{ standing }] = await floor.db.rows('SELECT standing FROM brief WHERE id = ?', [briefs[0]]);
      }
      // One its check holds for a person was not published, and is not timed.
      if (standing === 'out') times.push(performance.now() - from);
      else tell(`‘${phrase}’ is ${standing}`);
    }
    // The first ones warm the programs up.
    const warm = times.slice(3);
    if (warm.length < 5) throw new Error(`only ${times.length} were published`);
    tell(`one brief from taken to live: ${warm.map((ms) => Math.round(ms)).join(', ')} ms`);
    await product.close();
    return { 'path.runToPublishedMs': median(warm) };
  } finally {
    await standIns.close();
    await bench.end();
  }
}
