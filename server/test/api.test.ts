import type { Blog, BriefWhole, Estimate, FoundEndpoint, PipelineWhole, Slots } from '@grivo/contract';
import { type ProcedureDocument, type Step, stepKinds } from '@grivo/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { type Ask, serve } from './ground/http.ts';
import { DAILY, LENIENT, type World, world } from './ground/world.ts';

let w: World;
let http: Awaited<ReturnType<typeof serve>>;
let owner: Ask;
let editor: Ask;
let reader: Ask;

beforeAll(async () => {
  w = await world();
  http = await serve(w);
  [owner, editor, reader] = await Promise.all([http.as('owner'), http.as('editor'), http.as('proofreader')]);
  await w.product.work('both');
});
afterAll(async () => {
  http.close();
  await w.close();
});

async function list(): Promise<string> {
  return (await editor<{ id: string }>('POST', '/sources', { name: 'A list' })).body.id;
}

function document(source: string, until = 9) {
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [source] },
    stepKinds['look up'].fresh('s2'),
    stepKinds.outline.fresh('s3'),
    { ...stepKinds.write.fresh('s4'), words: 500 },
    stepKinds.title.fresh('s5'),
    stepKinds.illustrate.fresh('s6'),
    { ...stepKinds.link.fresh('s7'), blog: w.blog },
    { ...stepKinds.check.fresh('s8'), ...LENIENT, words: { from: 100, to: 2_000 } },
    { ...stepKinds.publish.fresh('s9'), blog: w.blog },
  ];
  return { grivo: 1 as const, language: 'en', steps: steps.slice(0, until) };
}

describe('keyword pastes', () => {
  test.each([
    ['nothing', '', 'Nothing there'],
    ['only blanks', ' \n\t ', 'Nothing there'],
  ])('%s is refused with what would mend it', async (_name, paste, title) => {
    const { status, problem } = await editor('POST', `/sources/${await list()}/keywords`, { paste });
    expect([status, problem.title]).toEqual([422, title]);
    expect(problem.mend).not.toBe('');
  });

  test('a megabyte is read whole, a bigger one refused with its size', async () => {
    const id = await list();
    const many = Array.from({ length: 40_000 }, (_, i) => `word${i.toString(36)} of table salt ${i}`).join('\n');
    expect(many.length).toBeGreaterThan(900_000);
    const read = await editor<{ added: number }>('POST', `/sources/${id}/keywords`, { paste: many });
    expect(read.status).toBe(200);
    expect(read.body.added).toBeGreaterThan(30_000);
    const more = await editor('POST', `/sources/${id}/keywords`, { paste: 'x'.repeat(1_600_000) });
    expect([more.status, more.problem.detail]).toEqual([422, 'paste: at most 1.5 million characters']);
    const huge = await editor('POST', `/sources/${id}/keywords`, { paste: 'x'.repeat(3_000_000) });
    expect([huge.status, huge.problem.title]).toEqual([413, 'Too long']);
  });

  test('emoji, right-to-left and control characters come out clean and count as what they are', async () => {
    const id = await list();
    const paste = 'مخلل الملفوف\n🥬🥒\nsalt\u0000 \u202eevil\n\ud800broken\nSalt evil';
    const read = await editor<{ added: number; dropped: { reason: string; of: string | null }[] }>(
      'POST',
      `/sources/${id}/keywords`,
      { paste },
    );
    expect(read.body.added).toBe(3);
    expect(read.body.dropped.map(({ reason, of }) => [reason, of])).toEqual([
      ['no letters', null],
      ['repeat', 'salt evil'],
    ]);
    const { body } = await reader<{ items: { subject: string }[] }>('GET', `/sources/${id}/items`);
    expect(body.items.map((item) => item.subject)).toEqual(['مخلل الملفوف', 'salt evil', 'broken']);
  });

  test('a look at a paste changes nothing', async () => {
    const id = await list();
    const { body } = await editor<{ added: number }>('POST', `/sources/${id}/keywords/look`, {
      paste: 'sea salt, rock salt',
    });
    expect(body.added).toBe(2);
    expect((await reader<{ items: unknown[] }>('GET', `/sources/${id}/items`)).body.items).toEqual([]);
  });
});

