import type { Evidence } from '@grivo/contract';
import { type Block, type BlockDoubt, blockText, isStatement, type MeasuredSource, textDigest } from '@grivo/core';
import type { EditorView } from 'prosemirror-view';
import { useLayoutEffect, useRef, useState } from 'react';
import { setEvidence } from './commands.ts';
import { EvidenceNotes } from './EvidenceNotes.tsx';
import { PickPassage } from './PickPassage.tsx';

const GAP = 8;

/**
 * What the blocks being edited rest on, each beside its block: in short, whole beside the one that is typed in. Notes that
 * would lie on each other stand one below the other.
 */
export function MarginNotes({
  view,
  body,
  at,
  passages,
  doubts,
  sources,
}: {
  view: EditorView;
  body: readonly Block[];
  /** The block that is typed in. */
  at: string | null;
  passages: ReadonlyMap<string, Evidence>;
  doubts: readonly BlockDoubt[];
  /** Every passage the article was made from. */
  sources: readonly MeasuredSource[];
}) {
  const column = useRef<HTMLDivElement>(null);
  const [wide, setWide] = useState(0);
  useLayoutEffect(() => {
    const watch = new ResizeObserver(() => setWide(view.dom.clientWidth + view.dom.clientHeight));
    watch.observe(view.dom);
    return () => watch.disconnect();
  }, [view]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: places are read from the page, which these change
  useLayoutEffect(() => {
    const notes = column.current!;
    const top = notes.getBoundingClientRect().top;
    let below = 0;
    for (const note of notes.children) {
      const block = view.dom.children[Number((note as HTMLElement).dataset['n'])];
      if (!(note instanceof HTMLElement) || !block || note.childElementCount === 0) continue;
      const place = Math.max(block.getBoundingClientRect().top - top, below);
      note.style.top = `${place}px`;
      below = place + note.offsetHeight + GAP;
    }
  }, [body, at, doubts, wide]);
  return (
    <div ref={column} className="relative h-full">
      {body.map((block, n) => (
        <div key={block.id} data-n={n} className="absolute right-0 left-0 pl-8 text-right">
          <EvidenceNotes
            block={block}
            passages={passages}
            open={at === block.id}
            doubts={doubts.filter((doubt) => doubt.block === block.id)}
            changes={changesOf(view, block, sources)}
          />
        </div>
      ))}
    </div>
  );
}

/** Taking away what a block does not rest on, and picking what it does. */
function changesOf(view: EditorView, block: Block, sources: readonly MeasuredSource[]) {
  if (!isStatement(block) || sources.length === 0) return undefined;
  const evidence = block.evidence ?? [];
  const put = (next: typeof evidence) => setEvidence(block.id, next)(view.state, view.dispatch);
  const taken = new Set(evidence.map(({ passage }) => passage));
  return {
    remove: (passage: string) => put(evidence.filter((one) => one.passage !== passage)),
    add: (
      <PickPassage
        text={blockText(block)}
        sources={sources.filter(({ id }) => !taken.has(id))}
        onPick={(passage) => put([...evidence, { passage, digest: textDigest(blockText(block)) }])}
      />
    ),
  };
}
