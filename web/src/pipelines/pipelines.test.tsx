// @vitest-environment jsdom
import type { BriefWhole, SheetRow, StepRun } from '@grivo/contract';
import { screen, waitFor, within } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { onScreen, Problem } from '../testing/onScreen.tsx';
import { blog, id, NOW, pipelineWhole, procedure, service, source } from '../testing/samples.ts';
import { Briefs } from './Briefs.tsx';
import { useDraft } from './draft.ts';
import { Given } from './Given.tsx';
import { HeldStep } from './HeldStep.tsx';
import { NewPipeline } from './NewPipeline.tsx';
import { ProcedureLines } from './ProcedureLines.tsx';
import { TakeItems } from './TakeItems.tsx';
import { SubjectEditor } from './TrialSubject.tsx';
import { Versions } from './Versions.tsx';

const P = id('p');
const PATH = `/pipelines/${P}`;

beforeEach(() => useDraft.setState({ draft: null, aside: {} }));

const none = {
  pipeline: P,
  blogs: [],
  sources: [],
  routines: [],
  services: [],
  destinations: [],
  styles: [],
  names: { blog: (of: string) => of, source: (of: string) => of },
};

/** The lines as they are in the draft. */
function Lines() {
  const draft = useDraft((store) => store.draft);
  return (
    <ProcedureLines
      document={draft!.history.now}
      choices={none}
      context={null}
      problems={[]}
      tools={() => null}
      beside={() => null}
    />
  );
}

describe('the lines of a procedure', () => {
  function shown() {
    useDraft.getState().open(P, 1, procedure('take', 'look up', 'write', 'title'));
    return onScreen(<Lines />);
  }

  const kinds = () => useDraft.getState().draft!.history.now.steps.map(({ kind }) => kind);
  const line = (name: string) => screen.getByRole('button', { name });
  const focused = () => document.activeElement?.getAttribute('aria-label');

  it('keys go from line to line, and only one line can be tabbed to', async () => {
    const { hands } = shown();
    line('Line 1, take').focus();
    await hands.keyboard('{ArrowDown}{ArrowDown}');
    expect(focused()).toBe('Line 3, write');
    await hands.keyboard('{End}');
    expect(focused()).toBe('Line 4, title');
    await hands.keyboard('{Home}{ArrowUp}');
    expect(focused()).toBe('Line 1, take');
    const numbers = screen.getAllByRole('button', { name: /^Line \d/ });
    expect(numbers.filter((one) => one.tabIndex === 0)).toHaveLength(1);
  });

  it('a line is moved by keys and keeps the focus', async () => {
    const { hands } = shown();
    line('Line 3, write').focus();
    await hands.keyboard('{Alt>}{ArrowDown}{/Alt}');
    expect(kinds()).toEqual(['take', 'look up', 'title', 'write']);
    await waitFor(() => expect(focused()).toBe('Line 4, write'));
  });

  it('a step is added from the list by its name, below the line', async () => {
    const { hands } = shown();
    line('Line 2, look up').focus();
    await hands.keyboard('a');
    await hands.type(await screen.findByRole('combobox', { name: 'Which step?' }), 'outline{Enter}');
    expect(kinds()).toEqual(['take', 'look up', 'outline', 'write', 'title']);
    await waitFor(() => expect(focused()).toBe('Line 3, outline'));
  });

  it('its menu says the keys, and does what they do', async () => {
    const { hands } = shown();
    await hands.click(line('Line 4, title'));
    await hands.click(await screen.findByRole('menuitem', { name: /Duplicate it/ }));
    expect(kinds()).toEqual(['take', 'look up', 'write', 'title', 'title']);
  });

  it('the first can neither be moved nor taken out', async () => {
    const { hands } = shown();
    line('Line 1, take').focus();
    await hands.keyboard('{Alt>}{ArrowDown}{/Alt}{Delete}');
    expect(kinds()).toEqual(['take', 'look up', 'write', 'title']);
  });

  it('several lines are picked with Shift and wrapped together', async () => {
    const { hands } = shown();
    line('Line 3, write').focus();
    await hands.keyboard('{Shift>}{ArrowDown}{/Shift}');
    expect(line('Line 3, write').getAttribute('aria-pressed')).toBe('true');
    expect(line('Line 4, title').getAttribute('aria-pressed')).toBe('true');
    await hands.keyboard('{Escape}');
    expect(line('Line 3, write').getAttribute('aria-pressed')).toBeNull();
  });
});

