import { type Failure, type StepOf, slugOf } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import { COPIES, copyOf } from '../formats/copies/copy.ts';
import { fileBody, fileOrNone } from '../ground/files/repository.ts';
import { givenArticle } from '../nouns/articles/edits.ts';
import { readRevision } from '../nouns/articles/repository.ts';
import { resolverFor } from '../nouns/articles/resolver.ts';
import type { Attachment } from '../ports/telling/mail.ts';
import type { Tools } from '../ports/tools.ts';
import { drawnCard } from './pictureCard.ts';

/** What mail servers take altogether, whatever they say; base64 makes a third more of it (RFC 2045, section 6.8). */
const MOST_BYTES = 15_000_000;

type Attached = { ok: true; files: Attachment[] } | { ok: false; failure: Failure };

/** The files a mail brings along: the article as it stands, in each form, and a card with its title. */
export async function attachedTo(tools: Tools, step: StepOf<'tell'>, context: StepContext): Promise<Attached> {
  if (step.attach.length === 0) return { ok: true, files: [] };
  const { db } = tools.ground;
  const article = await givenArticle(db, context.fields);
  if (!article) return { ok: false, failure: { code: 'field-missing', field: 'article' } };
  const document = await readRevision(db, article.revision);
  const resolve = await resolverFor(db, document, (digest) => `files/${digest}`);
  const name = document.slug || slugOf(context.brief.subject) || 'article';
  const files: Attachment[] = [];
  for (const form of step.attach) {
    const cannot = (problem: string): Attached => ({ ok: false, failure: { code: 'cannot-copy', form, problem } });
    if (form === 'a card') {
      const wanted = { document, title: document.title || context.brief.subject };
      const card = await drawnCard(tools, { ...step, card: '' }, wanted, context);
      if (!card.ok) return cannot(`${card.sentence} ${card.mend}`);
      const ending = card.mime.replace('image/', '');
      files.push({ filename: `${name}.${ending}`, content: await fileBody(db, card.file), contentType: card.mime });
      continue;
    }
    const copied = await copyOf(form, document, resolve, (digest) => fileOrNone(db, digest));
    if (!copied.ok) return cannot(copied.problem);
    const { ending, mime } = COPIES[form];
    files.push({ filename: `${name}.${ending}`, content: copied.body, contentType: mime });
  }
  const bytes = files.reduce((sum, { content }) => sum + content.length, 0);
  const form = step.attach.join(', ');
  return bytes > MOST_BYTES
    ? {
        ok: false,
        failure: {
          code: 'cannot-copy',
          form,
          problem: `all of it has ${Math.ceil(bytes / 1e6)} MB, more than a mail carries`,
        },
      }
    : { ok: true, files };
}
