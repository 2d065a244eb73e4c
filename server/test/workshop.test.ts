import type { BriefWhole, FiguresLookedUp, Item, KeywordSettings, Looked, WidenedPhrases } from '@grivo/contract';
import { type Closeness, groupPhrases } from '@grivo/core';
import { SEARCHES } from '@grivo/standins';
import { describe, expect, test } from 'vitest';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { itemsOf, sourceOf, wholeSource, taker, take, subjectsOf } = intakeAt(() => desk);
const ask: Desk['ask'] = (...words) => desk.ask(...words);

async function listOf(phrases: readonly string[], settings: Partial<KeywordSettings> = {}): Promise<string> {
  const source = await sourceOf({ kind: 'keywords', ...settings });
  if (phrases.length > 0) await ask('POST', `/sources/${source}/keywords`, { paste: phrases.join('\n') });
  return source;
}

const lookUp = async (source: string) => (await ask<FiguresLookedUp>('POST', `/sources/${source}/figures`)).body;

/** How well groups agree with known ones, by pairs: the share of pairs that belong together, and of those that were found. */
function agreement(groups: readonly (readonly string[])[], known: readonly (readonly string[])[]) {
  const home = new Map(known.flatMap((group, i) => group.map((phrase) => [phrase, i])));
  const pairs = (n: number) => (n * (n - 1)) / 2;
  const there = known.reduce((sum, group) => sum + pairs(group.length), 0);
  let right = 0;
  let made = 0;
  for (const group of groups) {
    made += pairs(group.length);
    for (const [i, one] of group.entries())
      right += group.slice(i + 1).filter((other) => home.get(one) === home.get(other)).length;
  }
  return { precision: right / made, recall: right / there };
}

async function groupedAs(subject: string, closeness: Closeness, withResults: boolean) {
  const source = await listOf(SEARCHES[subject]!.flat());
  await lookUp(source);
  const { items, addresses } = (await ask<{ items: Item[]; addresses: string[] }>('GET', `/sources/${source}/items`))
    .body;
  const groups = groupPhrases(
    items.map((item) => ({
      phrase: item.subject,
      results: withResults ? item.results.map((at) => addresses[at]!) : [],
    })),
    { closeness },
  );
  const held = new Set(items.map((item) => item.subject));
  return agreement(
    groups.map((group) => group.map((i) => items[i]!.subject)),
    SEARCHES[subject]!.map((group) => group.filter((phrase) => held.has(phrase))),
  );
}

