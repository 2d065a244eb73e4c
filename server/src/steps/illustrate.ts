import { type Block, fillTemplate, type StepOf } from '@grivo/core';
import sharp from 'sharp';
import { addRevision, readRevision } from '../articles/repository.ts';
import type { Performer } from '../engine/performer.ts';
import { storeFile } from '../files/repository.ts';
import { picturePrompt } from '../writing/prompts.ts';
import { ArticleField, field, missing } from './fields.ts';
import { askerOf, serviceFor, type Tools } from './tools.ts';

const WIDEST = 1_600;

const ALTERNATIVE: Record<string, (subject: string) => string> = {
  en: (subject) => `Drawing on the subject: ${subject}`,
  de: (subject) => `Zeichnung zum Thema: ${subject}`,
};

/** Has the lead picture drawn, brings it to a size for the web, and puts it at the head of the article. */
export function performIllustrate(tools: Tools): Performer<StepOf<'illustrate'>> {
  return async (step, context) => {
    const found = serviceFor(tools, 'illustrator');
    if (!found.ok) return found.result;
    const article = field(context.fields, 'article', ArticleField);
    if (!article) return missing('article');
    const instruction = fillTemplate(step.instruction, context.fields);
    if (!instruction.ok) return missing(instruction.problem);
    const document = await readRevision(tools.ground.db, article.revision);
    const prompt = picturePrompt({
      title: document.title,
      subject: context.brief.subject,
      manner: step.manner,
      instruction: instruction.text,
    });
    const drawn = await tools.illustrator.draw(found.service, prompt, askerOf(tools, context));
    if (!drawn.ok) return { kind: 'failed', failure: drawn.failure };
    context.spent(drawn.value.micros);
    const picture = await forTheWeb(drawn.value.bytes);
    if (!picture)
      return {
        kind: 'failed',
        failure: { code: 'reply-unusable', service: found.service.id, problem: 'it is no picture that can be read' },
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
      alternative: (ALTERNATIVE[document.language] ?? ALTERNATIVE['en']!)(context.brief.subject),
      lead: true,
    };
    const body = [lead, ...document.body.filter((block) => !(block.type === 'figure' && block.lead))];
    const { revision, words, writes } = await addRevision(tools.ground, article.id, article.revision, context.run.id, {
      ...document,
      body,
    });
    return {
      kind: 'done',
      fields: {
        article: { id: article.id, revision, words },
        picture: { file, width: picture.width, height: picture.height },
      },
      writes,
    };
  };
}

/** At most 1,600 pixels wide, as WebP; null when the bytes are no picture. */
async function forTheWeb(bytes: Buffer): Promise<{ body: Buffer; width: number; height: number } | null> {
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: 60_000_000 })
      .resize({ width: WIDEST, withoutEnlargement: true })
      .webp({ quality: 80, effort: 0 })
      .toBuffer({ resolveWithObject: true });
    return { body: data, width: info.width, height: info.height };
  } catch (error) {
    if (
      error instanceof Error &&
      /unsupported image|Input buffer|corrupt|exceeds pixel limit|VipsJpeg|pngload|webpload/i.test(error.message)
    )
      return null;
    throw error;
  }
}
