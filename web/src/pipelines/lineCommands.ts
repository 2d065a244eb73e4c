import {
  duplicateStep,
  holdStep,
  indentStep,
  innerSteps,
  type Line,
  outdentStep,
  type ProcedureDocument,
  removeStep,
  type Step,
  shiftStep,
  stepKinds,
  switchStep,
  unwrapStep,
  wrapSteps,
} from '@grivo/core';

/** What the list of steps is open for. */
export type Listing = 'add' | 'change' | 'wrap';

type Edit = (document: ProcedureDocument) => ProcedureDocument | null;

/** Which line has the keys afterwards: the same, the one that took its place, or the one just made. */
type Next = 'stay' | 'leave' | 'made';

/** Something that can be done to the line one is at, by key and from its menu. */
export interface LineCommand {
  says: string;
  /** As it is shown. */
  key: string;
  pressed: (event: Pressed) => boolean;
  can: boolean;
  does: { edit: Edit; next: Next } | { list: Listing };
}

export type Pressed = Pick<KeyboardEvent, 'key' | 'altKey' | 'shiftKey'>;

const alone =
  (...keys: string[]) =>
  ({ key, altKey }: Pressed) =>
    !altKey && keys.includes(key);
const withAlt =
  (name: string) =>
  ({ key, altKey }: Pressed) =>
    altKey && key === name;

/**
 * What can be done at a line now.
 * @param picked ids of the steps picked together, the line's own among them
 */
export function lineCommands(document: ProcedureDocument, line: Line, picked: readonly string[]): LineCommand[] {
  const { step } = line;
  const add: LineCommand = {
    says: step ? 'Add a step below' : 'Add a step here',
    key: 'A',
    pressed: alone('a', '+', 'Enter'),
    can: true,
    does: { list: 'add' },
  };
  if (!step) return [add];
  const command = (
    says: string,
    key: string,
    pressed: LineCommand['pressed'],
    edit: Edit,
    next: Next = 'stay',
  ): LineCommand => ({ says, key, pressed, can: edit(document) !== null, does: { edit, next } });
  const { id } = step;
  const list = (says: string, key: string, which: Listing, can: boolean): LineCommand => ({
    says,
    key,
    pressed: alone(key.toLowerCase()),
    can,
    does: { list: which },
  });
  const all = picked.length > 1 ? `these ${picked.length}` : 'it';
  return [
    add,
    list('Make it another kind', 'K', 'change', step.kind !== 'take'),
    list(`Put ${all} into a block`, 'B', 'wrap', wrapSteps(document, picked, 'when') !== null),
    command('Remove the block, keep its steps', 'U', alone('u'), (now) => unwrapStep(now, id), 'leave'),
    command('Duplicate it', 'D', alone('d'), (now) => duplicateStep(now, id), 'made'),
    command(step.hold ? 'Do not hold here' : 'Hold here for me', 'H', alone('h'), (now) => holdStep(now, id)),
    command(step.off ? 'Switch it on' : 'Switch it off', 'O', alone('o'), (now) => switchStep(now, id)),
    command('Up', 'Alt ↑', withAlt('ArrowUp'), (now) => shiftStep(now, id, -1)),
    command('Down', 'Alt ↓', withAlt('ArrowDown'), (now) => shiftStep(now, id, 1)),
    command('Into the block above', 'Alt →', withAlt('ArrowRight'), (now) => indentStep(now, id)),
    command('Out of its block', 'Alt ←', withAlt('ArrowLeft'), (now) => outdentStep(now, id)),
    command(
      picked.length > 1 ? `Take ${all} out` : 'Take it out',
      'Delete',
      alone('Delete', 'Backspace'),
      (now) => takeOut(now, picked),
      'leave',
    ),
  ];
}

function takeOut(document: ProcedureDocument, ids: readonly string[]): ProcedureDocument | null {
  return ids.reduce<ProcedureDocument | null>((now, id) => now && removeStep(now, id), document);
}

/** The steps from one line to another, when they follow one another in one sequence; else only the second. */
export function pickedSteps(lines: readonly Line[], from: string | null, to: string): string[] {
  const [a, b] = [from ?? to, to].map((key) => lines.find((line) => line.key === key));
  if (!b?.step) return [];
  if (!a?.step || a.place.inside !== b.place.inside || a.place.under !== b.place.under) return [b.key];
  const [first, last] = [Math.min(a.place.at, b.place.at), Math.max(a.place.at, b.place.at)];
  return lines
    .filter(
      ({ step, place }) =>
        step &&
        place.inside === b.place.inside &&
        place.under === b.place.under &&
        place.at >= first &&
        place.at <= last,
    )
    .map(({ key }) => key);
}

/** Kinds to choose from, those first that are called as typed. */
export function kindsFor(listing: Listing, step: Step | null, typed: string) {
  const words = typed.trim().toLowerCase().split(/\s+/);
  const rank = (kind: string, does: string) =>
    kind.startsWith(words[0]!)
      ? 0
      : words.every((word) => kind.includes(word))
        ? 1
        : `${kind} ${does}`.includes(words[0]!)
          ? 2
          : 3;
  return Object.values(stepKinds)
    .filter(({ kind }) => kind !== 'take' && (listing !== 'change' || kind !== step?.kind))
    .filter(({ kind }) => listing !== 'wrap' || ['when', 'for each', 'meanwhile'].includes(kind))
    .filter(
      ({ kind }) =>
        listing !== 'change' ||
        !step ||
        innerSteps(step).every(({ steps }) => steps.length === 0) ||
        innerSteps(stepKinds[kind].fresh('s0') as Step).length > 0,
    )
    .filter(({ kind, does }) => words.every((word) => `${kind} ${does}`.includes(word)))
    .map(({ kind, does }) => ({ kind, does }))
    .sort((a, b) => rank(a.kind, a.does) - rank(b.kind, b.does));
}
