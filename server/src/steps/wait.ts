import type { StepOf } from '@grivo/core';
import { z } from 'zod';
import type { Performer } from '../engine/performer.ts';
import type { Tools } from '../ports/tools.ts';

const Until = z.object({ until: z.number() });

/** Waits by the desk clock. Until when is kept with the run, so that coming back early changes nothing. */
export function performWait(tools: Tools): Performer<StepOf<'wait'>> {
  return async (step, { brief, run }) => {
    const now = tools.ground.desk.now();
    const kept = Until.safeParse(brief.outputs.get(run.id)?.fields).data?.until;
    const until = kept ?? now + step.minutes * 60_000;
    return brief.trial || now >= until
      ? { kind: 'done', fields: {} }
      : { kind: 'at', desk: until, forSlot: false, fields: { until } };
  };
}
