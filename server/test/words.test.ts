import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type ArticleDocument, stepKinds as k, PARTS, type Step, type StepKindName } from '@grivo/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { z } from 'zod';
import type { Performer } from '../src/engine/performer.ts';
import { rememberPages } from '../src/nouns/links/pages.ts';
import { storePage } from '../src/nouns/materials/repository.ts';
import type { WritingRequest } from '../src/ports/adapters/writer.ts';
import type { Tools } from '../src/ports/tools.ts';
import { performers } from '../src/steps/registry.ts';
import { contextOf } from './ground/performing.ts';
import { type World, world } from './ground/world.ts';

/**
 * Every word of a step must change what comes of it: what the writer is asked, or the result. The table below names, for
 * every word of every kind, another value; a kind or a word that is missing from it fails, and so does one that changes
 * nothing.
 */
const PARAGRAPHS = [
  'Salt draws water out of cabbage. Weigh 20 grams of salt for a kilo of cabbage, for example on a kitchen scale.',
  'Keep the jar at 18 degrees for two weeks. Warm rooms make soft cabbage, so a cellar is better than a kitchen.',
  'A weight keeps the cabbage under the brine. Without one the top layer turns brown and must be thrown away.',
  'Taste it after ten days. When it is sour enough for you, move the jar to the fridge, where it keeps for months.',
  'Iodised salt works as well as any other in blind tests, though fine salt packs tighter in a spoon than coarse salt does. That is why recipes give grams and not spoons, and why a small scale is the best tool in the kitchen.',
];

const DESTINATION = 'd'.repeat(20);
let w: World;
let tools: Tools;
let folder: string;
let fields: Record<string, unknown>;
let asked: unknown[] = [];

/** A record is answered where one is asked for. */
function fitting(shape: z.ZodType, value: unknown): unknown {
  const read = shape.safeParse(value);
  return read.success ? read.data : { answer: { what: 'Twenty grams.', why: 'It is enough.' } };
}

/** Replies by what is asked for. */
function reply(name: string): unknown {
  const passages = [1, 2];
  switch (name) {
    case 'gist':
      return { gist: 'Salt draws water.', facts: [] };
    case 'aim':
      return { phrase: 'salt for kraut', terms: [] };
    case 'judgement':
      return { score: 4, kind: 'guide', reason: 'It gives figures.' };
    case 'notes':
      return { notes: [1, 2, 3].map((n) => ({ point: `Note ${n}`, passages })) };
    case 'outline':
      return { sections: [1, 2, 3, 4, 5, 6].map((n) => ({ heading: `Section ${n}`, says: 'Say it.', passages })) };
    case 'blocks':
      return {
        blocks: [{ kind: 'paragraph', text: 'Weigh 20 grams of salt for cabbage of a kilo.', items: [], passages }],
      };
    case 'questions':
      return { pairs: [{ question: 'How much?', answer: 'Twenty grams a kilo.', passages: [1] }] };
    case 'quotation':
      return { quote: 'Iodised salt works as well as any other in blind tests', passage: 5 };
    case 'points':
      return { points: ['⚖️ Weigh the salt.'] };
    case 'table':
      return {
        caption: '',
        head: ['Of', 'What'],
        rows: [
          { cells: ['Salt', 'weighed'], passages: [1] },
          { cells: ['Cabbage', 'shredded'], passages: [2] },
        ],
      };
    case 'titles':
      return {
        titles: ['Salt for cabbage, weighed and not guessed', 'Twenty grams', 'A kilo', 'Four'],
        description: 'How much.',
        keywords: ['salt'],
        hashtags: ['salt'],
      };
    default:
      return { answer: 'Twenty grams.' };
  }
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'grivo-words-'));
  w = await world('one', { keepFolder: folder });
  await w.product.ground.db.run(
    "INSERT INTO destination (id, kind, name, address) VALUES (?, 'mail', 'Kept', 'kept@example.com')",
    [DESTINATION],
  );
  const page = { address: 'https://salt.example/', title: 'Salt', language: 'en', paragraphs: PARAGRAPHS };
  const passages = await storePage(w.product.ground.db, page, 'a'.repeat(64));
  tools = {
    ...w.product.tools,
    writer: {
      write: async (_service: unknown, request: WritingRequest<unknown>) => {
        asked.push([request.instructions, request.material, z.toJSONSchema(request.shape)]);
        const texts = [...request.material.matchAll(/<<<text (\d+) \w+>>>\n([\s\S]*?)\n<<<end/g)];
        const value =
          request.name === 'translation' || request.name === 'put'
            ? { texts: texts.map(([, n, text]) => ({ n: Number(n), text })) }
            : /write the closing/.test(request.material)
              ? { blocks: [{ kind: 'paragraph', text: 'So weigh it, always.', items: [], passages: [1] }] }
              : reply(request.name);
        return { ok: true, value: { value: fitting(request.shape, value), micros: 0 } };
      },
    } as unknown as Tools['writer'],
    illustrator: {
      draw: async (_service: unknown, prompt: string) => {
        asked.push(prompt);
        return { ok: false, failure: { code: 'credit-used-up', service: 'x' } };
      },
    } as unknown as Tools['illustrator'],
    lookUp: {
      find: async (_service: unknown, question: unknown) => {
        asked.push(question);
        return { ok: false, failure: { code: 'nothing-found', subject: 'x' } };
      },
    } as unknown as Tools['lookUp'],
    transcriber: {
      hear: async (_service: unknown, { language }: { language: string | null }) => {
        asked.push(language);
        const segments = PARAGRAPHS.map((text, i) => ({ start: i * 8, end: i * 8 + 7, text, sure: 80 }));
        return { ok: true, value: { heard: { language: 'en', seconds: 40, segments, sure: 80 }, micros: 0 } };
      },
    } as unknown as Tools['transcriber'],
    mail: {
      timeLimitMs: 1_000,
      send: async (letter: unknown) => {
        asked.push(letter);
        return { kind: 'done', value: 'x' };
      },
    } as unknown as Tools['mail'],
  };
  fields = { subject: 'salt for cabbage', passages: passages.map(({ id }) => id), list: ['a', 'b'], n: 5 };
  const watch = (slug: string) => `${w.standIns.address}/videos/watch/${slug}`;
  fields = {
    ...fields,
    link: watch('salt-by-weight'),
    other: watch('how-full'),
    page: `${w.standIns.address}/pages/cellar-notes/salt-by-weight`,
    recording: { address: `${w.standIns.address}/podcasts/over-the-crock/what-bakers-know.wav`, title: 'Bakers' },
    row: { Name: 'A crock', Notes: PARAGRAPHS[0]! },
    chapters: [1, 2].map((n) => ({ title: `Chapter ${n}`, start: n, passages: [passages[n]!.id] })),
  };
  const made = await done({ ...k['lay out'].fresh('l0'), body: 'Weigh 20 grams of salt for a kilo of cabbage.' });
  fields = {
    ...fields,
    ...made,
    outline: [{ heading: 'How much', says: 'The figure.', passages: passages.map(({ id }) => id) }],
  };
});
afterAll(async () => {
  await w.close();
  rmSync(folder, { recursive: true, force: true });
});

