import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ProcedureDocument } from './document.ts';
import {
  BLOCK_KINDS,
  changeKind,
  duplicateStep,
  holdStep,
  indentStep,
  insertStep,
  linesOf,
  moveStep,
  nextStepId,
  outdentStep,
  placeOf,
  placesOf,
  removeStep,
  shiftStep,
  stepWith,
  switchStep,
  unwrapStep,
  withWord,
  wrapSteps,
} from './edit.ts';
import { beginHistory, changeHistory, type History, redoHistory, undoHistory } from './history.ts';
import { type Step, type StepKindName, stepKinds } from './registry.ts';
import { shipped } from './shipped.ts';
import { allSteps } from './tree.ts';

const document = (...steps: Step[]): ProcedureDocument =>
  ProcedureDocument.parse({
    grivo: 1,
    language: 'en',
    steps: [{ ...stepKinds.take.fresh('s1'), sources: ['list'] }, ...steps],
  });
const plain = (id: string, kind: StepKindName = 'check') => stepKinds[kind].fresh(id) as Step;
const each = (id: string, ...steps: Step[]): Step => ({ ...stepKinds['for each'].fresh(id), steps });
const branch = (id: string, holds: Step[], otherwise: Step[] = []): Step => ({
  ...stepKinds.when.fresh(id),
  holds,
  otherwise,
});

/** The document as an outline: ids, with what stands inside in brackets. */
function outline(of: ProcedureDocument | null): string | null {
  const words = (steps: readonly Step[]): string =>
    steps
      .map((step) =>
        step.kind === 'when'
          ? `${step.id}[${words(step.holds)}|${words(step.otherwise)}]`
          : 'steps' in step
            ? `${step.id}[${words(step.steps)}]`
            : step.id,
      )
      .join(' ');
  return of && words(of.steps.slice(1));
}

const whole = document(plain('s2'), each('s3', plain('s4')), branch('s5', [plain('s6')]), plain('s7'));

describe('the lines of a procedure', () => {
  it('are its steps in reading order, with a line for each sequence that is still empty', () => {
    expect(linesOf(whole).map(({ key, depth, under }) => [key, depth, under])).toEqual([
      ['s1', 0, null],
      ['s2', 0, null],
      ['s3', 0, null],
      ['s4', 1, null],
      ['s5', 0, null],
      ['s6', 1, null],
      ['s5/otherwise', 1, 'otherwise'],
      ['s7', 0, null],
    ]);
  });

  it('name every place once, each after the line it follows', () => {
    const places = placesOf(whole);
    expect(new Set(places.map(({ place }) => JSON.stringify(place))).size).toBe(places.length);
    expect(places.map(({ after, depth }) => `${after} ${depth}`)).toEqual([
      'null 0',
      's1 0',
      's2 0',
      's3 1',
      's4 1',
      's4 0',
      's5 1',
      's6 1',
      's5/otherwise 1',
      's5/otherwise 0',
      's7 0',
    ]);
  });
});

