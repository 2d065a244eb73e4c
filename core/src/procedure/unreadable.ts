import { templateFields } from '../template/template.ts';
import type { ProcedureDocument } from './document.ts';
import { allSteps, kindOf } from './tree.ts';

/** A text of a step that no one can fill: its braces do not fit, or it uses a tag or filter that is not given here. */
export interface UnreadableText {
  step: string;
  /** The word of the sentence it stands in. */
  field: string;
  /** What is wrong, with the line and column in the text. */
  problem: string;
}

/** The texts of a procedure that can never be filled, whatever the fields hold; such a procedure is not kept. */
export function unreadableTexts(document: ProcedureDocument): UnreadableText[] {
  return allSteps(document.steps).flatMap((step) =>
    (kindOf(step).uses?.(step) ?? []).flatMap(({ as, field, text }) => {
      const read = as === 'template' ? templateFields(text) : null;
      return read === null || read.ok ? [] : [{ step: step.id, field, problem: read.problem }];
    }),
  );
}
