import type { BriefWhole, Item } from '@grivo/contract';
import { articleText, articleWords, type ProcedureDocument, sentencesOf, stepKinds } from '@grivo/core';
import { expect, test } from 'vitest';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';

let w: Desk['w'];
let ask: Desk['ask'];
atTheDesk((desk) => ({ w, ask } = desk));

const k = stepKinds;
const SLUGS = [
  'soft-sauerkraut',
  'garlic-blue',
  'four-jars',
  'how-full',
  'salt-by-weight',
  'when-to-skim',
  'glass-weights',
];

interface Written {
  subject: string;
  carries: number;
  words: number;
  /** What the step says when it was asked for more than there is. */
  carriedWords: number | undefined;
  repeated: number;
}

/** Articles from the videos, asked for a share of what each is said to carry, or for so many words. */
async function written(source: string, words: number): Promise<Written[]> {
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null },
      k.read.fresh('s2'),
      { ...k.outline.fresh('s3'), sections: { from: 3, to: 7 }, follow: 'following its chapters' },
      { ...k.write.fresh('s4'), words, parts: [] },
    ],
  };
  const { id } = (await ask<{ id: string }>('POST', '/pipelines', { name: `${words} words`, document })).body;
  const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, {})).body;
  await w.settled(briefs, ['out']);
  return Promise.all(
    briefs.map(async (brief) => {
      const whole = (await ask<BriefWhole>('GET', `/briefs/${brief}`)).body;
      const gave = (kind: string) => whole.runs.find((run) => run.kind === kind)!.gave as Record<string, unknown>;
      const { revision } = gave('write')['article'] as { revision: string };
      const article = await readRevision(w.product.ground.db, revision);
      const sentences = sentencesOf(articleText(article)).map((one) => one.toLowerCase());
      return {
        subject: whole.subject,
        carries: Number(gave('read')['carriesWords']),
        words: articleWords(article),
        carriedWords: gave('write')['carriedWords'] as number | undefined,
        repeated: sentences.length - new Set(sentences).size,
      };
    }),
  );
}

test('what a video is said to carry is about what can be written from it', async () => {
  const addresses = SLUGS.map((slug) => `${w.standIns.address}/videos/watch/${slug}`);
  const { id: source } = (
    await ask<{ id: string }>('POST', '/sources', { name: 'Videos', settings: { kind: 'videos', addresses } })
  ).body;
  await ask('POST', `/sources/${source}/look`);
  expect((await ask<{ items: Item[] }>('GET', `/sources/${source}/items`)).body.items).toHaveLength(SLUGS.length);
  const within = await written(source, 300);
  const beyond = await written(source, 2_000);
  for (const one of within) {
    // Asked for less than it carries it reaches the length, says nothing twice, and has nothing to remark. The writer here
    // ends a section from 92 of 100 of its words on, and how long its words are changes with who was written before.
    expect(one.carriedWords, one.subject).toBeUndefined();
    expect(one.words, one.subject).toBeGreaterThanOrEqual(300 * 0.92);
    expect(one.repeated, one.subject).toBe(0);
  }
  for (const one of beyond) {
    // Asked for more it says how far the material went, and is written about so long, with nothing twice.
    expect(one.carriedWords, one.subject).toBe(one.carries);
    // Said in other words it may be said in fewer.
    expect(one.words / one.carries, one.subject).toBeGreaterThan(0.6);
    expect(one.words / one.carries, one.subject).toBeLessThan(1.3);
    expect(one.repeated, one.subject).toBe(0);
  }
});
