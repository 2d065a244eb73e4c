import type {
  Blog,
  Hangs,
  HouseStyle,
  HouseStyleWhole,
  ReplacementsTried,
  StyleComparison,
  StyleSample,
  StyleVersion,
} from '@grivo/contract';
import { HouseStyleDocument, stepKinds as k, newCard, PLAIN_STYLE, type Step } from '@grivo/core';
import { beforeAll, describe, expect, test } from 'vitest';
import type { Performer } from '../src/engine/performer.ts';
import { storePage } from '../src/nouns/materials/repository.ts';
import type { WritingRequest } from '../src/ports/adapters/writer.ts';
import type { Tools } from '../src/ports/tools.ts';
import { performers } from '../src/steps/registry.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import type { Ask } from './ground/http.ts';
import { contextOf } from './ground/performing.ts';
import { LENIENT } from './ground/world.ts';

let w: Desk['w'];
let ask: Ask;
let http: Desk['http'];
let owner: Ask;
let proofreader: Ask;
atTheDesk((desk) => ({ w, ask, http } = desk));
beforeAll(async () => {
  owner = await http.as('owner');
  proofreader = await http.as('proofreader');
});

/** Texts of somebody who keeps bees, short and to the point. */
const NOTES = [
  'Light the smoker first. Puff twice at the door, wait two minutes, then lift the lid. We use dry grass, never paper. If they hum, stop. If they roar, close the hive and come back on Thursday. Ours once chased a postman down to the gate, and we still bring him honey for it.',
  'Count the frames. Six full ones are enough for winter, eight are better. Weigh the hive with a luggage scale: 18 kilos is right, 14 is hungry. We feed until the first frost and no longer. Write the weight on the lid with a pencil, because you will not remember it in March.',
  'Look for the queen on a warm noon. Hold the frame over the hive, so that she falls back in and not into the grass. We mark ours with a dot of white. If you cannot find her, look for eggs: they stand up on the first day and lie down on the third. That is proof enough.',
  'Scrape the floor in April. Use a blunt knife and a bucket, and burn what is in the bucket. Wax moths like dirt. We lost a hive to them in our second year, by putting it off for a week. Put a clean floor under it and set the old one in the sun for a day.',
];

async function make(name: string, change: Partial<HouseStyleDocument> = {}): Promise<HouseStyleWhole> {
  const { id } = (await ask<{ id: string }>('POST', '/styles', { name })).body;
  const now = await whole(id);
  return Object.keys(change).length === 0 ? now : (await put(now, change)).body;
}
const whole = async (id: string) => (await ask<HouseStyleWhole>('GET', `/styles/${id}`)).body;
const put = (style: HouseStyleWhole, change: Partial<HouseStyleDocument>, by: Ask = ask) =>
  by<HouseStyleWhole>(
    'PUT',
    `/styles/${style.id}`,
    { document: { ...style.document, ...change } },
    { 'if-match': `"${style.rev}"` },
  );
const learn = (style: HouseStyleWhole, body: object = {}) =>
  ask<HouseStyleWhole>('POST', `/styles/${style.id}/learn`, body, { 'if-match': `"${style.rev}"` });

