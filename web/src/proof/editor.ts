import type { ArticleDocument, Block } from '@grivo/core';
import { baseKeymap, chainCommands, joinBackward, selectNodeBackward } from 'prosemirror-commands';
import { dropCursor } from 'prosemirror-dropcursor';
import { gapCursor } from 'prosemirror-gapcursor';
import { history, redo, undo } from 'prosemirror-history';
import { InputRule, inputRules } from 'prosemirror-inputrules';
import { keymap } from 'prosemirror-keymap';
import { search } from 'prosemirror-search';
import { type Command, EditorState, type Plugin, Selection } from 'prosemirror-state';
import { goToNextCell, tableEditing } from 'prosemirror-tables';
import { freshKey } from '../api/fresh.ts';
import { backInItem, code, emphasis, enter, intoTable, moveBlock, strong } from './commands.ts';
import { documentOf } from './document.ts';
import { marksDoubts } from './doubtMarks.ts';
import { keepsIdentity } from './identity.ts';
import { readsPaste } from './paste.ts';
import { marksPlaces } from './placeMarks.ts';
import { schema } from './schema.ts';
import { type Turn, turnInto, turnWithin } from './turns.ts';

/** What the editor tells the page it stands in. */
export interface EditorHands {
  /** Asks where the selected words lead. */
  link: () => void;
  find: () => void;
  /** Asks what is to be otherwise about the blocks at hand. */
  anew: () => void;
  /** Ends editing. */
  leave: () => void;
}

/** An id no other block has: blocks made in two editors at once are not taken for one. */
export const newBlockId = (): string => `n${freshKey().slice(0, 12)}`;

/** An article's body to be edited, with everything its keys do. */
export function editorState(
  { body }: Pick<ArticleDocument, 'body'>,
  hands: EditorHands,
  newId: () => string = newBlockId,
): EditorState {
  const doc = documentOf(body);
  const start = Selection.findFrom(doc.resolve(0), 1, true);
  return EditorState.create({ doc, plugins: pluginsOf(hands, newId), ...(start ? { selection: start } : {}) });
}

function pluginsOf(hands: EditorHands, newId: () => string): Plugin[] {
  return [
    history({ newGroupDelay: 700 }),
    keysOf(hands),
    inputRules({ rules: rules() }),
    keymap(baseKeymap),
    readsPaste(),
    marksDoubts(),
    marksPlaces(),
    search(),
    dropCursor({ color: 'var(--color-ink)', width: 2 }),
    gapCursor(),
    tableEditing(),
    keepsIdentity(newId),
  ];
}

const told =
  (does: () => void): Command =>
  () => {
    does();
    return true;
  };

function keysOf({ link, find, anew, leave }: EditorHands): Plugin {
  return keymap({
    Enter: enter,
    Backspace: chainCommands(backInItem, intoPrevious),
    'Mod-z': undo,
    'Mod-y': redo,
    'Shift-Mod-z': redo,
    'Mod-b': strong,
    'Mod-i': emphasis,
    'Mod-e': code,
    'Mod-k': told(link),
    'Mod-f': told(find),
    'Alt-r': told(anew),
    'Mod-Alt-0': turnInto('paragraph'),
    'Mod-Alt-2': turnInto('heading 2'),
    'Mod-Alt-3': turnInto('heading 3'),
    'Mod-Alt-4': turnInto('heading 4'),
    'Mod-Alt-7': turnInto('numbered list'),
    'Mod-Alt-8': turnInto('list'),
    'Mod-Alt-9': turnInto('quote'),
    'Alt-ArrowUp': moveBlock(-1),
    'Alt-ArrowDown': moveBlock(1),
    Tab: chainCommands(intoTable, goToNextCell(1)),
    'Shift-Tab': goToNextCell(-1),
    Escape: told(leave),
  });
}

/** Backspace at the beginning of a block joins it to the one before, or picks that where it is no text. */
const intoPrevious: Command = (state, dispatch, view) =>
  joinBackward(state, dispatch, view) || selectNodeBackward(state, dispatch, view);

/** What is typed at the beginning of a paragraph that makes it something else, as in Markdown. */
const RULES: readonly [RegExp, Turn][] = [
  [/^##\s$/, 'heading 2'],
  [/^###\s$/, 'heading 3'],
  [/^####\s$/, 'heading 4'],
  [/^[-*]\s$/, 'list'],
  [/^1[.)]\s$/, 'numbered list'],
  [/^>\s$/, 'quote'],
];

function rules(): InputRule[] {
  return RULES.map(
    ([pattern, turn]) =>
      new InputRule(pattern, (state, _, start, end) => {
        if (state.selection.$from.parent.type !== schema.nodes.paragraph) return null;
        const tr = state.tr.delete(start, end);
        return turnWithin(tr, turn) ? tr : null;
      }),
  );
}

/** Whether two bodies say and are the same. */
export function isSameBody(a: readonly Block[], b: readonly Block[]): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
