import type { Block, LinkTarget } from '@grivo/core';
import { chainCommands, exitCode, splitBlock, toggleMark } from 'prosemirror-commands';
import type { Node, NodeType, ResolvedPos } from 'prosemirror-model';
import { type Command, type EditorState, NodeSelection, TextSelection, type Transaction } from 'prosemirror-state';
import { addRowAfter, isInTable, selectedRect, TableMap } from 'prosemirror-tables';
import { nodeOf } from './document.ts';
import { type BlockAttributes, schema, type WholeBlock } from './schema.ts';
import { picked, topAt } from './turns.ts';

const { nodes, marks } = schema;

/** Puts a block behind the one at the selection; in place of it where that is an empty paragraph. */
export function insertBlock(node: Node): Command {
  return (state, dispatch) => {
    const { selection } = state;
    const top =
      selection instanceof NodeSelection ? { node: selection.node, at: selection.from } : topAt(selection.$from);
    if (!top) return false;
    if (!dispatch) return true;
    const empty = top.node.type === nodes.paragraph && top.node.content.size === 0;
    const at = empty ? top.at : top.at + top.node.nodeSize;
    const tr = empty ? state.tr.replaceWith(at, at + top.node.nodeSize, node) : state.tr.insert(at, node);
    const selected = node.isAtom ? NodeSelection.create(tr.doc, at) : TextSelection.near(tr.doc.resolve(at + 1));
    dispatch(tr.setSelection(selected).scrollIntoView());
    return true;
  };
}

/** A block that is changed by a form, as it is when it is new: its id comes with its place. */
export function newWhole(block: WholeBlock): Node {
  const node = nodeOf(block);
  return node.type.create({ ...node.attrs, id: null });
}

/** A new table of three columns and three rows. */
export function newTable(): Node {
  const cells = () => Array.from({ length: 3 }, () => []);
  return nodeOf({ type: 'table', id: '', head: cells(), rows: [cells(), cells()] }).type.create(
    null,
    nodeOf({ type: 'table', id: '', head: cells(), rows: [cells(), cells()] }).content,
  );
}

/** Enter in an item: another one; in an empty one the list ends. */
const inItem: Command = (state, dispatch) => {
  const { $from, empty } = state.selection;
  if ($from.parent.type !== nodes.item) return false;
  if (empty && $from.parent.content.size === 0) return outOfList(state, dispatch);
  return splitBlock(state, dispatch);
};

/** Takes an item out of its list as a paragraph; what stands behind it is a list of its own. */
export const outOfList: Command = (state, dispatch) => {
  const { $from } = state.selection;
  if ($from.parent.type !== nodes.item) return false;
  if (!dispatch) return true;
  const list = $from.node(1);
  const index = $from.index(1);
  const own = list.attrs as BlockAttributes;
  const part = (from: number, to: number) =>
    from < to ? [list.type.create(list.attrs, list.children.slice(from, to))] : [];
  const before = part(0, index);
  const made = [
    ...before,
    nodes.paragraph.create({ ...own, id: before.length > 0 ? null : own.id }, $from.parent.content),
    ...part(index + 1, list.childCount),
  ];
  const at = $from.before(1);
  const tr = state.tr.replaceWith(at, at + list.nodeSize, made);
  const inside = at + before.reduce((sum, node) => sum + node.nodeSize, 0) + 1 + $from.parentOffset;
  dispatch(tr.setSelection(TextSelection.create(tr.doc, inside)).scrollIntoView());
  return true;
};

/** Backspace at the beginning of an item takes it out of its list. */
export const backInItem: Command = (state, dispatch, view) => {
  const { $from, empty } = state.selection;
  if (!empty || $from.parent.type !== nodes.item || $from.parentOffset > 0) return false;
  // At the beginning of an item that follows another the two become one.
  return $from.index(1) === 0 || $from.parent.content.size === 0 ? outOfList(state, dispatch, view) : false;
};

/** Enter in a part of a block leads to the next part, and out of the last one. */
const toNextPart: Command = (state, dispatch) => {
  const { $from } = state.selection;
  const parts: readonly NodeType[] = [
    nodes.quote_words,
    nodes.quote_credit,
    nodes.question,
    nodes.answer,
    nodes.table_caption,
  ];
  if (!parts.includes($from.parent.type)) return false;
  if (!dispatch) return true;
  const last = $from.index(1) === $from.node(1).childCount - 1;
  dispatch(last ? paragraphBehind(state.tr, $from) : to(state.tr, $from.after()));
  return true;
};