describe('requests that do not fit', () => {
  test('no JSON, wrong types and unknown words name the place and change nothing', async () => {
    const broken = await editor('POST', '/sources', '{"name": ');
    expect([broken.status, broken.problem.title]).toEqual([400, 'Not JSON']);
    const typed = await editor('POST', '/sources', { name: 7 });
    expect(typed.status).toBe(422);
    expect(typed.problem.places?.[0]?.place).toBe('name');
    const unknown = await editor('POST', '/sources', { name: 'Well', colour: 'red' });
    expect(unknown.problem.detail).toContain('colour');
    const wrong = structuredClone(document('x')) as { steps: Record<string, unknown>[] };
    wrong.steps[3]!['words'] = 'many';
    const procedure = await editor('POST', '/pipelines', { name: 'P', document: wrong });
    expect(procedure.problem.places?.[0]?.place).toBe('document.steps.3.words');
    const query = await editor('GET', '/briefs?limit=9999');
    expect([query.status, query.problem.places?.[0]?.place]).toEqual([422, 'limit']);
    expect((await editor('GET', '/nowhere')).status).toBe(404);
    expect((await editor('GET', '/briefs/zzzzzzzzzzzzzzzzzzzz')).status).toBe(404);
  });

  test('a pipeline that would not run can be kept but neither switched on nor fed', async () => {
    const made = await editor<{ id: string; problems: { step: string }[] }>('POST', '/pipelines', {
      name: 'Half made',
      document: { ...document(await list()), steps: document('x').steps.slice(0, 4) },
    });
    expect(made.status).toBe(201);
    const on = await editor('POST', `/pipelines/${made.body.id}/on`);
    expect([on.status, on.problem.title]).toEqual([422, 'Will not run']);
    expect((await editor('POST', `/pipelines/${made.body.id}/take`, {})).status).toBe(422);
  });
});

describe('who may do what', () => {
  test('strangers are asked to sign in, roles keep to what is theirs', async () => {
    expect((await http.stranger('GET', '/briefs')).status).toBe(401);
    const { status, problem } = await reader('POST', '/sources', { name: 'Mine' });
    expect([status, problem.title]).toEqual([403, 'Not allowed']);
    expect(problem.mend).toContain('owner');
    expect((await editor('PUT', '/limit', { capMicros: 1 })).status).toBe(403);
    expect((await reader('GET', '/briefs')).status).toBe(200);
  });

  test('a session that ran out says so; what was saved stays', async () => {
    const late = await http.as('editor').catch(() => editor);
    await w.product.ground.db.run('UPDATE session SET expires_at = DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 SECOND)');
    const { status, problem } = await late('GET', '/briefs');
    expect([status, problem.detail]).toEqual([401, 'You are not signed in, or were away for too long.']);
    await w.product.ground.db.run('UPDATE session SET expires_at = DATE_ADD(UTC_TIMESTAMP(3), INTERVAL 1 DAY)');
    expect((await late('GET', '/briefs')).status).toBe(200);
  });

  test('another site cannot make changes in somebody’s name, and secrets never come out', async () => {
    const foreign = await owner('POST', '/sources', { name: 'Theirs' }, { origin: 'https://elsewhere.example' });
    expect([foreign.status, foreign.problem.title]).toEqual([403, 'Wrong origin']);
    const services = JSON.stringify((await owner('GET', '/services')).body);
    expect(services).toContain('The writer');
    expect(services).not.toContain(w.standIns.keys.one);
    expect(JSON.stringify((await owner('GET', '/blogs')).body)).not.toContain(w.standIns.blog('journal').token);
  });

  test('twenty wrong passwords in a minute are enough', async () => {
    const tries = await Promise.all(
      Array.from({ length: 24 }, () =>
        http.stranger('POST', '/session', { email: 'ines@crockhaven.example', password: 'wrong' }),
      ),
    );
    expect(new Set(tries.map(({ status }) => status))).toEqual(new Set([401, 429]));
  });
});

