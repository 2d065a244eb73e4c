// @vitest-environment jsdom
import type { Need, Slots, Today } from '@grivo/contract';
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { type Answer, onScreen, Problem } from '../testing/onScreen.tsx';
import { blog, HOUR, id, lane, NOW, pipeline, slot, slots, source } from '../testing/samples.ts';
import { CostRuler, CoverChart } from './Charts.tsx';
import { FirstRun } from './FirstRun.tsx';
import { Needs } from './Needs.tsx';

const OPENED = '2026-05-04T06:10:00Z';
const together = {
  id: id('1'),
  subject: 'Why gut strings break',
  pipeline: id('p'),
  pipelineName: 'Questions to guides',
  step: 'write',
  briefs: [id('1')],
};
const NEEDS: Record<Need['kind'], Need> = {
  incident: {
    kind: 'incident',
    id: id('i'),
    name: 'Quill',
    problem: 'Refused',
    sentence: 'Quill takes the key no longer.',
    mend: 'Give it a new one.',
    briefs: 4,
    openedAt: OPENED,
  } as Need,
  brief: { ...together, kind: 'brief', problem: 'malformed', sentence: 'The reply made no sense.', mend: 'Try again.' },
  again: {
    ...together,
    kind: 'again',
    problem: 'down',
    sentence: 'Quill does not answer.',
    mend: 'Nothing is to be done.',
    since: OPENED,
    briefs: [id('1'), id('2'), id('3')],
  },
  hold: { ...together, kind: 'hold', since: OPENED },
  aside: { ...together, kind: 'aside', why: 'no passage speaks of gut' },
  confirm: { kind: 'confirm', id: id('h'), name: 'Shop hook', items: 2, subject: 'Rosin' },
  outside: {
    kind: 'outside',
    id: id('p'),
    article: id('a'),
    title: 'Rehairing a bow',
    blogName: 'Bowed',
    what: 'changed',
    at: '2026-05-04T07:00:00.000Z',
  },
  source: {
    kind: 'source',
    id: id('s'),
    name: 'Luthiers’ letters',
    sentence: 'The feed is no feed any more.',
    mend: 'Give its new address.',
    lookedDesk: null,
  },
  limit: { kind: 'limit', capMicros: 50_000_000, spentMicros: 47_500_000 },
};
const shown = (need: Need, answers: Record<string, Answer> = {}) => onScreen(<Needs needs={[need]} />, answers);
const many = (n: number) => ({ 'POST /briefs/many': { done: n, left: [] } });

describe('what needs somebody', () => {
  it('nothing is said to be nothing', () => {
    onScreen(<Needs needs={[]} />);
    expect(screen.getByText('Nothing needs you.')).toBeDefined();
  });

  it('every kind says what it is, and leads somewhere or does something', () => {
    for (const need of Object.values(NEEDS)) {
      const { container, unmount } = shown(need);
      const [row] = within(container).getAllByRole('listitem');
      expect(row!.textContent!.length, need.kind).toBeGreaterThan(30);
      expect(row!.querySelectorAll('a, button').length, need.kind).toBeGreaterThan(0);
      expect(row!.textContent, need.kind).not.toMatch(/undefined|null|NaN|\[object/);
      unmount();
    }
  });

  it('a cause that stops many is let go on for all of them at once', async () => {
    const { asked, hands } = shown(NEEDS.incident, { [`POST /incidents/${id('i')}/release`]: {} });
    expect(screen.getByText(/4 briefs are stopped by it/)).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Let them go on' }));
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ path: `/incidents/${id('i')}/release` }));
  });

  it('what could not be let go on says why', async () => {
    const { hands } = shown(NEEDS.incident, {
      [`POST /incidents/${id('i')}/release`]: () => new Problem(409, 'Quill still refuses.'),
    });
    await hands.click(screen.getByRole('button', { name: 'Let them go on' }));
    await screen.findByText(/Quill still refuses/);
  });

  it('one stopped brief leads to itself, several to the list of those', () => {
    const { unmount } = shown(NEEDS.brief);
    expect(screen.getByRole('link', { name: 'Look at it' }).getAttribute('href')).toBe(
      `/pipelines/${id('p')}?brief=${id('1')}`,
    );
    unmount();
    shown(NEEDS.again);
    expect(screen.getByText('and 2 more')).toBeDefined();
    expect(screen.getByRole('link', { name: 'Look at them' }).getAttribute('href')).toBe(
      `/pipelines/${id('p')}?show=briefs&standing=in%20work`,
    );
  });

  const ACTS: [Need['kind'], string, string][] = [
    ['brief', 'Try again', 'go on'],
    ['brief', 'Set it aside', 'set aside'],
    ['again', 'Stop all', 'stop'],
    ['again', 'Set all aside', 'set aside'],
    ['aside', 'Leave it', 'leave aside'],
    ['aside', 'Bring it back', 'bring back'],
  ];
  it.each(ACTS)('of kind ‘%s’: ‘%s’ does that to all its briefs', async (kind, name, does) => {
    const need = NEEDS[kind] as Extract<Need, { briefs: string[] }>;
    const { asked, hands } = shown(need, many(need.briefs.length));
    await hands.click(screen.getByRole('button', { name }));
    await waitFor(() => expect(asked.at(-1)!.body).toEqual({ do: does, briefs: need.briefs }));
  });

  it('why something was set aside is a sentence', () => {
    shown(NEEDS.aside);
    expect(screen.getByText(/No passage speaks of gut\./)).toBeDefined();
  });

  it('what a program handed in waits for a yes, by its name', () => {
    shown(NEEDS.confirm);
    expect(screen.getByText(/‘Rosin’ and others wait for your yes/)).toBeDefined();
    expect(screen.getByRole('link', { name: 'Look at them' }).getAttribute('href')).toBe(`/intake/${id('h')}`);
  });

  it('a source that was never read says so, and is looked at again', async () => {
    const { asked, hands } = shown(NEEDS.source, { [`POST /sources/${id('s')}/look`]: {} });
    expect(screen.getByText(/never read yet; what it held is still there/)).toBeDefined();
    await hands.click(screen.getByRole('button', { name: 'Look again' }));
    await waitFor(() => expect(asked.at(-1)!.path).toBe(`/sources/${id('s')}/look`));
  });

  it('a limit nearly used says both figures', () => {
    shown(NEEDS.limit);
    expect(screen.getByText(/47\.50.*of.*50\.00.*are spent/)).toBeDefined();
  });
});