describe('what a step gave', () => {
  const said = (gave: Record<string, unknown>) => onScreen(<Given gave={gave} />).container.textContent;
  const fitting = { pages: 1, of: 3, lacking: ['gut'] };

  it.each([
    [{ pages: [{ title: 'Strings', address: 'a' }], carriesWords: 800 }, '1 page, enough for about 800 words: Strings'],
    [
      { pages: [{ title: 'Strings', address: 'a' }], carriesWords: 800, fitting },
      '1 of 3 pages found speaks of the subject. Nothing is said of ‘gut’.1 page, enough for about 800 words: Strings',
    ],
    [{ links: [] }, 'none of our pages fits'],
    [{ links: [{ title: 'A', anchor: 'gut' }] }, '1 link placed: gut'],
    [{ publication: { would: 'publish', when: 'at once' } }, 'not in a trial; it would go out at once'],
    [{ judgement: { score: 7, kind: 'guide', reason: 'Much asked.' } }, '7 of 10, guide. Much asked.'],
    [{ holds: false, looked: { 'judgement.score': 3 } }, 'it does not holdjudgement.score: 3'],
    [{ values: { a: 'x', b: 2 } }, 'x, 2'],
    [{ asked: { for: 'Ada', note: '' } }, 'waits for Ada'],
    [{ passages: ['a', 'b'], carriesWords: 1 }, '2 passages, about 1 word to write from'],
    [{ heard: { sure: 93, seconds: 75 }, spokenWords: 210 }, '210 words heard in 01:15, 93 % sure'],
    [{ own: 'field', other: null }, 'own field'],
    [{}, 'done'],
  ])('%j', (gave, words) => expect(said(gave)).toBe(words));

  it('figures that stand in no source are named', () => {
    const words = said({
      article: { id: id('a'), words: 640 },
      figuresNotFound: ['4,000'],
      notTaken: ['a script'],
      sectionsLeftOut: [],
    });
    expect(words).toContain('640 words');
    expect(words).toContain('not taken over: a script');
    expect(words).toContain('‘4,000’ stands in no source');
    expect(words).not.toContain('as in the sources');
  });

  it('what reads otherwise than it should is shown as fields of one’s own', () => {
    expect(said({ pages: 'three' })).toBe('pages three');
  });
});

describe('what a trial is made on', () => {
  const subject = (name: string, ...units: string[]) => ({ subject: name, units: units.map((unit) => [unit]) });
  const offered = [subject('gut', 'a'), subject('steel', 'c'), subject('silk', 'd'), subject('wire', 'e')];

  it('up to three are compared; a fourth takes the place of the first', async () => {
    const choose = vi.fn();
    const { hands } = onScreen(
      <SubjectEditor value={offered.slice(0, 3)} offered={offered} onChoose={choose} close={() => undefined} />,
    );
    await hands.click(screen.getByRole('checkbox', { name: /wire/ }));
    expect(choose).toHaveBeenLastCalledWith(offered.slice(1));
    await hands.click(screen.getByRole('checkbox', { name: /gut/ }));
    expect(choose).toHaveBeenLastCalledWith(offered.slice(1, 3));
  });

  it('a subject typed in is taken by itself', async () => {
    const choose = vi.fn();
    const { hands } = onScreen(<SubjectEditor value={[]} offered={[]} onChoose={choose} close={() => undefined} />);
    await hands.type(screen.getByRole('textbox'), '  rosin  {Enter}');
    expect(choose).toHaveBeenCalledWith([{ subject: 'rosin', units: [] }]);
  });
});

