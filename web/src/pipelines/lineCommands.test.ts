import { linesOf, type ProcedureDocument, type Step, stepKinds } from '@grivo/core';
import { describe, expect, it } from 'vitest';
import { kindsFor, lineCommands, type Pressed, pickedSteps } from './lineCommands.ts';

const inner = stepKinds.check.fresh('s4') as Step;
const DOCUMENT: ProcedureDocument = {
  grivo: 1,
  language: 'en',
  steps: [
    { ...stepKinds.take.fresh('s1'), sources: ['list'] },
    stepKinds.outline.fresh('s2'),
    { ...stepKinds['for each'].fresh('s3'), steps: [inner] },
    { ...stepKinds.when.fresh('s5') },
    stepKinds.publish.fresh('s6'),
  ],
};
const LINES = linesOf(DOCUMENT);
const at = (key: string) => LINES.find((line) => line.key === key)!;
const can = (key: string, picked = [key]) =>
  lineCommands(DOCUMENT, at(key), picked)
    .filter((command) => command.can)
    .map((command) => command.key);
const press = (key: string, more: Partial<Pressed> = {}): Pressed => ({ key, altKey: false, shiftKey: false, ...more });
const pressed = (line: string, event: Pressed) =>
  lineCommands(DOCUMENT, at(line), [line]).find((command) => command.pressed(event))?.says;

describe('what can be done at a line', () => {
  it('is asked of the document: nothing but adding at the step that takes', () => {
    expect(can('s1')).toEqual(['A']);
    expect(can('s2')).toEqual(['A', 'K', 'B', 'D', 'H', 'O', 'Alt ↓', 'Delete']);
    expect(can('s3')).toEqual(['A', 'K', 'B', 'U', 'D', 'O', 'Alt ↑', 'Alt ↓', 'Delete']);
    expect(can('s4')).toContain('Alt ←');
    expect(can('s6')).toContain('Alt →');
    expect(can('s5/holds')).toEqual(['A']);
  });

  it('has one key each, told apart by Alt', () => {
    expect(pressed('s2', press('a'))).toBe('Add a step below');
    expect(pressed('s2', press('Enter'))).toBe('Add a step below');
    expect(pressed('s5/holds', press('Enter'))).toBe('Add a step here');
    expect(pressed('s2', press('ArrowDown', { altKey: true }))).toBe('Down');
    expect(pressed('s2', press('ArrowDown'))).toBeUndefined();
    expect(pressed('s2', press('d', { altKey: true }))).toBeUndefined();
    for (const { key } of LINES) {
      const keys = lineCommands(DOCUMENT, at(key), [key]).map((command) => command.key);
      expect(new Set(keys).size).toBe(keys.length);
    }
  });

  it('says what it would do now', () => {
    const says = (key: string, picked = [key]) =>
      lineCommands(DOCUMENT, at(key), picked).map((command) => command.says);
    expect(says('s2')).toContain('Hold here for me');
    expect(says('s2', ['s2', 's3'])).toContain('Put these 2 into a block');
    expect(says('s2', ['s2', 's3'])).toContain('Take these 2 out');
  });
});

describe('picking lines', () => {
  it('takes what follows one another in one sequence, whatever stands inside', () => {
    expect(pickedSteps(LINES, 's2', 's5')).toEqual(['s2', 's3', 's5']);
    expect(pickedSteps(LINES, 's5', 's2')).toEqual(['s2', 's3', 's5']);
    expect(pickedSteps(LINES, null, 's2')).toEqual(['s2']);
  });

  it('is only the last line when they stand in different sequences or one is empty', () => {
    expect(pickedSteps(LINES, 's2', 's4')).toEqual(['s4']);
    expect(pickedSteps(LINES, 's2', 's5/holds')).toEqual([]);
  });
});

describe('the list of kinds', () => {
  const kinds = (...asked: Parameters<typeof kindsFor>) => kindsFor(...asked).map(({ kind }) => kind);

  it('is searched by name and by what a step does, those called so first', () => {
    expect(kinds('add', null, 'tr')).toEqual(['translate', 'illustrate']);
    expect(kinds('add', null, 'pictures')).toEqual(['illustrate']);
    expect(kinds('add', null, 'nothing like it')).toEqual([]);
    expect(kinds('add', null, '')).toHaveLength(Object.keys(stepKinds).length - 1);
  });

  it('offers the same kind once more, but not to become what it is', () => {
    expect(kinds('add', stepKinds.publish.fresh('s6') as Step, 'publish')).toEqual(['publish']);
    expect(kinds('change', stepKinds.publish.fresh('s6') as Step, 'publish')).toEqual([]);
  });

  it('offers only blocks to wrap in, and to a block with steps inside', () => {
    expect(kinds('wrap', inner, '').sort()).toEqual(['for each', 'meanwhile', 'when']);
    expect(kinds('change', at('s3').step, '').sort()).toEqual(['meanwhile', 'when']);
    expect(kinds('change', at('s5').step, '')).toContain('check');
  });

  it('never offers the step that takes: it is there already', () => {
    expect(kinds('add', null, 'take')).not.toContain('take');
  });
});