describe('a house style', () => {
  test('is made, changed word by word, kept in versions, copied, put away and removed', async () => {
    const made = await make('Apiary');
    expect([made.document, made.version, made.learnt, made.samples]).toEqual([PLAIN_STYLE, 1, null, []]);
    const again = await ask('POST', '/styles', { name: 'apiary' });
    expect([again.status, again.problem.title]).toEqual([409, 'Name taken']);
    const first = (await put(made, { never: ['buzz'] })).body;
    expect([first.version, first.document.never]).toEqual([2, ['buzz']]);
    // Somebody who read it before is told what stands now, and nothing of it is lost.
    const late = await put(made, { voice: 'Dry.' });
    expect([late.status, (late.problem.current as HouseStyle).document.never]).toEqual([412, ['buzz']]);
    const second = (await put(first, { voice: 'Dry.' })).body;
    const { versions } = (await ask<{ versions: StyleVersion[] }>('GET', `/styles/${made.id}/versions`)).body;
    expect(versions.map(({ n, document }) => [n, document.voice, document.never])).toEqual([
      [3, 'Dry.', ['buzz']],
      [2, '', ['buzz']],
      [1, '', []],
    ]);
    await ask('POST', `/styles/${made.id}/texts`, { name: 'Smoke', text: NOTES[0] });
    const { id: copy } = (await ask<{ id: string }>('POST', '/styles', { name: 'Apiary, copy', from: made.id })).body;
    const copied = await whole(copy);
    expect([copied.document, copied.samples.map(({ name }) => name)]).toEqual([second.document, ['Smoke']]);
    // A text taken out of the copy stays where it was copied from.
    await ask('DELETE', `/styles/${copy}/texts/${copied.samples[0]!.id}`);
    expect((await whole(made.id)).samples).toHaveLength(1);
    expect((await ask<Hangs>('GET', `/styles/${made.id}/hangs`)).body).toEqual({
      name: 'Apiary',
      with: ['3 versions', '1 sample text'],
      unless: [],
    });
    expect((await ask('DELETE', `/styles/${made.id}`)).status).toBe(204);
    expect((await ask('GET', `/styles/${made.id}`)).status).toBe(404);
    expect(await w.product.ground.db.rows('SELECT 1 FROM house_style_text WHERE style = ?', [made.id])).toEqual([]);
  });

  test('is not removed while a blog or a pipeline keeps to it, and says which', async () => {
    const { id } = await make('Kept to');
    const patched = await owner<{ blogs: Blog[] }>('PATCH', `/blogs/${w.blog}`, { style: id });
    expect(patched.body.blogs.find((blog) => blog.id === w.blog)?.style).toBe(id);
    const pipeline = await w.pipeline(['drones'], (steps) =>
      steps.map((step) => (step.kind === 'write' ? { ...step, style: id } : step)),
    );
    const users = (await whole(id)).usedBy.map(({ noun, says }) => [noun, says]);
    expect(users).toEqual([
      ['blog', 'all its articles'],
      ['pipeline', 'one step'],
    ]);
    const gone = await ask('DELETE', `/styles/${id}`);
    expect([gone.status, gone.problem.detail]).toEqual([409, expect.stringContaining('keeps to it')]);
    expect((await owner('PATCH', `/blogs/${w.blog}`, { style: 'x'.repeat(20) })).status).toBe(404);
    await owner('PATCH', `/blogs/${w.blog}`, { style: null });
    expect((await whole(id)).usedBy).toHaveLength(1);
    await ask('PATCH', `/pipelines/${pipeline}/words`, { archived: true });
  });

  test('cannot be changed by who only looks over, nor say what can never be said', async () => {
    const style = await make('Refused');
    expect((await put(style, { voice: 'Mine.' }, proofreader)).status).toBe(403);
    expect((await proofreader('GET', '/styles')).status).toBe(200);
    const standing = (text: string) => ({
      standing: [{ at: 'at the end' as const, section: 1, markup: false, texts: [text] }],
    });
    for (const [change, place] of [
      [standing('{one|two'), 'standing.0'],
      [standing('{{ subject'), 'standing.0'],
      [{ disclosure: '{% include "secret" %}' }, 'disclosure'],
      [
        { call: { before: '', button: 'Go', address: 'javascript:alert(1)', size: 'medium', side: 'left' } },
        'call.address',
      ],
    ] as const) {
      const refused = await put(style, change);
      expect([refused.status, refused.problem.places?.[0]?.place], place).toEqual([422, place]);
    }
    expect((await put(style, { words: [{ use: 'hive', not: [] }] })).status).toBe(422);
    expect((await whole(style.id)).version).toBe(1);
  });

  test('carries labels, by which it is filtered like everything else', async () => {
    const { id } = await make('Labelled');
    const { id: label } = (await ask<{ id: string }>('POST', '/labels', { name: 'Bees' })).body;
    expect((await ask('POST', `/labels/${label}/on`, { noun: 'style', id, on: true })).status).toBeLessThan(300);
    const { styles } = (await ask<{ styles: HouseStyle[] }>('GET', '/styles')).body;
    expect(styles.find((style) => style.id === id)?.labels).toEqual([label]);
    const { labels } = (await ask<{ labels: { id: string; on: Record<string, number> }[] }>('GET', '/labels')).body;
    expect(labels.find((one) => one.id === label)?.on['style']).toBe(1);
  });
});

