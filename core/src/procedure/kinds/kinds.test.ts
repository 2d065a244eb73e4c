import { describe, expect, test } from 'vitest';
import type { CheckContext } from '../kind.ts';
import { type Step, type StepKindName, stepKinds } from '../registry.ts';
import { type SentenceWord, sentenceText } from '../sentence.ts';

const names = { blog: (id: string) => `Blog ${id}`, source: (id: string) => `List ${id}`, routine: () => 'Proofing' };
const context: CheckContext = {
  names,
  hasBlog: (id) => id === 'b1',
  hasSource: (id) => id === 'k1',
  routine: (id) =>
    id === 'r1'
      ? {
          inputs: [
            { name: 'tone', otherwise: null },
            { name: 'length', otherwise: '500' },
          ],
          outputs: [],
        }
      : null,
};

type AnyKind = {
  schema: { safeParse: (value: unknown) => { success: boolean } };
  sentence: (step: unknown, names: unknown) => ({ text: string } | SentenceWord)[];
  check: (step: unknown, context: CheckContext) => { field?: string; grade: string; sentence: string; mend: string }[];
};
const kindOf = (name: StepKindName) => stepKinds[name] as unknown as AnyKind;
const fresh = (name: StepKindName, change: object = {}): Step =>
  ({ ...stepKinds[name].fresh('s1'), ...change }) as unknown as Step;
const words = (name: StepKindName, step: Step) =>
  kindOf(name)
    .sentence(step, names)
    .filter((part): part is SentenceWord => 'word' in part);

const ALL = Object.keys(stepKinds) as StepKindName[];
/** Every word of every kind, as it is offered by a fresh step. */
const WORDS = ALL.flatMap((name) =>
  words(name, fresh(name)).map((word) => ({ name, field: word.field, editor: word.editor })),
);
const takes = (name: StepKindName, field: string, value: unknown) =>
  kindOf(name).schema.safeParse(fresh(name, { [field]: value })).success;

describe('the limits an editor shows are those the document keeps', () => {
  const numbers = WORDS.flatMap(({ name, field, editor }) =>
    editor.type === 'number' || editor.type === 'minutes' ? [{ name, field, editor }] : [],
  );
  test.each(numbers)('$name, $field', ({ name, field, editor: { least, most } }) => {
    expect([least, most].map((value) => takes(name, field, value))).toEqual([true, true]);
    expect([least - 1, most + 1, least + 0.5].map((value) => takes(name, field, value))).toEqual([false, false, false]);
  });

  const ranges = WORDS.flatMap(({ name, field, editor }) => (editor.type === 'range' ? [{ name, field, editor }] : []));
  test.each(ranges)('$name, $field, from and to', ({ name, field, editor: { least, most } }) => {
    expect(takes(name, field, { from: least, to: most })).toBe(true);
    expect(takes(name, field, { from: least - 1, to: most })).toBe(false);
    expect(takes(name, field, { from: least, to: most + 1 })).toBe(false);
    expect(takes(name, field, { from: most, to: least })).toBe(false);
  });

  const values = WORDS.flatMap(({ name, field, editor }) =>
    editor.type === 'values' ? [{ name, field, editor }] : [],
  );
  test.each(values)('$name, $field, so many', ({ name, field, editor: { most } }) => {
    const some = (n: number) => Array.from({ length: n }, (_, i) => `value ${i}`);
    expect([most, most + 1].map((n) => takes(name, field, some(n)))).toEqual([true, false]);
  });
});

describe('what can be chosen', () => {
  const choices = WORDS.flatMap(({ name, field, editor }) =>
    editor.type === 'choice' ? [{ name, field, options: editor.options }] : [],
  );
  test.each(choices)('$name, $field: every option is taken, and its sentence says another thing', (word) => {
    const { name, field, options } = word;
    const before = (fresh(name) as unknown as Record<string, unknown>)[field];
    const said = options.map(({ value, says, does }) => {
      expect([says.length, does.length].every((letters) => letters > 0)).toBe(true);
      const set = typeof before === 'boolean' ? value === 'true' : value;
      expect(takes(name, field, set)).toBe(true);
      return JSON.stringify(words(name, fresh(name, { [field]: set })).find((one) => one.field === field));
    });
    expect(new Set(said).size).toBe(options.length);
  });
});

