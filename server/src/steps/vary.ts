import { type Block, chooseVariant, countVariants, type StepOf, slugOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';
import { ownArticle } from './ownArticle.ts';

/** Chooses one of the texts by the brief's seed; a new draw chooses anew. */
export function performVary(tools: Tools): Performer<StepOf<'vary'>> {
  return async (step, context) => {
    const { brief, run, draw } = context;
    const chosen = await filled(
      tools,
      { text: chooseVariant(step.variants, `${brief.seed} ${run.path} ${draw}`) },
      context,
    );
    if (!chosen.ok) return chosen.result;
    const { text } = chosen.texts;
    const possible = countVariants(step.variants);
    if (step.for === 'a field') return { kind: 'done', fields: { [step.as]: text, possibleTexts: possible } };
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const { document } = article;
    const changed =
      step.for === 'the title'
        ? { ...document, title: text, titleChoices: [...new Set([text, ...document.titleChoices])], slug: slugOf(text) }
        : { ...document, body: opened(document.body, text) };
    const { article: after, writes } = await article.change(changed);
    return {
      kind: 'done',
      fields: { article: after, ...(step.for === 'the title' ? { title: text } : {}), possibleTexts: possible },
      writes,
    };
  };
}

const OPENING = 'opening';

/** The text as the first paragraph, after the lead picture; one put there before gives way. */
function opened(body: Block[], text: string): Block[] {
  const rest = body.filter((block) => block.id !== OPENING);
  const at = rest[0]?.type === 'figure' && rest[0].lead ? 1 : 0;
  return [...rest.slice(0, at), { type: 'paragraph', id: OPENING, content: [{ text }] }, ...rest.slice(at)];
}
