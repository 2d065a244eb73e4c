import type { StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { field, missing, type NotesField, OutlineField, PassagesField } from '../nouns/articles/fields.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { askWriter, instructed, subjectOf, withNote } from './asking.ts';
import type { NumberedPassage } from './writing/promptParts.ts';
import { houseRules, notesPrompt } from './writing/prompts.ts';
import { rankPassages } from './writing/selection.ts';
import { NotesShape } from './writing/shapes.ts';

const MOST_FOR_ADDED = 8;

/** The passages that hold most of a section's own words, in their order. */
function speakingOf(
  passages: readonly NumberedPassage[],
  { heading, says }: { heading: string; says: string },
  language: string,
): NumberedPassage[] {
  return rankPassages(passages, `${heading} ${says}`, language)
    .filter(({ score }) => score > 0)
    .slice(0, MOST_FOR_ADDED)
    .map(({ passage }) => passage)
    .sort((a, b) => a.n - b.n);
}

/** Has the writer note, section by section, what each must say and on which passages that rests. */
export function performNotes(tools: Tools): Performer<StepOf<'notes'>> {
  return async (step, context) => {
    const own = await instructed(tools, { instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const ids = field(context.fields, 'passages', PassagesField);
    const outline = field(context.fields, 'outline', OutlineField);
    if (!ids) return missing('passages');
    if (!outline) return missing('outline');
    const all = (await passagesById(tools.ground.db, ids)).map((passage, i) => ({ n: i + 1, passage }));
    const notes: NotesField = [];
    for (const section of outline) {
      const named = all.filter(({ passage }) => section.passages.includes(passage.id));
      // A section somebody added names none: what speaks of it is looked for.
      const passages = named.length > 0 ? named : speakingOf(all, section, context.brief.document.language);
      if (passages.length === 0) {
        notes.push({ heading: section.heading, points: [] });
        continue;
      }
      const asked = await askWriter(tools, context, {
        instructions: houseRules(context.brief.document.language),
        material: notesPrompt({
          subject: subjectOf(context),
          heading: section.heading,
          says: section.says,
          most: step.most,
          instruction: withNote(own.texts.instruction, context),
          passages,
        }),
        name: 'notes',
        shape: NotesShape,
        maxTokensOut: 600,
      });
      if (!asked.ok) return asked.result;
      notes.push({
        heading: section.heading,
        points: asked.value.notes.slice(0, step.most).map(({ point, passages: numbers }) => ({
          point,
          passages: numbers.flatMap((n) => all[n - 1]?.passage.id ?? []),
        })),
      });
    }
    return { kind: 'done', fields: { notes } };
  };
}