function to(tr: Transaction, at: number): Transaction {
  return tr.setSelection(TextSelection.near(tr.doc.resolve(at), 1)).scrollIntoView();
}

function paragraphBehind(tr: Transaction, $at: ResolvedPos): Transaction {
  const at = $at.after(1);
  return to(tr.insert(at, nodes.paragraph.create()), at);
}

/** Tab leads from the caption of a table to its first cell. */
export const intoTable: Command = (state, dispatch) => {
  const { $from } = state.selection;
  if ($from.parent.type !== nodes.table_caption) return false;
  dispatch?.(to(state.tr, $from.after()));
  return true;
};

/** Enter in a cell leads to the one below; from the last row a new one is made. */
const toNextRow: Command = (state, dispatch) => {
  if (!isInTable(state)) return false;
  const { tableStart, map, table, bottom, left } = selectedRect(state);
  if (bottom < map.height) {
    const below = map.map[bottom * map.width + left]!;
    if (dispatch) dispatch(to(state.tr, tableStart + below + 1));
    return true;
  }
  if (!dispatch) return true;
  return addRowAfter(state, (tr) => {
    const made = tr.doc.nodeAt(tableStart - 1) ?? table;
    const grown = TableMap.get(made);
    dispatch(to(tr, tableStart + grown.map[bottom * grown.width + left]! + 1));
  });
};

/** Enter behind a block that is selected as a whole. */
const behindWhole: Command = (state, dispatch) => {
  const { selection } = state;
  if (!(selection instanceof NodeSelection)) return false;
  if (dispatch) dispatch(to(state.tr.insert(selection.to, nodes.paragraph.create()), selection.to));
  return true;
};

export const enter: Command = chainCommands(behindWhole, inItem, toNextRow, toNextPart, exitCode, splitBlock);

/** Moves the block at the selection one place up or down. */
export function moveBlock(by: -1 | 1): Command {
  return (state, dispatch) => {
    const { selection } = state;
    const top =
      selection instanceof NodeSelection ? { node: selection.node, at: selection.from } : topAt(selection.$from);
    if (!top) return false;
    const end = top.at + top.node.nodeSize;
    const beside = by < 0 ? state.doc.resolve(top.at).nodeBefore : state.doc.resolve(end).nodeAfter;
    if (!beside) return false;
    if (!dispatch) return true;
    // The neighbour moves, so that the selection stays where it is.
    const tr =
      by < 0
        ? state.tr.delete(top.at - beside.nodeSize, top.at).insert(end - beside.nodeSize, beside)
        : state.tr.delete(end, end + beside.nodeSize).insert(top.at, beside);
    dispatch(tr.scrollIntoView());
    return true;
  };
}

/** The letters of one paragraph that are selected, not all of them; null where none or more than that is. */
export function lettersAt({ selection }: EditorState): { from: number; to: number } | null {
  const { $from, $to, empty } = selection;
  const { parent } = $from;
  if (empty || $from.depth !== 1 || !$from.sameParent($to) || parent.type !== nodes.paragraph) return null;
  const before = (at: number) => parent.textBetween(0, at).length;
  const [from, to] = [before($from.parentOffset), before($to.parentOffset)];
  return to - from < parent.textContent.length && to > from ? { from, to } : null;
}

/** The ids of the blocks at the selection; of the section they begin in, without its heading; or of all above the first heading. */
export function idsAt(state: EditorState, scope: 'blocks' | 'section' | 'opening'): string[] {
  const range = picked(state.selection);
  if (!range) return [];
  const tops: Top[] = [];
  state.doc.forEach((node, at) => {
    tops.push({ id: String(node.attrs['id']), level: levelOf(node), at });
  });
  if (scope === 'opening') {
    const first = tops.findIndex(({ level }) => level > 0);
    return tops.slice(0, first < 0 ? tops.length : first).map(({ id }) => id);
  }
  const from = tops.findIndex(({ at }) => at >= range.from);
  if (scope === 'blocks') return tops.filter(({ at }) => at >= range.from && at < range.to).map(({ id }) => id);
  const head = tops.slice(0, from + 1).findLastIndex(({ level }) => level > 0);
  const own = head < 0 ? 7 : tops[head]!.level;
  const end = tops.findIndex(({ level }, i) => i > Math.max(head, from) && level > 0 && level <= own);
  return tops.slice(head + 1, end < 0 ? tops.length : end).map(({ id }) => id);
}