describe('moving', () => {
  it('goes line by line, into blocks and out of them, and back the same way', () => {
    const seen = [outline(whole)];
    let now: ProcedureDocument | null = whole;
    for (let next = shiftStep(whole, 's2', 1); next; next = shiftStep(next, 's2', 1)) {
      now = next;
      seen.push(outline(next));
    }
    expect(seen).toEqual([
      's2 s3[s4] s5[s6|] s7',
      's3[s2 s4] s5[s6|] s7',
      's3[s4 s2] s5[s6|] s7',
      's3[s4] s2 s5[s6|] s7',
      's3[s4] s5[s2 s6|] s7',
      's3[s4] s5[s6 s2|] s7',
      's3[s4] s5[s6|s2] s7',
      's3[s4] s5[s6|] s2 s7',
      's3[s4] s5[s6|] s7 s2',
    ]);
    for (let i = 1; i < seen.length; i++) now = shiftStep(now!, 's2', -1);
    expect(now).toEqual(whole);
    expect(shiftStep(whole, 's2', -1)).toBeNull();
  });

  it('takes what is inside along, and never puts a block into itself', () => {
    expect(outline(moveStep(whole, 's3', { inside: 's5', under: 'otherwise', at: 0 }))).toBe('s2 s5[s6|s3[s4]] s7');
    expect(moveStep(whole, 's3', { inside: 's3', under: 'steps', at: 0 })).toBeNull();
  });

  it('counts places as they are before the step is taken out', () => {
    expect(outline(moveStep(whole, 's2', { inside: null, under: 'steps', at: 3 }))).toBe('s3[s4] s2 s5[s6|] s7');
    expect(moveStep(whole, 's2', { inside: null, under: 'steps', at: 2 })).toBeNull();
  });

  it('keeps ‘take’ the first step', () => {
    expect(moveStep(whole, 's1', { inside: null, under: 'steps', at: 2 })).toBeNull();
    expect(insertStep(whole, { inside: null, under: 'steps', at: 0 }, plain('s9'))).toBeNull();
    expect(removeStep(whole, 's1')).toBeNull();
    expect(shiftStep(whole, 's1', 1)).toBeNull();
  });

  it('goes into the block above and out of the block around', () => {
    const indented = indentStep(whole, 's7')!;
    expect(outline(indented)).toBe('s2 s3[s4] s5[s6 s7|]');
    expect(outline(outdentStep(indented, 's7'))).toBe(outline(whole));
    expect(indentStep(whole, 's3')).toBeNull();
    expect(outdentStep(whole, 's2')).toBeNull();
  });
});

describe('blocks', () => {
  it.each(BLOCK_KINDS)('of kind ‘%s’ are put around steps that follow one another, and taken away again', (kind) => {
    const wrapped = wrapSteps(whole, ['s2', 's3'], kind)!;
    expect(placeOf(wrapped, 's2')).toMatchObject({ inside: 's8', at: 0 });
    expect(placeOf(wrapped, 's4')).toMatchObject({ inside: 's3', at: 0 });
    expect(unwrapStep(wrapped, 's8')).toEqual(whole);
  });

  it('are not put around steps that do not follow one another', () => {
    expect(wrapSteps(whole, ['s2', 's5'], 'when')).toBeNull();
    expect(wrapSteps(whole, ['s1', 's2'], 'when')).toBeNull();
    expect(wrapSteps(whole, [], 'when')).toBeNull();
  });

  it('stand at most as deep as a procedure may be', () => {
    let deep = document(plain('s2'));
    let wrapped: ProcedureDocument | null = deep;
    let depth = 0;
    for (; wrapped; depth++) {
      deep = wrapped;
      wrapped = wrapSteps(deep, [depth === 0 ? 's2' : `s${depth + 2}`], 'for each');
    }
    expect(depth - 1).toBe(8);
    expect(ProcedureDocument.safeParse(deep).success).toBe(true);
  });
});

describe('a step', () => {
  it('once more has ids of its own, all the way in', () => {
    const twice = duplicateStep(whole, 's3')!;
    expect(outline(twice)).toBe('s2 s3[s4] s8[s9] s5[s6|] s7');
    expect(stepWith(twice, 's8')).toEqual({ ...stepWith(twice, 's3'), id: 's8', steps: [plain('s9')] });
  });

  it('of another kind keeps what fits there', () => {
    const told = withWord(document(plain('s2', 'write')), 's2', 'instruction', 'Speak of {{ subject }}.');
    const held = holdStep(told, 's2')!;
    const outlined = changeKind(held, 's2', 'outline')!;
    expect(stepWith(outlined, 's2')).toMatchObject({
      kind: 'outline',
      id: 's2',
      hold: true,
      instruction: 'Speak of {{ subject }}.',
    });
    expect(ProcedureDocument.safeParse(outlined).success).toBe(true);
  });

  it('keeps what stands inside when it becomes another block, and becomes no plain step while something does', () => {
    expect(outline(changeKind(whole, 's5', 'meanwhile'))).toBe('s2 s3[s4] s5[s6] s7');
    expect(outline(changeKind(whole, 's3', 'when'))).toBe('s2 s3[s4|] s5[s6|] s7');
    expect(changeKind(whole, 's3', 'check')).toBeNull();
    expect(changeKind(document(each('s2')), 's2', 'check')).not.toBeNull();
  });

  it('is switched off and on, and held or not where there is something to hold', () => {
    expect(stepWith(switchStep(whole, 's2')!, 's2')!.off).toBe(true);
    expect(switchStep(switchStep(whole, 's2')!, 's2')).toEqual(whole);
    expect(holdStep(holdStep(whole, 's2')!, 's2')).toEqual(whole);
    expect(holdStep(whole, 's3')).toBeNull();
  });

  it('gets an id none has', () => {
    expect(nextStepId(whole)).toBe('s8');
    expect(nextStepId(document(plain('first')))).toBe('s2');
  });
});

