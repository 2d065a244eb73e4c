import { type StepOf, sentencesOf } from '@grivo/core';
import { z } from 'zod';
import type { Performer } from '../engine/performer.ts';
import { field, missing, PassagesField } from '../nouns/articles/fields.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { aimOf } from './aim.ts';
import { askWriter, instructed, subjectOf, withNote } from './asking.ts';
import { houseRules, outlinePrompt, unsourcedRules } from './writing/prompts.ts';
import { rankPassages } from './writing/selection.ts';
import { OutlineShape } from './writing/shapes.ts';

const MOST_PASSAGES = 40;

const ChaptersField = z.array(z.object({ title: z.string(), start: z.number(), passages: z.array(z.string()) }));

/**
 * The chapters of a video as sections, in their order; where there are more than may be, the shortest are joined to the one
 * before.
 */
async function byChapters(
  tools: Tools,
  chapters: z.infer<typeof ChaptersField>,
  most: number,
): Promise<{ heading: string; says: string; passages: string[] }[]> {
  const texts = new Map(
    (
      await passagesById(
        tools.ground.db,
        chapters.flatMap(({ passages }) => passages),
      )
    ).map(({ id, text }) => [id, text]),
  );
  const sections = chapters
    .filter(({ passages }) => passages.length > 0)
    .map(({ title, passages }) => ({ heading: title, passages: [...passages] }));
  while (sections.length > most) {
    const at = sections
      .map(({ passages }, i) => ({ i, size: passages.length }))
      .filter(({ i }) => i > 0)
      .sort((a, b) => a.size - b.size)[0]!.i;
    sections[at - 1]!.passages.push(...sections[at]!.passages);
    sections.splice(at, 1);
  }
  return sections.map(({ heading, passages }) => ({
    heading,
    says: sentencesOf(texts.get(passages[0]!) ?? heading)[0] ?? heading,
    passages,
  }));
}

/** Has the writer outline the article from the passages. */
export function performOutline(tools: Tools): Performer<StepOf<'outline'>> {
  return async (step, context) => {
    const write = [...context.brief.steps.values()].find((other) => other.kind === 'write');
    const ids = field(context.fields, 'passages', PassagesField) ?? (write?.unsourced ? [] : null);
    if (!ids) return missing('passages');
    const chapters =
      step.follow === 'following its chapters' ? ChaptersField.safeParse(context.fields['chapters']).data : null;
    if (chapters && chapters.length > 1)
      return { kind: 'done', fields: { outline: await byChapters(tools, chapters, step.sections.to) } };
    const own = await instructed(tools, { instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const numbered = (await passagesById(tools.ground.db, ids)).map((passage, i) => ({ n: i + 1, passage }));
    const language = context.brief.document.language;
    const best = new Set(
      rankPassages(numbered, subjectOf(context), language)
        .slice(0, MOST_PASSAGES)
        .map(({ passage }) => passage.n),
    );
    const shown = numbered.filter(({ n }) => best.has(n));
    const asked = await askWriter(tools, context, {
      instructions: ids.length === 0 ? unsourcedRules(language) : houseRules(language),
      material: outlinePrompt({
        subject: subjectOf(context),
        sections: step.sections,
        words: write?.words ?? 1_000,
        instruction: withNote(own.texts.instruction, context),
        examples: step.examples,
        aim: aimOf(context),
        passages: shown,
      }),
      name: 'outline',
      shape: OutlineShape,
      maxTokensOut: 1_500,
    });
    if (!asked.ok) return asked.result;
    const sections = asked.value.sections.slice(0, step.sections.to);
    return {
      kind: 'done',
      fields: {
        outline: sections.map(({ heading, says, passages }) => ({
          heading,
          says,
          passages: passages.flatMap((n) => numbered[n - 1]?.passage.id ?? []),
        })),
      },
    };
  };
}
