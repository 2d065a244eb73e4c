import { randomBytes } from 'node:crypto';
import { type CadenceRule, type Step, stepKinds } from '@grivo/core';
import {
  BLOGS,
  CHANNELS,
  DOCUMENTS,
  ELSEWHERE,
  NEWS,
  PAGES,
  PODCASTS,
  SEARCHES,
  SHEETS,
  SHOPS,
  type StandIns,
  start,
} from '@grivo/standins';
import { inject } from 'vitest';
import { assemble, type Product, type ProductOptions } from '../../src/api/product.ts';
import { Procedures } from '../../src/engine/briefState.ts';
import { Database } from '../../src/ground/store/database.ts';
import { createBlog } from '../../src/nouns/blogs/create.ts';
import { createPipeline } from '../../src/nouns/pipelines/repository.ts';
import { groupsFor } from '../../src/nouns/sources/groups.ts';
import { addKeywords } from '../../src/nouns/sources/keywords.ts';
import { lookAndTake } from '../../src/nouns/sources/look.ts';
import { createSource } from '../../src/nouns/sources/repository.ts';
import { createService } from '../../src/ports/services/repository.ts';
import { guardStates } from './guards.ts';

/** One migrated database for each test worker. */
export async function testDatabaseUrl(): Promise<string> {
  const url = new URL(inject('databaseUrl'));
  const name = `grivo_w${process.pid}`;
  const server = await Database.open(url.href, 2);
  await server.run(`DROP DATABASE IF EXISTS ${name}`);
  await server.run(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_ai_ci`);
  await server.close();
  url.pathname = `/${name}`;
  return url.href;
}

export const DAILY: CadenceRule = {
  rate: { kind: 'count', n: 2, per: 'day' },
  days: [1, 2, 3, 4, 5, 6, 7],
  hours: { from: '08:00', to: '18:00' },
  gapMinutes: 60,
  start: '2024-01-01',
  pauses: [],
  zone: 'Europe/Dublin',
};

/** Of a check: how like it is to other texts is not looked at, and what fails is set aside. */
export const LENIENT = { likeness: null, own: null, otherwise: 'set it aside' } as const;

export interface World {
  product: Product;
  standIns: StandIns;
  blog: string;
  writer: string;
  /** Keywords into a new list, and a pipeline that takes them. */
  pipeline(keywords: readonly string[], change?: (steps: Step[]) => Step[]): Promise<string>;
  take(pipeline: string): Promise<string[]>;
  settled(briefs: readonly string[], standings: readonly string[], ms?: number): Promise<Map<string, string>>;
  close(): Promise<void>;
}

/** A product with everything connected to stand-ins of its own. */
export async function world(which: 'one' | 'two' = 'one', options: Partial<ProductOptions> = {}): Promise<World> {
  const standIns = await start({
    pages: PAGES,
    blogs: BLOGS,
    channels: CHANNELS,
    sheets: SHEETS,
    elsewhere: ELSEWHERE,
    searches: SEARCHES,
    news: NEWS,
    shops: SHOPS,
    documents: DOCUMENTS,
    podcasts: PODCASTS,
  });
  const product = await assemble({
    databaseUrl: await testDatabaseUrl(),
    secretKey: randomBytes(32),
    allowedOrigins: [standIns.address],
    checksAnswers: true,
    ...options,
  });
  const { ground, secrets } = product;
  await guardStates(ground.db);
  const address = which === 'one' ? standIns.services.writerOne : standIns.services.writerTwo;
  const key = standIns.keys[which];
  const price = { microsPerThousandIn: 900, microsPerThousandOut: 2_700, microsPerPicture: 40_000 };
  const writer = await createService(ground, secrets, {
    role: 'writer',
    name: 'The writer',
    address,
    model: 'stand-in',
    secret: key,
    price,
    permits: 4,
    timeLimitMs: 2_000,
  });
  await createService(ground, secrets, {
    role: 'illustrator',
    name: 'The illustrator',
    address,
    model: 'stand-in',
    secret: key,
    price,
    permits: 4,
    timeLimitMs: 5_000,
  });
  await createService(ground, secrets, {
    role: 'look-up',
    name: 'The look-up',
    address: standIns.services.lookUp,
    model: '',
    secret: null,
    price,
    permits: 4,
    timeLimitMs: 2_000,
  });
  await createService(ground, secrets, {
    role: 'video host',
    name: 'The videos',
    address: standIns.services.videoHost,
    model: '',
    secret: null,
    price,
    permits: 4,
    timeLimitMs: 2_000,
  });
  await createService(ground, secrets, {
    role: 'keyword service',
    name: 'The figures',
    address: standIns.services.keywords,
    model: '',
    secret: null,
    price,
    permits: 4,
    timeLimitMs: 2_000,
  });
  await createService(ground, secrets, {
    role: 'transcriber',
    name: 'The transcriber',
    address,
    model: 'stand-in',
    secret: key,
    price: { ...price, microsPerMinute: 6_000 },
    permits: 4,
    timeLimitMs: 10_000,
  });
  await product.tools.services.refresh();
  const site = standIns.blog('journal');
  const connected = await createBlog(product.tools, {
    name: 'Crockhaven Journal',
    address: site.address,
    endpoint: site.endpoint,
    secret: site.token,
    language: 'en',
    cadence: DAILY,
    timeLimitMs: 1_000,
  });
  if (connected.kind !== 'made') throw new Error(connected.problem);
  const { id: blog } = connected;
  return {
    product,
    standIns,
    blog,
    writer,
    async pipeline(keywords, change = (steps) => steps) {
      const source = await createSource(ground, { kind: 'keywords' }, 'A list');
      await addKeywords(product.tools, source, { paste: keywords.join('\n') });
      const steps: Step[] = [
        { ...stepKinds.take.fresh('s1'), sources: [source], most: null },
        stepKinds['look up'].fresh('s2'),
        stepKinds.outline.fresh('s3'),
        { ...stepKinds.write.fresh('s4'), words: 700 },
        stepKinds.title.fresh('s5'),
        stepKinds.illustrate.fresh('s6'),
        { ...stepKinds.link.fresh('s7'), blog },
        { ...stepKinds.check.fresh('s8'), ...LENIENT, words: { from: 200, to: 2_000 } },
        { ...stepKinds.publish.fresh('s9'), blog, when: 'at once' },
      ];
      return createPipeline(ground, {
        name: 'A pipeline',
        document: { grivo: 1, language: 'en', steps: change(steps) },
        person: null,
      });
    },
    async take(pipeline) {
      const procedures = new Procedures();
      const groups = await groupsFor(product.tools, procedures, pipeline);
      const taken = await ground.db.transaction((sql) => lookAndTake(sql, ground, procedures, pipeline, { groups }));
      product.bell.ring({ kind: 'admit' });
      return taken.briefs;
    },
    async settled(briefs, standings, ms = 40_000) {
      const until = Date.now() + ms;
      for (;;) {
        const rows = await ground.db.rows<{ id: string; standing: string }>(
          'SELECT id, standing FROM brief WHERE id IN (?)',
          [briefs],
        );
        if (rows.every((row) => standings.includes(row.standing)))
          return new Map(rows.map((row) => [row.id, row.standing]));
        if (Date.now() > until) {
          const runs = await ground.db.rows(
            "SELECT brief, path, kind, state, failure FROM step_run WHERE brief IN (?) AND state <> 'done'",
            [briefs],
          );
          throw new Error(`briefs did not settle: ${JSON.stringify(rows)} ${JSON.stringify(runs)}`);
        }
        await new Promise((resolve) => setTimeout(resolve, 40));
      }
    },
    async close() {
      await product.close();
      await standIns.close();
    },
  };
}
