import type { ArticleWhole, BriefWhole, Offered, SourceSettings } from '@grivo/contract';
import { type ItemField, type ProcedureDocument, SHIPPED, type Step, sheetColumns, stepKinds } from '@grivo/core';
import { PODCASTS, recordingOf } from '@grivo/standins';
import { expect, test } from 'vitest';
import type { z } from 'zod';
import { atTheDesk, type Desk } from './ground/desk.ts';
import { intakeAt } from './ground/intake.ts';

let desk: Desk;
atTheDesk((open) => {
  desk = open;
});
const { at, sourceOf, look, upload } = intakeAt(() => desk);

type Settings = z.input<typeof SourceSettings>;
const file = async (mime: string, body: Uint8Array | string) =>
  ((await (await upload(mime, body)).json()) as { file: string }).file;

/** Of a trade the stand-ins know nothing of. */
const WHEELS = [
  'A rear wheel that rubs at the brake on one side is trued with the tyre on, the bicycle standing on its saddle.',
  'Turn the nipple a quarter turn at a time, and look at the gap beside the brake after each turn.',
  'A wheel that is true within half a millimetre is good enough for any road in the town.',
  'Spokes on the side of the chain carry more, since the rim is drawn towards the sprockets there.',
  'Thirty-six spokes hold a rim better than twenty-eight, and a heavy rider notices the difference at once.',
  'Squeeze pairs of spokes between the fingers: a slack one gives way further than its neighbours do.',
  'Rim tape of cotton lasts for years, while tape of plastic moves and lets the tube meet the holes.',
  'A hub that grinds when it is turned by hand wants new grease before it wants new bearings.',
  'Cones are set so that the axle turns without play and without the least resistance to the fingers.',
  'Tyres are marked with their width in millimetres first, and with the diameter of their bead after it.',
  'Pump a tyre of 37 millimetres to four bar in front and to four and a half behind.',
  'A chain is worn once twelve links measure more than 119.5 millimetres, and takes the sprockets with it.',
  'Oil goes on the inner side of the chain, and what is left on the outer side is wiped off.',
  'Brake blocks are set level with the rim, a finger below the tyre, and toed in by a millimetre.',
  'Cables are cut with their housing, never with pliers, and their ends are capped before they fray.',
  'A saddle is at the right height when the heel just touches the pedal at the lowest place of it.',
];
const TEXT = WHEELS.join(' ');
const BIKES = `Part,Fits,Price,About
Spoke key,all nipples,6.50,"${WHEELS.slice(0, 8).join(' ')}"
Hub grease,all hubs,9.20,"${WHEELS.slice(8).join(' ')}"
`;
const SPOKEN = `WEBVTT

${WHEELS.map((line, i) => `00:${String(i * 3).padStart(2, '0')}.000 --> 00:${String(i * 3 + 3).padStart(2, '0')}.000\n${line}`).join('\n\n')}
`;
const MANUAL = `# True wheels

${WHEELS.slice(0, 8).join(' ')}

## What moves

${WHEELS.slice(8).join(' ')}
`;

/** A source of each kind, of a trade the stand-ins know nothing of where it is put in by hand. */
const EACH: Record<SourceSettings['kind'], () => Promise<string>> = {
  keywords: async () => {
    const source = await sourceOf({ kind: 'keywords' } satisfies Settings);
    await desk.ask('POST', `/sources/${source}/keywords`, { paste: 'fermenting garlic in honey' });
    return source;
  },
  sheet: async () => sourceOf({ kind: 'sheet', file: await file('text/csv', BIKES), fileName: 'parts.csv' }),
  videos: async () =>
    sourceOf({ kind: 'videos', captions: [{ file: await file('text/vtt', SPOKEN), fileName: 'wheel.vtt' }] }),
  feed: async () => sourceOf({ kind: 'feed', feeds: [{ address: at('/news/cellar-wire/feed'), name: '' }] }),
  documents: async () =>
    sourceOf({ kind: 'documents', files: [{ file: await file('text/markdown', MANUAL), fileName: 'wheels.md' }] }),
  catalogue: async () =>
    sourceOf({
      kind: 'catalogue',
      address: at('/partner/northquay/list.json'),
      partnerLink: '{link}?p={partner}',
      partner: 'wheel-7',
    }),
  publications: async () => sourceOf({ kind: 'publications' }),
  recordings: async () => {
    const sound = await file('audio/wav', recordingOf(PODCASTS[0]!.episodes[0]!));
    return sourceOf({ kind: 'recordings', files: [{ file: sound, fileName: 'talk.wav' }] });
  },
  hook: async () => {
    const source = await sourceOf({
      kind: 'hook',
      signed: false,
      fields: [
        { name: 'gears', type: 'number', needed: true },
        { name: 'maker', type: 'text', needed: false },
      ],
    });
    const { address } = (await desk.ask<{ address: string }>('GET', `/sources/${source}/hook`)).body;
    const body = { subject: 'Wheels with hub gears', notes: TEXT, gears: 8 };
    expect((await fetch(address, { method: 'POST', body: JSON.stringify(body) })).status).toBe(202);
    return source;
  },
  requests: async () => {
    const source = await sourceOf({ kind: 'requests' });
    await desk.ask('POST', `/sources/${source}/requests`, { subject: 'How a wheel is trued', notes: TEXT });
    return source;
  },
};