describe('repeating and changing', () => {
  test('a post with a key is done once, also when asked twice at the same time', async () => {
    const key = { 'idempotency-key': 'list-1' };
    const both = await Promise.all([
      editor<{ id: string }>('POST', '/sources', { name: 'Once' }, key),
      editor<{ id: string }>('POST', '/sources', { name: 'Once' }, key),
    ]);
    const again = await editor<{ id: string }>('POST', '/sources', { name: 'Once' }, key);
    expect(again.status).toBe(201);
    const { sources } = (await reader<{ sources: { name: string; id: string }[] }>('GET', '/sources')).body;
    expect(sources.filter(({ name }) => name === 'Once').map(({ id }) => id)).toEqual([again.body.id]);
    for (const { status, body } of both)
      expect([status, body.id]).toSatisfy(([s, id]) => s === 409 || id === again.body.id);
    const other = await editor('POST', '/sources', { name: 'Another' }, key);
    expect([other.status, other.problem.title]).toEqual([422, 'Key used before']);
  });

  test('the second of two editors is told and sees what stands now', async () => {
    const { body } = await editor<{ id: string }>('POST', '/pipelines', {
      name: 'P',
      document: document(await list()),
    });
    const read = await editor<PipelineWhole>('GET', `/pipelines/${body.id}`);
    const tag = { 'if-match': read.headers.get('etag')! };
    const first = await editor<PipelineWhole>('PUT', `/pipelines/${body.id}`, { name: 'Mine' }, tag);
    expect([first.status, first.body.version]).toEqual([200, 1]);
    const second = await owner('PUT', `/pipelines/${body.id}`, { name: 'Theirs' }, tag);
    expect(second.status).toBe(412);
    expect((second.problem.current as PipelineWhole).name).toBe('Mine');
    expect((await owner('PUT', `/pipelines/${body.id}`, { name: 'No tag' })).status).toBe(428);
    const changed = document(await list());
    const third = await owner<PipelineWhole>(
      'PUT',
      `/pipelines/${body.id}`,
      { document: changed },
      {
        'if-match': first.headers.get('etag')!,
      },
    );
    expect(third.body.version).toBe(2);
  });
});

describe('the description', () => {
  test('names every route once, with its schemas, and speaks OpenAPI 3.1', async () => {
    const { body } = await http.stranger<{
      openapi: string;
      paths: Record<string, Record<string, { operationId: string }>>;
    }>('GET', '/openapi.json');
    expect(body.openapi).toBe('3.1.0');
    const operations = Object.values(body.paths).flatMap((path) => Object.values(path).map((one) => one.operationId));
    expect(new Set(operations).size).toBe(operations.length);
    expect(operations.length).toBeGreaterThan(35);
    expect(body.paths['/pipelines/{id}']?.['put']).toMatchObject({
      requestBody: { content: { 'application/json': { schema: { type: 'object' } } } },
    });
  });
});