describe('taking what is new', () => {
  const shown = (pipeline: ReturnType<typeof pipelineWhole>, own: Parameters<typeof source>[0] = {}, more = {}) =>
    onScreen(<TakeItems pipeline={pipeline} unsaved={false} now={NOW} />, {
      'GET /sources': { sources: [source({ items: 9, taken: 2, leftOut: 1, ...own })] },
      ...more,
    });
  const document = () => {
    const made = procedure('take', 'write');
    (made.steps[0] as { sources: string[]; most: number | null }).sources = [id('s')];
    (made.steps[0] as { most: number | null }).most = 4;
    return made;
  };

  it('says how many, and what they cost as the last ones did', async () => {
    const { container } = shown(pipelineWhole(document(), { microsEach: 20_000 }));
    await screen.findByRole('button', { name: 'Take 4 new items now' });
    expect(container.textContent).toMatch(/about .*0\.08.*, as the last ones cost/);
  });

  it('outside is looked first, whatever is known', async () => {
    shown(pipelineWhole(document()), { kind: 'feed', items: 0, taken: 0, leftOut: 0 });
    expect(await screen.findByRole('button', { name: 'Look, and take what is new' })).toBeDefined();
  });

  it('with nothing new there is nothing to press; with a fault it says so', async () => {
    shown(pipelineWhole(document()), { items: 2, taken: 2, leftOut: 0 });
    expect((await screen.findByRole<HTMLButtonElement>('button', { name: 'Nothing new to take' })).disabled).toBe(true);
    const problem = { step: 's2', grade: 'error' as const, sentence: 'No.', mend: 'Mend.' };
    const { container } = shown(pipelineWhole(document(), { problems: [problem] }));
    expect(container.textContent).toBe('It can take items once what is marked red is mended.');
  });

  it('what must be given is asked for first, and sent along', async () => {
    const asking = {
      ...document(),
      inputs: [
        { name: 'audience', asks: 'For whom?', otherwise: null },
        { name: 'tone', asks: 'In what tone?', otherwise: 'plain' },
      ],
    };
    const { asked, hands } = shown(
      pipelineWhole(asking),
      {},
      { [`POST ${PATH}/take`]: { found: 1, briefs: [id('z')] } },
    );
    const take = await screen.findByRole<HTMLButtonElement>('button', { name: 'Take 4 new items now' });
    expect(take.disabled).toBe(true);
    await hands.type(screen.getByLabelText('For whom?'), 'players');
    await hands.click(screen.getByRole('checkbox', { name: 'by hand' }));
    await hands.click(take);
    await screen.findByText(/1 brief taken\./);
    expect(asked[0]!.body).toEqual({ inputs: { audience: 'players' }, byHand: true });
  });
});

describe('a new pipeline', () => {
  const things = (more: object = {}) => ({
    'GET /blogs': { blogs: [blog()] },
    'GET /sources': { sources: [source(), source({ id: id('f'), kind: 'feed', name: 'String news' })] },
    'GET /services': { services: [service({ id: id('l'), role: 'look-up' })] },
    'POST /pipelines': { id: id('n'), problems: [] },
    ...more,
  });

  it('begins with a procedure whose source fits, and goes to the only blog', async () => {
    const { asked, hands } = onScreen(<NewPipeline from={null} source={null} />, things());
    await screen.findByRole('button', { name: /The source that feeds it: What players ask/ });
    expect(screen.queryByRole('button', { name: /The blog it goes to/ })).toBeNull();
    await hands.type(screen.getByRole('textbox'), 'Guides{Enter}');
    await waitFor(() => expect(asked).toHaveLength(1));
    const { name, document } = asked[0]!.body as { name: string; document: ReturnType<typeof procedure> };
    expect(name).toBe('Guides');
    expect(document.steps[0]).toMatchObject({ kind: 'take', sources: [id('s')] });
    expect(document.steps.find(({ kind }) => kind === 'publish')).toMatchObject({ blog: id('b') });
  });

  it('with two blogs one is chosen, and nothing is made before', async () => {
    const { asked, hands } = onScreen(
      <NewPipeline from={null} source={null} />,
      things({ 'GET /blogs': { blogs: [blog(), blog({ id: id('c'), name: 'Plucked' })] } }),
    );
    await screen.findByRole('button', { name: /The blog it goes to/ });
    await hands.type(screen.getByRole('textbox'), 'Guides{Enter}');
    await screen.findByText('Choose the blog its articles go to.');
    expect(asked).toEqual([]);
    await hands.click(screen.getByRole('button', { name: /The blog it goes to/ }));
    await hands.click(screen.getByRole('radio', { name: /Plucked/ }));
    await hands.type(screen.getByRole('textbox'), '{Enter}');
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(JSON.stringify(asked[0]!.body)).toContain(`"blog":"${id('c')}"`);
  });

  it('without a look-up service it can be written without sources, and says so', async () => {
    const { asked, hands } = onScreen(
      <NewPipeline from={null} source={null} />,
      things({ 'GET /services': { services: [] } }),
    );
    await hands.click(await screen.findByRole('checkbox', { name: 'Write without sources' }));
    await hands.type(screen.getByRole('textbox'), 'Guides{Enter}');
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(JSON.stringify(asked[0]!.body)).not.toContain('"kind":"look up"');
  });
});

