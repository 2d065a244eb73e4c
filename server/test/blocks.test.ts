import type { BriefWhole, Hold } from '@grivo/contract';
import { type ItemField, stepKinds as k, type ProcedureDocument, SHIPPED, type Step, sheetColumns } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { readRevision } from '../src/nouns/articles/repository.ts';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { replayed } from './ground/replay.ts';

let w: Desk['w'];
let http: Desk['http'];
let ask: Desk['ask'];
atTheDesk((desk) => ({ w, http, ask } = desk));

async function listOf(...keywords: string[]): Promise<string> {
  const { id } = (await ask<{ id: string }>('POST', '/sources', { name: 'A list' })).body;
  await ask('POST', `/sources/${id}/keywords`, { paste: keywords.join('\n') });
  return id;
}

async function pipelineOf(document: ProcedureDocument, name = 'A pipeline'): Promise<string> {
  const made = await ask<{ id: string; problems: unknown[] }>('POST', '/pipelines', { name, document });
  expect(made.body.problems).toEqual([]);
  return made.body.id;
}

async function run(document: ProcedureDocument, words: object = {}): Promise<string[]> {
  const taken = await ask<{ briefs: string[] }>('POST', `/pipelines/${await pipelineOf(document)}/take`, words);
  expect(taken.status).toBe(202);
  return taken.body.briefs;
}

const whole = async (brief: string) => (await ask<BriefWhole>('GET', `/briefs/${brief}`)).body;
const ran = (brief: BriefWhole, path: string) =>
  brief.runs.filter((one) => one.path === path && one.state !== 'cancelled').at(-1);
const holds = async (brief: string) => (await ask<{ holds: Hold[] }>('GET', `/briefs/${brief}/holds`)).body.holds;

interface Made {
  id: string;
  line: string;
  language: string;
  title: string;
  standing: string;
  current: string;
  address: string | null;
  state: string | null;
}
const madeBy = (brief: string) =>
  w.product.ground.db.rows<Made>(
    'SELECT a.id, a.line, a.language, a.title, a.standing, a.current, p.address, p.state FROM article a LEFT JOIN publication p ON p.article = a.id WHERE a.brief = ? ORDER BY a.id',
    [brief],
  );

/** From a phrase to an article, without picture and links. */
function written(source: string, ...then: Step[]): ProcedureDocument {
  return {
    grivo: 1,
    language: 'en',
    steps: [
      { ...k.take.fresh('s1'), sources: [source], most: null },
      { ...k['look up'].fresh('s2'), pages: 4, ours: false },
      { ...k.outline.fresh('s3'), sections: { from: 2, to: 3 } },
      { ...k.write.fresh('s4'), words: 500 },
      { ...k.title.fresh('s5') },
      ...then,
    ],
  };
}
const publish = (id: string, change: Partial<ReturnType<typeof k.publish.fresh>> = {}): Step => ({
  ...k.publish.fresh(id),
  blog: w.blog,
  when: 'at once',
  ...change,
});

