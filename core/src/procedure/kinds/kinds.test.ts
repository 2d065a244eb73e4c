import { describe, expect, test } from 'vitest';
import { type Step, type StepKindName, stepKinds } from '../registry.ts';
import { type SentenceWord, sentenceText } from '../sentence.ts';

const names = { blog: (id: string) => `Blog ${id}`, source: (id: string) => `List ${id}`, routine: () => 'Proofing' };
type AnyKind = {
  schema: { safeParse: (value: unknown) => { success: boolean } };
  sentence: (step: unknown, names: unknown) => ({ text: string } | SentenceWord)[];
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

test('a sentence says each figure of its step', () => {
  const said = (name: StepKindName, change: object) =>
    sentenceText(kindOf(name).sentence(fresh(name, change), names) as never);
  expect(said('check', { words: { from: 1_234, to: 5_678 }, again: 3 })).toBe(
    'Check: 1,234 to 5,678 words, like its sources by less than 30 % and our own articles by less than 25 %, nothing the sources do not say, on a subject of its own; if it fails, write it again, up to 3 times, then hold it for me',
  );
  expect(said('check', { again: 0, likeness: 37, own: null, figures: true, must: ['salt'], avoid: ['hack'] })).toBe(
    'Check: 500 to 2,000 words, without hack, with salt, like its sources by less than 37 %, nothing the sources do not say, on a subject of its own; if it fails, do not write it again, then hold it for me',
  );
  expect(said('check', { likeness: null, own: 12 })).toContain(' words, like our own articles by less than 12 %, ');
  expect(said('check', { must: ['a', 'b'], mustBe: 'any' })).toContain('with any of a, b');
  expect(said('publish', { blog: 'b1', when: 'at once', as: 'draft', categories: ['Salt'], tags: 'its own' })).toBe(
    'Publish to Blog b1 at once as a draft under Salt, with its own tags',
  );
});