describe('the briefs of a pipeline', () => {
  const row = (
    letter: string,
    subject: string,
    standing: SheetRow['standing'],
    change: Partial<SheetRow> = {},
  ): SheetRow => ({
    id: id(letter),
    subject,
    standing,
    cells: 'db',
    title: '',
    words: null,
    slot: null,
    madeDesk: NOW,
    micros: 0,
    says: standing,
    version: 1,
    begins: null,
    siblings: [],
    ...change,
  });
  const briefWhole = (
    letter: string,
    subject: string,
    standing: BriefWhole['standing'],
    change: Partial<BriefWhole> = {},
  ): BriefWhole => ({
    id: id(letter),
    pipeline: P,
    standing,
    subject,
    madeDesk: NOW,
    endedDesk: null,
    rev: 1,
    trial: false,
    items: [],
    fields: {},
    version: 1,
    micros: 0,
    runs: [],
    articles: [],
    ...change,
  });
  const rows = [row('a', 'gut', 'in work'), row('c', 'steel', 'stopped'), row('d', 'silk', 'set aside')];
  const columns = [
    { n: 1, step: 's1', kind: 'take', depth: 0 },
    { n: 2, step: 's2', kind: 'write', depth: 0 },
  ];
  const whole = pipelineWhole(procedure('take', 'write'), {
    version: 2,
    older: 1,
    counts: { 'in work': 1, stopped: 1, 'set aside': 1 },
  });
  const shown = (more: object = {}) =>
    onScreen(<Briefs pipeline={whole} now={NOW} />, {
      [`GET ${PATH}/sheet?limit=200`]: { columns, rows, more: null },
      ...more,
    });

  it('each stands against the steps, with what can be done to all', async () => {
    shown();
    await screen.findByText('gut');
    expect(screen.getByRole('button', { name: 'all 3' })).toBeDefined();
    expect(screen.getByRole('button', { name: 'Bring 1 brief to version 2' })).toBeDefined();
    expect(screen.getByRole('button', { name: 'Let 1 go on' })).toBeDefined();
    expect(screen.getByRole('button', { name: 'Stop all 1' })).toBeDefined();
    expect(screen.getByText('in work, by version 1')).toBeDefined();
  });

  it('a press on its bars opens it, and no bar that may be redrawn meanwhile is what is pressed', async () => {
    const { hands, container } = shown({ [`GET /briefs/${id('a')}`]: () => undefined });
    const [line] = (await screen.findByText('gut')).closest('li')!.querySelectorAll('[data-cells]');
    const bars = [...line!.children];
    expect(bars.length).toBeGreaterThan(1);
    for (const bar of bars) expect(bar.className).toContain('pointer-events-none');
    await hands.click(line!);
    await waitFor(() => expect(container.querySelector('[aria-label="The step chosen"]')).not.toBeNull());
    expect(screen.getByRole('button', { name: 'gut' }).getAttribute('aria-expanded')).toBe('true');
  });

  it('a brief that cannot be read says so, and is read again when asked', async () => {
    let answers = false;
    const { hands } = shown({
      [`GET /briefs/${id('a')}`]: () =>
        answers
          ? briefWhole('a', 'gut', 'out', { articles: [{ id: id('x'), title: 'Gut strings', standing: 'out' }] })
          : new Problem(500, 'The database is away.'),
      [`GET /briefs/${id('a')}/holds`]: { holds: [] },
    });
    await hands.click(await screen.findByText('gut'));
    expect((await screen.findByRole('alert')).textContent).toContain('The database is away.');
    answers = true;
    await hands.click(screen.getByRole('button', { name: 'Read it again' }));
    expect((await screen.findByRole('link', { name: 'Read the article' })).getAttribute('href')).toContain(id('x'));
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('what went into a step that cannot be read says so; the rest of the brief stays', async () => {
    const run: StepRun = {
      id: id('r'),
      path: 's2',
      round: 0,
      kind: 'write',
      state: 'done',
      attempts: 1,
      failure: null,
      incident: null,
      dueDesk: null,
      startedAt: '2026-05-04T08:00:00Z',
      endedAt: '2026-05-04T08:00:02Z',
      micros: 1_000,
      gave: null,
    };
    const { hands } = shown({
      [`GET /briefs/${id('a')}`]: briefWhole('a', 'gut', 'in work', { runs: [run] }),
      [`GET /briefs/${id('a')}/holds`]: { holds: [] },
      [`GET /runs/${id('r')}`]: () => new Problem(503, 'The step cannot be read now.'),
    });
    await hands.click(await screen.findByText('gut'));
    expect((await screen.findByRole('alert')).textContent).toContain('The step cannot be read now.');
    expect(screen.getByRole('button', { name: 'Stop it' })).toBeDefined();
  });

  it('of those picked each act counts whom it fits; the others are left', async () => {
    const { asked, hands } = shown({ 'POST /briefs/many': { done: 1, left: 0, more: 0 } });
    await screen.findByText('gut');
    for (const name of ['gut', 'steel', 'silk']) await hands.click(screen.getByRole('checkbox', { name }));
    expect(screen.getByText('3 briefs picked')).toBeDefined();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Begin now' }).disabled).toBe(true);
    await hands.click(screen.getByRole('button', { name: 'Go on (1)' }));
    await screen.findByText('1 brief going on.');
    expect(asked[0]!.body).toEqual({ do: 'go on', briefs: [id('c')] });
  });

  it('with Shift all between are picked; Esc picks none', async () => {
    const { hands } = shown();
    await screen.findByText('gut');
    await hands.click(screen.getByRole('checkbox', { name: 'gut' }));
    await hands.keyboard('{Shift>}');
    await hands.click(screen.getByRole('checkbox', { name: 'silk' }));
    await hands.keyboard('{/Shift}');
    expect(screen.getByText('3 briefs picked')).toBeDefined();
    await hands.keyboard('{Escape}');
    expect(screen.queryByText(/picked$/)).toBeNull();
  });

  it('all that match are done a part at a time, until none is left', async () => {
    let left = 2;
    const { asked, hands } = shown({
      'POST /briefs/many': () => ({ done: 500, left: 0, more: left-- > 0 ? 1 : 0 }),
    });
    await screen.findByText('gut');
    await hands.keyboard('a');
    await hands.click(await screen.findByRole('button', { name: 'Set aside' }));
    await screen.findByText('1,500 briefs set aside.');
    expect(asked).toHaveLength(3);
    expect(asked[0]!.body).toEqual({ do: 'set aside', matching: { pipeline: P, standing: [], find: '' } });
  });

  it('a standing that was chosen shows only its own; none like that says so', async () => {
    const { hands } = shown({ [`GET ${PATH}/sheet?limit=200&standing=stopped`]: { columns, rows: [], more: null } });
    await hands.click(await screen.findByRole('button', { name: 'stopped 1' }));
    await screen.findByText('No brief is like that.');
    await hands.click(screen.getByRole('button', { name: 'Show all' }));
    await screen.findByText('gut');
  });

  it('one that is open shows what went in and what can be done with it', async () => {
    const run: StepRun = {
      id: id('r'),
      path: 's2',
      round: 0,
      kind: 'write',
      state: 'stopped',
      attempts: 2,
      failure: { problem: 'Declined', sentence: 'It will not write this.', mend: 'Change the subject.' },
      incident: null,
      dueDesk: null,
      startedAt: '2026-05-04T08:00:00Z',
      endedAt: '2026-05-04T08:00:02Z',
      micros: 1_000,
      gave: null,
    };
    const brief = briefWhole('c', 'steel', 'stopped', { micros: 1_000, runs: [run] });
    const { asked, hands } = shown({
      [`GET /briefs/${id('c')}`]: brief,
      [`GET /briefs/${id('c')}/holds`]: { holds: [] },
      [`GET /runs/${id('r')}`]: {
        run,
        rounds: [],
        wentIn: [{ name: 'subject', text: 'steel strings' }],
        attempts: [{ n: 1, at: null, says: 'It did not answer.', micros: 0 }],
      },
      [`POST /briefs/${id('c')}/release`]: { released: 1 },
    });
    await screen.findByText('gut');
    await hands.keyboard('jj');
    await screen.findByText('steel strings');
    expect(screen.getByText(/It will not write this\. Change the subject\./)).toBeDefined();
    expect(screen.getByText('It did not answer.')).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Go on from there' }));
    await waitFor(() => expect(asked.map(({ path }) => path)).toEqual([`/briefs/${id('c')}/release`]));
    await hands.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByText('steel strings')).toBeNull());
  });
});

