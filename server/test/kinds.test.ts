import type { SourceSettings as Settings, SourceSettings } from '@grivo/contract';
import { type Step, stepKinds } from '@grivo/core';
import { DOCUMENTS, fileOf, PODCASTS, recordingOf } from '@grivo/standins';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { z } from 'zod';
import { Procedures } from '../src/engine/briefState.ts';
import { storeFile } from '../src/ground/files/repository.ts';
import { createPipeline } from '../src/nouns/pipelines/repository.ts';
import { findFeeds } from '../src/nouns/sources/findFeeds.ts';
import { takeChosen } from '../src/nouns/sources/look.ts';
import { createSource, itemsOf } from '../src/nouns/sources/repository.ts';
import { type World, world } from './ground/world.ts';

let w: World;
beforeAll(async () => {
  w = await world();
  await w.product.work('both');
});
afterAll(() => w.close());

const k = stepKinds;

async function sourceOf(settings: z.input<typeof Settings>): Promise<string> {
  const { ground } = w.product;
  const id = await createSource(ground, settings, 'A source');
  const looked = await w.product.look(id);
  expect(looked).toMatchObject({ kind: 'looked', looked: { trouble: null } });
  return id;
}

async function items(source: string, kind: SourceSettings['kind']) {
  return (await itemsOf(w.product.ground.db, source, kind)).items;
}

/** Takes chosen items by steps of one's own and waits until their briefs have settled. */
async function made(ids: readonly string[], read: Step[], change: { gather?: number; follow?: boolean } = {}) {
  const { ground } = w.product;
  const steps: Step[] = [
    { ...k.take.fresh('s1'), sources: [], most: null, gather: change.gather ?? null },
    ...read,
    change.follow
      ? { ...k.outline.fresh('s3'), sections: { from: 3, to: 12 }, follow: 'following its chapters' }
      : { ...k.outline.fresh('s3'), sections: { from: 1, to: 3 } },
    { ...k.write.fresh('s4'), words: change.follow ? 1_500 : 200, parts: ['source credit'] },
    k.title.fresh('s5'),
    k.illustrate.fresh('s6'),
    { ...k.publish.fresh('s9'), blog: w.blog, when: 'at once' },
  ];
  const pipeline = await createPipeline(ground, {
    name: 'One',
    document: { grivo: 1, language: 'en', steps },
    person: null,
  });
  const taken = await ground.db.transaction((sql) =>
    takeChosen(
      sql,
      ground,
      new Procedures(),
      pipeline,
      ids.map((id) => [id]),
    ),
  );
  w.product.bell.ring({ kind: 'admit' });
  return { briefs: taken.briefs, standings: await w.settled(taken.briefs, ['out', 'stopped', 'set aside', 'held']) };
}

async function postOf(brief: string): Promise<string> {
  const [row] = await w.product.ground.db.rows<{ address: string }>(
    'SELECT p.address FROM publication p JOIN article a ON a.id = p.article WHERE a.brief = ?',
    [brief],
  );
  return (await fetch(row!.address)).text();
}

