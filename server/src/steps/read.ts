import { createHash } from 'node:crypto';
import {
  carries,
  classOf,
  countWords,
  type Passage,
  type SpokenChapter,
  type StepOf,
  secondsOf,
  spokenCarries,
  textOf,
  wordsOf,
} from '@grivo/core';
import { z } from 'zod';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { GivenDocument } from '../formats/documents/uploaded.ts';
import { type Part, type ReadTranscript, readTranscript, readUploaded } from '../formats/videos/transcript.ts';
import type { Write } from '../ground/store/write.ts';
import { field, GatheredItems, missing, PassagesField } from '../nouns/articles/fields.ts';
import { aboutNow, gatheredSubject } from '../nouns/briefs/subject.ts';
import { storePassages } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';
import { afterReading, readAddress, readFile, readNotes } from './readText.ts';

type ReadStep = StepOf<'read'>;

const Row = z.record(z.string(), z.string());
const Sheet = z.object({ name: z.string(), row: z.number(), address: z.string().nullable() });
const Range = z.object({ from: z.number(), to: z.number() });

/**
 * Reads what an item holds into passages, which come after those there are already. Of a brief that gathers several, each
 * is read, and each is a chapter of its own; one that cannot be read is named and passed over, unless none can.
 */
export function performRead(tools: Tools): Performer<ReadStep> {
  return async (step, context) => {
    const items = GatheredItems.safeParse(context.fields['items']).data;
    if (!items) return readOne(tools, step, context);
    const passages: string[] = [];
    const chapters: { title: string; start: number; passages: string[] }[] = [];
    const sources: unknown[] = [];
    const unread: { subject: string; problem: string }[] = [];
    const kept: GatheredItems = [];
    const called = items.map(({ subject }) => subject);
    let carriesWords = 0;
    let failed: StepResult | null = null;
    for (const [i, item] of items.entries()) {
      const { items: _, ...brief } = context.fields;
      const done = await readOne(tools, step, { ...context, fields: { ...brief, ...item, passages: [] } });
      if (done.kind !== 'done') {
        if (done.kind === 'failed' && classOf(done.failure) === 'transient') return done;
        failed ??= done;
        unread.push({ subject: item.subject, problem: done.kind === 'failed' ? wordsOf(done.failure).sentence : '' });
        continue;
      }
      const own = PassagesField.parse(done.fields['passages']);
      passages.push(...own);
      const subject = String(done.fields['subject'] ?? item.subject);
      called[i] = subject;
      chapters.push({ title: subject, start: chapters.length, passages: own });
      kept.push({ ...item, subject, passages: own });
      const source = done.fields['source'];
      if (source) sources.push({ ...source, passages: own });
      carriesWords += Number(done.fields['carriesWords'] ?? 0);
    }
    if (chapters.length === 0) return failed ?? missing('items');
    const before = field(context.fields, 'passages', PassagesField) ?? [];
    const { subject, writes } = aboutAll(
      context,
      items.map((item) => item.subject),
      called,
    );
    return {
      kind: 'done',
      fields: {
        subject,
        items: kept,
        passages: [...new Set([...before, ...passages])],
        chapters,
        sources,
        carriesWords,
        unread,
      },
      writes,
    };
  };
}

/** What the whole brief is about, now that it is known what its items call themselves. */
function aboutAll(
  { brief }: StepContext,
  came: readonly string[],
  called: readonly string[],
): { subject: string; writes: Write[] } {
  const { id, subject: was, document } = brief;
  const subject = was === gatheredSubject(came) ? gatheredSubject(called) : was;
  return {
    subject,
    writes: subject === was ? [] : [aboutNow({ id, subject: was, language: document.language }, subject)],
  };
}

async function readOne(tools: Tools, step: ReadStep, context: StepContext): Promise<StepResult> {
  if (step.what === 'the row') return readRow(tools, step, context);
  if (step.what === 'the notes') return readNotes(tools, context);
  const document = GivenDocument.safeParse(context.fields['document']).data;
  if (step.what === 'the document' && document) return readFile(tools, step, context, document);
  const file = context.fields['captions'];
  if (step.what === 'the captions' && typeof file === 'string')
    return spokenOf(tools, context, '', await readUploaded(tools, file, titleOf(context), partOf(step, context)));
  const own = await filled(tools, { address: step.address }, context);
  if (!own.ok) return own.result;
  const address = own.texts.address.trim();
  if (!URL.canParse(address))
    return {
      kind: 'failed',
      failure: {
        code: 'page-unreadable',
        address: address.slice(0, 300) || 'the link',
        reason: 'it is not an address',
      },
    };
  return step.what === 'the captions'
    ? readSpoken(tools, step, context, address)
    : readAddress(tools, step, context, address);
}

