import type { ServiceRole } from '@grivo/core';
import type { StepContext } from '../engine/performer.ts';
import type { ServiceRow } from '../ports/services/entity.ts';
import type { Tools } from '../ports/tools.ts';

/** The service a role is filled by, or the failure that says there is none. */
export function serviceFor(
  tools: Tools,
  role: ServiceRole,
  context: Pick<StepContext, 'service'>,
):
  | { ok: true; service: ServiceRow }
  | { ok: false; result: { kind: 'failed'; failure: { code: 'no-service'; role: ServiceRole } } } {
  const held = context.service === null ? null : tools.services.get(context.service);
  const service = held?.role === role ? held : tools.services.standard(role);
  return service
    ? { ok: true, service }
    : { ok: false, result: { kind: 'failed', failure: { code: 'no-service', role } } };
}

/** Who asks, for the answers kept by content. */
export function askerOf(tools: Tools, context: StepContext) {
  return { holder: tools.holder(), stepRun: context.run.id, draw: context.draw, signal: context.signal };
}
