import { articleText, type FilledTemplate, fillInstruction, fillTemplate } from '@grivo/core';
import { z } from 'zod';
import type { StepContext, StepResult } from '../engine/performer.ts';
import { givenArticle } from '../nouns/articles/edits.ts';
import { field, GatheredItems, missing, PassagesField } from '../nouns/articles/fields.ts';
import { fieldsInTexts } from '../nouns/articles/inTexts.ts';
import { readRevision } from '../nouns/articles/repository.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { WritingRequest } from '../ports/adapters/writer.ts';
import type { Tools } from '../ports/tools.ts';
import { houseValues } from './inStyle.ts';
import { askerOf, serviceFor } from './tools.ts';
import { fenced } from './writing/fences.ts';
import type { NumberedPassage } from './writing/promptParts.ts';
import { rankPassages } from './writing/selection.ts';

export type Ended = Extract<StepResult, { kind: 'failed' }>;
type Asked<T> = { ok: true; value: T } | { ok: false; result: Ended };

/** Asks the writer for one reply, what comes from outside in fences of this request, and books its cost with the step. */
export async function askWriter<T>(tools: Tools, context: StepContext, request: WritingRequest<T>): Promise<Asked<T>> {
  const found = serviceFor(tools, 'writer', context);
  if (!found.ok) return { ok: false, result: found.result };
  const reply = await tools.writer.write(
    found.service,
    { ...request, ...fenced(tools.secrets, request) },
    askerOf(tools, context),
  );
  if (!reply.ok) return { ok: false, result: { kind: 'failed', failure: reply.failure } };
  context.spent(reply.value.micros);
  return { ok: true, value: reply.value.value };
}

/** Letters of what a gathered brief is about, beyond which its other items are not named. */
const LONGEST_SUBJECT = 400;

/**
 * What the brief is about, as a writer is told it. Of a gathered one: the items that are still in it, which need not be
 * those it was taken for, one after the other.
 */
export function subjectOf({ brief, fields }: Pick<StepContext, 'brief' | 'fields'>): string {
  const subjects = (GatheredItems.safeParse(fields['items']).data ?? []).map(({ subject }) => subject).filter(Boolean);
  let out = subjects[0] ?? brief.subject;
  for (const subject of subjects.slice(1)) {
    if (out.length + subject.length + 2 > LONGEST_SUBJECT) break;
    out = `${out}; ${subject}`;
  }
  return out;
}

/** The same where one phrase is wanted, as for a title: of a gathered brief what its first item is about. */
export function phraseOf({ brief, fields }: Pick<StepContext, 'brief' | 'fields'>): string {
  return (GatheredItems.safeParse(fields['items']).data ?? [])[0]?.subject || brief.subject;
}

type Filled<K extends string> = { ok: true; texts: Record<K, string> } | { ok: false; result: Ended };

/** What texts are filled with: the fields, and the step they are of where one is. */
type Filling = Pick<StepContext, 'fields'> | Pick<StepContext, 'fields' | 'brief' | 'run'>;

/** Own texts of a step filled for this brief. */
export function filled<K extends string>(
  tools: Pick<Tools, 'ground'>,
  texts: Readonly<Record<K, string>>,
  context: Filling,
): Promise<Filled<K>> {
  return filledBy(tools, fillTemplate, texts, context);
}

/** As {@link filled}, for texts the writer is told: what is put in keeps apart from the words of who wrote them. */
export function instructed<K extends string>(
  tools: Pick<Tools, 'ground'>,
  texts: Readonly<Record<K, string>>,
  context: Filling,
): Promise<Filled<K>> {
  return filledBy(tools, fillInstruction, texts, context);
}

async function filledBy<K extends string>(
  { ground }: Pick<Tools, 'ground'>,
  fill: (text: string, fields: StepContext['fields']) => FilledTemplate,
  texts: Readonly<Record<K, string>>,
  context: Filling,
): Promise<Filled<K>> {
  const all: string[] = Object.values(texts);
  const fields = await fieldsInTexts(ground.db, context.fields, all);
  if ('brief' in context && all.some((text) => text.includes('house')))
    fields['house'] = await houseValues({ ground }, context);
  const out = {} as Record<K, string>;
  for (const [name, text] of Object.entries(texts) as [K, string][]) {
    const done = fill(text, fields);
    if (!done.ok) return { ok: false, result: missing(done.problem) };
    out[name] = done.text;
  }
  return { ok: true, texts: out };
}

const SentBack = z.record(z.string(), z.string());

/** What a person said when sending a step's work back; empty when nobody did. */
export function sentBackNote(context: StepContext): string {
  return SentBack.safeParse(context.brief.fields['sentBack']).data?.[context.run.path] ?? '';
}

/** An instruction with what a person said when sending the work back. */
export function withNote(instruction: string, context: StepContext): string {
  const note = sentBackNote(context);
  return note === '' ? instruction : `${instruction}\nA person sent this back and said: ${note}`.trim();
}

const MOST_PASSAGES = 24;

/** The passages the brief rests on, numbered, the fittest when there are many. */
export async function numberedPassages(
  tools: Tools,
  context: StepContext,
): Promise<{ ok: true; passages: NumberedPassage[] } | { ok: false; result: Ended }> {
  const ids = field(context.fields, 'passages', PassagesField);
  if (!ids) return { ok: false, result: missing('passages') };
  const all = (await passagesById(tools.ground.db, ids)).map((passage, i) => ({ n: i + 1, passage }));
  const best = rankPassages(all, subjectOf(context), context.brief.document.language)
    .slice(0, MOST_PASSAGES)
    .map(({ passage }) => passage);
  return { ok: true, passages: best.length === 0 ? all.slice(0, MOST_PASSAGES) : best.sort((a, b) => a.n - b.n) };
}

/** The article's text as it stands. */
export async function textOfArticle(
  tools: Tools,
  context: StepContext,
): Promise<{ ok: true; text: string } | { ok: false; result: Ended }> {
  const article = await givenArticle(tools.ground.db, context.fields);
  if (!article) return { ok: false, result: missing('article') };
  return { ok: true, text: articleText(await readRevision(tools.ground.db, article.revision)) };
}