describe('journeys', () => {
  test('a list is judged; of a reply without a figure another is asked, then only that brief stops', async () => {
    w.standIns.trouble('writer', { how: 'no figure' }, 2, undefined, 'kahm yeast or mould');
    const source = await listOf('how much salt for sauerkraut', 'kahm yeast or mould', 'crisp fermented cucumbers');
    const briefs = await run({
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        { ...k['look up'].fresh('s2'), pages: 3 },
        { ...k.judge.fresh('s3'), least: 1 },
        { ...k['work out'].fresh('s4'), as: 'verdict', expression: 'judgement.kind & ": " & judgement.score' },
      ],
    });
    const standings = await w.settled(briefs, ['out', 'stopped']);
    expect([...standings.values()].sort()).toEqual(['out', 'out', 'stopped']);
    const stopped = await whole([...standings].find(([, standing]) => standing === 'stopped')![0]);
    expect(stopped.subject).toBe('kahm yeast or mould');
    expect(ran(stopped, 's3')?.failure).toMatchObject({ problem: 'No figure in the reply' });
    expect(ran(stopped, 's3')?.incident).toBeNull();
    const well = await whole([...standings].find(([, standing]) => standing === 'out')![0]);
    expect(ran(well, 's4')?.gave).toEqual({ verdict: expect.stringMatching(/^[a-z ]+: \d+$/) as string });
    // The model answers again: the brief goes on from there.
    expect((await ask('POST', `/briefs/${stopped.id}/release`)).status).toBe(200);
    await w.settled([stopped.id], ['out']);
  });

  test('into three languages: one that fails is stopped, main and the others are out; let go, it follows', async () => {
    const source = await listOf('how much salt for sauerkraut');
    w.standIns.trouble('writer', { how: 'malformed' }, 50, undefined, 'from English into French');
    const [brief] = await run(
      written(source, publish('s6'), {
        ...k['for each'].fresh('e1'),
        values: ['German', 'French', 'Spanish'],
        as: 'tongue',
        name: 'versions',
        steps: [{ ...k.translate.fresh('t1'), into: '{{ tongue }}' }, publish('t2', { as: 'draft' })],
      }),
    );
    await w.settled([brief!], ['stopped']);
    const articles = await madeBy(brief!);
    expect(articles.map(({ language, state }) => `${language} ${state}`).sort()).toEqual([
      'de draft',
      'en live',
      'es draft',
    ]);
    const [german, english] = await Promise.all(
      ['de', 'en'].map(async (language) =>
        readRevision(w.product.ground.db, articles.find((article) => article.language === language)!.current),
      ),
    );
    const shape = (document: typeof german) => document!.body.map(({ type, id, evidence }) => ({ type, id, evidence }));
    expect(shape(german)).toEqual(shape(english));
    expect(german!.title).not.toBe(english!.title);
    w.standIns.calm();
    const { incidents } = (await ask<{ incidents: { id: string }[] }>('GET', '/incidents')).body;
    for (const { id } of incidents) await ask('POST', `/incidents/${id}/release`);
    await w.settled([brief!], ['out']);
    expect((await madeBy(brief!)).map(({ language, state }) => `${language} ${state}`).sort()).toEqual([
      'de draft',
      'en live',
      'es draft',
      'fr draft',
    ]);
  });

  test('a language nobody knows stops with its reason', async () => {
    const source = await listOf('fermenting garlic in honey');
    const [brief] = await run(written(source, { ...k.translate.fresh('t1'), into: 'Crockish' }));
    await w.settled([brief!], ['stopped']);
    expect((await whole(brief!)).runs.find((one) => one.state === 'stopped')?.failure?.sentence).toContain(
      '‘Crockish’',
    );
  });

  test('two branches from one article, each with a result of its own', async () => {
    const source = await listOf('crisp fermented cucumbers');
    const branch = (id: string, name: string, title: string): Step => ({
      ...k.meanwhile.fresh(id),
      name,
      steps: [{ ...k.vary.fresh(`${id}v`), variants: [title], for: 'the title' }, publish(`${id}p`, { as: 'draft' })],
    });
    const [brief] = await run(
      written(
        source,
        branch('m1', 'short', 'In short: {{ subject }}'),
        branch('m2', 'long', 'All of {{ subject }}'),
        publish('s6'),
      ),
    );
    await w.settled([brief!], ['out']);
    const articles = await madeBy(brief!);
    expect(articles.map(({ line, state }) => `${line} ${state}`).sort()).toEqual([' live', 'm1 draft', 'm2 draft']);
    expect(articles.find(({ line }) => line === 'm1')!.title).toBe('In short: crisp fermented cucumbers');
    expect(articles.find(({ line }) => line === 'm2')!.title).toBe('All of crisp fermented cucumbers');
    expect(articles.find(({ line }) => line === '')!.title).not.toMatch(/^(In short|All of)/);
  });

  test('a routine is used by two pipelines; changed while one brief runs, that one finishes on the old', async () => {
    const routine = (says: string): ProcedureDocument => ({
      grivo: 1,
      language: 'en',
      inputs: [{ name: 'topic', asks: 'The topic', otherwise: null }],
      outputs: ['line'],
      steps: [
        { ...k.wait.fresh('w1'), minutes: 10 },
        { ...k['work out'].fresh('w2'), as: 'line', expression: `"${says}: " & topic` },
      ],
    });
    const made = await ask<{ id: string }>('POST', '/routines', { name: 'A line on it', document: routine('old') });
    expect(made.status).toBe(201);
    const source = await listOf('how much salt for sauerkraut');
    const using = (): ProcedureDocument => ({
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        { ...k.use.fresh('u1'), routine: made.body.id, given: { topic: '{{ subject }}' } },
        { ...k['work out'].fresh('s2'), as: 'said', expression: 'upper(line)' },
      ],
    });
    await w.product.ground.desk.set(Date.parse('2026-03-01T08:00:00Z'), 0);
    const [first] = await run(using());
    await expect.poll(async () => ran(await whole(first!), 'u1/u1_w1')?.state, { timeout: 8_000 }).toBe('waiting');
    const changed = await ask(
      'PUT',
      `/routines/${made.body.id}`,
      { name: 'A line on it', document: routine('new') },
      { 'if-match': '"1"' },
    );
    expect(changed.status).toBe(200);
    const [second] = await run(using());
    await expect.poll(async () => ran(await whole(second!), 'u1/u1_w1')?.state, { timeout: 8_000 }).toBe('waiting');
    await w.product.ground.desk.set(Date.parse('2026-03-01T08:11:00Z'), 0);
    w.product.bell.ring({ kind: 'settings' });
    await w.settled([first!, second!], ['out']);
    expect(ran(await whole(first!), 's2')?.gave).toEqual({ said: 'OLD: HOW MUCH SALT FOR SAUERKRAUT' });
    expect(ran(await whole(second!), 's2')?.gave).toEqual({ said: 'NEW: HOW MUCH SALT FOR SAUERKRAUT' });
    await w.product.ground.desk.set(Date.now(), 1);
  });

  test('guided: held at outline, notes and title, changed at each by a person, by compare-and-set', async () => {
    const source = await listOf('kahm yeast or mould');
    const document = written(source, publish('s9'));
    const steps = document.steps.flatMap((step): Step[] =>
      step.kind === 'outline'
        ? [
            { ...step, hold: true },
            { ...k.notes.fresh('n1'), hold: true },
          ]
        : [step.kind === 'title' ? { ...step, hold: true } : step],
    );
    const [brief] = await run({ ...document, steps });
    await w.settled([brief!], ['held']);
    const [outline] = await holds(brief!);
    expect(outline).toMatchObject({ kind: 'outline', path: 's3' });
    const sections = (outline!.proposed as { outline: { heading: string; says: string; passages: string[] }[] })
      .outline;
    const say = (run: string, decision: object) => ask('POST', `/briefs/${brief}/holds/${run}`, decision);
    const wrong = await say(outline!.run, { decide: 'pass', change: { outline: [{ heading: 1 }] } });
    expect([wrong.status, wrong.problem.title]).toEqual([422, 'Cannot be taken over']);
    const chosen = [{ ...sections[1]!, heading: 'Which of the two it is' }, sections[0]!];
    const both = await Promise.all([
      say(outline!.run, { decide: 'pass', change: { outline: chosen } }),
      say(outline!.run, { decide: 'pass', change: {} }),
    ]);
    expect(both.map(({ status }) => status).sort()).toEqual([204, 409]);
    await w.settled([brief!], ['held']);
    await expect.poll(async () => (await holds(brief!))[0]?.kind, { timeout: 8_000 }).toBe('notes');
    const [notes] = await holds(brief!);
    const points = (notes!.proposed as { notes: { heading: string; points: unknown[] }[] }).notes;
    expect(
      (
        await say(notes!.run, {
          decide: 'pass',
          change: { notes: points.map((note) => ({ ...note, points: note.points.slice(0, 1) })) },
        })
      ).status,
    ).toBe(204);
    await expect.poll(async () => (await holds(brief!))[0]?.kind, { timeout: 15_000 }).toBe('title');
    const [title] = await holds(brief!);
    expect(
      (await say(title!.run, { decide: 'pass', change: { title: 'Kahm yeast, or the other thing' } })).status,
    ).toBe(204);
    await w.settled([brief!], ['out']);
    const [article] = await madeBy(brief!);
    expect(article).toMatchObject({ title: 'Kahm yeast, or the other thing', state: 'live' });
    const page = await (await fetch(article!.address!)).text();
    expect(page).toContain('Kahm yeast, or the other thing');
    if (both[0]!.status === 204) expect(page).toContain('Which of the two it is');
  });

  test('sent back with a note it is made anew with the note before the writer, and what stands above is not paid again', async () => {
    const source = await listOf('how much salt for sauerkraut');
    const document = written(source);
    const steps = document.steps.map((step) => (step.kind === 'title' ? { ...step, hold: true } : step));
    const [brief] = await run({ ...document, steps });
    await w.settled([brief!], ['held']);
    const calls = () => w.standIns.received().calls.filter((call) => call.what === 'text').length;
    const before = calls();
    const [first] = await holds(brief!);
    const sent = await ask('POST', `/briefs/${brief}/holds/${first!.run}`, {
      decide: 'send back',
      note: 'Shorter, please',
    });
    expect(sent.status).toBe(204);
    await expect
      .poll(async () => (await holds(brief!))[0]?.run !== first!.run && (await holds(brief!)).length, {
        timeout: 8_000,
      })
      .toBe(1);
    expect(calls() - before).toBe(1);
    const [second] = await holds(brief!);
    expect((await ask('POST', `/briefs/${brief}/holds/${second!.run}`, { decide: 'set aside' })).status).toBe(204);
    expect((await whole(brief!)).standing).toBe('set aside');
  });

  test('written again twice with draws that differ, then a person is asked', async () => {
    const source = await listOf('how much salt for sauerkraut');
    const [brief] = await run(
      written(
        source,
        {
          ...k.check.fresh('s6'),
          words: { from: 5_000, to: 9_000 },
          alone: false,
          again: 2,
          otherwise: 'hold it for me',
        },
        publish('s7'),
      ),
    );
    await w.settled([brief!], ['held']);
    const { runs } = await whole(brief!);
    expect(runs.filter((one) => one.path === 's4' && one.state === 'done').map(({ round }) => round)).toEqual([
      0, 1, 2,
    ]);
    const rows = await w.product.ground.db.rows<{ document: unknown }>(
      'SELECT r.document FROM article_revision r JOIN step_run s ON s.id = r.by_step WHERE s.brief = ? AND s.path = ? ORDER BY s.round',
      [brief!, 's4'],
    );
    expect(new Set(rows.map(({ document }) => JSON.stringify(document))).size).toBe(3);
    const [held] = await holds(brief!);
    expect(held).toMatchObject({ kind: 'check', proposed: { check: { fits: false } } });
    await ask('POST', `/briefs/${brief}/holds/${held!.run}`, { decide: 'pass' });
    await w.settled([brief!], ['out']);
  });

  test('a finished text given at the run is laid out as it stands and published', async () => {
    const source = await listOf('notes from the cellar');
    const finished = SHIPPED.find(({ key }) => key === 'finished')!.make({ source, blog: w.blog, language: 'en' });
    const steps = finished.steps.map((step) =>
      step.kind === 'publish' ? { ...step, when: 'at once' as const } : step,
    );
    const pipeline = await pipelineOf({ ...finished, steps });
    const without = await ask('POST', `/pipelines/${pipeline}/take`, {});
    expect([without.status, without.problem.detail]).toEqual([422, 'The procedure asks for ‘The text, as Markdown’.']);
    const body =
      '# Cellar notes\n\nThe cellar is **cold** in March.\n\n- one crock\n- two lids\n\nSee [the shop](https://shop.example/crocks).';
    const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, { inputs: { body } }))
      .body;
    await w.settled(briefs, ['out']);
    const [article] = await madeBy(briefs[0]!);
    const document = await readRevision(w.product.ground.db, article!.current);
    expect(document.body.filter(({ type }) => type !== 'figure')).toMatchObject([
      { type: 'heading', level: 2, text: 'Cellar notes' },
      {
        type: 'paragraph',
        content: [{ text: 'The cellar is ' }, { text: 'cold', marks: ['strong'] }, { text: ' in March.' }],
      },
      { type: 'list', ordered: false },
      { type: 'paragraph' },
    ]);
    expect(await (await fetch(article!.address!)).text()).toContain('<strong>cold</strong>');
  });

  test('by hand, every step is held', async () => {
    const source = await listOf('fermenting garlic in honey');
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        { ...k['work out'].fresh('s2'), as: 'one', expression: '1' },
        {
          ...k.when.fresh('s3'),
          tests: [{ field: 'one', is: 'above', value: '5' }],
          holds: [],
          otherwise: [{ ...k['work out'].fresh('s4'), as: 'two', expression: 'one + 1' }],
        },
      ],
    };
    const [brief] = await run(document, { byHand: true });
    await w.settled([brief!], ['held']);
    const [first] = await holds(brief!);
    await ask('POST', `/briefs/${brief}/holds/${first!.run}`, { decide: 'pass', change: { one: 9 } });
    await w.settled([brief!], ['out']);
    // Changed by the person, the test holds, and the other branch is not run.
    expect(ran(await whole(brief!), 's3')?.gave).toEqual({ holds: true, looked: { one: 9 } });
    expect(ran(await whole(brief!), 's3/s4')).toBeUndefined();
  });

  test('a page is fetched, its data and its passages kept; an address that gives nothing stops with its reason', async () => {
    const source = await listOf('notes from the cellar');
    const page = (await ask<{ id: string }>('GET', '/session')).status;
    expect(page).toBe(200);
    const at = `${w.standIns.address}/control/introduction`;
    const fetching = (change: Partial<ReturnType<typeof k.fetch.fresh>>): ProcedureDocument => ({
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        { ...k.fetch.fresh('s2'), ...change },
      ],
    });
    const [data] = await run(fetching({ address: at, what: 'its data', part: 'blogs.0.name', as: 'name' }));
    await w.settled([data!], ['out']);
    expect(ran(await whole(data!), 's2')?.gave).toEqual({ name: expect.any(String) as string });
    const [gone] = await run(fetching({ address: at, what: 'its data', part: 'nothing.here', as: 'name' }));
    await w.settled([gone!], ['stopped']);
    expect(ran(await whole(gone!), 's2')?.failure?.sentence).toMatch(/has no ‘nothing\.here’/);
    const [strange] = await run(fetching({ address: 'not an address', as: 'page' }));
    await w.settled([strange!], ['stopped']);
  });
});

