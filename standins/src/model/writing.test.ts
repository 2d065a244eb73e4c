import { describe, expect, it } from 'vitest';
import { PAGES } from '../material/index.ts';
import { countWords, sentencesOf } from '../words/language.ts';
import { fill, type Schema } from './fill.ts';
import { SentenceMemory, understood } from './phrasings.ts';
import { readRequest } from './request.ts';
import { MODEL_ONE, MODEL_TWO, type ModelManner } from './service.ts';

const SECTIONS: Schema = {
  type: 'array',
  items: { type: 'object', properties: { heading: { type: 'string' }, passages: { type: 'array' } } },
};
const BLOCKS: Schema = {
  type: 'array',
  items: { type: 'object', properties: { kind: { type: 'string' }, text: { type: 'string' } } },
};
const TITLES: Schema = { type: 'array', description: 'titles', items: { type: 'string' } };
const POINTS: Schema = { type: 'array', description: 'points', items: { type: 'string' } };

interface Section {
  heading: string;
  passages: number[];
}

interface Block {
  text: string;
  items: string[];
  passages: number[];
}

const fence = (name: string, text: string) => `<<<${name} m>>>\n${text}\n<<<end ${name} m>>>`;

/** A writer that remembers, asked as the product asks. */
function writer(manner: ModelManner = MODEL_ONE) {
  const memory = new SentenceMemory();
  return <T>(task: string, parts: Record<string, string>, schema: Schema, name = ''): T => {
    const content = [task, ...Object.entries(parts).map(([of, text]) => fence(of, text))].join('\n');
    const request = readRequest([{ role: 'user', content }], content, (...of) => memory.say(...of));
    return fill(schema, request, manner.style, name) as T;
  };
}

/** Passages of pages, numbered from one, as they are handed over. */
const passagesOf = (...titles: string[]): Record<string, string> =>
  Object.fromEntries(
    titles
      .flatMap((title) => PAGES.find((page) => page.title === title)!.paragraphs.map((text) => ({ title, text })))
      .map(({ title, text }, i) => [`passage ${i + 1}`, `(from: ${title})\n${text}`]),
  );

const KRAUT = passagesOf('Salt by weight, not by the spoon', 'Why sauerkraut goes soft');
const subject = { subject: 'soft sauerkraut' };
const source = Object.values(KRAUT).join(' ');
const sectionTask = 'Task: write the section under the heading, about 120 words. Person: second person.';

describe.each([
  ['one', MODEL_ONE],
  ['two', MODEL_TWO],
])('writer %s, of what it knows', (_, manner) => {
  it('heads its sections in words of its own, each with passages no other has', () => {
    const outlined = writer(manner)<Section[]>('outline it in 3 to 5 sections', { ...subject, ...KRAUT }, SECTIONS);
    expect(outlined.length).toBeGreaterThanOrEqual(3);
    expect(new Set(outlined.map(({ heading }) => heading)).size).toBe(outlined.length);
    const all = outlined.flatMap(({ passages }) => passages);
    expect(new Set(all).size).toBe(all.length);
    for (const { heading } of outlined) expect(source).not.toContain(heading);
  });

  it('says a section in other words, with a word of its heading, resting on passages it was given', () => {
    const blocks = writer(manner)<Block[]>(
      sectionTask,
      { ...subject, heading: 'Check the salt first', ...KRAUT },
      BLOCKS,
    );
    const text = blocks.map((block) => [block.text, ...block.items].join(' ')).join(' ');
    expect(text).toMatch(/salt/i);
    for (const sentence of sentencesOf(text, 'en')) expect(source).not.toContain(sentence);
    for (const { passages } of blocks) {
      expect(passages.length).toBeGreaterThan(0);
      for (const n of passages) expect(KRAUT).toHaveProperty(`passage ${n}`);
    }
  });

  it('does not say again what was said before, in whatever words', () => {
    const ask = writer(manner);
    const of = (said: string, heading: string) =>
      ask<Block[]>(sectionTask, { ...subject, heading, ...(said ? { 'said before': said } : {}), ...KRAUT }, BLOCKS)
        .map(({ text }) => text)
        .join(' ');
    const told = (text: string) => sentencesOf(text, 'en').flatMap((one) => understood(one).map(({ id }) => id));
    const first = of('', 'Check the salt first');
    const second = of(first, 'Air under the lid');
    expect(told(first).length).toBeGreaterThan(2);
    expect(told(second).filter((id) => told(first).includes(id))).toEqual([]);
  });

  it('says a part anew that was written, and nothing else, though it is said elsewhere too', () => {
    const ask = writer(manner);
    const heading = 'Check the salt first';
    const blocks = (task: string, parts: object) =>
      ask<Block[]>(task, { ...subject, heading, ...parts, ...KRAUT }, BLOCKS)
        .map(({ text, items }) => [text, ...items].join(' '))
        .join(' ');
    const told = (text: string) => sentencesOf(text, 'en').flatMap((one) => understood(one).map(({ id }) => id));
    const first = blocks(sectionTask, {});
    const part = (words: number) =>
      blocks(`Task: of an article on the subject write one part anew, about ${words} words. Person: second person.`, {
        'it says': first,
        'said before': first,
      });
    expect(told(part(countWords(first))).length).toBeGreaterThan(0);
    for (const words of [countWords(first), 25]) {
      for (const id of told(part(words))) expect(told(first)).toContain(id);
    }
    expect(countWords(part(25))).toBeLessThan(countWords(first));
  });

  it('answers in the opening from what the body says, in yet other words', () => {
    const ask = writer(manner);
    const body = ask<Block[]>(sectionTask, { ...subject, heading: 'Check the salt first', ...KRAUT }, BLOCKS)
      .map(({ text }) => text)
      .join(' ');
    const opening = ask<Block[]>(
      'Task: write the opening, about 50 words. Person: second person.',
      { ...subject, 'said before': body, ...KRAUT },
      BLOCKS,
    )
      .map(({ text }) => text)
      .join(' ');
    expect(countWords(opening)).toBeGreaterThan(10);
    expect(sentencesOf(opening, 'en')[0]).toMatch(/soft|kraut/i);
    for (const sentence of sentencesOf(opening, 'en')) expect(body).not.toContain(sentence);
  });

  it('gives titles of several ideas, none the bare subject, none too long', () => {
    const titles = writer(manner)<string[]>(
      'give 3 titles, each of at most 60 characters',
      { ...subject, ...KRAUT },
      TITLES,
    );
    expect(titles.length).toBeGreaterThanOrEqual(2);
    expect(new Set(titles).size).toBe(titles.length);
    for (const title of titles) {
      expect(title.length).toBeLessThanOrEqual(60);
      expect(title.toLowerCase()).not.toBe('soft sauerkraut');
    }
  });

  it('describes what the article goes through, in no sentence of it', () => {
    const text = writer(manner)<string>('describe it', { ...subject, ...KRAUT }, { type: 'string' }, 'description');
    expect(text.length).toBeGreaterThan(40);
    expect(text.length).toBeLessThanOrEqual(155);
    expect(source).not.toContain(text);
    expect(text).toMatch(/soft sauerkraut/i);
  });

  it('puts key points otherwise than the article, short enough to act on', () => {
    const ask = writer(manner);
    const article = ask<Block[]>(sectionTask, { ...subject, heading: 'Check the salt first', ...KRAUT }, BLOCKS)
      .map(({ text }) => text)
      .join(' ');
    const points = ask<string[]>('give 4 key points', { ...subject, article }, POINTS);
    expect(points.length).toBeGreaterThan(0);
    for (const point of points) {
      expect(countWords(point)).toBeLessThanOrEqual(24);
      expect(article).not.toContain(point);
    }
  });
});

