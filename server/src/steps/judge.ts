import type { StepOf } from '@grivo/core';
import type { z } from 'zod';
import type { Performer, StepContext, StepResult } from '../engine/performer.ts';
import { GatheredItems, PassagesField } from '../nouns/articles/fields.ts';
import { passagesById } from '../nouns/materials/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { askWriter, type Ended, instructed, numberedPassages, subjectOf, textOfArticle, withNote } from './asking.ts';
import { houseRules, judgePrompt } from './writing/prompts.ts';
import { JudgementShape } from './writing/shapes.ts';

type JudgeStep = StepOf<'judge'>;
type Judgement = z.infer<typeof JudgementShape>;
type Material = Pick<Parameters<typeof judgePrompt>[0], 'subject' | 'passages' | 'text'>;

/**
 * Has the writer judge; what falls short goes the way the step says. A reply with no figure was asked for twice. Of a brief
 * that was gathered each item is judged by itself, and those that fall short are dropped; it ends when none is left.
 */
export function performJudge(tools: Tools): Performer<JudgeStep> {
  return async (step, context) => {
    const items = GatheredItems.safeParse(context.fields['items']).data;
    if (items && step.of !== 'the article') return judgeEach(tools, step, context, items);
    const passages = step.of === 'the sources' ? await numberedPassages(tools, context) : null;
    if (passages && !passages.ok) return passages.result;
    const text = step.of === 'the article' ? await textOfArticle(tools, context) : null;
    if (text && !text.ok) return text.result;
    const asked = await judgementOf(tools, step, context, {
      subject: subjectOf(context),
      passages: passages?.passages ?? [],
      text: text?.text ?? null,
    });
    if (!asked.ok) return asked.result;
    const { judgement } = asked;
    if (judgement.score >= step.least || step.otherwise === 'go on all the same')
      return { kind: 'done', fields: { judgement } };
    if (step.otherwise === 'hold it for me') return { kind: 'held', fields: { judgement } };
    return { kind: 'done', fields: { judgement }, outcome: { kind: 'set aside', why: judged(judgement, step.least) } };
  };
}

async function judgementOf(
  tools: Tools,
  step: JudgeStep,
  context: StepContext,
  material: Material,
): Promise<{ ok: true; judgement: Judgement } | { ok: false; result: Ended }> {
  const own = await instructed(tools, { qualities: step.qualities, instruction: step.instruction }, context);
  if (!own.ok) return own;
  const asked = await askWriter(tools, context, {
    instructions: houseRules(context.brief.document.language),
    material: judgePrompt({
      ...material,
      of: step.of,
      qualities: own.texts.qualities,
      instruction: withNote(own.texts.instruction, context),
    }),
    name: 'judgement',
    shape: JudgementShape,
    maxTokensOut: 300,
  });
  if (asked.ok) return { ok: true, judgement: asked.value };
  const { failure } = asked.result;
  return {
    ok: false,
    result:
      failure.code === 'reply-unusable'
        ? { kind: 'failed', failure: { code: 'no-figure', said: failure.problem } }
        : asked.result,
  };
}

function judged({ score, reason }: Judgement, least: number): string {
  return `judged ${score} of 10, and ${least} were wanted. ${reason}`.trim();
}

/** What is said of one item of a gathered brief. */
interface Judged extends Judgement {
  subject: string;
  kept: boolean;
}

async function judgeEach(
  tools: Tools,
  step: JudgeStep,
  context: StepContext,
  items: GatheredItems,
): Promise<StepResult> {
  const judgements: Judged[] = [];
  for (const item of items) {
    const read = step.of === 'the sources' ? await passagesById(tools.ground.db, item.passages ?? []) : [];
    const asked = await judgementOf(tools, step, context, {
      subject: item.subject,
      passages: read.map((passage, i) => ({ n: i + 1, passage })),
      text: null,
    });
    if (!asked.ok) return asked.result;
    const { judgement } = asked;
    judgements.push({
      subject: item.subject,
      ...judgement,
      kept: judgement.score >= step.least || step.otherwise === 'go on all the same',
    });
  }
  const kept = items.filter((_, i) => judgements[i]!.kept);
  const fields = { ...withoutDropped(context, items, kept), judgements, judgement: overall(judgements) };
  if (kept.length === 0 && step.otherwise === 'set it aside')
    return { kind: 'done', fields, outcome: { kind: 'set aside', why: judged(fields.judgement, step.least) } };
  return kept.length < items.length && step.otherwise === 'hold it for me'
    ? { kind: 'held', fields }
    : { kind: 'done', fields };
}

/** The fields of a gathered brief with what is of dropped items taken out. */
function withoutDropped(context: StepContext, items: GatheredItems, kept: GatheredItems): Record<string, unknown> {
  const dropped = new Set(items.filter((item) => !kept.includes(item)).flatMap(({ passages }) => passages ?? []));
  const isLeft = (id: string) => !dropped.has(id);
  const listed = (name: string) => {
    const parts = GatheredItems.safeParse(context.fields[name]).data;
    return parts
      ? { [name]: parts.filter(({ passages }) => (passages ?? []).length === 0 || passages!.some(isLeft)) }
      : {};
  };
  const passages = PassagesField.safeParse(context.fields['passages']).data;
  return {
    items: kept,
    ...(passages ? { passages: passages.filter(isLeft) } : {}),
    ...listed('chapters'),
    ...listed('sources'),
  };
}

/** All judgements as one: the mean score of what is kept, and how many were dropped. */
function overall(judgements: readonly Judged[]): Judgement {
  const kept = judgements.filter((one) => one.kept);
  const mean = kept.reduce((sum, { score }) => sum + score, 0) / Math.max(1, kept.length);
  const dropped = judgements.filter((one) => !one.kept);
  return {
    score: Math.round(mean * 10) / 10,
    kind: 'gathered',
    reason:
      `${kept.length} of ${judgements.length} kept${dropped.length === 0 ? '.' : `; dropped: ${dropped.map(({ subject, reason }) => `“${subject}” (${reason.replace(/\.$/, '')})`).join(', ')}.`}`.slice(
        0,
        4_000,
      ),
  };
}