describe('learning', () => {
  test('from texts pasted, at an address and of our own; the same once, a scrap not at all', async () => {
    const { id } = await make('Learning');
    const give = (body: object) => ask<HouseStyleWhole>('POST', `/styles/${id}/texts`, body);
    expect((await give({ name: 'Smoke', text: NOTES[0] })).body.samples).toMatchObject([
      { name: 'Smoke', language: 'en' },
    ]);
    const twice = await give({ name: 'Again', text: `  ${NOTES[0]} ` });
    expect([twice.status, twice.problem.detail]).toEqual([422, 'This text is there already.']);
    const scrap = await give({ name: 'Scrap', text: 'Light the smoker.' });
    expect([scrap.status, scrap.problem.title]).toEqual([422, 'Not taken']);
    const page = await give({ address: `${w.standIns.address}/pages/cellar-notes/salt-by-weight` });
    expect(page.body.samples).toHaveLength(2);
    expect(page.body.samples[1]!.address).toContain('salt-by-weight');
    const lost = await give({ address: `${w.standIns.address}/pages/nowhere/at-all` });
    expect([lost.status, lost.problem.detail]).toEqual([422, expect.stringContaining('it answers 404')]);
    expect((await give({ article: 'x'.repeat(20) })).status).toBe(404);
  });

  test('puts ranges, person and a description, and leaves a description somebody wrote', async () => {
    const empty = await make('Taught');
    expect((await learn(empty)).status).toBe(409);
    for (const [i, text] of NOTES.entries())
      await ask('POST', `/styles/${empty.id}/texts`, { name: `Note ${i}`, text });
    const before = await whole(empty.id);
    expect(before.learnt!.words).toBeGreaterThan(180);
    const taught = (await learn(before)).body;
    expect(taught.document.person).toBe('first person plural');
    expect(taught.document.voice).toBe(before.learnt!.describes);
    expect(taught.document.voice).toContain('Keep sentences short');
    const { sentence } = taught.document.ranges;
    const mean = before.learnt!.figures.find(({ name }) => name === 'sentence')!.mean;
    expect(sentence!.from).toBeLessThan(mean);
    expect(sentence!.to).toBeGreaterThan(mean);
    const written = (await put(taught, { voice: 'As we talk.' })).body;
    expect((await learn(written)).body.document.voice).toBe('As we talk.');
    const anew = await learn(await whole(empty.id), { describe: true });
    expect(anew.body.document.voice).toBe(before.learnt!.describes);
    const stale = await learn(written);
    expect(stale.status).toBe(412);
  });

  test('an article is set beside it, with what differs and whose hand it is; paragraphs are written in it', async () => {
    const style = await make('Beside', {
      words: [{ use: 'bee box', not: ['hive'] }],
      never: ['postman'],
      ranges: { sentence: { from: 30, to: 40 } },
    });
    for (const [i, text] of NOTES.slice(1).entries())
      await ask('POST', `/styles/${style.id}/texts`, { name: `Note ${i}`, text });
    const pipeline = await w.pipeline(['smoke'], ([take, ...rest]) => [
      take!,
      { ...k['lay out'].fresh('s2'), body: NOTES[0]!, title: 'Smoke and a hive', reads: 'plain text' },
      { ...rest.at(-1)!, id: 's9' } as Step,
    ]);
    const [brief] = await w.take(pipeline);
    const article = async () =>
      (await w.product.ground.db.rows<{ id: string }>('SELECT id FROM article WHERE brief = ?', [brief]))[0];
    await expect.poll(article, { timeout: 20_000 }).toBeDefined();
    await expect
      .poll(async () => (await ask('GET', `/styles/${style.id}/beside?article=${(await article())!.id}`)).status)
      .toBe(200);
    const { body } = await ask<StyleComparison>('GET', `/styles/${style.id}/beside?article=${(await article())!.id}`);
    expect(body.unwanted.map(({ words, instead }) => [words, instead])).toEqual([
      ['hive', 'bee box'],
      ['hive', 'bee box'],
      ['postman', null],
    ]);
    expect(body.figures.find(({ name }) => name === 'sentence')).toMatchObject({
      within: false,
      mend: expect.any(String),
    });
    expect(body.hand).toMatchObject({ alike: true });
    const sample = await ask<StyleSample>('POST', `/styles/${style.id}/sample`);
    expect(sample.status).toBe(200);
    expect(sample.body.paragraphs.length).toBeGreaterThan(0);
    expect(sample.body.paragraphs.join(' ')).not.toMatch(/\bhives?\b/i);
    expect(sample.body.outside).toContain('sentence');
    expect(sample.body.micros).toBeGreaterThan(0);
    expect((await whole(style.id)).sample?.version).toBe(2);
    const [booked] = await w.product.ground.db.rows<{ n: number }>(
      'SELECT COUNT(*) AS n FROM ledger WHERE micros = ?',
      [sample.body.micros],
    );
    expect(Number(booked!.n)).toBeGreaterThan(0);
  });
});

