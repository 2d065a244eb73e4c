import { secondsOf } from '../captions/cue.ts';
import type { Problem } from './kind.ts';

/** What is wrong with the part of a recording a step names: times that are none, an end before the beginning. */
export function timeProblems(step: { id: string; from: string; to: string }): Problem[] {
  const wrong = (['from', 'to'] as const).filter(
    (field) => step[field].trim() !== '' && secondsOf(step[field]) === null,
  );
  if (wrong.length > 0)
    return wrong.map((field) => ({
      step: step.id,
      field,
      grade: 'error',
      sentence: `‘${step[field]}’ is not a time.`,
      mend: 'Write it as 04:55.',
    }));
  if (step.from.trim() === '' || step.to.trim() === '' || secondsOf(step.from)! < secondsOf(step.to)!) return [];
  return [
    {
      step: step.id,
      field: 'to',
      grade: 'error',
      sentence: `It would end (${step.to}) before it begins (${step.from}).`,
      mend: 'Give a later end.',
    },
  ];
}