async function pipelineOf(kind: SourceSettings['kind'], source: string) {
  const shipped = SHIPPED.find(({ from }) => from === kind)!;
  await desk.ask('POST', `/sources/${source}/look`);
  const { sources } = (await desk.ask<{ sources: { id: string; brings: ItemField[] }[] }>('GET', '/sources')).body;
  const columns = kind === 'sheet' ? sheetColumns(sources.find(({ id }) => id === source)!.brings) : [];
  const whole = shipped.make({ source, blog: desk.w.blog, language: 'en', columns });
  const document: ProcedureDocument = {
    ...whole,
    steps: whole.steps.map((step) =>
      step.kind === 'write'
        ? { ...step, words: 120 }
        : step.kind === 'check'
          ? { ...step, words: { from: 20, to: 2_000 } }
          : step,
    ),
  };
  const made = await desk.ask<{ id: string; problems: unknown[] }>('POST', '/pipelines', { name: kind, document });
  expect(made.status).toBe(201);
  return { document, ...made.body };
}

const offeredTo = async (pipeline: string, document: ProcedureDocument) =>
  (await desk.ask<Offered>('POST', `/pipelines/${pipeline}/offered`, { document })).body;

async function tried(pipeline: string, document: ProcedureDocument, on: object): Promise<BriefWhole> {
  const made = await desk.ask<{ id: string }>('POST', `/pipelines/${pipeline}/trials`, { document, ...on });
  expect(made.status).toBe(201);
  return settled(made.body.id);
}

async function settled(trial: string): Promise<BriefWhole> {
  await desk.w.settled([trial], ['out', 'stopped']);
  return (await desk.ask<BriefWhole>('GET', `/briefs/${trial}`)).body;
}