async function perform(step: Step) {
  const all = performers(tools) as unknown as Record<string, Performer>;
  return all[step.kind]!(step, contextOf(step, fields));
}

async function done(step: Step): Promise<Record<string, unknown>> {
  const result = await perform(step);
  if (result.kind !== 'done') throw new Error(JSON.stringify(result));
  return { ...result.fields };
}

/** What came of a step, without ids that are new each time. */
async function effectOf(step: Step): Promise<string> {
  asked = [];
  rmSync(folder, { recursive: true, force: true });
  await w.product.ground.db.run("DELETE FROM intent WHERE kind = 'tell'");
  const { writes: _, ...result } = (await perform(step)) as { writes?: unknown };
  const files =
    step.kind === 'keep' && step.as !== 'a row'
      ? readdirSync(folder, { recursive: true, encoding: 'utf8' }).sort()
      : [];
  const revision = (result as { fields?: { article?: { revision?: string } } }).fields?.article?.revision;
  const [row] = revision
    ? await w.product.ground.db.rows('SELECT document FROM article_revision WHERE id = ?', [revision])
    : [];
  return JSON.stringify([asked, result, files, row])
    .replace(/"(revision|id)":"[a-z0-9]{20}"/g, '')
    .replace(
      /"until":\d+|"desk":\d+/g,
      (time) => `${time.slice(0, 8)}${Math.round(Number(/\d+/.exec(time)![0]) / 60_000)}`,
    );
}

type Words = Record<string, unknown>;
/** For each kind a step to begin with, and for each of its words another value; `with` says what else must be so for the word to speak. */
const TABLE: Partial<
  Record<StepKindName, { step?: Words; words: Record<string, unknown | { value: unknown; with: Words }> }>