/*
 * Every word of a house style must change what comes of a step: what a writer or an illustrator is asked, or the result. A
 * word of the schema that is missing from the table fails.
 */
describe('every word of a house style changes what comes of it', () => {
  const PARAGRAPHS = [
    'A smoker calms a hive within two minutes, since the bees fill up with honey. Dry grass burns cool; paper burns hot and singes wings.',
    'A hive needs 18 kilos in October. Feed sugar syrup until the first frost, and stop after it, for they cannot dry it any more.',
    'Eggs stand upright on the first day and lie flat on the third, which tells that there was a queen three days ago at the latest.',
  ];
  let asked: unknown[] = [];
  let tools: Tools;
  let fields: Record<string, unknown>;
  let style: HouseStyleWhole;

  beforeAll(async () => {
    const page = { address: 'https://bees.example/', title: 'Bees', language: 'en', paragraphs: PARAGRAPHS };
    const passages = await storePage(w.product.ground.db, page, 'b'.repeat(64));
    const blocks = [
      { kind: 'paragraph', text: 'We light the smoker and colour the hive!', items: [], passages: [1] },
      { kind: 'paragraph', text: 'A hive of 18 kilos is heavy enough.', items: [], passages: [2] },
    ];
    const replies: Record<string, unknown> = {
      blocks: { blocks },
      titles: {
        titles: ['A hive in autumn, weighed'],
        description: 'Of a hive.',
        keywords: ['hive'],
        hashtags: ['bees'],
      },
    };
    tools = {
      ...w.product.tools,
      writer: {
        write: async (_: unknown, request: WritingRequest<unknown>) => {
          asked.push(request.material.replace(/\u2060|[A-Z0-9]{12,}/g, ''));
          const reply =
            request.name === 'translation'
              ? {
                  texts: [...request.material.matchAll(/text (\d+)/g)].map(([, n]) => ({
                    n: Number(n),
                    text: `Beute 18 ${n}`,
                  })),
                }
              : replies[request.name];
          return { ok: true, value: { value: reply, micros: 0 } };
        },
      } as unknown as Tools['writer'],
      illustrator: {
        draw: async (_: unknown, prompt: string) => {
          asked.push(prompt);
          return { ok: false, failure: { code: 'nothing-found', subject: 'x' } };
        },
      } as unknown as Tools['illustrator'],
    };
    fields = {
      subject: 'a hive in autumn',
      passages: passages.map(({ id }) => id),
      outline: [{ heading: 'Weight', says: 'The figure.', passages: passages.map(({ id }) => id) }],
    };
    const body =
      'The hive stands in the wind.\n\n## Weight\n\nWeigh a hive in October. The hive of a neighbour was light. Sugar syrup for bees is fed until the first frost.';
    const made = await perform({ ...k['lay out'].fresh('l0'), body, title: 'A hive', reads: 'Markdown' });
    fields = { ...fields, ...(made as { fields: object }).fields };
    for (const [i, title] of ['Hive stands in the wind', 'Sugar syrup for bees'].entries())
      await w.product.ground.db.run('INSERT INTO link_page (blog, address_digest, address, title) VALUES (?)', [
        [w.blog, `${i}`.repeat(64), `https://bees.example/${i}`, title],
      ]);
  });

  async function perform(step: Step) {
    const all = performers(tools) as unknown as Record<string, Performer>;
    return all[step.kind]!(step, contextOf(step, fields, style?.id));
  }
  async function effectOf(step: Step, change: Partial<HouseStyleDocument>): Promise<string> {
    style = (await put(style, { ...PLAIN_STYLE, ...change })).body;
    asked = [];
    const { writes: _, ...result } = (await perform(step)) as {
      writes?: unknown;
      fields?: { article?: { revision?: string } };
    };
    const revision = result.fields?.article?.revision;
    const [row] = revision
      ? await w.product.ground.db.rows('SELECT document FROM article_revision WHERE id = ?', [revision])
      : [];
    return JSON.stringify([asked, result, row]).replace(/"(revision|id)":"[a-z0-9]{20}"|"version":\d+/g, '');
  }

  const write: Step = { ...k.write.fresh('s1'), person: 'as the house style', parts: [] };
  const title: Step = k.title.fresh('s1');
  const check: Step = {
    ...k.check.fresh('s1'),
    ...LENIENT,
    figures: false,
    again: 0,
    words: { from: 1, to: 900 },
    otherwise: 'hold it for me',
  };
  const translate: Step = { ...k.translate.fresh('s1'), into: 'German' };
  const HIVE = [{ use: 'bee box', not: ['hive'] }];
  const end = (text: string) => [{ at: 'at the end' as const, section: 1, markup: false, texts: [text] }];
  const TABLE: Record<Exclude<keyof HouseStyleDocument, 'grivo'>, readonly [Step, unknown][]> = {
    voice: [
      [write, 'Dry as a bone.'],
      [title, 'Dry as a bone.'],
      [translate, 'Dry as a bone.'],
    ],
    person: [
      [write, 'first person plural'],
      [check, 'first person plural'],
      [check, 'first person singular'],
    ],
    address: [[translate, 'formal']],
    spelling: [
      [write, 'American'],
      [check, 'American'],
    ],
    ranges: [
      [write, { sentence: { from: 30, to: 40 } }],
      [check, { sentence: { from: 30, to: 40 } }],
      [check, { figures: { from: 50, to: 60 } }],
    ],
    facts: [[write, ['Our hives stand by the canal.']]],
    words: [
      [write, HIVE],
      [title, HIVE],
      [translate, [{ use: 'Magazin', not: ['Beute'] }]],
      [check, HIVE],
    ],
    never: [
      [write, ['October']],
      [check, ['October']],
    ],
    standing: [
      [write, end('Ours, on {{ subject }}.')],
      [write, [{ at: 'at the end', section: 1, texts: ['<i>On {{ subject }}</i>'], markup: true }]],
      [translate, end('Unser Text.')],
    ],
    call: [[write, { before: '', button: 'Ask us', address: '/ask', size: 'medium', side: 'left' }]],
    closingLink: [[write, { before: 'More:', words: 'all we wrote', address: '/all' }]],
    wording: [[{ ...write, parts: ['fold'] }, { readOn: 'Go on reading' }]],
    rules: [
      [write, [{ find: 'hives?', pattern: true, say: 'bee boxes', cased: false, where: [] }]],
      [title, [{ find: 'hive', pattern: false, say: 'bee box', cased: false, where: ['headings'] }]],
    ],
    disclosure: [[write, 'Drafted by machine.']],
    cards: [[{ ...k.illustrate.fresh('s1'), lead: 'card', otherwise: 'none' }, [{ ...newCard('Square'), width: 630 }]]],
    pictures: [[{ ...k.illustrate.fresh('s1'), manner: '' }, 'line drawing']],
    links: [
      [
        { ...k.link.fresh('s1'), own: 3, blog: '' },
        { most: 0, aParagraph: 1, inOpening: true },
      ],
      [
        { ...k.link.fresh('s1'), own: 3, blog: '' },
        { most: null, aParagraph: 1, inOpening: false },
      ],
    ],
    values: [
      [{ ...k.vary.fresh('s1'), variants: ['From {{ house.shop }}'] }, [{ name: 'shop', text: 'The Canal Apiary' }]],
    ],
  };

  test('the table has every word there is', () => {
    expect(Object.keys(TABLE).sort()).toEqual(
      Object.keys(HouseStyleDocument.shape)
        .filter((word) => word !== 'grivo')
        .sort(),
    );
  });

  for (const [word, cases] of Object.entries(TABLE))
    for (const [i, [step, value]] of cases.entries())
      test(`${word} at ‘${step.kind}’${cases.filter(([other]) => other.kind === step.kind).length > 1 ? `, ${i + 1}` : ''}`, async () => {
        style ??= await make('Every word');
        const own = step.kind === 'link' ? { ...step, blog: w.blog } : step;
        const without = await effectOf(own, {});
        expect(await effectOf(own, { [word]: value })).not.toBe(without);
        expect(await effectOf(own, {})).toBe(without);
      });

  test('what it says stands in the article: words, standing text, call; a fact is given as a passage of its own', async () => {
    style = (
      await put(await make('In full'), {
        words: HIVE,
        facts: ['Our hives stand by the canal.'],
        standing: end('More of {{ subject }} at {{ house.shop }}.'),
        call: {
          before: 'Stung?',
          button: 'Ask us',
          address: 'https://canal.example/ask',
          size: 'medium',
          side: 'left',
        },
        disclosure: 'Drafted by machine.',
        values: [{ name: 'shop', text: 'the Canal Apiary' }],
      })
    ).body;
    asked = [];
    const result = (await perform(write)) as unknown as {
      fields: {
        article: { revision: string };
        passages: string[];
        reworded: { from: string; to: string }[];
        houseStyle: object;
      };
    };
    const [row] = await w.product.ground.db.rows<{ document: { body: Record<string, unknown>[] } }>(
      'SELECT document FROM article_revision WHERE id = ?',
      [result.fields.article.revision],
    );
    const { body } = row!.document;
    expect(JSON.stringify(body)).not.toContain('hive"');
    expect(JSON.stringify(body)).toContain('bee box of 18 kilos');
    expect(body.slice(-3).map(({ type }) => type)).toEqual(['standing text', 'call to action', 'disclosure']);
    expect(JSON.stringify(body.at(-3))).toContain('More of a hive in autumn at the Canal Apiary.');
    expect(result.fields.houseStyle).toMatchObject({ name: 'In full', version: 2 });
    expect(result.fields.reworded).toContainEqual({ from: 'hive', to: 'bee box' });
    expect(result.fields.passages).toHaveLength(4);
    expect(JSON.stringify(asked)).toContain('Say “bee box”, not “hive”.');
    // What was said by a step of its own goes before.
    asked = [];
    await perform({ ...write, person: 'third person' });
    expect(JSON.stringify(asked)).toContain('Person: third person');
  });

  test('a check of it names each point', async () => {
    style = (
      await put(await make('Checked'), { words: HIVE, never: ['October'], ranges: { figures: { from: 5, to: 9 } } })
    ).body;
    const result = await perform(check);
    expect(result.kind).toBe('held');
    const { failing } = (result as unknown as { fields: { check: { failing: string[] } } }).fields.check;
    expect(failing).toEqual([
      'says ‘hive’, which the house calls ‘bee box’',
      'says ‘October’, which the house never says',
      'figures in 100 words: 0, where the house has 5 to 9',
    ]);
    const without = await perform({ ...check, house: false });
    expect(without.kind).toBe('done');
    // Nobody looks: what is certain alone sets it aside.
    const aside = await perform({ ...check, otherwise: 'set it aside' });
    expect((aside as unknown as { fields: { check: { failing: string[] } } }).fields.check.failing).toEqual(
      failing.slice(0, 2),
    );
  });
});