/** One edit of those a person can make, chosen by figures. */
function edited(
  of: ProcedureDocument,
  [what, where, which]: readonly [number, number, number],
): ProcedureDocument | null {
  const ids = allSteps(of.steps).map(({ id }) => id);
  const id = ids[where % ids.length]!;
  const places = placesOf(of);
  const { place } = places[which % places.length]!;
  const kinds = Object.keys(stepKinds) as StepKindName[];
  const kind = kinds[which % kinds.length]!;
  switch (what) {
    case 0:
      return insertStep(of, place, stepKinds[kind].fresh(nextStepId(of)) as Step);
    case 1:
      return removeStep(of, id);
    case 2:
      return moveStep(of, id, place);
    case 3:
      return shiftStep(of, id, which % 2 === 0 ? 1 : -1);
    case 4:
      return indentStep(of, id);
    case 5:
      return outdentStep(of, id);
    case 6:
      return wrapSteps(
        of,
        ids.slice(where % ids.length, (where % ids.length) + 1 + (which % 3)),
        BLOCK_KINDS[which % 3]!,
      );
    case 7:
      return unwrapStep(of, id);
    case 8:
      return duplicateStep(of, id);
    case 9:
      return changeKind(of, id, kind);
    case 10:
      return switchStep(of, id);
    case 11:
      return holdStep(of, id);
    default:
      return withWord(of, id, 'off', which % 2 === 0);
  }
}

it('200 edits of any kind leave a document at every turn, and are taken back and done again to where they began and led', () => {
  const start = shipped('guides').make({ source: 'list', blog: 'blog', language: 'en' });
  const figures = fc.tuple(fc.nat(12), fc.nat(10_000), fc.nat(10_000));
  const kinds = new Set<number>();
  fc.assert(
    fc.property(fc.array(figures, { minLength: 200, maxLength: 200 }), (edits) => {
      let history: History<ProcedureDocument> = beginHistory(start);
      for (const edit of edits) {
        const next = edited(history.now, edit);
        if (!next) continue;
        kinds.add(edit[0]);
        const read = ProcedureDocument.safeParse(next);
        if (!read.success) throw new Error(JSON.stringify(read.error.issues));
        history = changeHistory(history, next);
      }
      const led = history.now;
      const many = history.past.length;
      for (let i = 0; i < many; i++) history = undoHistory(history);
      expect(history.now).toEqual(start);
      expect(undoHistory(history)).toBe(history);
      for (let i = 0; i < many; i++) history = redoHistory(history);
      expect(history.now).toEqual(led);
      expect(redoHistory(history)).toBe(history);
    }),
    { numRuns: 30 },
  );
  expect([...kinds].sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]);
});

it('a change made after taking back ends what was taken back', () => {
  const one = changeHistory(changeHistory(beginHistory(1), 2), 3);
  expect(changeHistory(undoHistory(one), 9)).toEqual({ past: [1, 2], now: 9, future: [] });
});