describe('what can be told wrong without running it', () => {
  const at = (name: StepKindName, change: object) =>
    kindOf(name)
      .check(fresh(name, change), context)
      .map(({ grade, field, sentence, mend }) => [grade, field ?? '', sentence, mend]);

  test.each(ALL)('%s: whatever is said has a mend, and begins and ends as a sentence', (name) => {
    for (const [, , sentence, mend] of at(name, {})) {
      expect(sentence).toMatch(/^[A-Z‘].*\.$/);
      expect(mend).toMatch(/^[A-Z].*\.$/);
    }
  });

  const FAULTS: [StepKindName, object, string, string][] = [
    ['publish', { blog: '' }, 'blog', 'It publishes to no blog.'],
    ['publish', { blog: 'gone' }, 'blog', 'It publishes to no blog.'],
    ['link', { blog: '' }, 'blog', 'It links to no blog.'],
    ['vary', { variants: [] }, 'variants', 'There is nothing to choose from.'],
    ['tell', { to: ' ' }, 'to', 'It tells nobody.'],
    ['tell', { by: 'mail', to: 'nobody' }, 'to', '‘nobody’ is no mail address.'],
    ['tell', { by: 'mail', to: 'a@b' }, 'to', '‘a@b’ is no mail address.'],
    ['keep', { as: 'a row', sheet: '' }, 'sheet', 'It names no sheet.'],
    ['keep', { as: 'a row', sheet: 'my sheet' }, 'sheet', '‘my sheet’ is not an address rows can be sent to.'],
    ['keep', { folder: '../out' }, 'folder', '‘../out’ leads outside the folder copies are kept in.'],
    ['keep', { folder: '/etc' }, 'folder', '‘/etc’ leads outside the folder copies are kept in.'],
    ['keep', { folder: 'a\\b' }, 'folder', '‘a\\b’ leads outside the folder copies are kept in.'],
    ['for each', { values: [], from: '' }, 'values', 'It has no values to go through.'],
    ['use', { routine: '' }, 'routine', 'It uses no routine.'],
    ['use', { routine: 'gone' }, 'routine', 'It uses no routine.'],
    ['use', { routine: 'r1', given: {} }, 'given', 'The routine wants ‘tone’.'],
    ['use', { routine: 'r1', given: { tone: 'a', mood: 'b' } }, 'given', 'The routine takes no ‘mood’.'],
    ['lay out', { body: ' ' }, 'body', 'There is nothing to lay out.'],
    ['fetch', { address: '' }, 'address', 'It fetches nothing.'],
    ['aim', { at: 'a phrase of your own', phrase: ' ' }, 'phrase', 'It aims at nothing.'],
    ['answer', { instruction: '' }, 'instruction', 'It asks nothing.'],
    ['answer', { instruction: 'Name it.', form: 'a record', parts: [] }, 'parts', 'A record has parts.'],
    [
      'when',
      { holds: [stepKinds.wait.fresh('w')], tests: [{ field: 'score', is: 'above', value: 'much' }] },
      'tests',
      '‘much’ is no figure to be above.',
    ],
    ['write', { words: 4_001 }, 'words', 'Few subjects carry this many words without repetition.'],
    ['write', { unsourced: true }, 'unsourced', 'Where there are no sources, nothing in the text can be checked.'],
    [
      'read',
      { what: 'the row', columns: [] },
      'columns',
      'Every column goes into the text, those meant for you alone too.',
    ],
  ];
  test.each(FAULTS)('%s with %o: %s', (name, change, field, sentence) => {
    expect(at(name, change).map(([, where, said]) => [where, said])).toEqual([[field, sentence]]);
  });

  const SOUND: [StepKindName, object][] = [
    ['publish', { blog: 'b1' }],
    ['link', { blog: 'b1' }],
    ['vary', { variants: ['{In short|At a glance}: {{ subject }}'] }],
    ['tell', { by: 'mail', to: 'ines@crockhaven.example' }],
    ['tell', { by: 'mail', to: '{{ owner }}' }],
    ['keep', { as: 'a row', sheet: 'https://sheets.example/1', cells: 'Title: {{ title }}' }],
    ['keep', { folder: 'guides/2026..27' }],
    ['for each', { values: [], from: 'rows' }],
    ['for each', { values: ['a'], from: '' }],
    ['use', { routine: 'r1', given: { tone: 'plain' } }],
    ['lay out', { body: '{{ body }}' }],
    ['fetch', { address: '{{ link }}' }],
    ['aim', { at: 'a phrase of your own', phrase: 'kraut' }],
    ['answer', { instruction: 'Name it.', form: 'a record', parts: ['name'] }],
    ['when', { holds: [stepKinds.wait.fresh('w')], tests: [{ field: 'score', is: 'above', value: '-1,200.5' }] }],
    ['write', { words: 4_000 }],
    ['read', { what: 'the row', columns: ['name'] }],
  ];
  test.each(SOUND)('%s with %o: nothing', (name, change) => {
    expect(at(name, change)).toEqual([]);
  });
});

test('a sentence says each figure of its step', () => {
  const said = (name: StepKindName, change: object) =>
    sentenceText(kindOf(name).sentence(fresh(name, change), names) as never);
  expect(said('check', { words: { from: 1_234, to: 5_678 }, again: 3 })).toBe(
    'Check: 1,234 to 5,678 words; if it fails, write it again, up to 3 times, then set it aside',
  );
  expect(said('check', { again: 0, likeness: 37, figures: true, must: ['salt'], avoid: ['hack'] })).toBe(
    'Check: 500 to 2,000 words, without hack, with salt, like its sources by less than 37 %, every figure found in the sources; if it fails, do not write it again, then set it aside',
  );
  expect(said('check', { must: ['a', 'b'], mustBe: 'any' })).toContain('with any of a, b');
  expect(said('publish', { blog: 'b1', when: 'at once', as: 'draft', categories: ['Salt'], tags: 'its own' })).toBe(
    'Publish to Blog b1 at once as a draft under Salt, with its own tags',
  );
});