/** A source of one item of a kind. */
async function sourceFor({ from: kind, key }: (typeof SHIPPED)[number]): Promise<string> {
  if (kind === 'keywords') return listOf('how much salt for sauerkraut');
  const at = w.standIns.address;
  const settings = {
    videos: { addresses: [`${at}/videos/watch/salt-by-weight`] },
    sheet: { address: `${at}/sheets/stock.csv`, startFrom: { at: 'the last', n: 1 } },
    feed:
      key === 'round-up'
        ? { feeds: [{ address: `${at}/news/brine-gazette/feed` }], startFrom: { at: 'the last', n: 14 } }
        : { feeds: [{ address: `${at}/news/cellar-wire/feed` }], startFrom: { at: 'the last', n: 1 } },
    documents: { addresses: [`${at}/documents/shop-handbook.docx`] },
    catalogue: {
      address: `${at}/partner/northquay/list.json`,
      most: 1,
      partnerLink: '{link}?p={partner}',
      partner: 'x',
    },
    publications: { blogs: [w.blog], startFrom: { at: 'the last', n: 1 } },
    recordings: { podcast: `${at}/podcasts/over-the-crock/feed`, startFrom: { at: 'the last', n: 1 } },
    hook: { signed: false },
    requests: {},
  }[kind];
  const { id } = (await ask<{ id: string }>('POST', '/sources', { name: 'A source', settings: { kind, ...settings } }))
    .body;
  const text =
    'Weigh the cabbage after trimming and salt it at 2 per cent, 20 grams to the kilogram. Press it until brine stands two centimetres over the leaves. At 18 degrees it is sour after 21 days, at 22 degrees after 12. Skim the film once a week, wipe the rim with vinegar, and keep the finished kraut at 6 degrees for up to five months.';
  if (kind === 'requests') await ask('POST', `/sources/${id}/requests`, { subject: 'A first kraut', notes: text });
  if (kind === 'hook') {
    const { address } = (await ask<{ address: string }>('GET', `/sources/${id}/hook`)).body;
    await fetch(address, { method: 'POST', body: JSON.stringify({ subject: 'A second kraut', notes: text }) });
  }
  return id;
}

