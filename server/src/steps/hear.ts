import { createHash } from 'node:crypto';
import { type SpokenPassages, type StepOf, secondsOf, spokenCarries, spokenOf, spokenPassages } from '@grivo/core';
import { z } from 'zod';
import type { Performer, StepContext } from '../engine/performer.ts';
import { languageOf } from '../formats/language/recognise.ts';
import { field, missing, PassagesField } from '../nouns/articles/fields.ts';
import { storePassages } from '../nouns/materials/repository.ts';
import type { HeardText } from '../ports/adapters/heard.ts';
import { getRecording, RecordingField } from '../ports/sound/recording.ts';
import type { Tools } from '../ports/tools.ts';
import { askerOf, serviceFor } from './tools.ts';

type HearStep = StepOf<'hear'>;

const Range = z.object({ from: z.number(), to: z.number() });

/** Has a recording heard, and keeps what was said in passages, each with its time, as captions give them. */
export function performHear(tools: Tools): Performer<HearStep> {
  return async (step, context) => {
    const recording = RecordingField.safeParse(context.fields['recording']).data;
    if (!recording) return missing('recording');
    const found = serviceFor(tools, 'transcriber', context);
    if (!found.ok) return found.result;
    const called = recording.title || recording.address || context.brief.subject;
    const silent = (reason: string) => ({
      kind: 'failed' as const,
      failure: { code: 'nothing-said' as const, recording: called, reason },
    });
    const got = await getRecording({ network: tools.network, db: tools.ground.db }, recording, context.signal);
    if (!got.ok) return silent(got.reason);
    const heard = await tools.transcriber.hear(
      found.service,
      { ...got, language: step.language },
      askerOf(tools, context),
    );
    if (!heard.ok) return { kind: 'failed', failure: heard.failure };
    context.spent(heard.value.micros);
    const { heard: text } = heard.value;
    const said = passagesOf(step, context, text, { address: addressOf(context), title: called, digest: got.digest });
    if (said.passages.length === 0)
      return silent(text.segments.length === 0 ? 'no words are heard in it' : 'nothing is said in that part of it');
    await storePassages(
      tools.ground.db,
      { address: addressOf(context), title: called, language: said.language },
      said.passages,
    );
    const before = field(context.fields, 'passages', PassagesField) ?? [];
    const fields = {
      passages: [...new Set([...before, ...said.passages.map(({ id }) => id)])],
      carriesWords: spokenCarries(said.words),
      spokenWords: said.words,
      spokenIn: said.language,
      heard: { sure: text.sure, seconds: text.seconds },
      ...(recording.address ? { source: { address: addressOf(context), title: called, by: recording.by } } : {}),
    };
    if (text.sure === null || text.sure >= step.sure || step.otherwise === 'go on all the same')
      return { kind: 'done', fields };
    return step.otherwise === 'hold it for me'
      ? { kind: 'held', fields }
      : { kind: 'done', fields, outcome: { kind: 'set aside' } };
  };
}

/** The page of an episode, where it has one; the recording itself otherwise. */
function addressOf(context: StepContext): string {
  const link = context.fields['link'];
  const { address = '' } = RecordingField.parse(context.fields['recording']);
  return typeof link === 'string' ? link : address;
}

function passagesOf(
  step: HearStep,
  context: StepContext,
  heard: HeardText,
  about: { address: string; title: string; digest: string },
): SpokenPassages & { language: string } {
  const language =
    languageOf(heard.segments.map(({ text }) => text).join(' ')) ?? step.language ?? context.brief.document.language;
  const chosen = Range.safeParse(context.fields['range']).data;
  const from = secondsOf(step.from) ?? chosen?.from ?? 0;
  const to = secondsOf(step.to) ?? chosen?.to ?? Number.POSITIVE_INFINITY;
  const { spoken } = spokenOf(
    heard.segments.map(({ start, end, text }) => ({ start, end, lines: [text] })),
    language,
  );
  // Another part of it, or another hearing of it, is another text.
  const digest = createHash('sha256')
    .update(JSON.stringify([about.digest, from, to, heard.segments]))
    .digest('hex');
  return { ...spokenPassages(spoken, { ...about, language, digest }, [], { from, to }), language };
}