describe('blogs and slots', () => {
  test('a blog is found from its address, tested with a draft that leaves nothing, and a wrong secret is explained', async () => {
    const site = w.standIns.blog('kitchen');
    const found = await owner<FoundEndpoint>('POST', '/blogs/find', { address: site.address });
    expect(found.body).toMatchObject({ language: 'en', ways: [{ endpoint: site.endpoint }, { way: 'atom' }, {}] });
    const missing = await owner('POST', '/blogs/find', { address: `${site.address}x` });
    expect([missing.status, missing.problem.title]).toEqual([422, 'No blog there']);
    const before = w.standIns.received().posts('kitchen').length;
    const { body } = await owner<{ id: string }>('POST', '/blogs', {
      name: 'Kitchen Notes',
      address: site.address,
      endpoint: site.endpoint,
      secret: ` ${site.token}\n`,
      language: 'en',
      cadence: DAILY,
    });
    const well = await owner<{ lines: { well: boolean; tried: string }[] }>('POST', `/blogs/${body.id}/test`);
    expect(well.body.lines.map(({ well }) => well)).toEqual(Array(7).fill(true));
    expect(w.standIns.received().posts('kitchen')).toHaveLength(before);
    await owner('PUT', `/blogs/${body.id}/secret`, { secret: 'wrong' });
    const bad = await owner<{ lines: { well: boolean; change: string }[] }>('POST', `/blogs/${body.id}/test`);
    expect(bad.body.lines.at(-1)).toMatchObject({
      well: false,
      change: expect.stringContaining('Paste the secret again'),
    });
  });

  test('a finished article stands at its slot, moves where rules allow, and elsewhere only when it is meant', async () => {
    await w.product.ground.desk.set(Date.parse('2026-03-02T07:00:00Z'), 0);
    const id = await w.pipeline(['how much salt for sauerkraut'], (steps) =>
      steps.map((step) => (step.kind === 'publish' ? { ...step, when: 'next free slot' as const } : step)),
    );
    const briefs = await w.take(id);
    await w.settled(briefs, ['ready']);
    const slots = async () =>
      (await reader<Slots>('GET', '/slots?days=2')).body.blogs.find(({ blog }) => blog === w.blog)!.slots;
    const [first, second] = await slots();
    expect(first).toMatchObject({ standing: 'ready', pinned: false });
    expect(second).toMatchObject({ standing: 'planned', article: null });
    const article = first!.article!;
    const moved = await editor('PUT', `/articles/${article}/slot`, { blog: w.blog, at: second!.at });
    expect(moved.status).toBe(204);
    expect((await slots()).find((slot) => slot.article === article)).toMatchObject({ at: second!.at, pinned: true });
    const odd = second!.at + 17 * 60_000;
    const refused = await editor('PUT', `/articles/${article}/slot`, { blog: w.blog, at: odd });
    expect([refused.status, refused.problem.title]).toEqual([422, 'Breaks a rule']);
    expect((await editor('PUT', `/articles/${article}/slot`, { blog: w.blog, at: odd, force: true })).status).toBe(204);
    await w.product.ground.desk.set(odd + 1_000, 0);
    w.product.bell.ring({ kind: 'settings' });
    await w.settled(briefs, ['out']);
    const { body } = await reader<{ articles: { outDesk: number }[] }>('GET', '/articles');
    expect(body.articles[0]?.outDesk).toBeGreaterThanOrEqual(odd);
    expect((await editor('PUT', `/articles/${article}/slot`, { blog: w.blog, at: odd + 1 })).status).toBe(409);
  });

  test('a changed cadence places again what no person has placed', async () => {
    const briefs = await w.take(
      await w.pipeline(['crisp fermented cucumbers'], (steps) =>
        steps.map((step) => (step.kind === 'publish' ? { ...step, when: 'next free slot' as const } : step)),
      ),
    );
    await w.settled(briefs, ['ready']);
    const [blog] = (await owner<{ blogs: Blog[] }>('GET', '/blogs')).body.blogs;
    const cadence = { ...DAILY, hours: { from: '20:00', to: '22:00' } };
    const put = await owner('PUT', `/blogs/${w.blog}`, { cadence, move: true }, { 'if-match': `"${blog!.rev}"` });
    expect(put.status).toBe(200);
    const { blogs } = (await reader<Slots>('GET', '/slots?days=3')).body;
    const placed = blogs.find(({ blog }) => blog === w.blog)!.slots.find((slot) => slot.standing === 'ready')!;
    expect(new Date(placed.at).getUTCHours()).toBe(20);
  });
});