describe('a held step', () => {
  const hold = {
    run: id('r'),
    brief: id('c'),
    pipeline: P,
    pipelineName: 'Guides',
    subject: 'gut',
    kind: 'title',
    path: 's4',
    proposed: { title: 'Gut strings', titleChoices: ['Gut strings', 'Why gut'] },
    heldAt: '2026-05-04T08:00:00Z',
  };
  const SAY = `/briefs/${id('c')}/holds/${id('r')}`;
  const shown = (answer: object | (() => undefined) = () => undefined) =>
    onScreen(<HeldStep hold={hold} />, {
      [`POST ${SAY}`]: answer,
      [`GET ${SAY}/text`]: { text: null, language: null },
    });

  it('is passed as it is', async () => {
    const { asked, hands } = shown();
    await hands.click(screen.getByRole('button', { name: 'Pass it' }));
    await waitFor(() => expect(asked.map(({ body }) => body)).toEqual([{ decide: 'pass', change: {} }]));
  });

  it('is changed, kept when the page is left, and passed as changed', async () => {
    const first = shown();
    await first.hands.click(screen.getByRole('radio', { name: /Why gut/ }));
    expect(screen.getByRole('button', { name: 'Pass it as changed' })).toBeDefined();
    first.unmount();
    const { asked, hands } = shown();
    await hands.click(screen.getByRole('button', { name: 'Pass it as changed' }));
    await waitFor(() =>
      expect(asked.map(({ body }) => body)).toEqual([{ decide: 'pass', change: { title: 'Why gut' } }]),
    );
  });

  it('is sent back only with words, which stay when that is refused', async () => {
    const { hands } = shown(new Problem(409, 'Somebody else decided it.'));
    await hands.click(screen.getByRole('button', { name: 'Send back…' }));
    const send = screen.getByRole<HTMLButtonElement>('button', { name: 'Send it back' });
    expect(send.disabled).toBe(true);
    await hands.type(screen.getByLabelText('What is to be done differently'), 'Shorter.');
    await hands.click(send);
    await screen.findByText(/Somebody else decided it/);
    expect((screen.getByLabelText('What is to be done differently') as HTMLTextAreaElement).value).toBe('Shorter.');
    await hands.click(screen.getByRole('button', { name: 'Not after all' }));
    expect(screen.getByRole('button', { name: 'Pass it' })).toBeDefined();
  });
});

