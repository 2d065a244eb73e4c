import { expect, test } from 'vitest';
import { shipped } from './shipped.ts';
import { allSteps } from './tree.ts';
import { withoutSources } from './unsourced.ts';

test('a procedure that looks pages up does without them', () => {
  const made = shipped('guides').make({ source: 's'.repeat(20), blog: 'b'.repeat(20), language: 'en' });
  const kinds = (document: typeof made) => allSteps(document.steps).map(({ kind }) => kind);
  expect(kinds(made)).toContain('look up');
  const without = withoutSources(made);
  expect(kinds(without)).not.toContain('look up');
  expect(allSteps(without.steps).filter((step) => step.kind === 'write')).toMatchObject([{ unsourced: true }]);
  // The one given stays as it was.
  expect(kinds(made)).toContain('look up');
});
