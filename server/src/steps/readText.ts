import { createHash } from 'node:crypto';
import { carries, type Passage, type StepOf } from '@grivo/core';
import { z } from 'zod';
import type { StepContext, StepResult } from '../engine/performer.ts';
import { calledByAddress, calledByFile, calledByItself } from '../formats/documents/called.ts';
import { readDocument } from '../formats/documents/reader.ts';
import { type GivenDocument, uploadedDocument } from '../formats/documents/uploaded.ts';
import { field, missing, PassagesField } from '../nouns/articles/fields.ts';
import { aboutNow } from '../nouns/briefs/subject.ts';
import { storePage } from '../nouns/materials/repository.ts';
import { pageOf, type ReadPage, readPage } from '../ports/adapters/pages.ts';
import type { Tools } from '../ports/tools.ts';

type ReadStep = StepOf<'read'>;

const Product = z.object({ name: z.string() });
const Entry = z.object({ feed: z.string(), author: z.string() });

/** The fields after reading: what was there before stays. */
export function afterReading(
  context: StepContext,
  passages: readonly Passage[],
  more: Record<string, unknown>,
): StepResult {
  const before = field(context.fields, 'passages', PassagesField) ?? [];
  return { kind: 'done', fields: { passages: [...new Set([...before, ...passages.map(({ id }) => id)])], ...more } };
}

const unreadable = (address: string, reason: string): StepResult => ({
  kind: 'failed',
  failure: { code: 'page-unreadable', address: address.slice(0, 300), reason },
});

/** Reads what is at an address: a page, or a document. */
export async function readAddress(
  tools: Tools,
  step: ReadStep,
  context: StepContext,
  address: string,
): Promise<StepResult> {
  const read = await readPage(tools, address, context.brief.document.language, context.signal, step.most);
  if (!read.ok) return unreadable(address, read.reason);
  const done = await kept(tools, context, read, sourceOf(context, read));
  // What has a name in a list, a feed or a sheet keeps it, whatever its page says.
  const isUnnamed = context.fields['about'] === new URL(address).hostname;
  return isUnnamed ? named(context, done, calledByAddress(address), read.page.title) : done;
}

/** Reads a document that was uploaded. */
export async function readFile(
  tools: Tools,
  step: ReadStep,
  context: StepContext,
  { file, fileName }: GivenDocument,
): Promise<StepResult> {
  const document = await uploadedDocument(tools.ground.db, file);
  if (!document.ok) return unreadable(fileName, document.problem);
  const { language } = context.brief.document;
  const wanted = { language, mostWords: step.most };
  const read = pageOf(await readDocument(tools.reader, document.bytes, { name: fileName, fetched: false }, wanted), {
    address: '',
    name: fileName.replace(/\.\w+$/, ''),
  });
  if (!read.ok) return unreadable(fileName, read.reason);
  const done = await kept(tools, context, read, { address: '', title: read.page.title, by: '' });
  return named(context, done, calledByFile(fileName), read.page.title);
}

/**
 * What came under no name but that of its file or address is about what it calls itself, from here on.
 * @param came what it was called as long as nobody had read it
 */
function named({ brief, fields }: StepContext, done: StepResult, came: string, title: string): StepResult {
  const subject = calledByItself(title);
  if (done.kind !== 'done' || subject === null || subject === came || fields['subject'] !== came) return done;
  const { language } = brief.document;
  return {
    ...done,
    fields: { ...done.fields, subject },
    writes: [...(done.writes ?? []), aboutNow({ id: brief.id, subject: came, language }, subject)],
  };
}

/** Reads the text that came with an item. */
export async function readNotes(tools: Tools, context: StepContext): Promise<StepResult> {
  const text = ['text', 'summary']
    .map((name) => context.fields[name])
    .find((one) => typeof one === 'string' && one.trim() !== '');
  if (typeof text !== 'string') return missing('text');
  const link = context.fields['link'];
  const address = typeof link === 'string' && URL.canParse(link) ? link : '';
  const wanted = { language: context.brief.document.language, mostWords: null };
  const said = { mime: 'text/plain', fetched: false };
  const read = pageOf(await readDocument(tools.reader, Buffer.from(text), said, wanted), {
    address,
    name: context.brief.subject,
  });
  if (!read.ok) return unreadable('the notes', read.reason);
  // Said by different people of the same words, they are different notes.
  const digest = createHash('sha256')
    .update(JSON.stringify([context.brief.subject, read.digest]))
    .digest('hex');
  return kept(
    tools,
    context,
    { ...read, digest, page: { ...read.page, title: context.brief.subject } },
    address === '' ? null : sourceOf(context, read),
  );
}

async function kept(
  tools: Tools,
  context: StepContext,
  read: Extract<ReadPage, { ok: true }>,
  source: Record<string, unknown> | null,
): Promise<StepResult> {
  const passages = await storePage(tools.ground.db, read.page, read.digest);
  const chapters = chaptersOf(read.headings, passages);
  return afterReading(context, passages, {
    carriesWords: carries(passages),
    ...(chapters.length > 1 ? { chapters } : {}),
    ...(source ? { source } : {}),
  });
}

/** Parts of a text by its headings, which an outline can follow. */
function chaptersOf(
  headings: readonly string[],
  passages: readonly Passage[],
): { title: string; start: number; passages: string[] }[] {
  const chapters: { title: string; start: number; passages: string[] }[] = [];
  for (const { id, locator } of passages) {
    const title = headings[locator.paragraph - 1] ?? '';
    const open = chapters.at(-1);
    if (open && open.title === title) open.passages.push(id);
    else chapters.push({ title, start: locator.paragraph, passages: [id] });
  }
  return chapters.filter(({ title }) => title !== '');
}

/** What is shown and credited as the source: a product by its partner's link, an entry with who wrote it. */
function sourceOf(context: StepContext, { page }: Extract<ReadPage, { ok: true }>): Record<string, unknown> {
  const product = Product.safeParse(context.fields['product']).data;
  const entry = Entry.safeParse(context.fields['entry']).data;
  const partner = context.fields['partnerLink'];
  return {
    address: typeof partner === 'string' ? partner : page.address,
    title: product?.name ?? page.title,
    by: entry?.author ? entry.author : (entry?.feed ?? ''),
    ...(typeof partner === 'string' ? { sponsored: true } : {}),
  };
}