describe('the versions of a procedure', () => {
  const version = (n: number, ...says: string[]) => ({
    n,
    by: n === 1 ? null : 'Ada',
    at: '2026-05-01T10:00:00Z',
    lines: says.map((line, i) => ({ step: i + 1, says: line })),
  });
  const versions = [
    version(3, 'Take 5 items.', 'Write about 900 words.'),
    version(2, 'Take 3 items.', 'Write about 900 words.'),
    version(1, 'Take 3 items.'),
  ];
  const shown = (more: object = {}) =>
    onScreen(<Versions id={P} now={NOW} />, { [`GET ${PATH}/versions`]: { versions }, ...more });

  const lineOf = (n: number) => screen.getByText(`Version ${n}`).closest('li')!;

  it('say by whom, and what each changed', async () => {
    shown();
    await screen.findByText('Version 3');
    expect(lineOf(3).textContent).toContain('now');
    expect(lineOf(2).textContent).toContain('Write about 900 words.');
    expect(lineOf(1).textContent).toContain('the first, 1 step');
    expect(within(lineOf(3)).queryByRole('button')).toBeNull();
  });

  it('one is brought back as a draft', async () => {
    useDraft.getState().open(P, 1, procedure('take', 'write'));
    const { hands } = shown({
      [`GET ${PATH}/versions/2`]: { n: 2, document: procedure('take', 'look up', 'write') },
    });
    await screen.findByText('Version 2');
    await hands.click(within(lineOf(2)).getByRole('button', { name: 'Bring it back' }));
    await waitFor(() =>
      expect(useDraft.getState().draft!.history.now.steps.map(({ kind }) => kind)).toEqual([
        'take',
        'look up',
        'write',
      ]),
    );
  });
});
