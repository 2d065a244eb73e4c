import { describe, expect, test } from 'vitest';
import type { CheckContext } from '../kind.ts';
import { type Step, type StepKindName, stepKinds } from '../registry.ts';

const names = { source: (id: string) => id, blog: (id: string) => id, routine: (id: string) => id };

const context: CheckContext = {
  names,
  hasBlog: (id) => id === 'b1',
  hasSource: (id) => id === 'q1',
  routine: (id) =>
    id === 'r1'
      ? {
          inputs: [
            { name: 'topic', otherwise: null },
            { name: 'tone', otherwise: 'plain' },
          ],
          outputs: [],
        }
      : null,
};

type Words = Record<string, unknown>;

/** What is said of a step with these words, as ‘field: sentence’. */
function said(kind: StepKindName, words: Words = {}): string[] {
  const step = { ...stepKinds[kind].fresh('s1'), ...words } as Step;
  const check = stepKinds[kind].check as (step: Step, context: CheckContext) => ReturnType<CheckOf>;
  return check(step, context).map(({ field, sentence }) => (field ? `${field}: ${sentence}` : sentence));
}
type CheckOf = (typeof stepKinds)['wait']['check'];

/** Words that are well, and words that are not with what is said of them. */
const TABLE: [StepKindName, well: Words, ...wrong: [Words, ...string[]][]][] = [
  [
    'take',
    { sources: ['q1'] },
    [{ sources: [] }, 'sources: It takes from no source.'],
    [{ sources: ['q1', 'q9'] }, 'sources: The source ‘q9’ is gone.'],
  ],
  [
    'aim',
    { at: 'a phrase of your own', phrase: 'salt' },
    [{ at: 'a phrase of your own', phrase: ' ' }, 'phrase: There is no phrase to aim at.'],
  ],
  [
    'read',
    { what: 'the captions', from: '00:10', to: '' },
    [{ what: 'the captions', from: 'soon' }, 'from: ‘soon’ is not a time.'],
    [{ what: 'the captions', from: '02:00', to: '01:00' }, 'to: It would end (01:00) before it begins (02:00).'],
  ],
  [
    'answer',
    { instruction: 'How much?' },
    [{ instruction: ' ' }, 'instruction: There is no question.'],
    [{ instruction: 'How much?', form: 'a record', parts: [] }, 'parts: A record needs parts.'],
  ],
  ['fetch', { address: '{{ link }}' }, [{ address: '' }, 'address: It has no address to fetch.']],
  ['for each', { values: ['German'] }, [{ values: [], from: '' }, 'values: It has no values to go through.']],
  [
    'keep',
    { folder: 'guides/2026' },
    [{ folder: '../up' }, 'folder: ‘../up’ leads outside the folder copies are kept in.'],
    [{ folder: '/etc' }, 'folder: ‘/etc’ leads outside the folder copies are kept in.'],
    [{ folder: 'a\\b' }, 'folder: ‘a\\b’ leads outside the folder copies are kept in.'],
    [{ as: 'a row', sheet: '' }, 'sheet: It names no sheet.'],
  ],
  ['lay out', { body: '{{ body }}' }, [{ body: '' }, 'body: There is nothing to lay out.']],
  ['link', { blog: 'b1' }, [{ blog: 'b9' }, 'blog: It links to no blog.']],
  ['publish', { blog: 'b1' }, [{ blog: '' }, 'blog: It publishes to no blog.']],
  ['meanwhile', { steps: [stepKinds.wait.fresh('s2')] }, [{ steps: [] }, 'Nothing is done meanwhile.']],
  [
    'tell',
    { by: 'mail', to: '{{ who }}' },
    [{ to: ' ' }, 'to: It has nobody to tell.'],
    [{ by: 'mail', to: 'ines' }, 'to: ‘ines’ is not an email address.'],
    [{ by: 'hook', to: 'editor@example.com' }, 'to: ‘editor@example.com’ is not an address messages can be sent to.'],
    [{ by: 'message', to: 'ftp://example.com' }, 'to: ‘ftp://example.com’ is not an address messages can be sent to.'],
  ],
  [
    'use',
    { routine: 'r1', given: { topic: 'salt' } },
    [{ routine: '' }, 'routine: It uses no routine.'],
    [{ routine: 'r9' }, 'routine: It uses no routine.'],
    [{ routine: 'r1', given: {} }, 'given: The routine wants ‘topic’.'],
    [{ routine: 'r1', given: { topic: 'salt', size: '5' } }, 'given: The routine takes no ‘size’.'],
  ],
  [
    'vary',
    { variants: ['{a|b} salt'] },
    [{ variants: [] }, 'variants: There is nothing to choose from.'],
    [{ variants: ['{a|b salt'] }, expect.stringMatching(/^variants: /)],
  ],
  [
    'when',
    { holds: [stepKinds.wait.fresh('s2')], tests: [{ field: 'volume', is: 'above', value: '1,000.5' }] },
    [{ holds: [], otherwise: [], tests: [] }, 'Nothing is done either way.'],
    [
      { holds: [stepKinds.wait.fresh('s2')], tests: [{ field: 'volume', is: 'below', value: 'many' }] },
      'tests: ‘many’ is not a number, so nothing can be below it.',
    ],
  ],
  [
    'work out',
    { expression: '1 + 1' },
    [{ expression: '1 +' }, expect.stringMatching(/^expression: This cannot be worked out: /)],
  ],
  ['write', { words: 4_000 }, [{ words: 4_001 }, 'words: Few subjects carry this many words without repetition.']],
];

describe('what is wrong with a step is said at its word', () => {
  for (const [kind, well, ...wrong] of TABLE) {
    test(kind, () => {
      expect(said(kind, well)).toEqual([]);
      for (const [words, ...sentences] of wrong) expect(said(kind, { ...well, ...words })).toEqual(sentences);
    });
  }
});

test('every fault names its step and says what mends it', () => {
  for (const [kind, well, ...wrong] of TABLE)
    for (const [words] of wrong) {
      const step = { ...stepKinds[kind].fresh('s7'), ...well, ...words } as Step;
      for (const problem of (stepKinds[kind].check as (step: Step, context: CheckContext) => ReturnType<CheckOf>)(
        step,
        context,
      )) {
        expect(problem.step).toBe('s7');
        expect(problem.mend).toMatch(/^\p{Lu}.*[.}]$/u);
      }
    }
});

test('a fresh step of every kind is what its schema takes, and reads as a sentence', () => {
  for (const kind of Object.values(stepKinds)) {
    const step = kind.fresh('s1') as Step;
    expect(kind.schema.parse(step)).toEqual(step);
    const parts = (kind.sentence as (step: Step, names: object) => { text?: string; word?: string; field?: string }[])(
      step,
      names,
    );
    const sentence = parts.map(({ text, word }) => text ?? word ?? '').join('');
    expect(sentence).toMatch(/^\p{Lu}/u);
    expect(sentence).not.toMatch(/ {2}|undefined|null|NaN|\[object/);
    // Every marked word is one of the step's own.
    for (const { field } of parts) if (field !== undefined) expect(Object.keys(step)).toContain(field.split('.')[0]);
  }
});