interface Top {
  id: string;
  /** Of a heading; 0 for what is none. */
  level: number;
  at: number;
}

const levelOf = (node: Node): number => (node.type === nodes.heading ? Number(node.attrs['level']) : 0);

/** Puts blocks in place of others that stand behind each other; the first keeps the id of the first. */
export function replaceBlocks(ids: readonly string[], blocks: readonly Block[]): Command {
  return (state, dispatch) => {
    let [from, to] = [-1, -1];
    state.doc.forEach((node, at) => {
      if (!ids.includes(String(node.attrs['id']))) return;
      if (from < 0) from = at;
      to = at + node.nodeSize;
    });
    if (from < 0 || blocks.length === 0) return false;
    if (!dispatch) return true;
    const made = blocks.map((block, i) => {
      const node = nodeOf(block);
      return node.type.create({ ...node.attrs, id: i === 0 ? ids[0] : null }, node.content);
    });
    const tr = state.tr.replaceWith(from, to, made);
    dispatch(tr.setSelection(TextSelection.near(tr.doc.resolve(from + 1))).scrollIntoView());
    return true;
  };
}

/** Says what a block rests on, or for which of its words somebody answers. */
export function setAttribute<Name extends 'evidence' | 'vouched'>(
  id: string,
  name: Name,
  value: NonNullable<BlockAttributes[Name]>,
): Command {
  return (state, dispatch) => {
    let at = -1;
    state.doc.forEach((node, offset) => {
      if (node.attrs['id'] === id) at = offset;
    });
    if (at < 0) return false;
    dispatch?.(state.tr.setNodeAttribute(at, name, value.length > 0 ? value : null));
    return true;
  };
}

/** Takes the block at the selection away. */
export const removeBlock: Command = (state, dispatch) => {
  const { selection } = state;
  const top =
    selection instanceof NodeSelection ? { node: selection.node, at: selection.from } : topAt(selection.$from);
  if (!top) return false;
  if (!dispatch) return true;
  const only = state.doc.childCount === 1;
  const end = top.at + top.node.nodeSize;
  const tr = only ? state.tr.replaceWith(top.at, end, nodes.paragraph.create()) : state.tr.delete(top.at, end);
  dispatch(tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(top.at, tr.doc.content.size)))).scrollIntoView());
  return true;
};

/** The link at the selection, with all the words it is on. */
export function linkAt($at: ResolvedPos): { to: LinkTarget; from: number; end: number } | null {
  const found =
    $at.marks().find(({ type }) => type === marks.link) ?? $at.nodeAfter?.marks.find(({ type }) => type === marks.link);
  if (!found) return null;
  let [from, end] = [-1, -1];
  $at.parent.forEach((node, offset) => {
    const start = $at.start() + offset;
    if (!found.isInSet(node.marks)) return;
    if (end !== start || from === -1) {
      if (end >= $at.pos) return;
      from = start;
    }
    end = start + node.nodeSize;
  });
  return { to: found.attrs['to'] as LinkTarget, from, end };
}

/** Puts a link on the selected words, or changes the one that is there; none takes it away. */
export function putLink(target: LinkTarget | null): Command {
  return (state, dispatch) => {
    const { $from, from, to: end, empty } = state.selection;
    const here = empty ? linkAt($from) : { from, end };
    if (!here || !$from.parent.type.allowsMarkType(marks.link)) return false;
    if (!dispatch) return true;
    const tr = state.tr.removeMark(here.from, here.end, marks.link);
    dispatch(target ? tr.addMark(here.from, here.end, marks.link.create({ to: target })) : tr);
    return true;
  };
}

/**
 * Adds a short sentence to the end of the paragraph at hand that leads on: 'Read next: Salt by weight.'
 * @param before the words before the link
 */
export function leadOn(before: string, title: string, target: LinkTarget): Command {
  return (state, dispatch) => {
    const { $from } = state.selection;
    if ($from.parent.type !== nodes.paragraph) return false;
    if (!dispatch) return true;
    const at = $from.end();
    const gap = $from.parent.content.size === 0 ? '' : ' ';
    const tr = state.tr.insert(at, [
      schema.text(`${gap}${before}: `),
      schema.text(title, [marks.link.create({ to: target })]),
      schema.text('.'),
    ]);
    dispatch(tr.scrollIntoView());
    return true;
  };
}

export const strong = toggleMark(marks.strong);
export const emphasis = toggleMark(marks.emphasis);
export const code = toggleMark(marks.code);