> = {
  read: {
    words: {
      what: 'the row',
      address: '{{ other }}',
      from: '01:00',
      to: '02:00',
      most: { value: 50, with: { what: 'the page', address: '{{ page }}' } },
    },
  },
  hear: {
    words: {
      language: 'de',
      from: '00:10',
      to: '00:10',
      sure: 90,
      otherwise: { value: 'set it aside', with: { sure: 90 } },
    },
  },
  gist: { words: { words: 60, picks: ['names'], instruction: 'Only what is new.' } },
  aim: {
    words: {
      at: 'the subject',
      phrase: { value: 'salt for {{ subject }}', with: { at: 'a phrase of your own', phrase: 'salt' } },
      instruction: 'As a beginner would.',
    },
  },
  'look up': { words: { pages: 9, subject: 'about {{ subject }}', country: 'IE', since: '2024-01-01' } },
  judge: {
    words: {
      of: 'the article',
      qualities: 'humour',
      least: 3,
      otherwise: 'hold it for me',
      instruction: 'Be strict.',
    },
  },
  outline: {
    words: {
      sections: { from: 1, to: 2 },
      follow: 'following its chapters',
      instruction: 'Begin with the figure.',
      examples: ['Salt', 'Water'],
    },
  },
  notes: { words: { most: 1, instruction: 'Only figures.' } },
  write: {
    step: { words: 300 },
    words: { words: 150, person: 'first person plural', tone: 'dry', parts: [], instruction: 'No jokes.' },
  },
  'lay out': { step: { body: '**Salt**\n\nWater' }, words: { body: 'Other', title: 'Another', reads: 'plain text' } },
  title: { words: { most: 20, choices: 1, instruction: 'No questions.', examples: ['How much?'] } },
  illustrate: { words: { manner: 'ink', instruction: 'No hands.' } },
  vary: {
    words: { variants: ['{{ subject }}, again'], for: 'the opening', as: { value: 'other', with: { for: 'a field' } } },
  },
  translate: { words: { into: 'French', instruction: 'Formal.' } },
  put: {
    step: { likeness: null },
    words: {
      of: 'Salt for {{ subject }}.',
      as: { value: 'other', with: { of: 'Salt for {{ subject }}.' } },
      degree: 'lightly',
      keep: ['salt'],
      likeness: { value: 30, with: {} },
      otherwise: { value: 'set it aside', with: { likeness: 30 } },
      instruction: 'No jokes.',
    },
  },
  answer: {
    step: { parts: ['what'] },
    words: {
      instruction: 'Why?',
      examples: ['It is so. It was so.'],
      form: 'a record',
      parts: { value: ['what', 'why'], with: { form: 'a record' } },
      as: 'other',
      reading: 'nothing besides',
    },
  },
  'work out': { words: { as: 'other', expression: '1 + 1' } },
  fetch: {
    step: { address: 'not an address' },
    words: {
      address: 'neither',
      what: { value: 'its data', with: {} },
      part: { value: 'a', with: { what: 'its data' } },
      as: { value: 'other', with: {} },
    },
  },
  check: {
    step: { again: 0, words: { from: 1, to: 90 } },
    words: {
      words: { from: 500, to: 900 },
      avoid: ['salt'],
      must: ['vinegar'],
      mustBe: { value: 'any', with: { must: ['salt', 'vinegar'] } },
      likeness: 5,
      figures: { value: true, with: {} },
      again: { value: 1, with: { words: { from: 500, to: 900 } } },
      otherwise: { value: 'set it aside', with: { words: { from: 500, to: 900 } } },
    },
  },
  when: {
    step: {
      tests: [
        { field: 'n', is: 'above', value: '3' },
        { field: 'n', is: 'above', value: '9' },
      ],
    },
    words: { tests: [{ field: 'n', is: 'above', value: '3' }], join: 'any' },
  },
  'for each': { words: { values: ['German'], from: { value: 'list', with: { values: [] } } } },
  wait: { words: { minutes: 90 } },
  hold: { words: { for: 'Ines', note: 'Look at the figure' } },
  keep: {
    words: { as: 'HTML', folder: 'elsewhere', sheet: { value: 'neither', with: { as: 'a row', sheet: 'no address' } } },
  },
  tell: {
    words: { by: 'message', to: 'other@example.com', subject: 'Other', text: 'Other', destination: DESTINATION },
  },
  use: { step: { routine: 'r1' }, words: { routine: 'r2', given: { topic: 'pepper' } } },
};

/** Words that are shown to change something by a journey, a property test or the planner's tests instead. */
const ELSEWHERE: Record<string, readonly string[]> = {
  'look up': ['least', 'otherwise', 'ours'],
  read: ['columns'],
  write: ['unsourced'],
  take: ['sources', 'most', 'gather', 'everyMinutes', 'atOnce', 'apartMinutes', 'mostMinutes'],
  publish: [
    'blog',
    'by',
    'named',
    'when',
    'as',
    'shape',
    'categories',
    'tags',
    'fit',
    'newOnes',
    'author',
    'authors',
    'replies',
    'properties',
  ],
  link: ['own', 'blog', 'outside', 'rules'],
  keep: ['cells'],
  illustrate: ['lead', 'otherwise', 'card', 'place', 'headings', 'most', 'size', 'named', 'second', 'alternative'],
  tell: ['attach'],
  chart: ['as', 'from', 'field', 'columns', 'most'],
  videos: ['most', 'where', 'headings', 'minutes', 'years', 'only', 'never', 'led'],
  meanwhile: ['name', 'ifStopped', 'steps'],
  'for each': ['as', 'name', 'steps'],
  when: ['holds', 'otherwise'],
  fetch: ['what', 'part', 'as'],
  check: ['figures', 'house', 'own', 'alone'],
};