describe('rules of replacement', () => {
  test('are tried before they are kept, and one that cannot be used is refused with what is wrong', async () => {
    const style = await make('Ruled');
    const rules = [
      { find: 'smoker', say: 'pipe' },
      { find: '(\\d+) kilos', say: '$1 kg', pattern: true },
    ];
    const tried = await ask<ReplacementsTried>('POST', '/styles/replacements/tried', {
      rules,
      text: NOTES.join('\n\n'),
    });
    expect(tried.body.places.map(({ from, to }) => [from, to])).toEqual([
      ['smoker', 'pipe'],
      ['18 kilos', '18 kg'],
    ]);
    expect((await ask('POST', '/styles/replacements/tried', { rules })).status).toBe(422);
    const wrong = [{ ...rules[1]!, find: '(\\d+ kilos' }];
    const told = await ask<ReplacementsTried>('POST', '/styles/replacements/tried', { rules: wrong, text: 'x' });
    expect(told.body.problems).toEqual([{ rule: 0, problem: expect.stringContaining('no pattern') }]);
    const refused = await put(style, { rules: wrong as HouseStyleDocument['rules'] });
    expect([refused.status, refused.problem.places]).toEqual([
      422,
      [{ place: 'rules.0', problem: expect.stringContaining('no pattern') }],
    ]);
    expect((await put(style, { rules: rules as HouseStyleDocument['rules'] })).body.document.rules).toHaveLength(2);
  });
});

describe('texts a writer proposes', () => {
  test('cost about what was said, keep their fields, are others each time, and are not asked for by who only looks', async () => {
    const texts = ['What to know about {{ subject }}'];
    const price = (await ask<{ micros: number }>('POST', '/texts/proposed/price', { texts })).body.micros;
    const first = await ask<{ texts: string[]; micros: number }>('POST', '/texts/proposed', { texts, many: 3 });
    expect(first.status).toBe(200);
    expect(first.body.texts).toHaveLength(3);
    for (const text of first.body.texts) expect(text).toContain('{{ subject }}');
    expect(price).toBeGreaterThan(0);
    expect(first.body.micros).toBeGreaterThan(0);
    expect(first.body.micros).toBeLessThan(price * 3);
    const others = await Promise.all(
      [1, 2, 3, 4].map((again) => ask<{ texts: string[] }>('POST', '/texts/proposed', { texts, many: 3, again })),
    );
    expect(new Set([first, ...others].map(({ body }) => body.texts.join())).size).toBeGreaterThan(1);
    expect((await proofreader('POST', '/texts/proposed', { texts })).status).toBe(403);
    expect((await ask('POST', '/texts/proposed', { texts: [] })).status).toBe(422);
  });
});
