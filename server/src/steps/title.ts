import { articleText, fillTemplate, type StepOf, slugOf, tidy } from '@grivo/core';
import { addRevision, readRevision } from '../articles/repository.ts';
import type { Performer } from '../engine/performer.ts';
import { houseRules, titlePrompt } from '../writing/prompts.ts';
import { TitlesShape } from '../writing/shapes.ts';
import { ArticleField, field, missing } from './fields.ts';
import { askerOf, serviceFor, type Tools } from './tools.ts';

/** Titles the article: choices within the length, slug, description, keywords, hashtags. The first choice stands until a person takes another. */
export function performTitle(tools: Tools): Performer<StepOf<'title'>> {
  return async (step, context) => {
    const found = serviceFor(tools, 'writer');
    if (!found.ok) return found.result;
    const article = field(context.fields, 'article', ArticleField);
    if (!article) return missing('article');
    const instruction = fillTemplate(step.instruction, context.fields);
    if (!instruction.ok) return missing(instruction.problem);
    const document = await readRevision(tools.ground.db, article.revision);
    const reply = await tools.writer.write(
      found.service,
      {
        instructions: houseRules(document.language),
        material: titlePrompt({
          subject: context.brief.subject,
          most: step.most,
          choices: step.choices,
          instruction: instruction.text,
          text: articleText(document),
        }),
        name: 'titles',
        shape: TitlesShape,
        maxTokensOut: 600,
      },
      askerOf(tools, context),
    );
    if (!reply.ok) return { kind: 'failed', failure: reply.failure };
    context.spent(reply.value.micros);
    const { titles, description, keywords, hashtags } = reply.value.value;
    const choices = [
      ...new Set(titles.map((title) => cut(title.replace(/\s+/g, ' ').trim().replace(/[.]$/, ''), step.most))),
    ].slice(0, step.choices);
    const title = choices[0] ?? cut(context.brief.subject, step.most);
    const { article: titled } = tidy({
      ...document,
      title,
      titleChoices: choices,
      slug: slugOf(title),
      description: cut(description.replace(/\s+/g, ' ').trim(), 160),
      keywords: unique(keywords).slice(0, 8),
      hashtags: unique(hashtags.map((tag) => tag.replace(/^#+|\s+/g, ''))).slice(0, 5),
    });
    const { revision, words, writes } = await addRevision(
      tools.ground,
      article.id,
      article.revision,
      context.run.id,
      titled,
    );
    return {
      kind: 'done',
      fields: { article: { id: article.id, revision, words }, title, titleChoices: choices },
      writes,
    };
  };
}

/** Shortens at a word's end. */
function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  const head = text.slice(0, most + 1);
  return head.slice(0, Math.max(head.lastIndexOf(' '), Math.floor(most * 0.6))).replace(/[\s,;:–-]+$/, '');
}

function unique(words: readonly string[]): string[] {
  return [...new Set(words.map((word) => word.trim()).filter((word) => word !== ''))];
}
