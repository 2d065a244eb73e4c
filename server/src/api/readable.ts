import { type ProcedureDocument, unreadableTexts } from '@grivo/core';
import { problem } from './problem.ts';

/** Refuses a procedure with texts that can never be filled, as those that would read other files; each with its place. */
export function readableOnly(document: ProcedureDocument): void {
  const unreadable = unreadableTexts(document);
  const [first] = unreadable;
  if (!first) return;
  throw problem(
    422,
    'A text cannot be read',
    `Step ${first.step}, ${first.field}: ${first.problem}.`,
    'Correct its braces, or remove the tag or filter; docs/texts.md says what may be used.',
    unreadable.map(({ step, field, problem }) => ({ place: `${step}.${field}`, problem })),
  );
}
