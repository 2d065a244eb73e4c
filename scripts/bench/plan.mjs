// How long the planner thinks: thirty steps with blocks, two hundred step runs.
import { plan, planNodes, stepKinds } from '@grivo/core';
import { median } from './ground.mjs';

function document() {
  const steps = Array.from({ length: 20 }, (_, i) => stepKinds.wait.fresh(`s${i}`));
  const inner = Array.from({ length: 8 }, (_, i) => stepKinds.wait.fresh(`t${i}`));
  return {
    grivo: 1,
    language: 'en',
    steps: [
      ...steps.slice(0, 10),
      { ...stepKinds.meanwhile.fresh('m'), steps: [stepKinds.wait.fresh('x')] },
      { ...stepKinds['for each'].fresh('e'), steps: inner },
      ...steps.slice(10),
    ],
  };
}

/** Every turn some way through its steps, so that there is something to say about each. */
function runs(nodes) {
  const out = [];
  const keys = Array.from({ length: 24 }, (_, i) => `v${i}`);
  for (let i = 0; out.length < 200; i++) {
    const { create } = plan(nodes, out);
    if (create.length === 0) break;
    for (const { path, round, opens } of create.slice(0, 200 - out.length)) {
      const outcome = path === 'e' ? { kind: 'turns', keys } : { kind: 'done' };
      const last = out.length >= 190;
      out.push({ path, round, opens, state: last ? 'running' : 'done', outcome: last ? null : outcome });
    }
    if (i > 1_000) throw new Error('the planner goes round in a circle');
  }
  return out;
}

export async function planning(tell) {
  const nodes = planNodes(document());
  const made = runs(nodes);
  const times = [];
  for (let i = 0; i < 2_000; i++) {
    const from = performance.now();
    plan(nodes, made);
    times.push(performance.now() - from);
  }
  tell(`planning with ${made.length} step runs: ${median(times).toFixed(3)} ms`);
  return { 'engine.planMs': median(times) };
}
