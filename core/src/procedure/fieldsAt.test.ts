import { describe, expect, test } from 'vitest';
import { testHolds } from '../expression/test.ts';
import { checkProcedure, checkRoutine, fieldsAtEnd, fieldsSeen } from './fieldsAt.ts';
import type { CheckContext } from './kind.ts';
import { type Step, stepKinds } from './registry.ts';
import { mapSteps, readSteps } from './tree.ts';

const context = {
  names: { blog: (id: string) => id, source: (id: string) => id },
  hasBlog: () => true,
  hasSource: () => true,
};
const brought: CheckContext = {
  ...context,
  brings: () => [
    { name: 'row', always: true },
    { name: 'litres', always: true },
    { name: 'link', always: false },
  ],
};
const take = { ...stepKinds.take.fresh('s1'), sources: ['k'] };
const answer = (id: string, as: string, instruction = 'What?') => ({
  ...stepKinds.answer.fresh(id),
  as,
  instruction,
  reading: 'nothing besides' as const,
});
const document = (...steps: Step[]) => ({ grivo: 1 as const, language: 'en', steps: [take, ...steps] });
const told = (...steps: Step[]) =>
  checkProcedure(document(...steps), context).map((p) => `${p.step} ${p.grade}: ${p.sentence}`);

describe('fields', () => {
  test('are seen below the step that gives them, under the names they are kept by', () => {
    const steps = document(
      answer('s2', 'point'),
      { ...stepKinds['work out'].fresh('s3'), as: 'short', expression: 'cut(point, 20)' },
      stepKinds.wait.fresh('s4'),
    );
    expect(fieldsSeen(steps, 's2', brought).map((f) => `${f.name}${f.unsure === null ? '' : '?'}`)).toEqual([
      'link?',
      'litres',
      'row',
      'subject',
    ]);
    expect(
      fieldsSeen(steps, 's4')
        .filter((f) => f.from !== null)
        .map((f) => `${f.name} from ${f.from}`),
    ).toEqual(['point from s2', 'short from s3', 'subject from s1']);
    expect(checkProcedure(steps, context)).toEqual([]);
  });

  test('come from the sources: of several, what all bring is sure; of one that is gone, nothing is known', () => {
    const two: CheckContext = {
      ...brought,
      brings: (id) => (id === 'k' ? brought.brings!(id) : id === 'm' ? [{ name: 'row', always: true }] : null),
    };
    const from = (...sources: string[]) => {
      const steps = document(answer('s2', 'point', 'About {{ litres }} and {{ row.Kind }}?'));
      return { ...steps, steps: [{ ...take, sources }, ...steps.steps.slice(1)] };
    };
    const unsure = (...sources: string[]) =>
      fieldsSeen(from(...sources), 's2', two).map((f) => `${f.name}${f.unsure === null ? '' : '?'}`);
    expect(unsure('k', 'm')).toEqual(['link?', 'litres?', 'row', 'subject']);
    expect(checkProcedure(from('k', 'm'), two)).toEqual([]);
    expect(checkProcedure(from('m'), two).map(({ sentence }) => sentence)).toEqual([
      'It uses ‘litres’, and no step above gives it.',
    ]);
    expect(checkProcedure(from('m', 'gone'), two)).toEqual([]);
    const gathered = { ...from('k'), steps: [{ ...take, gather: 3 }, ...from('k').steps.slice(1)] };
    expect(checkProcedure(gathered, two)).toEqual([]);
    expect(fieldsSeen(gathered, 's2', two).map((f) => `${f.name}${f.unsure === null ? '' : '?'}`)).toEqual([
      'items',
      'link?',
      'litres?',
      'row?',
      'subject',
    ]);
  });

  test('of the article are those an article has', () => {
    const steps = (text: string) =>
      document(
        { ...stepKinds['lay out'].fresh('s2'), body: 'Weigh the salt.' },
        { ...stepKinds.tell.fresh('s3'), to: 'a@crockhaven.example', text },
      );
    expect(checkProcedure(steps('{{ article.html }} {{ article.address }} by article.foo'), context)).toEqual([]);
    expect(checkProcedure(steps('{{ article.html }} {{ article.foo }}'), context)).toMatchObject([
      { step: 's3', field: 'text', grade: 'error', sentence: 'An article has no ‘foo’.' },
    ]);
    expect(fieldsSeen(steps(''), 's3').map(({ name }) => name)).toContain('article.description');
  });

  test('that nothing gives are told at the line, with those there are', () => {
    expect(told(answer('s2', 'point', 'About {{ nothing }}?'))).toEqual([
      's2 error: It uses ‘nothing’, and no step above gives it.',
    ]);
    expect(told({ ...stepKinds['work out'].fresh('s2'), expression: 'upper(later)' }, answer('s3', 'later'))).toEqual([
      's2 error: It uses ‘later’, and no step above gives it.',
    ]);
    expect(told(answer('s2', 'point', '{% if %}'))[0]).toMatch(/cannot be read/);
  });

  test('given in one branch only may be missing below; given in both they are sure', () => {
    const branch = (holds: Step[], otherwise: Step[]): Step => ({ ...stepKinds.when.fresh('s2'), holds, otherwise });
    const use = { ...stepKinds['work out'].fresh('s9'), expression: 'upper(point)' };
    expect(told(branch([answer('s3', 'point')], []), use)).toEqual([
      's9 warning: It uses ‘point’, which may be missing: step s2 gives it in one of its branches only.',
    ]);
    expect(told(branch([answer('s3', 'point')], [answer('s4', 'point')]), use)).toEqual([]);
  });

  test('a turn knows its value, what it makes comes back under the name of the block; a branch keeps to itself', () => {
    const inside = answer('s3', 'inner', 'In {{ tongue }}?');
    const turns: Step = { ...stepKinds['for each'].fresh('s2'), as: 'tongue', name: 'versions', steps: [inside] };
    expect(told(turns, { ...stepKinds['work out'].fresh('s4'), expression: 'length(versions)' })).toEqual([]);
    expect(told(turns, { ...stepKinds['work out'].fresh('s4'), expression: 'upper(inner)' })).toHaveLength(1);
    expect(told(turns, { ...stepKinds['work out'].fresh('s4'), expression: 'upper(tongue)' })).toHaveLength(1);
    const branch: Step = { ...stepKinds.meanwhile.fresh('s2'), steps: [answer('s3', 'beside')] };
    expect(told(branch, { ...stepKinds['work out'].fresh('s4'), expression: 'upper(beside)' })).toHaveLength(1);
  });

  test('steps switched off give nothing', () => {
    expect(
      told(
        { ...answer('s2', 'point'), off: true },
        { ...stepKinds['work out'].fresh('s3'), expression: 'upper(point)' },
      ),
    ).toHaveLength(1);
  });
});

