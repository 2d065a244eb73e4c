import { shipped } from '@grivo/core';
import fc from 'fast-check';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';

/** What a browser keeps over a reload. */
const kept = new Map<string, string>();
for (const store of ['sessionStorage', 'localStorage'])
  vi.stubGlobal(store, {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, value: string) => void kept.set(name, value),
    removeItem: (name: string) => void kept.delete(name),
  });
const { isChanged, useDraft } = await import('./draft.ts');

const DOCUMENT = shipped('guides').make({ source: 'source', blog: 'blog', language: 'en' });
const store = () => useDraft.getState();

beforeEach(() => {
  vi.useFakeTimers();
  useDraft.setState({ draft: null, aside: {} });
});

afterEach(() => {
  // Other tests of the same process wait for the clock.
  vi.useRealTimers();
});

test('taking back every change ends where it began, and doing them again where they led', () => {
  const change = fc.record({
    step: fc.constantFrom('s2', 's4', 's5', 's8'),
    field: fc.constantFrom('pages', 'words', 'most'),
    value: fc.integer({ min: 1, max: 900 }),
  });
  fc.assert(
    fc.property(fc.array(change, { minLength: 1, maxLength: 60 }), (changes) => {
      useDraft.setState({ draft: null, aside: {} });
      store().open('p', 1, DOCUMENT);
      for (const { step, field, value } of changes) store().change(step, field, value);
      const led = store().draft!.history.now;
      const steps = store().draft!.history.past.length;
      for (let i = 0; i < steps; i++) store().undo();
      expect(store().draft!.history.now).toEqual(DOCUMENT);
      for (let i = 0; i < steps; i++) store().redo();
      expect(store().draft!.history.now).toEqual(led);
    }),
  );
});

test('what somebody else saved is taken over only while nothing here is unsaved', () => {
  store().open('p', 1, DOCUMENT);
  store().change('s4', 'words', 1_200);
  expect(isChanged(store().draft)).toBe(true);
  store().open('p', 2, { ...DOCUMENT, language: 'de' });
  expect(store().draft).toMatchObject({ rev: 1, history: { now: { language: 'en' } } });
  store().drop();
  store().open('p', 2, { ...DOCUMENT, language: 'de' });
  expect(store().draft).toMatchObject({ rev: 2, history: { now: { language: 'de' } } });
});

test('the same value again is no change', () => {
  store().open('p', 1, DOCUMENT);
  store().change('s4', 'words', 900);
  expect(store().draft!.history.past).toEqual([]);
});

test('unsaved changes of a pipeline are there again after another one was looked at', () => {
  store().open('p', 1, DOCUMENT);
  store().change('s4', 'words', 1_200);
  const changed = store().draft;
  store().open('q', 3, DOCUMENT);
  expect(isChanged(store().draft)).toBe(false);
  store().open('p', 1, DOCUMENT);
  expect(store().draft).toEqual(changed);
  expect(store().aside).toEqual({});
});

test('unsaved changes outlive the page, with the way back', async () => {
  store().open('p', 1, DOCUMENT);
  store().change('s4', 'words', 1_200);
  vi.advanceTimersByTime(1_000);
  store().change('s4', 'words', 1_300);
  const { draft } = store();
  vi.advanceTimersByTime(1_000);
  const text = kept.get('grivo-drafts')!;
  useDraft.setState({ draft: null });
  vi.advanceTimersByTime(1_000);
  kept.set('grivo-drafts', text);
  await useDraft.persist.rehydrate();
  expect(store().draft).toEqual(draft);
  store().undo();
  store().undo();
  expect(store().draft!.history.now).toEqual(DOCUMENT);
});

test('what the browser kept and can no longer be read is left out', async () => {
  store().open('p', 1, DOCUMENT);
  store().change('s4', 'words', 1_200);
  vi.advanceTimersByTime(1_000);
  const spoilt = kept.get('grivo-drafts')!.replaceAll('"write"', '"scribble"');
  useDraft.setState({ draft: null });
  vi.advanceTimersByTime(1_000);
  kept.set('grivo-drafts', spoilt);
  await useDraft.persist.rehydrate();
  expect(store().draft).toBeNull();
});

test('keeping mine over what somebody else saved loses nothing and can be saved by the new rev', () => {
  store().open('p', 1, DOCUMENT);
  store().change('s4', 'words', 1_200);
  const mine = store().draft!.history.now;
  store().over(5, { ...DOCUMENT, language: 'de' });
  expect(store().draft).toMatchObject({ rev: 5, saved: { language: 'de' }, history: { now: mine } });
});

test('what is typed into one word without a pause is taken back at once, after a pause apart', () => {
  store().open('p', 1, DOCUMENT);
  for (const words of [1_000, 1_010, 1_011]) store().change('s4', 'words', words);
  store().change('s5', 'most', 50);
  expect(store().draft!.history.past).toHaveLength(2);
  vi.advanceTimersByTime(1_000);
  store().change('s5', 'most', 51);
  expect(store().draft!.history.past).toHaveLength(3);
  for (let i = 0; i < 3; i++) store().undo();
  expect(store().draft!.history.now).toEqual(DOCUMENT);
});
