import { shipped } from '@grivo/core';
import fc from 'fast-check';
import { beforeEach, expect, test } from 'vitest';
import { isChanged, useDraft } from './draft.ts';

const DOCUMENT = shipped('guides').make({ source: 'source', blog: 'blog', language: 'en' });
const store = () => useDraft.getState();

beforeEach(() => useDraft.setState({ draft: null }));

test('taking back every change ends where it began, and doing them again where they led', () => {
  const change = fc.record({
    step: fc.constantFrom('s2', 's4', 's5', 's8'),
    field: fc.constantFrom('pages', 'words', 'most'),
    value: fc.integer({ min: 1, max: 900 }),
  });
  fc.assert(
    fc.property(fc.array(change, { minLength: 1, maxLength: 60 }), (changes) => {
      useDraft.setState({ draft: null });
      store().open('p', 1, DOCUMENT);
      for (const { step, field, value } of changes) store().change(step, field, value);
      const led = store().draft!.now;
      const steps = store().draft!.past.length;
      for (let i = 0; i < steps; i++) store().undo();
      expect(store().draft!.now).toEqual(DOCUMENT);
      for (let i = 0; i < steps; i++) store().redo();
      expect(store().draft!.now).toEqual(led);
    }),
  );
});

test('what somebody else saved is taken over only while nothing here is unsaved', () => {
  store().open('p', 1, DOCUMENT);
  store().change('s4', 'words', 1_200);
  expect(isChanged(store().draft)).toBe(true);
  store().open('p', 2, { ...DOCUMENT, language: 'de' });
  expect(store().draft).toMatchObject({ rev: 1, now: { language: 'en' } });
  store().drop();
  store().open('p', 2, { ...DOCUMENT, language: 'de' });
  expect(store().draft).toMatchObject({ rev: 2, now: { language: 'de' } });
});

test('the same value again is no change', () => {
  store().open('p', 1, DOCUMENT);
  store().change('s4', 'words', 900);
  expect(store().draft!.past).toEqual([]);
});
