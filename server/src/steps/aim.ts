import type { StepOf } from '@grivo/core';
import { z } from 'zod';
import type { Performer, StepContext } from '../engine/performer.ts';
import { PassagesField } from '../nouns/articles/fields.ts';
import type { Tools } from '../ports/tools.ts';
import { askWriter, filled, instructed, numberedPassages, withNote } from './asking.ts';
import { aimPrompt, houseRules } from './writing/prompts.ts';
import { AimShape } from './writing/shapes.ts';

export const AimField = z.object({ phrase: z.string(), terms: z.array(z.string()) });

const MOST_TERMS = 8;

/** What the brief aims at: what a step above said, else the phrases that were taken together. */
export function aimOf(context: StepContext): z.infer<typeof AimField> | null {
  const { data } = AimField.safeParse(context.fields['aim']);
  if (data) return data;
  const together = takenTogether(context);
  return together.length > 0 ? { phrase: context.brief.subject, terms: together } : null;
}

/** Phrases that were taken together are all to be answered. */
function takenTogether({ fields }: StepContext): string[] {
  return (z.array(z.string()).safeParse(fields['phrases']).data ?? []).slice(0, MOST_TERMS);
}

/** Several phrases typed in a row: the first is the one that is aimed at, the others are terms beside it. */
export function phrasesIn(text: string): string[] {
  const all = text
    .split(/[\n;|,]/)
    .map((phrase) => phrase.replace(/\s+/g, ' ').trim())
    .filter((phrase) => phrase !== '');
  return all.filter((phrase, i) => all.findIndex((one) => one.toLowerCase() === phrase.toLowerCase()) === i);
}

/** Says what readers search for: the subject, a phrase of one's own, or one the writer proposes with related words. */
export function performAim(tools: Tools): Performer<StepOf<'aim'>> {
  return async (step, context) => {
    const own = await instructed(tools, { instruction: step.instruction }, context);
    const aimedAt = await filled(tools, { phrase: step.phrase }, context);
    if (!own.ok) return own.result;
    if (!aimedAt.ok) return aimedAt.result;
    const { subject } = context.brief;
    if (step.at !== 'a phrase proposed') {
      if (step.at === 'the subject')
        return { kind: 'done', fields: { aim: { phrase: subject, terms: takenTogether(context) } } };
      const [phrase = subject, ...terms] = phrasesIn(aimedAt.texts.phrase);
      return { kind: 'done', fields: { aim: { phrase, terms: terms.slice(0, MOST_TERMS) } } };
    }
    const read = PassagesField.safeParse(context.fields['passages']).success
      ? await numberedPassages(tools, context)
      : null;
    if (read && !read.ok) return read.result;
    const asked = await askWriter(tools, context, {
      instructions: houseRules(context.brief.document.language),
      material: aimPrompt({
        subject,
        instruction: withNote(own.texts.instruction, context),
        passages: read?.passages ?? [],
      }),
      name: 'aim',
      shape: AimShape,
      maxTokensOut: 300,
    });
    if (!asked.ok) return asked.result;
    const { phrase, terms } = asked.value;
    return {
      kind: 'done',
      fields: { aim: { phrase: phrase.replace(/\s+/g, ' ').trim().toLowerCase(), terms: terms.slice(0, MOST_TERMS) } },
    };
  };
}
