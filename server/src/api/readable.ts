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
    'Mend its braces, or take the tag or filter out; the texts that may be used stand in docs/texts.md.',
    unreadable.map(({ step, field, problem }) => ({ place: `${step}.${field}`, problem })),
  );
}
