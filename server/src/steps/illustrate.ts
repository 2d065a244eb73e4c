import { alternativeFor, alternativeFrom, type Block, languageName, type StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { pictureAs } from '../formats/pictures/read.ts';
import { storeFile } from '../ground/files/repository.ts';
import { missing } from '../nouns/articles/fields.ts';
import type { Tools } from '../ports/tools.ts';
import { instructed, subjectOf, withNote } from './asking.ts';
import { styleFor } from './inStyle.ts';
import { ownArticle } from './ownArticle.ts';
import { askerOf, serviceFor } from './tools.ts';
import { fenced } from './writing/fences.ts';
import { picturePrompt } from './writing/prompts.ts';

const WIDEST = 1_600;

/** Has the lead picture drawn, brings it to a size for the web, and puts it at the head of the article. */
export function performIllustrate(tools: Tools): Performer<StepOf<'illustrate'>> {
  return async (step, context) => {
    const found = serviceFor(tools, 'illustrator', context);
    if (!found.ok) return found.result;
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const own = await instructed(tools, { instruction: step.instruction }, context);
    if (!own.ok) return own.result;
    const { document } = article;
    const asked = picturePrompt({
      title: document.title,
      subject: subjectOf(context),
      manner: step.manner || ((await styleFor(tools, context, step))?.document.pictures ?? ''),
      language: languageName(document.language),
      instruction: withNote(own.texts.instruction, context),
    });
    const { material: prompt } = fenced(tools.secrets, { instructions: '', material: asked });
    const drawn = await tools.illustrator.draw(found.service, prompt, askerOf(tools, context));
    if (!drawn.ok) return { kind: 'failed', failure: drawn.failure };
    context.spent(drawn.value.micros);
    const picture = await pictureAs(drawn.value.bytes, WIDEST, (open) => open.webp({ quality: 80, effort: 0 }));
    if (!picture.ok)
      return {
        kind: 'failed',
        failure: { code: 'reply-unusable', service: found.service.id, problem: picture.problem },
      };
    const file = await storeFile(tools.ground.db, picture.body, {
      mime: 'image/webp',
      width: picture.width,
      height: picture.height,
    });
    const lead: Block = {
      type: 'figure',
      id: 'lead',
      file,
      width: picture.width,
      height: picture.height,
      alternative:
        alternativeFrom(drawn.value.shows, document.title) ?? alternativeFor(document.title, document.language),
      lead: true,
    };
    const body = [lead, ...document.body.filter((block) => !(block.type === 'figure' && block.lead))];
    const { article: changed, writes } = await article.change({ ...document, body });
    return {
      kind: 'done',
      fields: {
        article: changed,
        picture: { file, width: picture.width, height: picture.height },
      },
      writes,
    };
  };
}