describe('the first run', () => {
  const NONE: Today['begun'] = { blogs: 0, writers: 0, illustrators: 0, sources: 0, pipelines: 0, out: 0 };
  const steps = () => screen.getAllByRole('heading', { level: 2 });
  const open = () => steps().findIndex((one) => one.parentElement!.querySelector('form, button') !== null);

  it.each([
    ['a blog', NONE, 0],
    ['a service', { ...NONE, blogs: 1 }, 1],
    ['a list', { ...NONE, blogs: 1, writers: 1 }, 2],
    ['a pipeline', { ...NONE, blogs: 1, writers: 1, sources: 1 }, 3],
  ] as [string, Today['begun'], number][])('what comes next is %s, and only that is open', (_name, begun, at) => {
    onScreen(<FirstRun begun={begun} />, { 'GET /stand-ins': { services: [], blogs: [] } });
    expect(open()).toBe(at);
    expect(screen.getByText(new RegExp(`${at} done`))).toBeDefined();
  });

  it('what stands already is counted', () => {
    onScreen(<FirstRun begun={{ ...NONE, blogs: 2, writers: 1, illustrators: 1, sources: 1 }} />);
    expect(steps().map((one) => one.textContent)).toEqual([
      expect.stringContaining('2 blogs'),
      expect.stringContaining('1 writer, 1 illustrator'),
      expect.stringContaining('1 list'),
      expect.not.stringContaining('pipeline,'),
    ]);
  });

  it('the pipeline is made for the blog and the list there are, in the language of the blog', async () => {
    const { asked, hands } = onScreen(<FirstRun begun={{ ...NONE, blogs: 1, writers: 1, sources: 1 }} />, {
      'GET /blogs': { blogs: [blog({ language: 'de' })] },
      'GET /sources': { sources: [source()] },
      'POST /pipelines': { id: id('q'), problems: [] },
    });
    await hands.click(screen.getByRole('button', { name: 'Make the pipeline' }));
    await waitFor(() => expect(asked).toHaveLength(1));
    const { document } = asked[0]!.body as { document: { language: string; steps: object[] } };
    expect(document.language).toBe('de');
    expect(JSON.stringify(document.steps)).toContain(id('s'));
    expect(JSON.stringify(document.steps)).toContain(id('b'));
  });

  it('when everything is in place it leads to the first pipeline', async () => {
    onScreen(<FirstRun begun={{ ...NONE, blogs: 1, writers: 1, sources: 1, pipelines: 1 }} />, {
      'GET /pipelines': { pipelines: [pipeline()] },
    });
    expect(screen.getByText(/4 steps,\s*all done/)).toBeDefined();
    expect(screen.getByRole('button', { name: 'Try the pipeline and take the first items' })).toBeDefined();
  });
});

describe('the figures of today', () => {
  const DAY = 24 * HOUR;

  it('cover is how far the slots are filled, and an empty slot in a week is said', () => {
    const given: Slots = slots(
      lane([slot(24, { standing: 'ready', title: 'Gut or steel', article: id('a') }), slot(80)], {
        dryFrom: NOW + 3 * DAY,
      }),
      lane([slot(30, { standing: 'ready', title: 'Frets', article: id('f') })], { blog: id('c'), name: 'Plucked' }),
      lane([], { blog: id('d'), name: 'Struck' }),
    );
    onScreen(<CoverChart slots={given} now={NOW} />);
    expect(screen.getByText('3 days, then 1 empty slot in a week').className).toContain('font-bold');
    // Without a day on which it runs dry it is covered as far as slots are reckoned, or has none at all.
    expect(screen.getByText('eight weeks').className).not.toContain('font-bold');
    expect(screen.getByText('no slots')).toBeDefined();
  });

  it('costs are marks, the dearest is named, and every week has its median', () => {
    const cost = (days: number, micros: number, title: string) => ({
      article: id(title.charAt(0).toLowerCase()),
      title,
      at: NOW - days * DAY,
      micros,
    });
    const { container } = onScreen(
      <CostRuler
        costs={[
          cost(1, 30_000, 'Rosin'),
          cost(2, 90_000, 'Bridges'),
          cost(3, 50_000, 'Pegs'),
          cost(20, 70_000, 'Frets'),
        ]}
        now={NOW}
      />,
    );
    expect(screen.getByText(/four weeks, 4 articles; the dearest 0\.09/)).toBeDefined();
    expect(screen.getByRole('link', { name: 'Bridges, 0.09 €' }).style.height).toBe('100%');
    expect([...container.querySelectorAll('b')].map((one) => one.textContent)).toEqual(['0.07', '0.05']);
  });

  it('without costs there is no ruler', () => {
    const { container } = onScreen(<CostRuler costs={[]} now={NOW} />);
    expect(container.textContent).toBe('');
  });
});