async function readSpoken(tools: Tools, step: ReadStep, context: StepContext, address: string): Promise<StepResult> {
  const wanted = context.brief.document.language;
  const part = partOf(step, context);
  const first = await readTranscript(tools, address, wanted, context.signal, part);
  // Captions in another language are read all the same: what is said in them is what the article is made of.
  const done =
    !first.ok && first.failure.code === 'no-captions' && first.failure.there.length > 0
      ? await readTranscript(tools, address, null, context.signal, part)
      : first;
  return spokenOf(tools, context, address, done);
}

/** The part of it that is wanted: as the step says, else as the person chose. */
function partOf(step: ReadStep, context: StepContext): Part | undefined {
  const chosen = Range.safeParse(context.fields['range']).data;
  const from = secondsOf(step.from) ?? chosen?.from ?? 0;
  const to = secondsOf(step.to) ?? chosen?.to ?? Number.POSITIVE_INFINITY;
  return from > 0 || to !== Number.POSITIVE_INFINITY ? { from, to } : undefined;
}

function titleOf(context: StepContext): string {
  const title = context.fields['title'];
  return typeof title === 'string' ? title : context.brief.subject;
}

async function spokenOf(
  tools: Tools,
  context: StepContext,
  address: string,
  done: ReadTranscript,
): Promise<StepResult> {
  if (!done.ok) return { kind: 'failed', failure: done.failure };
  const { transcript } = done;
  const { passages, chapters, words } = transcript.passages;
  if (passages.length === 0)
    return {
      kind: 'failed',
      failure: { code: 'page-unreadable', address, reason: 'nothing is said in that part of it' },
    };
  const { video, language } = transcript;
  await storePassages(tools.ground.db, { address: video.address, title: video.title, language }, passages);
  return afterReading(context, passages, {
    chapters: chapters
      .filter(({ title }) => title !== '')
      .map(({ title, start, passages: ids }: SpokenChapter) => ({ title, start, passages: ids })),
    carriesWords: spokenCarries(words),
    spokenWords: words,
    spokenIn: language,
    source: {
      address: video.address,
      title: video.title,
      by: video.channel,
      video: true,
      ...(video.thumbnail ? { still: video.thumbnail } : {}),
      ...(video.player ? { player: video.player } : {}),
      ...(video.film ? { film: video.film } : {}),
    },
  });
}

/** The cells of some columns by what the sheet calls them, as they stand in it. */
function chosenCells(
  columns: readonly string[],
  row: Readonly<Record<string, string>>,
  fields: StepContext['fields'],
): Record<string, string> {
  const letters = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  return Object.fromEntries(
    columns.flatMap((name) => {
      const header = Object.keys(row).find((one) => letters(one) === letters(name));
      if (header) return [[header, row[header]!]];
      const value = fields[name];
      return value === undefined || value === null ? [] : [[inWords(name), textOf(value)]];
    }),
  );
}

/** ‘seaSalt’ as people write it. */
function inWords(name: string): string {
  return name.replace(/\p{Lu}/gu, (letter) => ` ${letter.toLowerCase()}`);
}

/** Cells that are sentences stand as they are; the others are told by their names in one sentence. */
async function readRow(tools: Tools, { columns }: ReadStep, context: StepContext): Promise<StepResult> {
  const whole = Row.safeParse(context.fields['row']).data;
  const row = columns.length === 0 ? whole : whole && chosenCells(columns, whole, context.fields);
  if (!row) return missing('row');
  const sheet = Sheet.safeParse(context.fields['sheet']).data ?? { name: 'the sheet', row: 0, address: null };
  const { language } = context.brief.document;
  const entries = Object.entries(row).filter(([, value]) => value !== '');
  const isText = (value: string) => countWords(value, language) >= 8;
  const texts = entries.filter(([, value]) => isText(value));
  const facts = entries
    .filter(([, value]) => !isText(value) && !/^(?:0|none|no|-|n\/a)$/i.test(value))
    .map(([name, value]) => `${name.toLowerCase()} ${value}`);
  const address = sheet.address ?? '';
  const digest = createHash('sha256')
    .update(JSON.stringify([sheet, row]))
    .digest('hex');
  const passages = [
    ...texts.map(([name, text]) => ({ name, text })),
    ...(facts.length > 0
      ? [{ name: 'facts', text: `${String(context.fields['subject'] ?? context.brief.subject)}: ${facts.join(', ')}.` }]
      : []),
  ].map(
    ({ name, text }, i): Passage => ({
      id: `${digest}:${i + 1}`,
      text,
      locator: { address, title: sheet.name, paragraph: i + 1, place: `row ${sheet.row}, ${name}` },
      language,
    }),
  );
  if (passages.length === 0) return missing('row');
  await storePassages(tools.ground.db, { address, title: sheet.name, language }, passages);
  return afterReading(context, passages, { carriesWords: carries(passages) });
}