describe('every kind of source, from a look to an article', () => {
  test('a sitemap among page addresses is read as one', async () => {
    const map = `${w.standIns.address}/sitemap.xml`;
    const page = `${w.standIns.address}/documents/keeping-a-cellar.pdf`;
    const source = await sourceOf({ kind: 'documents', addresses: [page, map], within: '/cellar-notes/' });
    const all = await items(source, 'documents');
    expect(all.length).toBeGreaterThan(3);
    expect(all.map(({ subject }) => subject)).not.toContain('Sitemap');
  });

  test('documents: an uploaded DOCX, a PDF and a page of a sitemap', async () => {
    const { db } = w.product.ground;
    const docx = fileOf(DOCUMENTS.find(({ form }) => form === 'docx')!);
    const file = await storeFile(db, docx, { mime: 'application/octet-stream', width: null, height: null });
    const source = await sourceOf({
      kind: 'documents',
      addresses: [`${w.standIns.address}/documents/keeping-a-cellar.pdf`],
      files: [{ file, fileName: 'counter.docx' }],
      sitemap: `${w.standIns.address}/sitemap.xml`,
      within: '/cellar-notes/',
    });
    const all = await items(source, 'documents');
    expect(all.length).toBeGreaterThan(3);
    const chosen = [
      all.find(({ subject }) => subject === 'Keeping a cellar')!,
      all.find(({ subject }) => subject === 'counter')!,
      all[2]!,
    ];
    const { briefs, standings } = await made(
      chosen.map(({ id }) => id),
      [{ ...k.read.fresh('r1'), what: 'the document' }],
    );
    expect([...standings.values()]).toEqual(['out', 'out', 'out']);
    expect(await postOf(briefs[0]!)).toContain('keeping-a-cellar.pdf');
    const places = await db.rows<{ locator: { place?: string } }>(
      "SELECT p.locator FROM passage p JOIN material m ON m.digest = p.material WHERE m.title LIKE 'Keeping a cellar%'",
    );
    expect(places.map(({ locator }) => locator.place)).toContain('page 2, Floor and shelves');
  });

  test('feed: an entry by its unwrapped link; its page is what is read', async () => {
    const source = await sourceOf({
      kind: 'feed',
      feeds: [
        { address: `${w.standIns.address}/news/brine-gazette/feed` },
        { address: `${w.standIns.address}/news/cellar-wire/feed` },
      ],
    });
    const all = await items(source, 'feed');
    expect(all.length).toBe(33);
    // Neither feed has changed since: they say so, and nothing of them is sent again.
    expect(await w.product.look(source)).toMatchObject({ kind: 'looked', looked: { found: 0, trouble: null } });
    const repeats = all.filter(({ leftOut }) => leftOut === 'near repeat');
    expect(repeats.map(({ subject }) => subject).sort()).toEqual([
      'Glazed lids stay cooler in a summer cellar, test shows',
      'Slicer blades go dull after ninety heads of cabbage',
    ]);
    const one = all.find(({ subject }) => subject.startsWith('Ferment clubs'))!;
    const { briefs, standings } = await made([one.id], [{ ...k.read.fresh('r1'), what: 'the page' }]);
    expect([...standings.values()]).toEqual(['out']);
    const page = await postOf(briefs[0]!);
    expect(page).toContain('/news/brine-gazette/ferment-clubs"');
    expect(page).not.toContain('/go?to');
  });

  test('feeds by a subject: those of the sites that pages on it lie on', async () => {
    const found = await findFeeds(w.product.tools, 'how much salt for sauerkraut', AbortSignal.timeout(20_000));
    expect(found.ok && found.feeds.map(({ address }) => new URL(address).pathname)).toContain(
      '/pages/cellar-notes/feed.xml',
    );
    const none = await findFeeds(w.product.tools, 'zqxj vbnm', AbortSignal.timeout(20_000));
    expect(none).toMatchObject({ ok: false, reason: 'no site on it has a feed' });
  });

  test('catalogue: partner links in every article, unreadable pages refused', async () => {
    const source = await sourceOf({
      kind: 'catalogue',
      address: `${w.standIns.address}/partner/northquay/list.csv`,
      partnerLink: '{link}?partner={partner}',
      partner: 'crockhaven-7',
      languages: ['en'],
      order: 'most popular',
      most: 6,
    });
    const all = await items(source, 'catalogue');
    expect(all.filter(({ leftOut }) => leftOut === null).map(({ subject }) => subject)[0]).toBe(
      'Valve lid for wide jars',
    );
    expect(all.find(({ leftOut }) => leftOut === 'unusable')!.leftDetail).toBe('entry 24: no name');
    const broken = all.find(({ subject }) => subject.startsWith('Fermenting box'))!;
    const { briefs, standings } = await made(
      [all[0]!.id, broken.id],
      [{ ...k.read.fresh('r1'), what: 'the page', most: 300 }],
    );
    expect([...standings.values()]).toEqual(['out', 'stopped']);
    expect(await postOf(briefs[0]!)).toMatch(/northquay\/NQ-2001\?partner=crockhaven-7" rel="sponsored nofollow"/);
  });

  test('recordings: an upload and an episode are heard once each, and paid for once', async () => {
    const { db } = w.product.ground;
    const episode = PODCASTS[0]!.episodes[1]!;
    const file = await storeFile(db, recordingOf(episode), { mime: 'audio/wav', width: null, height: null });
    const source = await sourceOf({
      kind: 'recordings',
      files: [{ file, fileName: 'spoken.wav' }],
      podcast: `${w.standIns.address}/podcasts/over-the-crock/feed`,
    });
    const all = await items(source, 'recordings');
    expect(all).toHaveLength(3);
    const before = w.standIns.received().calls.filter(({ what }) => what === 'sound').length;
    const { briefs, standings } = await made(
      all.map(({ id }) => id),
      [k.hear.fresh('r1')],
    );
    expect([...standings.values()]).toEqual(['out', 'out', 'out']);
    // The upload is the second episode once more: the same sound.
    expect(w.standIns.received().calls.filter(({ what }) => what === 'sound').length - before).toBe(2);
    expect(await postOf(briefs[1]!)).toContain('over-the-crock');
  });

  test('publications: what went out can be followed, and never follows itself', async () => {
    const source = await sourceOf({ kind: 'publications', blogs: [w.blog] });
    const all = await items(source, 'publications');
    expect(all.length).toBeGreaterThan(3);
    const { standings } = await made([all[0]!.id], [{ ...k.read.fresh('r1'), what: 'the page' }]);
    expect([...standings.values()]).toEqual(['out']);
    await w.product.look(source);
    expect(await items(source, 'publications')).toHaveLength(all.length);
    const posts = await sourceOf({ kind: 'publications', blogs: [w.blog], of: 'every new post' });
    expect((await items(posts, 'publications')).length).toBeGreaterThan(all.length);
  });

  test('a round-up credits each it was gathered from', async () => {
    const source = await sourceOf({
      kind: 'feed',
      feeds: [{ address: `${w.standIns.address}/news/cellar-wire/feed`, name: 'Wire' }],
    });
    const all = (await items(source, 'feed')).filter(({ leftOut }) => leftOut !== 'unusable');
    const { briefs, standings } = await made(
      all.slice(0, 3).map(({ id }) => id),
      [{ ...k.read.fresh('r1'), what: 'the page' }],
      { gather: 3 },
    );
    expect([...standings.values()]).toEqual(['out']);
    const page = await postOf(briefs[0]!);
    for (const slug of ['cloudy-brine', 'slicer-blades-dull', 'turnips-forgotten'])
      expect(page).toContain(`/news/cellar-wire/${slug}"`);
  });

  test('a feed of 30 with rubbish: what is poor is dropped with its reason, the repeat came in once, the rest is a round-up', async () => {
    const source = await sourceOf({
      kind: 'feed',
      feeds: [{ address: `${w.standIns.address}/news/brine-gazette/feed`, name: 'The Gazette' }],
    });
    const all = await items(source, 'feed');
    expect(all).toHaveLength(30);
    const offered = all.filter(({ leftOut }) => leftOut === null);
    const { briefs, standings } = await made(
      // An advertisement first: the round-up must not be called by it.
      offered
        .sort((a, b) => Number(b.subject.startsWith('Save big')) - Number(a.subject.startsWith('Save big')))
        .map(({ id }) => id),
      [
        { ...k.read.fresh('r1'), what: 'the page' },
        { ...k.judge.fresh('j1'), qualities: 'substance, figures and examples', least: 5 },
      ],
      { gather: 30, follow: true },
    );
    const [row] = await w.product.ground.db.rows<{
      proposed: { judgements: { subject: string; score: number; kind: string; reason: string; kept: boolean }[] };
    }>("SELECT o.proposed FROM output o JOIN step_run r ON r.id = o.step_run WHERE r.brief = ? AND r.kind = 'judge'", [
      briefs[0]!,
    ]);
    const judged = row!.proposed.judgements;
    const dropped = judged.filter((one) => !one.kept);
    expect(dropped.map(({ kind }) => kind).sort()).toEqual([
      ...['advertisement', 'advertisement', 'advertisement'],
      ...['press release', 'press release', 'press release'],
      ...['stub', 'stub', 'stub', 'stub'],
    ]);
    for (const { reason } of dropped) expect(reason).toMatch(/words/);
    expect(judged.filter((one) => one.kept)).toHaveLength(19);
    expect([...standings.values()]).toEqual(['out']);
    const page = await postOf(briefs[0]!);
    // The near repeat was never offered; what was dropped left no trace, though the brief was called by one of them.
    expect(page).not.toContain('glazed-lids-again');
    for (const { subject } of dropped) expect(page).not.toContain(`>${subject}`);
    for (const slug of ['glazed-lids-summer', 'salt-prices-seven', 'apple-in-the-crock', 'cellars-warm-up'])
      expect(page).toContain(`/news/brine-gazette/${slug}"`);
  });
});
