import { describe, expect, test } from 'vitest';
import { ProcedureDocument, planNodes, sentenceOf } from './document.ts';
import { checkProcedure } from './fieldsAt.ts';
import { type Step, stepKinds } from './registry.ts';
import { sentenceText } from './sentence.ts';

const names = { blog: (id: string) => `Blog ${id}`, source: (id: string) => `List ${id}` };
const context = { names, hasBlog: (id: string) => id === 'b1', hasSource: (id: string) => id === 'k1' };
const whole = (): Step[] => [
  { ...stepKinds.take.fresh('s1'), sources: ['k1'] },
  stepKinds['look up'].fresh('s2'),
  stepKinds.outline.fresh('s3'),
  stepKinds.write.fresh('s4'),
  stepKinds.title.fresh('s5'),
  stepKinds.illustrate.fresh('s6'),
  { ...stepKinds.link.fresh('s7'), blog: 'b1' },
  stepKinds.check.fresh('s8'),
  { ...stepKinds.publish.fresh('s9'), blog: 'b1' },
];
const document = (steps: Step[]) => ({ grivo: 1 as const, language: 'en', steps });

describe('every kind', () => {
  test('has a fresh step that its own schema takes, and a sentence whose words name fields of the step', () => {
    for (const kind of Object.values(stepKinds)) {
      const step = kind.fresh('s1');
      expect(kind.schema.parse(step), kind.kind).toEqual(step);
      const parts = sentenceOf(step, names);
      expect(sentenceText(parts).length, kind.kind).toBeGreaterThan(10);
      for (const part of parts)
        if ('field' in part) expect(Object.keys(step), `${kind.kind}.${part.field}`).toContain(part.field);
    }
  });

  test('refuses a field it does not know', () => {
    for (const kind of Object.values(stepKinds))
      expect(kind.schema.safeParse({ ...kind.fresh('s1'), extra: 1 }).success, kind.kind).toBe(false);
  });
});

test('sentences read as plain text', () => {
  const text = whole().map((step) => sentenceText(sentenceOf(step, names)));
  expect(text[0]).toBe('Take up to 3 new items from List k1, looking only when asked');
  expect(text[3]).toBe('Write about 900 words, second person, plain and friendly, with key points, lists');
  expect(text[7]).toBe(
    'Check: 500 to 2,000 words, like its sources by less than 30 % and our own articles by less than 25 %, nothing the sources do not say, on a subject of its own; if it fails, write it again, once, then hold it for me',
  );
  expect(text[8]).toBe('Publish to Blog b1 in the next free slot as a live post');
});

test('a word that is off stands in no sentence and is offered to be added; one that is on stands in it', () => {
  const take = (more: object) => sentenceOf({ ...whole()[0]!, ...more } as never, names);
  const offered = (parts: ReturnType<typeof take>) =>
    parts.flatMap((part) => ('word' in part && part.add ? `${part.field}: ${part.word}` : []));
  expect(offered(take({}))).toEqual([
    'gather: several items in one brief',
    'atOnce: a limit on how many at once',
    'apartMinutes: time between two',
    'mostMinutes: a time limit',
  ]);
  const on = take({ gather: 3, atOnce: 2, apartMinutes: 90, mostMinutes: 1_440, everyMinutes: 60 });
  expect(offered(on)).toEqual([]);
  expect(sentenceText(on)).toBe(
    'Take up to 3 new items from List k1, looking every hour; make one brief of every 3 items; have at most 2 in work at once; begin one every 90 minutes; stop one that takes longer than 1 day',
  );
});

test('a whole procedure has no problems; each missing step or reference is named at the line that needs it', () => {
  expect(checkProcedure(document(whole()), context)).toEqual([]);
  const without = (id: string) =>
    checkProcedure(document(whole().filter((step) => step.id !== id)), context).map((p) => `${p.step} ${p.sentence}`);
  expect(without('s1')).toContain('s2 It needs the subject, and no step above gives one.');
  expect(without('s2')).toContain('s3 It needs the passages, and no step above gives one.');
  expect(without('s4')).toContain('s5 It needs the article, and no step above gives one.');
  const off = checkProcedure(
    document(whole().map((step) => (step.id === 's3' ? { ...step, off: true } : step))),
    context,
  );
  expect(off.map((p) => p.step)).toEqual(['s4']);
  const gone = checkProcedure(
    document(whole().map((step) => (step.kind === 'publish' ? { ...step, blog: 'b9' } : step))),
    context,
  );
  expect(gone).toMatchObject([{ step: 's9', field: 'blog', grade: 'error' }]);
});

test('documents with two alike ids, a late take or ranges upside down are refused with the place', () => {
  const issues = (steps: unknown[]) =>
    ProcedureDocument.safeParse({ grivo: 1, language: 'en', steps }).error?.issues.map(
      (i) => `${i.path.join('.')}: ${i.message}`,
    );
  expect(issues([stepKinds.outline.fresh('s1'), stepKinds.title.fresh('s1')])).toEqual([
    'steps.1.id: the id s1 is used twice',
  ]);
  expect(issues([stepKinds.outline.fresh('s1'), stepKinds.take.fresh('s2')])).toEqual([
    'steps.1.kind: take must be the first step',
  ]);
  expect(issues([{ ...stepKinds.outline.fresh('s1'), sections: { from: 7, to: 5 } }])).toEqual([
    'steps.0.sections: the first figure must not be above the second',
  ]);
  expect(issues([{ id: 's1', kind: 'dance' }])?.[0]).toMatch(/^steps\.0\.kind/);
});

test('the planner gets every step but take', () => {
  expect(planNodes(document(whole())).map((node) => node.id)).toEqual(['s2', 's3', 's4', 's5', 's6', 's7', 's8', 's9']);
});
