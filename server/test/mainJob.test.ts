import { type ArticleDocument, doubtsOf, isSure, readSources, sentencesOf } from '@grivo/core';
import { afterEach, describe, expect, test } from 'vitest';
import { openIncidents, releaseIncident } from '../src/engine/incidents.ts';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { changeSecret } from '../src/ports/services/repository.ts';
import { type World, world } from './ground/world.ts';

let w: World;
afterEach(() => w.close());

async function articlesOf(
  briefs: readonly string[],
): Promise<{ id: string; address: string; document: ArticleDocument }[]> {
  const rows = await w.product.ground.db.rows<{ id: string; current: string; address: string }>(
    'SELECT a.id, a.current, p.address FROM article a JOIN publication p ON p.article = a.id WHERE a.brief IN (?)',
    [briefs],
  );
  return Promise.all(
    rows.map(async (row) => ({
      id: row.id,
      address: row.address,
      document: await readRevision(w.product.ground.db, row.current),
    })),
  );
}

describe.each(['one', 'two'] as const)('with model service %s', (which) => {
  test.each([
    ['a subject of the demonstration', ['how much salt for sauerkraut', 'kahm yeast or mould']],
    ['a subject it does not know', ['how to keep mosquitoes out of a rain barrel', 'rain barrel in winter']],
  ])('keywords become illustrated, linked articles on the blog: %s', async (_name, keywords) => {
    w = await world(which);
    await w.product.work('both');
    const briefs = await w.take(await w.pipeline(keywords));
    await w.settled(briefs, ['out']);
    const articles = await articlesOf(briefs);
    expect(articles).toHaveLength(2);
    const passages = (await w.product.ground.db.rows<{ text: string }>('SELECT text FROM passage')).map(
      (row) => row.text,
    );
    for (const { address, document } of articles) {
      const page = await (await fetch(address)).text();
      expect(page).toContain(`<h1 class="p-name">${document.title.replace(/&/g, '&amp;')}</h1>`);
      expect(document.body.some((block) => block.type === 'heading')).toBe(true);
      expect(page).toMatch(/<figure class="lead"><img src="[^"]+media[^"]+" alt="[^"]+"/);
      const said = document.body.flatMap((block) =>
        block.type === 'paragraph'
          ? sentencesOf(block.content.map((part) => part.text).join(''))
          : block.type === 'list'
            ? block.items.map((item) => item.map((part) => part.text).join(''))
            : [],
      );
      expect(new Set(said.map((s) => s.toLowerCase())).size).toBe(said.length);
      expect(doubtsOf(said.join(' '), readSources(passages)).filter(isSure)).toEqual([]);
      for (const block of document.body)
        if (block.type === 'paragraph' && block.content.map((p) => p.text).join('').length > 60)
          expect(block.evidence?.length, block.id).toBeGreaterThan(0);
    }
    const published = w.standIns
      .received()
      .posts('journal')
      .filter((post) => articles.some(({ address }) => address === post.address));
    expect(published.map((post) => post.status)).toEqual(['published', 'published']);
  });
});

test('a refused key stops the brief with its mend; a new key lets it go on without paying again', async () => {
  w = await world();
  await w.product.work('both');
  w.standIns.trouble('illustrator', { how: 'key refused' });
  const briefs = await w.take(await w.pipeline(['how much salt for sauerkraut']));
  await w.settled(briefs, ['stopped']);
  const [incident] = await openIncidents(w.product.ground.db);
  expect(incident).toMatchObject({ cause: 'key-refused', briefs: 1 });
  const paid = w.standIns.received().calls.filter((call) => call.what === 'text').length;
  await changeSecret(w.product.ground, w.product.secrets, incident!.service, ` ${w.standIns.keys.one}\n`);
  w.product.bell.ring({ kind: 'settings' });
  expect(await releaseIncident(w.product.ground, incident!.id)).toBe(1);
  await w.settled(briefs, ['out']);
  expect(w.standIns.received().calls.filter((call) => call.what === 'text')).toHaveLength(paid);
});

test.each(['cut after', 'hang after'] as const)(
  'a blog that acts and then does not say so (%s) still gets each article once',
  async (how) => {
    w = await world();
    await w.product.work('both');
    w.standIns.trouble('blog', { how }, 1, '/micropub');
    w.standIns.trouble('blog', { how }, 1, '/micropub');
    const briefs = await w.take(await w.pipeline(['how much salt for sauerkraut']));
    await w.settled(briefs, ['out']);
    const creates = w.standIns.received().acts.filter((act) => act.act === 'create');
    expect(creates).toHaveLength(1);
    expect(
      w.standIns
        .received()
        .posts('journal')
        .filter((post) => post.status === 'draft'),
    ).toEqual([]);
  },
);

test('articles wait for their slots on the desk clock and go out by themselves, each at its own', async () => {
  w = await world();
  await w.product.work('both');
  await w.product.ground.desk.set(Date.parse('2026-03-28T07:00:00Z'), 0);
  const briefs = await w.take(
    await w.pipeline(['how much salt for sauerkraut', 'crisp fermented cucumbers'], (steps) =>
      steps.map((step) => (step.kind === 'publish' ? { ...step, when: 'next free slot' as const } : step)),
    ),
  );
  await w.settled(briefs, ['ready']);
  await w.product.ground.desk.set(Date.parse('2026-03-28T08:00:30Z'), 0);
  w.product.bell.ring({ kind: 'settings' });
  const count = async () => (await w.product.ground.db.rows("SELECT 1 FROM brief WHERE standing = 'out'")).length;
  await expect.poll(count, { timeout: 15_000 }).toBe(1);
  await w.product.ground.desk.set(Date.parse('2026-03-28T13:00:30Z'), 0);
  w.product.bell.ring({ kind: 'settings' });
  await w.settled(briefs, ['out']);
  const out = await w.product.ground.db.rows<{ due_desk: number }>('SELECT due_desk FROM placement ORDER BY due_desk');
  expect(out.map((row) => new Date(Number(row.due_desk)).toISOString())).toEqual([
    '2026-03-28T08:00:00.000Z',
    '2026-03-28T13:00:00.000Z',
  ]);
});