describe('shipped procedures', () => {
  test.each(SHIPPED.filter(({ key }) => key !== 'finished').map((one) => [one.key, one] as const))(
    '‘%s’ has no problems and runs to its end',
    async (_key, one) => {
      const source = await sourceFor(one);
      await ask('POST', `/sources/${source}/look`);
      const all = (await ask<{ sources: { id: string; brings: ItemField[] }[] }>('GET', '/sources')).body.sources;
      const columns = sheetColumns(all.find(({ id }) => id === source)!.brings);
      const document = one.make({ source, blog: w.blog, language: 'en', columns });
      const steps = document.steps.map((step) => {
        if (step.kind === 'tell')
          return { ...step, by: 'message' as const, to: `${w.standIns.address}/inbox/message/desk` };
        // All of them are made of the same few things.
        if (step.kind === 'look up') return { ...step, ours: false };
        if (step.kind === 'check') return { ...step, alone: false };
        return step.kind === 'publish' ? { ...step, when: 'at once' as const } : step;
      });
      const [brief] = await run({ ...document, steps });
      for (let held = 0; held < 4; held++) {
        const standing = [...(await w.settled([brief!], ['out', 'held', 'stopped'])).values()][0];
        if (standing !== 'held') break;
        for (const hold of await holds(brief!))
          await ask('POST', `/briefs/${brief}/holds/${hold.run}`, { decide: 'pass' });
        await expect.poll(async () => (await whole(brief!)).standing, { timeout: 15_000 }).toMatch(/out|held|stopped/);
      }
      await w.settled([brief!], ['out']);
      const ends = one.key === 'follow' ? 'draft' : 'live';
      expect((await madeBy(brief!)).filter(({ state }) => state === ends)).toHaveLength(1);
    },
  );
});

