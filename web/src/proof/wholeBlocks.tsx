import { articleNodes, type Block } from '@grivo/core';
import type { Node } from 'prosemirror-model';
import { NodeSelection } from 'prosemirror-state';
import type { EditorView, NodeView } from 'prosemirror-view';
import { useSyncExternalStore } from 'react';
import { createPortal } from 'react-dom';
import { ChartPicture } from '../parts/ChartPicture.tsx';
import { Drawn } from './Drawn.tsx';
import type { BlockAttributes, WholeBlock } from './schema.ts';
import { WholeForm } from './WholeForm.tsx';

/** Files and articles at their addresses in the application. */
const HERE = { file: (digest: string) => `/api/files/${digest}`, article: (id: string) => `/articles/${id}` };

/** The blocks of an editor that are changed as a whole: it makes a place for each, the page draws into it. */
export class WholeBlocks {
  private shown: readonly WholeView[] = [];
  private readonly heard = new Set<() => void>();

  readonly subscribe = (hear: () => void): (() => void) => {
    this.heard.add(hear);
    return () => this.heard.delete(hear);
  };
  readonly read = (): readonly WholeView[] => this.shown;

  view(node: Node, of: EditorView, at: () => number | undefined): WholeView {
    const view = new WholeView(
      node,
      of,
      at,
      () => this.put([...this.shown]),
      () => this.put(this.shown.filter((one) => one !== view)),
    );
    this.put([...this.shown, view]);
    return view;
  }

  private put(shown: readonly WholeView[]): void {
    this.shown = shown;
    // The editor may be at work for a page that is being drawn.
    queueMicrotask(() => {
      for (const hear of this.heard) hear();
    });
  }
}

let made = 0;

/** A block that is changed as a whole: drawn as readers get it, with a form of its own. */
export class WholeView implements NodeView {
  readonly dom: HTMLElement;
  readonly key = `whole${++made}`;
  selected = false;

  constructor(
    private node: Node,
    private readonly view: EditorView,
    private readonly at: () => number | undefined,
    private readonly changed: () => void,
    readonly destroy: () => void,
  ) {
    this.dom = document.createElement('div');
    this.dom.className = 'whole-block';
  }

  /** Of the article it stands in. */
  get language(): string {
    return this.dom.closest<HTMLElement>('[lang]')?.lang || 'en';
  }

  get block(): WholeBlock {
    return { ...(this.node.attrs['block'] as object), id: String(this.node.attrs['id']) } as WholeBlock;
  }

  update(node: Node): boolean {
    if (node.type !== this.node.type) return false;
    this.node = node;
    this.changed();
    return true;
  }

  selectNode(): void {
    this.pick(true);
  }

  deselectNode(): void {
    this.pick(false);
  }

  private pick(selected: boolean): void {
    this.selected = selected;
    this.dom.classList.toggle('picked', selected);
    this.changed();
  }

  /** Keys and presses in its form are its own. */
  stopEvent(event: Event): boolean {
    return event.target instanceof HTMLElement && event.target.closest('[data-form]') !== null;
  }

  ignoreMutation(): boolean {
    return true;
  }

  change(block: WholeBlock): void {
    const at = this.at();
    if (at === undefined) return;
    const { id: _, evidence: __, vouched: ___, ...rest } = block;
    const { id, evidence, vouched } = this.node.attrs as BlockAttributes;
    const tr = this.view.state.tr.setNodeMarkup(at, null, { id, evidence, vouched, block: rest });
    this.view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, at)));
  }

  remove(): void {
    const at = this.at();
    if (at === undefined) return;
    this.view.dispatch(this.view.state.tr.delete(at, at + this.node.nodeSize));
    this.view.focus();
  }
}

/** Draws the blocks that are changed as a whole where the editor has a place for them. */
export function WholeBlocksDrawn({ blocks }: { blocks: WholeBlocks }) {
  const shown = useSyncExternalStore(blocks.subscribe, blocks.read);
  return shown.map((view) =>
    createPortal(
      <>
        <Shown block={view.block} language={view.language} />
        <WholeForm
          block={view.block}
          open={view.selected}
          onChange={(next) => view.change(next)}
          onRemove={() => view.remove()}
        />
      </>,
      view.dom,
      view.key,
    ),
  );
}

/** As readers get it; what they get nothing of is named. */
function Shown({ block, language }: { block: WholeBlock; language: string }) {
  if (block.type === 'contents') return <span className="stands">The list of contents stands here.</span>;
  const [drawn] = articleNodes({ body: [block as Block] }, HERE, true);
  if (!drawn?.node) return <span className="stands">Readers see nothing of it yet: {block.type}.</span>;
  return (
    <>
      {block.type === 'chart' ? <ChartPicture data={block} language={language} says={block.alternative} /> : null}
      <Drawn node={drawn.node} ringed={[]} />
    </>
  );
}