describe('trials', () => {
  test('run to a line, go on, change a word and run from there: what stands above is not paid again, nothing is published', async () => {
    const source = await list();
    await editor('POST', `/sources/${source}/keywords`, { paste: 'fermenting garlic in honey' });
    const { body } = await editor<{ id: string }>('POST', '/pipelines', { name: 'T', document: document(source) });
    const texts = () => w.standIns.received().calls.filter((call) => call.what === 'text').length;
    const posts = w.standIns.received().acts.length;
    const trial = await editor<{ id: string }>('POST', `/pipelines/${body.id}/trials`, {
      document: document(source),
      subject: 'fermenting garlic in honey',
      until: 's3',
    });
    expect(trial.status).toBe(201);
    const settled = async () => {
      await w.settled([trial.body.id], ['out']);
      return (await reader<BriefWhole>('GET', `/briefs/${trial.body.id}`)).body;
    };
    expect((await settled()).runs.map(({ kind }) => kind)).toEqual(['look up', 'outline']);
    await editor('PUT', `/trials/${trial.body.id}`, { document: document(source) });
    const whole = await settled();
    expect(whole.runs.map(({ state }) => state)).toEqual(Array.from({ length: 8 }, () => 'done'));
    expect(whole.runs.at(-1)?.gave).toMatchObject({ publication: { would: 'live', address: '(its address)' } });
    expect(w.standIns.received().acts).toHaveLength(posts);
    const paid = texts();
    const shorter = document(source);
    shorter.steps[4] = { ...stepKinds.title.fresh('s5'), most: 45 };
    await editor('PUT', `/trials/${trial.body.id}`, { document: shorter });
    const again = await settled();
    expect(again.runs.filter(({ round }) => round > 0).map(({ path }) => path)).toEqual(['s5', 's6', 's7', 's8', 's9']);
    expect(texts() - paid).toBe(1);
    const title = String(again.runs.findLast(({ kind }) => kind === 'title')?.gave?.['title']);
    expect(title.length).toBeLessThanOrEqual(45);
    const { articles } = (await reader<{ articles: { brief: string }[] }>('GET', '/articles')).body;
    expect(articles.some(({ brief }) => brief === trial.body.id)).toBe(false);
  });

  test('three lines, another score, on; another outline, and on from there; a step put in between and taken out: nothing is paid twice', async () => {
    const source = await list();
    await editor('POST', `/sources/${source}/keywords`, { paste: 'storing cabbage for the winter' });
    const judge = stepKinds.judge.fresh('s20');
    const full = document(source);
    const of = (least: number, sections: number, ...between: Step[]): ProcedureDocument => ({
      ...full,
      steps: full.steps.flatMap((step): Step[] =>
        step.kind === 'outline'
          ? [{ ...judge, least }, { ...step, sections: { from: sections, to: sections } }, ...between]
          : [step],
      ),
    });
    const { body } = await editor<{ id: string }>('POST', '/pipelines', { name: 'T2', document: full });
    const paid = () =>
      w.standIns
        .received()
        .calls.filter((call) => call.what === 'text')
        .reduce((sum, call) => sum + call.micros, 0);
    const trial = await editor<{ id: string }>('POST', `/pipelines/${body.id}/trials`, {
      document: of(3, 3),
      subject: 'storing cabbage for the winter',
      until: 's20',
    });
    const on = async (document: ProcedureDocument, more: object = {}) => {
      const before = paid();
      expect((await editor('PUT', `/trials/${trial.body.id}`, { document, ...more })).status).toBe(204);
      await w.settled([trial.body.id], ['out']);
      const { runs } = (await reader<BriefWhole>('GET', `/briefs/${trial.body.id}`)).body;
      return { cost: paid() - before, runs };
    };
    await w.settled([trial.body.id], ['out']);
    const judged = paid();
    expect(judged).toBeGreaterThan(0);
    // The score is no part of what the writer is asked.
    expect((await on(of(2, 3), { until: 's20' })).cost).toBe(0);
    const whole = await on(of(2, 3));
    expect(whole.cost).toBeGreaterThan(0);
    const outlined = await on(of(2, 4), { until: 's3' });
    expect(outlined.cost).toBeGreaterThan(0);
    expect(outlined.runs.filter(({ kind, round }) => kind === 'judge' && round > 1)).toEqual([]);
    const all = await on(of(2, 4));
    expect(all.cost).toBeGreaterThan(0);
    // Put in between, a step is done and what follows sees what it gave.
    const worked = stepKinds['work out'].fresh('s21');
    const between = await on(of(2, 4, worked));
    expect(between.runs.filter(({ kind }) => kind === 'work out').map(({ state }) => state)).toEqual(['done']);
    const rounds = between.runs.filter(({ path }) => path === 's4').map(({ round }) => round);
    expect(Math.max(...rounds)).toBe(Math.max(...between.runs.map(({ round }) => round)));
    expect(between.cost).toBe(0);
    // Taken out again, everything is as it was, and known.
    expect((await on(of(2, 4))).cost).toBe(0);
    // The same back to an earlier outline: it was answered once.
    expect((await on(of(2, 3))).cost).toBe(0);
  });
});