/** Publishes something, so that there is a publication to follow. */
async function published(): Promise<void> {
  const source = await EACH.requests();
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: [source] },
    { ...stepKinds['lay out'].fresh('s2'), body: MANUAL, title: 'True wheels' },
    { ...stepKinds.publish.fresh('s3'), blog: desk.w.blog, when: 'at once' },
  ];
  const { body } = await desk.ask<{ id: string }>('POST', '/pipelines', {
    name: 'Out',
    document: { grivo: 1, language: 'en', steps },
  });
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${body.id}/take`, {})).body;
  await desk.w.settled(briefs, ['out']);
}

test.each(Object.keys(EACH) as SourceSettings['kind'][])(
  'a trial on an item of %s does what a run does: it is offered, read, written; with a word changed, again',
  async (kind) => {
    if (kind === 'publications') await published();
    const source = await EACH[kind]();
    if (!['keywords', 'hook', 'requests'].includes(kind)) expect((await look(source)).trouble).toBeNull();
    const { id, document, problems } = await pipelineOf(kind, source);
    expect(problems).toEqual([]);
    const { offered, examples } = await offeredTo(id, document);
    expect(offered[0]).toMatchObject({ source, standing: 'new' });
    expect(examples['subject']).toBeTruthy();
    const trial = await tried(id, document, { units: offered[0]!.units });
    expect(
      trial.runs.filter(({ failure }) => failure).map(({ kind, failure }) => `${kind}: ${failure?.sentence}`),
    ).toEqual([]);
    // What came by the name of its file is about what it calls itself, once it is read.
    const subject = kind === 'documents' ? 'True wheels' : offered[0]!.subject;
    expect(trial).toMatchObject({ standing: 'out', subject, items: offered[0]!.units.flat() });
    // Brought along: all that its source says it brings.
    const { brings } = (await desk.ask<{ brings: { name: string; always: boolean }[] }>('GET', `/sources/${source}`))
      .body;
    const expected = document.steps.some((step) => step.kind === 'take' && step.gather !== null)
      ? []
      : brings.filter(({ always }) => always).map(({ name }) => name);
    expect(Object.keys(trial.fields)).toEqual(expect.arrayContaining(expected));
    // One word changed, and again.
    const changed = {
      ...document,
      steps: document.steps.map((step) => (step.kind === 'title' ? { ...step, most: 50 } : step)),
    };
    expect((await desk.ask('PUT', `/trials/${trial.id}`, { document: changed })).status).toBe(204);
    expect((await settled(trial.id)).standing).toBe('out');
    // A run makes the same of it.
    const { briefs } = (
      await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, { groups: offered[0]!.units })
    ).body;
    const run = (await desk.ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body;
    if (briefs.length === 1) expect(run.fields).toEqual(trial.fields);
    const after = await offeredTo(id, document);
    // What can be spoken of is shown of something that was taken where nothing is new.
    expect(after.examples['subject']).toBeTruthy();
    expect(
      after.offered.filter(({ standing }) => standing === 'new').flatMap(({ units }) => units.flat()),
    ).not.toContain(offered[0]!.units.flat()[0]);
  },
  60_000,
);

test('a partner’s id given after the look counts for what was found before it, in trials and in runs', async () => {
  const settings = {
    kind: 'catalogue' as const,
    address: at('/partner/northquay/list.json'),
    partnerLink: '{link}?by={partner}',
  };
  const source = await sourceOf(settings);
  expect((await look(source)).trouble).toBeNull();
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [
      { ...stepKinds.take.fresh('s1'), sources: [source], most: 1 },
      { ...stepKinds.vary.fresh('s2'), variants: ['{{ partnerLink }}'], for: 'a field', as: 'said' },
    ],
  };
  const { id } = (await desk.ask<{ id: string }>('POST', '/pipelines', { name: 'Partner', document })).body;
  const [first] = (await offeredTo(id, document)).offered;
  const said = (trial: BriefWhole) => trial.runs.at(-1)?.gave?.['said'];
  expect(said(await tried(id, document, { units: first!.units }))).toMatch(/\?by=$/);
  const whole = (await desk.ask<{ rev: number; settings: object }>('GET', `/sources/${source}`)).body;
  const changed = await desk.ask(
    'PUT',
    `/sources/${source}`,
    { settings: { ...whole.settings, partner: 'spokes-9' } },
    { 'if-match': `"${whole.rev}"` },
  );
  expect(changed.status).toBe(200);
  expect(said(await tried(id, document, { units: first!.units }))).toMatch(/\?by=spokes-9$/);
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, { groups: first!.units }))
    .body;
  await desk.w.settled(briefs, ['out']);
  expect(said((await desk.ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body)).toMatch(/\?by=spokes-9$/);
});

test('what items of a source bring along can be spoken of, and the article as it stands', async () => {
  const source = await EACH.hook();
  const text = (body: string): ProcedureDocument => ({
    grivo: 1,
    language: 'en',
    steps: [
      { ...stepKinds.take.fresh('s1'), sources: [source] },
      { ...stepKinds['lay out'].fresh('s2'), body: '## Gears\n\n{{ text }}', title: '{{ subject }}' },
      { ...stepKinds.vary.fresh('s3'), variants: [body], for: 'a field', as: 'said' },
    ],
  });
  const right = text(
    '{{ gears }} gears{{ maker }}, {{ article.title }}, {{ article.words }} words: {{ article.html }}',
  );
  const { body } = await desk.ask<{ id: string; problems: unknown[] }>('POST', '/pipelines', {
    name: 'Speaks',
    document: right,
  });
  expect(body.problems).toEqual([]);
  const wrong = await desk.ask<{ problems: { sentence: string }[] }>('POST', '/pipelines', {
    name: 'Speaks of more',
    document: text('{{ wheels }} {{ article.wheels }}'),
  });
  expect(wrong.body.problems.map(({ sentence }) => sentence)).toEqual(['An article has no ‘wheels’.']);
  const [first] = (await offeredTo(body.id, right)).offered;
  const trial = await tried(body.id, right, { units: first!.units });
  expect(trial.runs.at(-1)?.gave?.['said']).toBe(
    `8 gears, Wheels with hub gears, 301 words: <h2 id="gears">Gears</h2>\n<p>${TEXT}</p>`,
  );
});

test('what came by the name of its file or address is about what it calls itself once it is read; a name somebody gave stays', async () => {
  const steps: Step[] = [
    { ...stepKinds.read.fresh('s2'), what: 'the document' },
    { ...stepKinds.vary.fresh('s3'), variants: ['On {{ subject }}'], for: 'a field', as: 'said' },
  ];
  const read = async (source: string, change: object = {}) => {
    const document: ProcedureDocument = {
      grivo: 1,
      language: 'en',
      steps: [{ ...stepKinds.take.fresh('s1'), sources: [source], ...change }, ...steps],
    };
    await look(source);
    const { id } = (await desk.ask<{ id: string }>('POST', '/pipelines', { name: 'Reads', document })).body;
    const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, {})).body;
    await desk.w.settled(briefs, ['out']);
    const wholes = briefs.map(async (brief) => (await desk.ask<BriefWhole>('GET', `/briefs/${brief}`)).body);
    return (await Promise.all(wholes)).map(({ subject, runs }) => [subject, runs.at(-1)?.gave?.['said']]);
  };
  const markdown = async (...texts: [name: string, text: string][]) =>
    sourceOf({
      kind: 'documents',
      files: await Promise.all(
        texts.map(async ([fileName, text]) => ({ file: await file('text/markdown', text), fileName })),
      ),
    });
  // A word over a chapter says less than the name of its file.
  const uploaded = await read(
    await markdown(
      ['own.md', `# Spokes and rims\n\n${TEXT}`],
      ['chains_of_today.md', `# Introduction\n\n${TEXT} Anew.`],
    ),
  );
  expect(uploaded.sort()).toEqual([
    ['Spokes and rims', 'On Spokes and rims'],
    ['chains of today', 'On chains of today'],
  ]);
  const page = await sourceOf({ kind: 'documents', addresses: [at('/pages/cellar-notes/salt-by-weight')] });
  expect(await read(page)).toEqual([['Salt by weight, not by the spoon', 'On Salt by weight, not by the spoon']]);
  const [gathered] = await read(
    await markdown(['one.md', `# Hubs with gears\n\n${TEXT} One.`], ['two.md', `# Hubs without\n\n${TEXT} Two.`]),
    { gather: 2 },
  );
  expect(gathered).toEqual(['Hubs with gears and 1 more', 'On Hubs with gears and 1 more']);
  // What somebody asked for by name keeps it, whatever its page says.
  const asked = await sourceOf({ kind: 'requests' });
  const request = { subject: 'Salt by weight', notes: TEXT, link: at('/pages/cellar-notes/salt-by-weight') };
  await desk.ask('POST', `/sources/${asked}/requests`, request);
  expect(await read(asked)).toEqual([['Salt by weight', 'On Salt by weight']]);
});

test('a step that says what a brief is about says it to all that follow', async () => {
  const source = await EACH.requests();
  const document: ProcedureDocument = {
    grivo: 1,
    language: 'en',
    steps: [
      { ...stepKinds.take.fresh('s1'), sources: [source] },
      { ...stepKinds.vary.fresh('s2'), variants: ['Hubs of {{ subject }}'], for: 'a field', as: 'subject' },
      { ...stepKinds['lay out'].fresh('s3'), body: MANUAL, title: 'True wheels' },
    ],
  };
  const { id } = (await desk.ask<{ id: string }>('POST', '/pipelines', { name: 'Says', document })).body;
  const { briefs } = (await desk.ask<{ briefs: string[] }>('POST', `/pipelines/${id}/take`, {})).body;
  await desk.w.settled(briefs, ['out']);
  const { runs } = (await desk.ask<BriefWhole>('GET', `/briefs/${briefs[0]}`)).body;
  const { article } = runs.at(-1)!.gave as { article: { id: string } };
  const { document: made } = (await desk.ask<ArticleWhole>('GET', `/articles/${article.id}`)).body;
  expect(made.keyPhrase).toBe('Hubs of How a wheel is trued');
});
