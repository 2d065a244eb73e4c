import type { AlsoHere as Other } from '@grivo/contract';
import { Plugin, PluginKey } from 'prosemirror-state';
import { Decoration, DecorationSet, type EditorView } from 'prosemirror-view';

const key = new PluginKey<readonly Other[]>('places');

/** Marks the blocks others are at, each with who it is; it stands beside the text and is no part of it. */
export function marksPlaces(): Plugin {
  return new Plugin<readonly Other[]>({
    key,
    state: {
      init: () => [],
      apply: (tr, others) => (tr.getMeta(key) as readonly Other[] | undefined) ?? others,
    },
    props: {
      decorations(state) {
        const byBlock = new Map<string, string[]>();
        for (const { block, name, me } of key.getState(state) ?? [])
          if (block !== null) byBlock.set(block, [...(byBlock.get(block) ?? []), me ? 'you, elsewhere' : name]);
        if (byBlock.size === 0) return null;
        const marks: Decoration[] = [];
        state.doc.forEach((block, offset) => {
          const names = byBlock.get(String(block.attrs['id']));
          if (names)
            marks.push(
              Decoration.node(offset, offset + block.nodeSize, { class: 'also-here', 'data-who': names.join(', ') }),
            );
        });
        return DecorationSet.create(state.doc, marks);
      },
    },
  });
}

/** Shows these people where they are from now on. */
export function showPlaces(view: EditorView, others: readonly Other[]): void {
  view.dispatch(view.state.tr.setMeta(key, others).setMeta('addToHistory', false));
}