test('what a brief would cost is told before anything is paid, and follows what its steps are', async () => {
  const source = await list();
  const full = document(source);
  const estimate = async (steps: Step[]) =>
    (
      await reader<Estimate>('POST', '/procedures/estimate', {
        document: { ...full, steps },
      })
    ).body;
  const whole = await estimate(full.steps);
  expect(whole.micros).toBeGreaterThan(0);
  const without = await estimate(full.steps.filter(({ kind }) => kind !== 'illustrate'));
  expect(without.micros).toBeLessThan(whole.micros);
  expect(await estimate(full.steps.map((step) => ({ ...step, off: step.kind !== 'take' })))).toEqual({
    micros: 0,
    fromMicros: 0,
    toMicros: 0,
    byPrice: 0,
    steps: [],
  });
  expect(whole).toMatchObject({ fromMicros: expect.any(Number), toMicros: expect.any(Number) });
  expect(whole.fromMicros).toBeLessThanOrEqual(whole.micros);
  expect(whole.toMicros).toBeGreaterThanOrEqual(whole.micros);
  // What is done for each of three costs three times as much, and a check that sends back makes it uncertain.
  const write = stepKinds.write.fresh('w1');
  const answer = { ...stepKinds.answer.fresh('w2'), as: 'said' };
  const turns = { ...stepKinds['for each'].fresh('w3'), values: ['a', 'b', 'c'], steps: [answer] };
  const one = await estimate([...full.steps.slice(0, 1), answer]);
  expect((await estimate([...full.steps.slice(0, 1), turns])).micros).toBeCloseTo(3 * one.micros, -1);
  const checked = await estimate([full.steps[0]!, write, { ...stepKinds.check.fresh('w4'), again: 2 }]);
  const unchecked = await estimate([full.steps[0]!, write]);
  if (unchecked.byPrice > 0) expect(checked.toMicros).toBeGreaterThan(unchecked.toMicros);
  else expect(checked.micros).toBe(unchecked.micros);
  const notes = [...full.steps.slice(0, 3), stepKinds.notes.fresh('s20'), ...full.steps.slice(3)];
  expect(await estimate(notes)).toMatchObject({ byPrice: whole.byPrice + 1 });
  expect((await reader('POST', '/procedures/estimate', { document: 'none' })).status).toBe(422);
});

describe('the versions of a procedure', () => {
  test('are read whole one by one; past runs tell what a word would have done', async () => {
    const source = await list();
    await editor('POST', `/sources/${source}/keywords`, { paste: 'rinsing kraut, airlocks for jars' });
    const judged = {
      ...document(source),
      steps: [
        ...document(source).steps.slice(0, 2),
        { ...stepKinds.judge.fresh('s20'), least: 0 },
        ...document(source).steps.slice(2),
      ],
    };
    const made = await editor<{ id: string }>('POST', '/pipelines', { name: 'V', document: judged });
    const path = `/pipelines/${made.body.id}`;
    const changed = { ...judged, steps: judged.steps.filter((step) => step.kind !== 'illustrate') };
    const saved = await editor('PUT', path, { document: changed }, { 'if-match': '"1"' });
    expect(saved.status).toBe(200);
    const read = (n: string) => reader<{ n: number; document: ProcedureDocument }>('GET', `${path}/versions/${n}`);
    expect((await read('1')).body).toEqual({ n: 1, document: judged });
    expect((await read('2')).body).toEqual({ n: 2, document: changed });
    expect([(await read('3')).status, (await read('one')).status]).toEqual([404, 404]);
    const past = async (step: string) =>
      (await reader<{ past: Record<string, number[]> }>('GET', `${path}/past/${step}`)).body.past;
    expect(await past('s20')).toEqual({ least: [] });
    const taken = await editor<{ briefs: string[] }>('POST', `${path}/take`, {});
    await w.settled(taken.body.briefs, ['out', 'ready', 'stopped', 'set aside']);
    const scores = await past('s20');
    expect(scores['least']).toHaveLength(2);
    for (const score of scores['least']!) expect(score).toBeGreaterThanOrEqual(0);
    expect(await past('s2')).toEqual({});
    expect(await past('nowhere')).toEqual({});
  });
});

test('changes are told as they are committed, and who comes back is told to read everything again', async () => {
  expect((await fetch(`${http.address}/api/events`)).status).toBe(401);
  const stop = new AbortController();
  const signed = await fetch(`${http.address}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'owner@crockhaven.example', password: 'salt-and-patience' }),
  });
  // The tries of a minute were used up above when the tests run fast; a session made here by hand is as good.
  const cookie = signed.ok ? signed.headers.get('set-cookie')!.split(';')[0]! : await sessionByHand();
  const stream = await fetch(`${http.address}/api/events`, { headers: { cookie }, signal: stop.signal });
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
  let heard = '';
  const until = async (wanted: RegExp) => {
    while (!wanted.test(heard)) heard += (await reader.read()).value ?? '';
  };
  await until(/event: ?all/);
  const source = await list();
  await until(new RegExp(`event: ?change[^]*"nounId":"${source}"`));
  stop.abort();
});

async function sessionByHand(): Promise<string> {
  const { signIn } = await import('../src/nouns/people/sessions.ts');
  return `grivo_session=${(await signIn(w.product.ground, 'owner@crockhaven.example', 'salt-and-patience'))!.token}`;
}