test('steps are read depth first and changed wherever they stand', () => {
  const block: Step = {
    ...stepKinds.when.fresh('s2'),
    holds: [stepKinds.wait.fresh('s3')],
    otherwise: [stepKinds.wait.fresh('s4')],
  };
  expect(readSteps([take, block]).map(({ step, depth, under }) => `${step.id} ${depth} ${under ?? ''}`)).toEqual([
    's1 0 ',
    's2 0 ',
    's3 1 holds',
    's4 1 otherwise',
  ]);
  const changed = mapSteps([block], (step) =>
    step.id === 's4' && step.kind === 'wait' ? { ...step, minutes: 9 } : step,
  );
  expect(readSteps(changed)[2]!.step).toMatchObject({ id: 's4', minutes: 9 });
});

test.each<[string, string, string, boolean]>([
  ['n', 'above', '6', true],
  ['n', 'below', '6', false],
  ['n', 'equal to', '7.0', true],
  ['n', 'other than', '7', false],
  ['money', 'above', '1,000', true],
  ['word', 'above', '3', false],
  ['word', 'equal to', 'SALT', true],
  ['word', 'holding', 'al', true],
  ['word', 'not holding', 'al', false],
  ['list', 'holding', 'b', true],
  ['list', 'holding', 'bb', false],
  ['record.part', 'equal to', 'x', true],
  ['record.none', 'empty', '', true],
  ['none', 'filled', '', false],
  ['list', 'filled', '', true],
])('%s is %s %s: %s', (field, is, value, wanted) => {
  const fields = { n: 7, money: '1,200', word: 'Salt', list: ['a', 'b'], record: { part: 'x' } };
  expect(testHolds({ field, is: is as 'filled', value }, fields)).toBe(wanted);
});

describe('a routine', () => {
  const routine = (outputs: string[], ...steps: Step[]) => ({
    grivo: 1 as const,
    language: 'en',
    inputs: [{ name: 'topic', asks: 'About what', otherwise: null }],
    outputs,
    steps,
  });
  const told = (document: ReturnType<typeof routine>) =>
    checkRoutine(document, context).map((p) => `${p.step} ${p.grade}: ${p.sentence}`);

  test('needs nothing to feed it, sees what it is given and no subject', () => {
    expect(told(routine(['point'], answer('s1', 'point', 'What of {{ topic }}?')))).toEqual([]);
    expect(told(routine([], answer('s1', 'point', 'What of {{ subject }}?')))).toEqual([
      's1 error: It uses ‘subject’, and no step above gives it.',
    ]);
  });

  test('must have what it gives back, on every way through it', () => {
    const branch = {
      ...stepKinds.when.fresh('s1'),
      tests: [{ field: 'topic', is: 'is' as const, value: 'salt' }],
      holds: [answer('s2', 'point')],
      otherwise: [],
    } as unknown as Step;
    expect(told(routine(['point', 'other'], branch))).toEqual([
      's1 warning: It gives back ‘point’, which may be missing: step s1 gives it in one of its branches only.',
      's1 error: It should give back ‘other’, and no step gives it.',
    ]);
    expect(fieldsAtEnd(routine([], branch), context).map(({ name }) => name)).toEqual(['point', 'topic']);
  });
});
