import { allSteps, type StepOf } from '@grivo/core';
import type { StepContext, StepResult } from '../engine/performer.ts';
import { blogFor } from '../nouns/blogs/meant.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';

/** The blog a step publishes an article in a language to; see {@link blogFor}. */
export async function blogOf(
  tools: Tools,
  step: StepOf<'publish'>,
  context: StepContext,
  language: string,
): Promise<{ ok: true; id: string } | { ok: false; result: StepResult }> {
  if (step.by === 'that blog') return { ok: true, id: step.blog };
  const own = await filled(tools, { named: step.by === 'a name' ? step.named : '' }, context);
  if (!own.ok) return own;
  const found = await blogFor(tools.ground.db, { blog: step.blog, by: step.by, named: own.texts.named, language });
  return found.ok ? found : { ok: false, result: { kind: 'failed', failure: found.failure } };
}

/**
 * The blog a step works for that names one: where the article is published on another by its language or by a name, that
 * one. What is wrong with the name is for the step to say that publishes.
 */
export async function blogFollowed(
  tools: Tools,
  blog: string,
  context: StepContext,
  language: string,
): Promise<string> {
  const follows = allSteps(context.brief.document.steps).find(
    (step): step is StepOf<'publish'> =>
      step.kind === 'publish' && !step.off && step.by !== 'that blog' && step.blog === blog,
  );
  const found = follows ? await blogOf(tools, follows, context, language) : null;
  return found?.ok ? found.id : blog;
}