describe('of what it does not know', () => {
  const PEGS = {
    'passage 1':
      'Pegs slip in a dry winter. The wood shrinks and the peg hole stays as it is. Chalk on the peg helps at once.',
    'passage 2':
      'A bridge leans towards the fingerboard with time. Lean it back with both hands. A bridge that warps is to be replaced.',
    'passage 3':
      'Rosin collects on the strings. Wipe rosin off with a dry cloth after playing. Spirit dissolves rosin and varnish alike.',
  };

  it('says nothing that is not there, sentence by sentence', () => {
    const blocks = writer()<Block[]>(
      sectionTask,
      { subject: 'violin pegs', heading: 'Pegs in winter', ...PEGS },
      BLOCKS,
    );
    const words = new Set(
      Object.values(PEGS)
        .join(' ')
        .toLowerCase()
        .match(/\p{L}{5,}/gu),
    );
    for (const word of blocks
      .map(({ text }) => text.toLowerCase())
      .join(' ')
      .match(/\p{L}{5,}/gu) ?? [])
      expect([...words, 'since', 'because', 'start', 'start'].includes(word), word).toBe(true);
  });

  it('heads each section with what that speaks of and the others do not', () => {
    const outlined = writer()<Section[]>(
      'outline it in 3 to 3 sections',
      { subject: 'violin care', ...PEGS },
      SECTIONS,
    );
    for (const { heading, passages } of outlined) {
      const own = passages.map((n) => PEGS[`passage ${n}` as keyof typeof PEGS]).join(' ');
      expect(own.toLowerCase()).toContain(heading.split(' ')[0]!.toLowerCase());
    }
  });

  it('says in a table what each figure is of, wherever the sentence has it', () => {
    const ROWS: Schema = { type: 'array', items: { type: 'object', properties: { cells: { type: 'array' } } } };
    const said = [
      'Peg paste weighs 20 g a tin.',
      'Between 45 and 60 per cent of humidity the pegs move.',
      '12 grams of chalk last.',
    ];
    const rows = writer()<{ cells: string[] }[]>(
      'the rows of a table, at most 6 rows',
      {
        subject: 'violin care',
        ...Object.fromEntries(said.map((text, i) => [`passage ${i + 1}`, `(from: Pegs)\n${text}`])),
      },
      ROWS,
    );
    expect(rows.map(({ cells }) => cells)).toEqual([
      ['Peg paste weighs', '20 g'],
      ['humidity the pegs move', '45 and 60 per cent'],
      ['chalk last', '12 grams'],
    ]);
  });

  it('names the same things in a title and a description, never the subject alone', () => {
    const ask = writer();
    const [title] = ask<string[]>('give 2 titles, at most 60 characters', { subject: 'violin care', ...PEGS }, TITLES);
    expect(title!.toLowerCase()).not.toBe('violin care');
    const text = ask<string>('describe it', { subject: 'violin care', ...PEGS }, { type: 'string' }, 'description');
    expect(text.toLowerCase()).toContain('violin care');
  });
});

it('the same request is answered the same, however often it is asked', () => {
  const ask = writer();
  const once = () => ask<Block[]>(sectionTask, { ...subject, heading: 'Check the salt first', ...KRAUT }, BLOCKS);
  const first = once();
  ask<Block[]>(sectionTask, { ...subject, heading: 'Air under the lid', ...KRAUT }, BLOCKS);
  expect(once()).toEqual(first);
});
