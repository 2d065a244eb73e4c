import { describe, expect, it } from 'vitest';
import { acceptBlocks } from './blocksAccepted.ts';

const block = (text: string, change: object = {}) => ({
  kind: 'paragraph' as const,
  text,
  items: [] as string[],
  passages: [1],
  ...change,
});
const accept = acceptBlocks(new Set([1, 2, 3]), 'en');
const problem = (...blocks: ReturnType<typeof block>[]) => {
  const found = accept({ blocks }, false);
  return found.ok ? null : found.problem;
};
const taken = (...blocks: ReturnType<typeof block>[]) => {
  const found = accept({ blocks }, true);
  return found.ok ? found.value.blocks.map(({ text, items, passages }) => [text, ...items, passages.join()]) : null;
};

describe('blocks of a reply', () => {
  it('are taken as they are where nothing is wrong with them', () => {
    expect(problem(block('Rosin 2 grams; 3 - 1 is 2 (about 1920).'))).toBeNull();
  });

  it.each([
    ['a passage that was not given', block('Rosin.', { passages: [1, 7, 9] }), 'block 1: there is no passage 7, 9'],
    ['bold words', block('**Rosin** dust.'), 'block 1: its text has marks of Markdown'],
    ['a heading in a text', block('## Rosin\nDust.'), 'block 1: its text has marks of Markdown'],
    ['a link', block('See [rosin](https://a.example).'), 'block 1: its text has marks of Markdown'],
    ['a list in a text', block('- Rosin\n- Dust'), 'block 1: its text has marks of Markdown'],
    ['a number left in', block('Rosin is brittle [2].'), 'block 1: the number of a passage stands in its text'],
    ['a passage named', block('Rosin (passage 2) is brittle.'), 'block 1: the number of a passage stands in its text'],
    ['nothing at all', block('  '), 'block 1: it is empty'],
  ])('%s is named', (_name, one, says) => expect(problem(one)).toBe(says));

  it('all faults are named at once, by their blocks', () => {
    expect(problem(block('Fine.'), block('**Rosin** [3].', { passages: [9] }))).toBe(
      'block 2: there is no passage 9; block 2: its text has marks of Markdown; block 2: the number of a passage stands in its text',
    );
  });

  it('the last time they are mended, and those with nothing in them go', () => {
    expect(
      taken(
        block('**Rosin** is brittle [2, 3].', { passages: [1, 9] }),
        block('`'),
        block('See [the letters](https://a.example/1).', { kind: 'list', items: ['- one', '**two**', ''] }),
      ),
    ).toEqual([
      ['Rosin is brittle.', '1'],
      ['See the letters.', 'one', 'two', '1'],
    ]);
    expect(taken(block('**'), block(''))).toBeNull();
  });

  it('another language is refused also the last time', () => {
    const german = block(
      'Das Kolophonium ist nicht mit dem Bogen zu verwechseln, und die Saiten werden auch nicht alt.',
    );
    expect(problem(german)).toBe('it is written in German, not in English');
    expect(taken(german)).toBeNull();
    expect(acceptBlocks(new Set([1]), 'de')({ blocks: [german] }, false).ok).toBe(true);
  });

  it('text that was made to harm is read, however much there is of it', () => {
    for (const text of ['['.repeat(200_000), '[1'.repeat(100_000), '*'.repeat(200_000), '# '.repeat(100_000)])
      expect(accept({ blocks: [block(text)] }, true)).toBeDefined();
  });
});
