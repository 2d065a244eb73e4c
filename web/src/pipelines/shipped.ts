import { type ProcedureDocument, type Step, stepKinds } from '@grivo/core';

/** A procedure to begin with, from a keyword to an article in the next free slot. */
export function keywordsToGuides(source: string, blog: string, language: string): ProcedureDocument {
  const steps: Step[] = [
    { ...stepKinds.take.fresh('s1'), sources: source ? [source] : [], most: 3, everyMinutes: 1_440 },
    { ...stepKinds['look up'].fresh('s2'), pages: 6 },
    stepKinds.outline.fresh('s3'),
    { ...stepKinds.write.fresh('s4'), words: 900, parts: ['key points', 'lists'] },
    stepKinds.title.fresh('s5'),
    stepKinds.illustrate.fresh('s6'),
    { ...stepKinds.link.fresh('s7'), blog },
    { ...stepKinds.check.fresh('s8'), words: { from: 300, to: 2_000 } },
    { ...stepKinds.publish.fresh('s9'), blog },
  ];
  return { grivo: 1, language, steps };
}