describe('groups', () => {
  test('three hundred phrases with known groups come out as them, by words and by what searches give', async () => {
    expect(SEARCHES['fermenting']!.flat()).toHaveLength(300);
    const { precision, recall } = await groupedAs('fermenting', 'closely', true);
    expect(precision).toBeGreaterThan(0.85);
    expect(recall).toBeGreaterThan(0.85);
    // Words alone say less: results are what joins phrases without a word in common.
    const byWords = await groupedAs('fermenting', 'closely', false);
    expect(byWords.recall).toBeLessThan(recall);
  });

  test('of subjects it was not fitted to most of what it joins belongs together', async () => {
    for (const subject of ['rainwater', 'knives']) {
      const { precision, recall } = await groupedAs(subject, 'closely', true);
      expect(precision).toBeGreaterThan(0.6);
      expect(recall).toBeGreaterThan(0.5);
    }
  });

  test('a group taken by hand is one brief, called by its first, that asks for all its phrases', async () => {
    const source = await listOf(['kahm yeast', 'white film on sauerkraut', 'kahm yeast or mould', 'preserved lemons']);
    const items = await itemsOf(source);
    const pipeline = await taker(source);
    const groups = [[items[2]!.id, items[0]!.id, items[1]!.id], [items[3]!.id], [items[0]!.id]];
    const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, { groups })).body;
    expect(await subjectsOf(briefs)).toEqual(['kahm yeast or mould', 'preserved lemons']);
    const whole = (await ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body;
    expect(whole.subject).toBe('kahm yeast or mould');
    const taken = (await itemsOf(source)).map((item) => item.taken.map(({ brief }) => brief));
    expect(taken).toEqual([[briefs[0]], [briefs[0]], [briefs[0]], [briefs[1]]]);
    // Once more is nothing more, in whatever groups.
    const again = await ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, {
      groups: [items.map(({ id }) => id)],
    });
    expect(again.body.briefs).toEqual([]);
  });

  test('a pipeline takes a group as one; a phrase that joins a group with an article makes no second one', async () => {
    const { w } = desk;
    const source = await listOf(
      [
        'how much salt for sauerkraut',
        'preserved lemons',
        'sauerkraut salt ratio',
        'salt quantity sauerkraut',
        'hollow pickles',
        'pickles hollow inside',
      ],
      { group: 'closely' },
    );
    const pipeline = await taker(source, 2);
    expect(await subjectsOf(await take(pipeline))).toEqual(['how much salt for sauerkraut', 'preserved lemons']);
    expect(await subjectsOf(await take(pipeline))).toEqual([expect.stringContaining('hollow')]);
    expect(await take(pipeline)).toEqual([]);
    await ask('POST', `/sources/${source}/keywords`, { paste: 'grams of salt for sauerkraut\nblue garlic' });
    expect(await subjectsOf(await take(pipeline))).toEqual(['blue garlic']);
    expect(await take(pipeline)).toEqual([]);
    const calls = w.standIns.received().calls.length;
    expect(calls).toBe(0);
  });

  test('what the phrases of a group are is told to the writer', async () => {
    const { w } = desk;
    const pipeline = await w.pipeline(['kahm yeast', 'kahm yeast or mould']);
    const [{ id: source } = { id: '' }] = await w.product.ground.db.rows<{ id: string }>(
      'SELECT i.source AS id FROM item i ORDER BY i.id DESC LIMIT 1',
    );
    const items = await itemsOf(source);
    const before = w.standIns.received().troubles;
    w.standIns.trouble(
      'writer',
      { how: 'key refused' },
      1,
      undefined,
      'kahm yeast\\nkahm yeast or mould\\n<<<end searched for',
    );
    const { briefs } = (
      await ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, { groups: [items.map(({ id }) => id)] })
    ).body;
    await w.settled(briefs, ['out', 'stopped', 'held', 'set aside']);
    // Only a call that holds the words met it.
    expect(w.standIns.received().troubles).toBe(before + 1);
  });
});

describe('figures', () => {
  test('are looked up in parts, kept with the phrases, and stay when a later look knows nothing', async () => {
    const phrases = SEARCHES['fermenting']!.flat().slice(0, 230);
    const source = await listOf([...phrases, 'zzyzx qqfoo']);
    const looked = await lookUp(source);
    expect(looked).toMatchObject({ left: 0, trouble: null });
    expect(looked.known + looked.unknown).toBe((await itemsOf(source)).length);
    const items = await itemsOf(source);
    expect(items.filter(({ volume }) => volume !== null).length).toBeGreaterThan(150);
    expect(items.every(({ difficulty }) => difficulty === null || (difficulty > 0 && difficulty <= 100))).toBe(true);
    expect(items.find(({ subject }) => subject === 'hollow pickles')?.results.length).toBeGreaterThan(0);
  });

  test('a service that fails in the middle leaves what was learnt, and says how much is left', async () => {
    const { w } = desk;
    const source = await listOf(SEARCHES['fermenting']!.flat());
    const last = (await itemsOf(source)).at(-1)!.subject;
    w.standIns.trouble('keywords', { how: 'broken' }, 1, undefined, last);
    const looked = await lookUp(source);
    expect(looked.known).toBeGreaterThan(150);
    expect(looked.left).toBeGreaterThan(50);
    expect(looked.trouble).toContain('The figures');
    expect(looked.mend).toBe('Look them up again in a while; what was learnt stays.');
    w.standIns.trouble('keywords', { how: 'malformed' });
    expect(await lookUp(source)).toMatchObject({ known: 0, trouble: expect.stringContaining('The figures') });
    expect((await itemsOf(source)).filter(({ volume }) => volume !== null).length).toBeGreaterThan(100);
  });

  test('a formula of one’s own is kept and counts in what is written; a wrong one is refused with its place', async () => {
    const source = await listOf([]);
    await ask('POST', `/sources/${source}/keywords`, {
      phrases: [{ phrase: 'kahm yeast', volume: 900, difficulty: 40 }],
    });
    const change = async (opportunity: string) => {
      const { rev, settings } = await wholeSource(source);
      return ask<{ detail: string }>(
        'PUT',
        `/sources/${source}`,
        { settings: { ...settings, opportunity } },
        {
          'if-match': `"${rev}"`,
        },
      );
    };
    expect((await change('volume / 10')).status).toBe(200);
    const text = await (
      await fetch(`${desk.http.address}/api/sources/${source}/written-back`, { headers: { cookie: desk.cookie } })
    ).text();
    expect(text).toContain('kahm yeast,900,40,90');
    const refused = await change('volume * traffic');
    expect(refused.status).toBe(422);
    expect(JSON.stringify(refused.body)).toContain('there is no ‘traffic’');
  });
});

