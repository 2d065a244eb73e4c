import type { Evidence, Vouched } from '@grivo/core';
import type { Node } from 'prosemirror-model';
import { type EditorState, Plugin, type Transaction } from 'prosemirror-state';
import { Mapping } from 'prosemirror-transform';
import type { BlockAttributes } from './schema.ts';

interface Top {
  node: Node;
  /** Where the node begins in the document. */
  at: number;
  id: string | null;
  evidence: readonly Evidence[];
  vouched: readonly Vouched[];
}

function topsOf(document: Node): Top[] {
  const out: Top[] = [];
  document.forEach((node, at) => {
    const { id, evidence, vouched } = node.attrs as BlockAttributes;
    out.push({ node, at, id, evidence: evidence ?? [], vouched: vouched ?? [] });
  });
  return out;
}

/**
 * Keeps every block of an article itself while it is edited: each has an id of its own, both parts of a block that is split
 * rest on what it rested on, and what is joined rests on all of it. Undone, everything is as it was.
 * @param newId an id no block of any article has
 */
export function keepsIdentity(newId: () => string): Plugin {
  return new Plugin({
    appendTransaction(transactions, before, after) {
      if (!transactions.some(({ docChanged }) => docChanged)) return null;
      const tr = after.tr;
      const undone = transactions.some((one) => one.getMeta('history$') !== undefined);
      if (!undone) unite(transactions, before, after, tr);
      name(tr, newId);
      return tr.docChanged ? tr : null;
    },
  });
}

/** What lost its own block to another leaves it what it rested on. */
function unite(transactions: readonly Transaction[], before: EditorState, after: EditorState, tr: Transaction): void {
  const now = topsOf(after.doc);
  const there = new Set(now.map(({ id }) => id));
  const gone = topsOf(before.doc).filter(
    ({ id, evidence, vouched }) => id !== null && evidence.length + vouched.length > 0 && !there.has(id),
  );
  if (gone.length === 0) return;
  const mapping = new Mapping(transactions.flatMap(({ mapping: { maps } }) => [...maps]));
  const gained = new Map<number, Top[]>();
  for (const top of gone) {
    const { node, at } = top;
    const from = mapping.map(at + 1, 1);
    const to = mapping.map(at + node.nodeSize - 1, -1);
    if (to <= from) continue;
    const into = now.find((top) => top.at <= from && from < top.at + top.node.nodeSize);
    if (into) gained.set(into.at, [...(gained.get(into.at) ?? []), top]);
  }
  for (const [at, more] of gained) {
    const { evidence, vouched } = tr.doc.nodeAt(at)!.attrs as BlockAttributes;
    const rests = united(
      ({ passage, digest }) => `${passage} ${digest}`,
      evidence ?? [],
      ...more.map((top) => top.evidence),
    );
    const answered = united(({ words }) => words, vouched ?? [], ...more.map((top) => top.vouched));
    if (rests.length > 0) tr.setNodeAttribute(at, 'evidence', rests);
    if (answered.length > 0) tr.setNodeAttribute(at, 'vouched', answered);
  }
}

function united<T>(name: (one: T) => string, ...lists: readonly (readonly T[])[]): T[] {
  return [...new Map(lists.flat().map((one) => [name(one), one])).values()];
}

/** Of blocks with one id the one that says most keeps it. */
function name(tr: Transaction, newId: () => string): void {
  const tops = topsOf(tr.doc);
  const keeper = new Map<string, Top>();
  for (const top of tops) {
    if (top.id === null) continue;
    const best = keeper.get(top.id);
    if (!best || top.node.textContent.length > best.node.textContent.length) keeper.set(top.id, top);
  }
  for (const top of tops) if (top.id === null || keeper.get(top.id) !== top) tr.setNodeAttribute(top.at, 'id', newId());
}
