import type { ServiceRole, StepKindName } from '@grivo/core';
import { stepKinds } from '@grivo/core';

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