describe('widening', () => {
  const widen = async (source: string, phrase: string) =>
    (await ask<WidenedPhrases>('POST', `/sources/${source}/widen`, { phrase })).body;

  test('brings phrases and questions around a phrase that the list does not hold, with their figures', async () => {
    const source = await listOf(['kahm yeast', 'is kahm yeast safe']);
    const { phrases, from, trouble } = await widen(source, 'kahm yeast');
    expect({ from, trouble }).toEqual({ from: 'the service', trouble: null });
    const found = phrases.map(({ phrase }) => phrase);
    expect(found).toContain('how to get rid of kahm yeast');
    expect(found).not.toContain('is kahm yeast safe');
    // A near repeat would be dropped when it is added.
    expect(found).not.toContain('what is kahm yeast');
    expect(found).not.toContain('kahm yeast');
    expect(phrases.find(({ phrase }) => phrase.startsWith('how to'))?.question).toBe(true);
    expect(phrases.find(({ phrase }) => phrase === 'kahm yeast smell')).toMatchObject({ question: false });
    expect(phrases.some(({ volume }) => volume !== null)).toBe(true);
    expect(await itemsOf(source)).toHaveLength(2);
  });

  test('goes by patterns where the service knows nothing or cannot be asked, and says so', async () => {
    const source = await listOf([]);
    expect(await widen(source, 'zzyzx')).toMatchObject({
      from: 'patterns',
      trouble: null,
      phrases: expect.arrayContaining([{ phrase: 'what is zzyzx', volume: null, difficulty: null, question: true }]),
    });
    desk.w.standIns.trouble('keywords', { how: 'broken' });
    const troubled = await widen(source, 'kahm yeast');
    expect(troubled.from).toBe('patterns');
    expect(troubled.trouble).toContain('The figures');
    const sheet = await sourceOf({ kind: 'sheet' });
    expect((await ask('POST', `/sources/${sheet}/widen`, { phrase: 'kahm' })).status).toBe(422);
  });
});

describe('a watched site', () => {
  test('brings the phrases it is found for, each once, and says what was new', async () => {
    const source = await listOf(['airlock lid for fermenting'], { site: 'https://the-sour-shelf.example/' });
    const look = async () => (await ask<Looked>('POST', `/sources/${source}/look`)).body;
    const first = await look();
    expect(first).toMatchObject({ trouble: null });
    expect(first.fresh).toBeGreaterThan(20);
    expect(await itemsOf(source)).toHaveLength(first.fresh + 1);
    expect(await look()).toMatchObject({ fresh: 0, changed: 0, trouble: null });
    desk.w.standIns.trouble('keywords', { how: 'broken' });
    expect((await look()).trouble).toContain('The figures');
    expect(await itemsOf(source)).toHaveLength(first.fresh + 1);
  });
});
