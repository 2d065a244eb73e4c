import { createHash } from 'node:crypto';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join, relative, resolve, sep } from 'node:path';
import { cellTexts, type StepOf, slugOf } from '@grivo/core';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { COPIES, copyOf } from '../formats/copies/copy.ts';
import { fileOrNone } from '../ground/files/repository.ts';
import { givenArticle } from '../nouns/articles/edits.ts';
import { missing } from '../nouns/articles/fields.ts';
import { readRevision } from '../nouns/articles/repository.ts';
import { resolverFor } from '../nouns/articles/resolver.ts';
import { ROW_TIME_LIMIT_MS, SheetHost } from '../ports/adapters/sheetHost.ts';
import { effect } from '../ports/intents/effect.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';

type FileKind = Exclude<StepOf<'keep'>['as'], 'a row'>;

/** Keeps an article as a file of this installation, or what is to be known of it as a row of a sheet. */
export function performKeep(tools: Tools): Performer<StepOf<'keep'>> {
  return async (step, context) =>
    step.as === 'a row' ? keepRow(tools, step, context) : keepFile(tools, step, step.as, context);
}

/** Adds the row once for each brief, step and draw; after an unknown outcome the sheet itself is read for it. */
async function keepRow(tools: Tools, step: StepOf<'keep'>, context: StepContext): Promise<StepResult> {
  const cells = cellTexts(step.cells);
  if (!cells.ok) return { kind: 'failed', failure: { code: 'cannot-work-out', problem: cells.problem } };
  const own = await filled(tools, { sheet: step.sheet }, context);
  if (!own.ok) return own.result;
  const texts = await filled(tools, Object.fromEntries(cells.cells.map(({ column, text }) => [column, text])), context);
  if (!texts.ok) return texts.result;
  const address = own.texts.sheet.trim();
  if (!URL.canParse(address)) {
    const reason = 'it is not an address';
    return { kind: 'failed', failure: { code: 'page-unreadable', address: address.slice(0, 300), reason } };
  }
  const row = Object.fromEntries(Object.entries(texts.texts).map(([column, text]) => [column, asCell(text)]));
  if (context.brief.trial) return { kind: 'done', fields: { kept: { would: step.as, sheet: address, row } } };
  const host = new SheetHost(tools.network);
  const act = [context.brief.id, context.run.path, context.draw, address].join('\n');
  const kept = await effect<number>(tools.ground, context, {
    key: `row/${createHash('sha256').update(act).digest('hex').slice(0, 32)}`,
    kind: 'add row',
    service: new URL(address).host,
    timeLimitMs: 2 * ROW_TIME_LIMIT_MS,
    call: () => host.add(address, row, context.signal),
    find: () => host.find(address, row, context.signal),
  });
  return kept.kind === 'done' ? { kind: 'done', fields: { kept: { sheet: address, row } } } : kept;
}

/** One line, and nothing a spreadsheet would take for a formula; numbers may have their sign. */
function asCell(text: string): string {
  const line = text.replace(/\s+/g, ' ').trim();
  return /^(?:[=@]|[+-](?![\d.,]+$))/.test(line) ? `'${line}` : line;
}

/** Writes the article into a folder. Writing it again gives the same file, so it needs no intent. */
async function keepFile(tools: Tools, step: StepOf<'keep'>, as: FileKind, context: StepContext): Promise<StepResult> {
  const own = await filled(tools, { folder: step.folder }, context);
  if (!own.ok) return own.result;
  const article = await givenArticle(tools.ground.db, context.fields);
  if (!article) return missing('article');
  if (context.brief.trial) return { kind: 'done', fields: { kept: { would: as, folder: own.texts.folder } } };
  if (!tools.keepFolder) return { kind: 'failed', failure: { code: 'not-set-up', what: 'folder for copies' } };
  const document = await readRevision(tools.ground.db, article.revision);
  const folder = folderIn(tools.keepFolder, own.texts.folder);
  if (!folder) return missing('folder');
  const copied = await copyOf(
    as,
    document,
    await resolverFor(tools.ground.db, document, (digest) => `files/${digest}`),
    (digest) => fileOrNone(tools.ground.db, digest),
  );
  if (!copied.ok) return { kind: 'failed', failure: { code: 'cannot-copy', form: as, problem: copied.problem } };
  const { ending } = COPIES[as];
  const name = `${document.slug || slugOf(context.brief.subject) || article.id}-${article.id.slice(-6)}.${ending}`;
  const path = join(folder, name);
  await mkdir(folder, { recursive: true });
  // Never half a file: it is there whole or not at all.
  const open = `${path}.${createHash('sha256').update(context.run.id).digest('hex').slice(0, 8)}`;
  await writeFile(open, copied.body);
  await rename(open, path);
  return { kind: 'done', fields: { kept: { file: relative(tools.keepFolder, path), as } } };
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