test('everything a pipeline made is deleted, on the blog too, once its number is said', async () => {
  const source = await listOf('fermenting garlic in honey');
  const pipeline = await pipelineOf(written(source, publish('s6')));
  const { briefs } = (await ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, {})).body;
  await w.settled(briefs, ['out']);
  const [article] = await madeBy(briefs[0]!);
  expect((await fetch(article!.address!)).status).toBe(200);
  expect((await ask('GET', `/pipelines/${pipeline}/made`)).body).toEqual({ briefs: 1, articles: 1, posts: 1, open: 0 });
  const owner = await http.as('owner');
  expect((await ask('POST', `/pipelines/${pipeline}/clear`, { articles: 1 })).status).toBe(403);
  expect((await owner('POST', `/pipelines/${pipeline}/clear`, { articles: 2 })).status).toBe(409);
  w.standIns.trouble('blog', { how: 'key refused' }, 1, '/micropub');
  const refused = await owner<{ kept: unknown[] }>('POST', `/pipelines/${pipeline}/clear`, { articles: 1 });
  expect(refused.body.kept).toEqual([{ address: article!.address, said: 'key refused' }]);
  expect((await whole(briefs[0]!)).standing).toBe('out');
  const cleared = await owner('POST', `/pipelines/${pipeline}/clear`, { articles: 1 });
  expect(cleared.body).toEqual({ briefs: 1, posts: 1, kept: [] });
  expect((await fetch(article!.address!)).status).not.toBe(200);
  expect(await madeBy(briefs[0]!)).toEqual([]);
  // What it took does not come again by itself.
  expect((await ask<{ briefs: string[] }>('POST', `/pipelines/${pipeline}/take`, {})).body.briefs).toEqual([]);
});

