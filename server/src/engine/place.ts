/**
 * Where an open step run is, as the database works it out of the run's state (column `place`): one key over all of them, so
 * that a run that has ended costs one empty entry only.
 */

export function placeInLane(lane: string): string {
  return `L${lane}`;
}

export function placeInHand(holder: string): string {
  return `H${holder}`;
}

/** @param ms of the desk clock */
export function placeAtDesk(ms: number): string {
  return `D${String(Math.max(0, Math.floor(ms))).padStart(15, '0')}`;
}

export function placeAtIncident(incident: string): string {
  return `I${incident}`;
}
