import type { ProcedureDocument, ServiceRole, Step, StepKindName } from '@grivo/core';
import { serviceNamed, stepKinds } from '@grivo/core';
import type { ServiceDirectory } from '../ports/services/directory.ts';

/** The lane of work that calls no service. */
const OWN = '-';

/** The lane a step run waits in: the service it will call and the priority, so that both can be chosen or passed over. */
export function laneOf(service: string | null, priority: number): string {
  return `${service ?? OWN}:${priority}`;
}

export function serviceOfLane(lane: string): string | null {
  const service = lane.slice(0, lane.lastIndexOf(':'));
  return service === OWN ? null : service;
}

/** Lower goes first. */
export function priorityOfLane(lane: string): number {
  return Number(lane.slice(lane.lastIndexOf(':') + 1));
}

export function roleCalled(kind: string): ServiceRole | null {
  return kind in stepKinds ? stepKinds[kind as StepKindName].calls : null;
}

/** Tells the service a step would call now: the one it names, else its procedure's, else the installation's. */
export type ServiceFor = (
  kind: string,
  step: Step | undefined,
  procedure: Pick<ProcedureDocument, 'services'>,
) => string | null;

/** One that is named and was taken away does not keep a step from going on with the installation's. */
export function serviceCalledBy(services: ServiceDirectory): ServiceFor {
  return (kind, step, procedure) => {
    const role = roleCalled(kind);
    if (role === null) return null;
    const named = step ? serviceNamed(step, procedure) : null;
    return (named !== null && services.get(named)?.role === role ? named : services.standard(role)?.id) ?? null;
  };
}
