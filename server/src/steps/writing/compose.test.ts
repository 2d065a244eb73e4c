import { describe, expect, it } from 'vitest';
import type { Result } from '../../ports/adapters/port.ts';
import { good } from '../../ports/adapters/port.ts';
import { type Composition, compose } from './compose.ts';
import type { NumberedPassage } from './promptParts.ts';

const passage = (n: number, text: string): NumberedPassage => ({
  n,
  passage: {
    id: `p${n}`,
    text,
    language: 'en',
    locator: { address: 'https://strings.example', title: 'Strings', paragraph: n },
  },
});

const PEGS = passage(1, 'Pegs slip in a dry winter, and chalk holds them.');
const BRIDGE = passage(2, 'A bridge leans towards the fingerboard and is set upright by hand.');
const ROSIN = passage(3, 'Rosin collects under the strings and is wiped off with a cloth.');

const composition = (change: Partial<Composition> = {}): Composition => ({
  subject: 'pegs and bridge of a violin',
  language: 'en',
  step: { words: 400, person: 'second person', tone: '', parts: [], unsourced: false },
  instruction: '',
  house: '',
  outline: [
    { heading: 'Pegs in winter', says: 'Why they slip.', passages: ['p1'] },
    { heading: 'The bridge', says: 'How it stands.', passages: ['p2'] },
  ],
  notes: [],
  aim: null,
  passages: [PEGS, BRIDGE, ROSIN],
  ...change,
});

interface Asked {
  material: string;
  name: string;
}

/** A writer that says its turn, resting on what it was given first, and keeps what it was asked. */
function writer(instead: Record<number, object> = {}) {
  const asked: Asked[] = [];
  const ask = <T>(request: Asked): Promise<Result<T>> => {
    asked.push(request);
    const turn = asked.length;
    const given = numberIn(request);
    const right =
      request.name === 'points'
        ? { points: ['Chalk the pegs.', ' ', 'Set the bridge upright.'] }
        : { blocks: [{ kind: 'paragraph', text: `Text ${turn}.`, items: [], passages: [Number(given)] }] };
    return Promise.resolve(good((instead[turn] ?? right) as T));
  };
  return { asked, ask };
}

/** The number of the first passage in a request, however its fences are written. */
const numberIn = ({ material }: Asked) => /passage (\d+)/.exec(material)?.[1] ?? '1';

const written = async (c: Composition, instead: Record<number, object> = {}) => {
  const { asked, ask } = writer(instead);
  const composed = await compose(c, ask);
  if (!composed.ok) throw new Error('it was not composed');
  const blocks = composed.value.body.map((block) =>
    block.type === 'heading'
      ? `# ${block.text}`
      : 'content' in block
        ? block.content.map(({ text }) => text).join('')
        : block.type,
  );
  return { asked, blocks, ...composed.value };
};