describe('every word of a step changes what comes of it', () => {
  for (const kind of Object.keys(k) as StepKindName[]) {
    const base = { ...k[kind].fresh('s1'), ...TABLE[kind]?.step } as Step;
    for (const word of Object.keys(k[kind].fresh('s1'))) {
      if (['id', 'kind', 'off', 'hold'].includes(word)) continue;
      if (ELSEWHERE[kind]?.includes(word)) continue;
      test(`${kind}: ${word}`, async () => {
        const entry = TABLE[kind]?.words[word];
        expect(entry, `no other value for ‘${word}’ of ‘${kind}’`).toBeDefined();
        const own =
          entry !== null && typeof entry === 'object' && Object.hasOwn(entry, 'with')
            ? (entry as { value: unknown; with: Words })
            : { value: entry, with: {} };
        const before = { ...base, ...own.with } as Step;
        expect(await effectOf({ ...before, [word]: own.value } as Step)).not.toBe(await effectOf(before));
        // The same step again comes to the same, so that the difference is the word's.
        expect(await effectOf(before)).toBe(await effectOf(before));
      });
    }
  }
});

describe('every part of an article is there where it is asked for, and only there', () => {
  const write = { ...k.write.fresh('s1'), words: 300 };
  const publish: Step = k.publish.fresh('p1');
  const typesWith = async (parts: (typeof PARTS)[number][]) => {
    const step = { ...write, parts } as Step;
    const source = {
      address: `${w.standIns.address}/videos/watch/salt-by-weight`,
      title: 'Salt by weight',
      by: 'Bench',
      video: true,
    };
    const all = performers(tools) as unknown as Record<string, Performer>;
    const given = { ...fields, source };
    const result = (await all['write']!(
      step,
      contextOf(step, given, undefined, [{ ...publish, blog: w.blog } as Step]),
    )) as unknown as { fields: { article: { revision: string } } };
    const [row] = await w.product.ground.db.rows<{ document: ArticleDocument }>(
      'SELECT document FROM article_revision WHERE id = ?',
      [result.fields.article.revision],
    );
    return row!.document.body;
  };
  const THERE: Partial<Record<(typeof PARTS)[number], (body: ArticleDocument['body']) => boolean>> = {
    contents: (body) => body.some(({ type }) => type === 'contents'),
    'key points': (body) => body.some(({ type }) => type === 'key points'),
    bold: (body) => JSON.stringify(body).includes('"strong"'),
    emoji: (body) => /⚖️/u.test(JSON.stringify(body)),
    table: (body) =>
      body.some((block) => block.type === 'table' && block.rows.length > 1 && block.evidence !== undefined),
    quotation: (body) =>
      body.some(
        (block) => block.type === 'quote' && block.credit !== undefined && block.evidence?.[0]?.quote !== undefined,
      ),
    'questions and answers': (body) =>
      body.some((block) => block.type === 'question and answer' && block.evidence?.length === 1),
    closing: (body) => body.at(-1)?.type === 'closing' || body.some(({ type }) => type === 'closing'),
    fold: (body) => body.some(({ type }) => type === 'fold'),
    'related articles': (body) => body.some(({ type }) => type === 'related articles'),
    'source credit': (body) => body.some(({ type }) => type === 'standing text'),
    'source embed': (body) => body.some(({ type }) => type === 'video'),
  };
  test('the table has every part that is seen in the article; lists are said to the writer', () => {
    expect([...Object.keys(THERE), 'lists'].sort()).toEqual([...PARTS].sort());
  });
  for (const [part, is] of Object.entries(THERE) as [
    (typeof PARTS)[number],
    (body: ArticleDocument['body']) => boolean,
  ][])
    test(part, async () => {
      await rememberPages(w.product.ground.db, w.blog, [
        {
          address: 'https://own.example/salt',
          title: 'Grams of salt for a kilo',
          article: null,
          language: null,
          terms: null,
        },
      ]);
      // Emoji stand where there are items for them.
      const others: (typeof PARTS)[number][] = part === 'emoji' ? ['key points'] : [];
      expect([is(await typesWith(others)), is(await typesWith([...others, part]))]).toEqual([false, true]);
    });
});
