import { createHash } from 'node:crypto';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join, relative, resolve, sep } from 'node:path';
import { type ArticleDocument, articleFile, articleHtml, articleText, type StepOf, slugOf } from '@grivo/core';
import { addressesOf, readRevision } from '../articles/repository.ts';
import type { Performer } from '../engine/performer.ts';
import { filled } from './asking.ts';
import { ArticleField, field, missing } from './fields.ts';
import type { Tools } from './tools.ts';

const ENDING: Record<StepOf<'keep'>['as'], string> = { Markdown: 'md', HTML: 'html', 'plain text': 'txt' };

/** Writes the article into a folder of this installation. Writing it again gives the same file, so it needs no intent. */
export function performKeep(tools: Tools): Performer<StepOf<'keep'>> {
  return async (step, context) => {
    const own = filled({ folder: step.folder }, context);
    if (!own.ok) return own.result;
    const article = field(context.fields, 'article', ArticleField);
    if (!article) return missing('article');
    if (context.brief.trial) return { kind: 'done', fields: { kept: { would: step.as, folder: own.texts.folder } } };
    if (!tools.keepFolder) return { kind: 'failed', failure: { code: 'not-set-up', what: 'folder for copies' } };
    const document = await readRevision(tools.ground.db, article.revision);
    const folder = folderIn(tools.keepFolder, own.texts.folder);
    if (!folder) return missing('folder');
    const name = `${document.slug || slugOf(context.brief.subject) || article.id}-${article.id.slice(-6)}.${ENDING[step.as]}`;
    const path = join(folder, name);
    await mkdir(folder, { recursive: true });
    // Never half a file: it is there whole or not at all.
    const open = `${path}.${createHash('sha256').update(context.run.id).digest('hex').slice(0, 8)}`;
    await writeFile(open, await textFor(step.as, document, tools));
    await rename(open, path);
    return { kind: 'done', fields: { kept: { file: relative(tools.keepFolder, path), as: step.as } } };
  };
}

/** The folder inside the root, each part made harmless; null when it would lead out of it. */
export function folderIn(root: string, folder: string): string | null {
  const parts = folder
    .split('/')
    .filter((part) => /[\p{L}\p{N}]/u.test(part))
    .map((part) => slugOf(part));
  const path = resolve(root, ...parts);
  return path === resolve(root) || path.startsWith(resolve(root) + sep) ? path : null;
}

async function textFor(as: StepOf<'keep'>['as'], document: ArticleDocument, { ground }: Tools): Promise<string> {
  const links = document.body.flatMap((block) =>
    block.type === 'paragraph'
      ? block.content.flatMap(({ link }) => (link?.to === 'article' ? [link.article] : []))
      : [],
  );
  const addresses = await addressesOf(ground.db, links);
  const where = {
    file: (digest: string) => `files/${digest}`,
    article: (id: string) => addresses.get(id) ?? null,
  };
  if (as === 'Markdown') return articleFile(document, where);
  return as === 'HTML' ? articleHtml(document, where) : `${document.title}\n\n${articleText(document)}\n`;
}
