import { describe, expect, it } from 'vitest';
import { type Step, type StepKindName, stepKinds } from '../registry.ts';
import type { SentenceWord, WordEditor } from '../sentence.ts';

/** A word offers what the step takes, and what it does not offer the step does not take. */

const names = {
  source: (id: string) => id,
  blog: (id: string) => id,
  routine: (id: string) => id,
  destination: (id: string) => id,
  service: (id: string) => id,
  choosable: () => true,
};

type Words = Record<string, unknown>;

function sentence(step: Step): SentenceWord[] {
  const kind = stepKinds[step.kind] as { sentence: (step: Step, of: typeof names) => readonly object[] };
  return kind.sentence(step, names).filter((part): part is SentenceWord => 'word' in part);
}

/** Every word a step of a kind can ever show: with each choice made, and with each that is on. */
function wordsOf(kind: StepKindName): { step: Step; word: SentenceWord }[] {
  const fresh = stepKinds[kind].fresh('s1') as Step;
  const steps: Step[] = [fresh];
  for (const { field, editor } of sentence(fresh)) {
    const now = (fresh as unknown as Words)[field];
    const values =
      editor.type === 'choice'
        ? editor.options.map(({ value }) => (typeof now === 'boolean' ? value === 'true' : value))
        : editor.type === 'number' || editor.type === 'minutes'
          ? [editor.most]
          : [];
    for (const value of values) steps.push({ ...fresh, [field]: value } as Step);
  }
  const seen = new Map<string, { step: Step; word: SentenceWord }>();
  for (const step of steps)
    for (const word of sentence(step)) seen.set(`${word.field} ${JSON.stringify(word.editor)}`, { step, word });
  return [...seen.values()];
}

const ofType = <Type extends WordEditor['type']>(type: Type) =>
  (Object.keys(stepKinds) as StepKindName[]).flatMap((kind) =>
    wordsOf(kind).flatMap(({ step, word }) =>
      word.editor.type === type
        ? [{ kind, field: word.field, step, editor: word.editor as Extract<WordEditor, { type: Type }> }]
        : [],
    ),
  );

const takes = ({ kind, step, field }: { kind: StepKindName; step: Step; field: string }, value: unknown) =>
  stepKinds[kind].schema.safeParse({ ...step, [field]: value }).success;

describe('figures', () => {
  const figures = [...ofType('number'), ...ofType('minutes')];

  it('there are some', () => expect(figures.length).toBeGreaterThanOrEqual(20));

  it.each(figures)('$kind: $field reaches from $editor.least to $editor.most, and no further', (word) => {
    const { least, most } = word.editor;
    expect([takes(word, least), takes(word, most)]).toEqual([true, true]);
    expect([takes(word, least - 1), takes(word, most + 1)]).toEqual([false, false]);
    expect(takes(word, least + 0.5)).toBe(false);
  });
});

describe('ranges', () => {
  it.each(ofType('range'))('$kind: $field reaches from $editor.least to $editor.most, and no further', (word) => {
    const { least, most } = word.editor;
    expect(takes(word, { from: least, to: most })).toBe(true);
    expect(takes(word, { from: least - 1, to: most })).toBe(false);
    expect(takes(word, { from: least, to: most + 1 })).toBe(false);
  });
});

describe('choices', () => {
  const choices = ofType('choice');

  it.each(choices)('$kind: every choice of $field can be made, and nothing else', (word) => {
    const isYesNo = typeof (word.step as unknown as Words)[word.field] === 'boolean';
    for (const { value } of word.editor.options) expect(takes(word, isYesNo ? value === 'true' : value)).toBe(true);
    expect(takes(word, 'something else')).toBe(false);
    // Each says what it does, and no two say the same.
    const said = word.editor.options.map(({ says }) => says);
    expect(new Set(said).size).toBe(said.length);
  });
});

describe('values of one’s own', () => {
  it.each(ofType('values'))('$kind: $field takes $editor.most of them, and no more', (word) => {
    const some = (n: number) => Array.from({ length: n }, (_, i) => `v${i}`);
    expect(takes(word, some(word.editor.most))).toBe(true);
    expect(takes(word, some(word.editor.most + 1))).toBe(false);
  });
});
