import { z } from 'zod';
import { instruction, stepBase } from '../fields.ts';
import type { StepKind } from '../kind.ts';

const schema = z.strictObject({
  ...stepBase,
  kind: z.literal('notes'),
  /** Most points a section. */
  most: z.int().min(1).max(20),
  instruction,
});
export type NotesStep = z.infer<typeof schema>;

export const notes: StepKind<'notes', NotesStep> = {
  kind: 'notes',
  does: 'collects points for each section, with their passages',
  schema,
  needs: ['passages', 'outline'],
  gives: ['notes'],
  uses: (step) => [{ field: 'instruction', as: 'template', text: step.instruction }],
  calls: 'writer',
  effect: false,
  writes: false,
  fresh: (id) => ({ id, kind: 'notes', off: false, most: 5, instruction: '' }),
  sentence: (step) => [
    { text: 'Make at most ' },
    { word: String(step.most), field: 'most', editor: { type: 'number', least: 1, most: 20 } },
    { text: ' notes for each section' },
  ],
  check: () => [],
};
