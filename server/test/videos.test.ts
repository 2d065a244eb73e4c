import type { ArticleWhole } from '@grivo/contract';
import { type Block, stepKinds as k, type ProcedureDocument } from '@grivo/core';
import { afterEach, describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';

let desk: Desk;
atTheDesk(
  (open) => {
    desk = open;
  },
  { upkeep: [] },
);
afterEach(() => desk.w.standIns.calm());

const watch = (slug: string) => `${desk.w.standIns.address}/videos/watch/${slug}`;
const picture = (slug: string) => `![A jar](${watch(slug)}/still.png)`;
const body = () => `Salt is given by weight, never by the spoon, and a scale shows why.

## Spoons

${picture('four-jars')}

A spoon of salt may weigh twice what another does.

## Cabbage

${picture('glass-weights')}

Sauerkraut goes soft in a warm room.

## Lids

${picture('how-full')}

Lids let gas out and no air in.`;

let n = 0;
/** The body of an article that videos were placed in. */
async function placed(
  change: Partial<ReturnType<typeof k.videos.fresh>>,
  { subject = 'salt by weight', language = 'en' } = {},
) {
  n++;
  const { ask, w } = desk;
  const source = await ask<{ id: string }>('POST', '/sources', { name: `Typed ${n}`, settings: { kind: 'requests' } });
  await ask('POST', `/sources/${source.body.id}/requests`, { subject, notes: 'Weigh it.' });
  const document = {
    grivo: 1,
    language,
    steps: [
      { ...k.take.fresh('s1'), sources: [source.body.id], most: null },
      { ...k['lay out'].fresh('s2'), body: body(), reads: 'Markdown' },
      { ...k.videos.fresh('s3'), ...change },
    ],
  } as ProcedureDocument;
  const made = await ask<{ id: string }>('POST', '/pipelines', { name: `Videos ${n}`, document });
  const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${made.body.id}/take`, {})).body;
  await w.settled(briefs, ['out']);
  const [row] = await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', briefs);
  return (await ask<ArticleWhole>('GET', `/articles/${row!.id}`)).body.document.body;
}
const shape = (blocks: readonly Block[]) =>
  blocks.map((block) => (block.type === 'heading' ? block.text : block.type === 'video' ? block.title : block.type));
const videosIn = (blocks: readonly Block[]) =>
  blocks.filter((block) => block.type === 'video').map(({ title }) => title);

describe('videos by subject', () => {
  test('stand where they fit, with a sentence that leads to each, as their pages describe them', async () => {
    const blocks = await placed({ most: 1 });
    expect(shape(blocks).slice(0, 3)).toEqual(['paragraph', 'standing text', 'Salt by weight, never by spoon']);
    expect(blocks[1]).toMatchObject({
      content: [
        {
          text: expect.stringMatching(
            /^To watch: “Salt by weight, never by spoon” by Crockhaven Bench \(\d+ minutes\)\.$/,
          ),
        },
      ],
    });
    expect(blocks[2]).toMatchObject({
      address: watch('salt-by-weight'),
      player: `${watch('salt-by-weight')}/player`,
      still: `${watch('salt-by-weight')}/still.png`,
      // Kept by ours, so that readers ask nothing of its host before they open it.
      picture: { file: expect.stringMatching(/^[0-9a-f]{64}$/), width: expect.any(Number) },
    });
    expect(shape(await placed({ most: 1, led: false }))).not.toContain('standing text');
  });

  test('stand at the headings that are named, the second and the last, and pictures there give way', async () => {
    const blocks = await placed(
      { most: 2, where: 'at headings', headings: '2, last', led: false },
      { subject: 'sauerkraut' },
    );
    const at = shape(blocks);
    // One fits, and stands at the first heading that is named.
    expect(at.filter((one) => one === 'figure')).toHaveLength(2);
    expect(at[at.indexOf('Spoons') + 1]).toBe('figure');
    expect(at[at.indexOf('Cabbage') + 1]).toBe('Why your sauerkraut went soft');
    expect(videosIn(blocks)).toHaveLength(1);
    const two = await placed(
      { most: 2, where: 'at headings', headings: '2, last', led: false },
      { subject: 'cabbage jars' },
    );
    expect(shape(two).filter((one) => one === 'figure')).toHaveLength(1);
    expect(videosIn(two)).toHaveLength(2);
    expect(shape(two)[shape(two).indexOf('Lids') + 1]).toBe(videosIn(two)[1]);
  });

  test('are only of the channels, the length and the age asked for, in the language of the article', async () => {
    expect(videosIn(await placed({ only: ['Crockhaven bench'] }))).toHaveLength(1);
    expect(videosIn(await placed({ only: ['Another channel'] }))).toEqual([]);
    expect(videosIn(await placed({ never: ['Crockhaven Bench'] }))).toEqual([]);
    expect(videosIn(await placed({ minutes: 1 }))).toEqual([]);
    expect(videosIn(await placed({ minutes: 60 }))).toHaveLength(1);
    expect(videosIn(await placed({ years: 50 }))).toHaveLength(1);
    expect(videosIn(await placed({}, { subject: 'Sauerkraut im Keller', language: 'de' }))).toEqual([
      'Sauerkraut im Keller',
    ]);
    expect(videosIn(await placed({}, { subject: 'Sauerkraut im Keller', language: 'en' }))).not.toContain(
      'Sauerkraut im Keller',
    );
  });

  test('on another subject there are none, and the article stays as it was', async () => {
    const without = shape(await placed({}, { subject: 'fiddle strings' }));
    expect(without.filter((one) => one === 'figure')).toHaveLength(3);
    expect(without).not.toContain('standing text');
  });

  test('never stand in an article twice', async () => {
    const blocks = await placed({ most: 5 }, { subject: 'cabbage jars salt' });
    expect(new Set(videosIn(blocks)).size).toBe(videosIn(blocks).length);
  });
});