test('the planner alone makes of every brief of these journeys the step runs the store holds', async () => {
  const { db } = w.product.ground;
  const briefs = await db.rows<{ id: string }>('SELECT id FROM brief ORDER BY id');
  expect(briefs.length).toBeGreaterThan(20);
  for (const { id } of briefs) expect([id, await replayed(db, id)]).toEqual([id, []]);
  // A run taken out or put in by hand is noticed.
  const [last] = await db.rows<{ id: string; brief: string }>(
    "SELECT id, brief FROM step_run WHERE state = 'done' ORDER BY id DESC LIMIT 1",
  );
  await db.run('DELETE FROM step_run WHERE id = ?', [last!.id]);
  expect(await replayed(db, last!.brief)).not.toEqual([]);
});

describe('bad documents', () => {
  test('a circle of routines is refused, and nothing of it is saved', async () => {
    const using = (id: string): ProcedureDocument => ({
      grivo: 1,
      language: 'en',
      steps: [{ ...k.use.fresh('u1'), routine: id }],
    });
    const plain: ProcedureDocument = { grivo: 1, language: 'en', steps: [k.wait.fresh('w1')] };
    const first = (await ask<{ id: string }>('POST', '/routines', { name: 'First', document: plain })).body.id;
    const second = (await ask<{ id: string }>('POST', '/routines', { name: 'Second', document: using(first) })).body.id;
    const round = await ask(
      'PUT',
      `/routines/${first}`,
      { name: 'First', document: using(second) },
      { 'if-match': '"1"' },
    );
    expect([round.status, round.problem.detail]).toEqual([
      422,
      'Routines would use each other for ever: First → Second → First.',
    ]);
    const itself = await ask(
      'PUT',
      `/routines/${first}`,
      { name: 'First', document: using(first) },
      { 'if-match': '"1"' },
    );
    expect(itself.status).toBe(422);
    const { routines } = (await ask<{ routines: { id: string; version: number }[] }>('GET', '/routines')).body;
    expect(routines.find(({ id }) => id === first)).toMatchObject({ version: 1 });
    expect((await ask('POST', '/routines', { name: 'First', document: plain })).status).toBe(409);
    const taking = await ask('POST', '/routines', {
      name: 'Third',
      document: { ...plain, steps: [k.take.fresh('s1')] },
    });
    expect(taking.problem.title).toBe('Takes nothing');
  });

  test('YAML comes out, and what is wrong in it is told with line and mend', async () => {
    const source = await listOf('how much salt for sauerkraut');
    const pipeline = await pipelineOf(written(source));
    const file = await fetch(`${http.address}/api/pipelines/${pipeline}/procedure.yaml`, {
      headers: { cookie: await cookie() },
    });
    const yaml = await file.text();
    expect(yaml).toContain('# Write about 500 words');
    const read = await ask<{ document: ProcedureDocument }>('POST', '/procedures/read', { yaml });
    expect(read.body.document.steps).toHaveLength(5);
    const wrong = await ask('POST', '/procedures/read', { yaml: yaml.replace('words: 500', 'words: many') });
    expect(wrong.status).toBe(422);
    expect(wrong.problem.detail).toMatch(/^Line \d+: ‘words’ is not a number\.$/);
    const long = await ask('POST', '/procedures/read', { yaml: 'x'.repeat(1_500_000) });
    expect(long.problem.detail).toMatch(/1,500,000 letters/);
    const longer = await ask('POST', '/procedures/read', { yaml: 'x'.repeat(2_200_000) });
    expect([longer.status, longer.problem.mend]).toEqual([413, expect.any(String) as string]);
  });

  test('a field nothing gives keeps a pipeline from running, and an expression that runs away stops its brief', async () => {
    const source = await listOf('notes from the cellar');
    const out = (expression: string): ProcedureDocument => ({
      grivo: 1,
      language: 'en',
      steps: [
        { ...k.take.fresh('s1'), sources: [source], most: null },
        { ...k['work out'].fresh('s2'), as: 'x', expression },
      ],
    });
    const made = await ask<{ id: string; problems: { sentence: string }[] }>('POST', '/pipelines', {
      name: 'Off',
      document: out('upper(nothing1)'),
    });
    expect(made.body.problems[0]!.sentence).toContain('nothing1');
    expect((await ask('POST', `/pipelines/${made.body.id}/take`, {})).status).toBe(422);
    const [brief] = await run(out('find("aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa!", "(a+)+$")'));
    await w.settled([brief!], ['stopped']);
    expect(ran(await whole(brief!), 's2')?.failure?.sentence).toContain('took too long');
  });
});

async function cookie(): Promise<string> {
  const signed = await fetch(`${http.address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'editor@crockhaven.example', password: 'salt-and-patience' }),
  });
  return signed.headers.get('set-cookie')!.split(';')[0]!;
}
