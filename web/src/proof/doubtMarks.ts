import { type BlockDoubt, doubtWords, isOfSentence } from '@grivo/core';
import type { Node } from 'prosemirror-model';
import { Plugin, PluginKey } from 'prosemirror-state';
import { Decoration, DecorationSet, type EditorView } from 'prosemirror-view';
import { schema } from './schema.ts';

const key = new PluginKey<DecorationSet>('doubts');

/** Rings what no source holds where it stands, and shows what a part of a block is called while it is empty. */
export function marksDoubts(): Plugin {
  return new Plugin<DecorationSet>({
    key,
    state: {
      init: () => DecorationSet.empty,
      apply(tr, set) {
        const doubts = tr.getMeta(key) as readonly BlockDoubt[] | undefined;
        return doubts ? ringed(tr.doc, doubts) : set.map(tr.mapping, tr.doc);
      },
    },
    props: {
      decorations(state) {
        const set = key.getState(state);
        return set?.add(state.doc, called(state.doc));
      },
    },
  });
}

/** Shows these doubts from now on. */
export function showDoubts(view: EditorView, doubts: readonly BlockDoubt[]): void {
  view.dispatch(view.state.tr.setMeta(key, doubts).setMeta('addToHistory', false));
}

function ringed(document: Node, doubts: readonly BlockDoubt[]): DecorationSet {
  const byBlock = new Map<string, BlockDoubt[]>();
  for (const doubt of doubts) byBlock.set(doubt.block, [...(byBlock.get(doubt.block) ?? []), doubt]);
  const rings: Decoration[] = [];
  document.forEach((block, offset) => {
    const own = byBlock.get(String(block.attrs['id']));
    if (!own || block.type === schema.nodes.whole) return;
    block.descendants((node, at) => {
      if (!node.isTextblock) return true;
      rings.push(...own.flatMap((doubt) => ringOf(node, offset + 1 + at + 1, doubt)));
      return false;
    });
    if (block.isTextblock) rings.push(...own.flatMap((doubt) => ringOf(block, offset + 1, doubt)));
  });
  return DecorationSet.create(document, rings);
}

function ringOf(node: Node, start: number, doubt: BlockDoubt): Decoration[] {
  const at = node.textContent.indexOf(doubt.words);
  if (at < 0) return [];
  const whole = isOfSentence(doubt);
  return [
    Decoration.inline(start + at, start + at + doubt.words.length, {
      class: whole ? 'doubted' : 'doubted ring',
      title: doubtWords(doubt),
    }),
  ];
}

/** Empty parts, each with what belongs there. */
function called(document: Node): Decoration[] {
  const out: Decoration[] = [];
  document.descendants((node, at) => {
    const name = node.type.spec['called'] as string | undefined;
    if (name && node.content.size === 0)
      out.push(Decoration.node(at, at + node.nodeSize, { class: 'called', 'data-called': name }));
    return !node.isTextblock;
  });
  if (document.childCount === 1 && document.firstChild?.isTextblock && document.firstChild.content.size === 0)
    out.push(Decoration.node(0, 2, { class: 'called', 'data-called': 'Write, or paste a text' }));
  return out;
}
