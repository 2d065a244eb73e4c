// @vitest-environment jsdom
import type { Block } from '@grivo/core';
import { EMPTY_ARTICLE } from '@grivo/core';
import { EditorView } from 'prosemirror-view';
import { expect, it } from 'vitest';
import { editorState } from './editor.ts';
import { showPlaces } from './placeMarks.ts';

const HANDS = { link: () => undefined, find: () => undefined, anew: () => undefined, leave: () => undefined };
const body: Block[] = ['a', 'b', 'c'].map((id) => ({ type: 'paragraph', id, content: [{ text: `Text ${id}.` }] }));
const other = (name: string, block: string | null, me = false) => ({ name, block, editing: true, me });

it('others are marked at their blocks, beside the text and in no copy of it, and go where they go', () => {
  const view = new EditorView(document.createElement('div'), {
    state: editorState({ ...EMPTY_ARTICLE, body }, HANDS),
  });
  const marked = () =>
    [...view.dom.querySelectorAll('.also-here')].map((one) => [one.textContent, one.getAttribute('data-who')]);
  expect(marked()).toEqual([]);
  showPlaces(view, [other('Ben', 'b'), other('Ada', 'b'), other('Eve', null), other('Me', 'c', true)]);
  expect(marked()).toEqual([
    ['Text b.', 'Ben, Ada'],
    ['Text c.', 'you, elsewhere'],
  ]);
  view.dispatch(view.state.tr.insertText('So. ', 1));
  expect(marked()).toHaveLength(2);
  expect(view.state.doc.textContent).toBe('So. Text a.Text b.Text c.');
  showPlaces(view, [other('Ben', 'gone')]);
  expect(marked()).toEqual([]);
  view.destroy();
});