describe('an article is written', () => {
  it('section by section, and its opening last, from what stands below it', async () => {
    const { asked, blocks } = await written(composition());
    expect(blocks).toEqual(['Text 3.', '# Pegs in winter', 'Text 1.', '# The bridge', 'Text 2.']);
    expect(asked[0]!.material).toContain('the section under the heading');
    expect(asked[2]!.material).toContain('the opening of the article');
    expect(asked[2]!.material).toContain('Text 1.');
    expect(asked[2]!.material).toContain('Text 2.');
    expect(asked[2]!.material).toContain('Use none of its sentences again.');
  });

  it('each section with its own passages, and what was said before it', async () => {
    const { asked } = await written(composition());
    expect(asked[0]!.material).toContain(PEGS.passage.text);
    expect(asked[0]!.material).not.toContain(BRIDGE.passage.text);
    expect(asked[0]!.material).not.toContain('said before');
    expect(asked[1]!.material).toContain(BRIDGE.passage.text);
    expect(asked[1]!.material).toContain('Text 1.');
  });

  it('each block keeps the passages it rests on, of those it was given', async () => {
    const { body } = await written(composition(), {
      1: { blocks: [{ kind: 'paragraph', text: 'Chalk helps.', items: [], passages: [1, 2, 1] }] },
    });
    const block = body.find(({ id }) => id === 'b1x0')!;
    expect('evidence' in block ? block.evidence?.map(({ passage }) => passage) : null).toEqual(['p1']);
  });

  it('a list with its lead is two blocks', async () => {
    const { body } = await written(composition(), {
      1: {
        blocks: [{ kind: 'list', text: 'Three things help:', items: ['chalk', 'soap', 'patience'], passages: [1] }],
      },
    });
    expect(body.map(({ id }) => id)).toEqual(['b0x0', 'h1', 'b1x0', 'l1x0', 'h2', 'b2x0']);
  });

  const rowsOf = async (rows: { cells: string[]; passages: number[] }[], head = ['Of', 'What']) => {
    const { body, asked } = await written(composition({ step: { ...composition().step, parts: ['table'] } }), {
      4: { caption: 'Two woods', head, rows },
      5: { caption: '', head, rows },
    });
    const table = body.find(({ type }) => type === 'table');
    return { asked, table, at: body.findIndex(({ type }) => type === 'table'), body };
  };
  const PEGS_ROW = { cells: ['Pegs', 'slip in winter'], passages: [1] };
  const BRIDGE_ROW = { cells: ['Bridge', 'leans'], passages: [2] };

  it('a table stands after what rests on its passages, with what each row rests on', async () => {
    const { table, at, body, asked } = await rowsOf([PEGS_ROW, BRIDGE_ROW]);
    expect(asked[3]!.material).toContain('make one table');
    expect(table).toMatchObject({
      caption: [{ text: 'Two woods' }],
      head: [[{ text: 'Of' }], [{ text: 'What' }]],
      rows: [
        [[{ text: 'Pegs' }], [{ text: 'slip in winter' }]],
        [[{ text: 'Bridge' }], [{ text: 'leans' }]],
      ],
      evidence: [{ passage: 'p1' }, { passage: 'p2' }],
    });
    expect(body[at - 1]!.id).toBe('b2x0');
  });

  it.each([
    ['a figure no passage has', { cells: ['Pegs', '12 degrees'], passages: [1] }],
    ['a row of another length', { cells: ['Pegs'], passages: [1] }],
    ['a row that rests on nothing', { cells: ['Pegs', 'slip'], passages: [9] }],
    ['a row that is of nothing', { cells: [' ', 'slip'], passages: [1] }],
  ])('no table is made of %s', async (_, wrong) => {
    const { table } = await rowsOf([wrong, BRIDGE_ROW]);
    expect(table).toBeUndefined();
  });

  it('emoji stay out where they are not asked for, and stand where they are', async () => {
    const first = { blocks: [{ kind: 'list', text: '🧂 Two:', items: ['🧂 chalk', 'soap'], passages: [1] }] };
    const step = composition().step;
    const without = await written(composition({ step: { ...step, parts: ['lists'] } }), { 1: first });
    expect(JSON.stringify(without.body)).not.toContain('🧂');
    const having = await written(composition({ step: { ...step, parts: ['lists', 'emoji'] } }), { 1: first });
    expect(JSON.stringify(having.body)).toContain('🧂 chalk');
    expect(having.asked[0]!.material).toContain('One fitting emoji');
  });

  it('a section that rests on nothing is left out, heading and all', async () => {
    const { blocks, leftOut } = await written(composition(), {
      2: { blocks: [{ kind: 'paragraph', text: 'It is known.', items: [], passages: [] }] },
    });
    expect(leftOut).toEqual(['The bridge']);
    expect(blocks).toEqual(['Text 3.', '# Pegs in winter', 'Text 1.']);
  });

  it('without an opening that rests on something it begins with its first section', async () => {
    const { blocks } = await written(composition(), {
      3: { blocks: [{ kind: 'paragraph', text: 'All is well.', items: [], passages: [] }] },
    });
    expect(blocks[0]).toBe('# Pegs in winter');
  });

  it('an opening of a subject in other words than the passages rests on what the body rests on', async () => {
    const { asked, blocks } = await written(composition({ subject: 'luthier’s tips' }));
    expect(blocks[0]).toBe('Text 3.');
    expect(asked[2]!.material).toContain(PEGS.passage.text);
    expect(asked[2]!.material).toContain(BRIDGE.passage.text);
    expect(asked[2]!.material).not.toContain(ROSIN.passage.text);
  });

  it('key points and contents stand between the opening and the first heading', async () => {
    const step = { ...composition().step, parts: ['key points', 'contents'] as Composition['step']['parts'] };
    const { body, asked } = await written(composition({ step }));
    expect(body.map(({ type }) => type).slice(0, 4)).toEqual(['paragraph', 'key points', 'contents', 'heading']);
    const points = body.find((block) => block.type === 'key points');
    expect(points?.type === 'key points' ? points.items.length : 0).toBe(2);
    expect(asked.at(-1)!.material).toContain('Text 3.');
  });

  it('from nothing where that is wanted and there is nothing, all of it unmarked', async () => {
    const step = { ...composition().step, unsourced: true };
    const { blocks, leftOut } = await written(composition({ step, passages: [] }));
    expect(blocks).toEqual(['Text 3.', '# Pegs in winter', 'Text 1.', '# The bridge', 'Text 2.']);
    expect(leftOut).toEqual([]);
  });

  it('not at all when the writer fails: nothing half written is given back', async () => {
    const failure = { code: 'too-little-material', words: 1, wanted: 2 } as const;
    let times = 0;
    const composed = await compose(composition(), <T>() => {
      times++;
      return Promise.resolve({ ok: false, failure } as unknown as Result<T>);
    });
    expect(composed).toEqual({ ok: false, failure });
    expect(times).toBe(1);
  });
});
