import type { Evidence } from '@grivo/contract';
import { type Block, type BlockDoubt, blockText, isStatement, type MeasuredSource, textDigest } from '@grivo/core';
import type { EditorView } from 'prosemirror-view';
import { memo, type RefObject, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { setAttribute } from './commands.ts';
import { type EvidenceChanges, EvidenceNotes } from './EvidenceNotes.tsx';
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
  by,
}: {
  view: EditorView;
  body: readonly Block[];
  /** The block that is typed in. */
  at: string | null;
  passages: ReadonlyMap<string, Evidence>;
  doubts: readonly BlockDoubt[];
  /** Every passage the article was made from. */
  sources: readonly MeasuredSource[];
  /** Who edits. */
  by: string;
}) {
  const column = useRef<HTMLDivElement>(null);
  useLaid(column, view, [useSame(body, restAlike), at, doubts]);
  const doubted = useMemo(() => byBlock(doubts), [doubts]);
  return (
    <div ref={column} className="relative h-full">
      {body.map((block, n) => {
        const own = doubted.get(block.id) ?? NONE;
        const changed = at === block.id || own.length > 0 || block.vouched !== undefined;
        return (
          <div key={block.id} data-n={n} className="absolute right-0 left-0 pl-8 text-right">
            <Notes
              block={block}
              passages={passages}
              open={at === block.id}
              doubts={own}
              changes={changed ? changesOf(view, block, sources, by) : undefined}
            />
          </div>
        );
      })}
    </div>
  );
}

/** What was before, for as long as what comes is like it. */
function useSame<T>(value: T, alike: (one: T, other: T) => boolean): T {
  const [same, setSame] = useState(value);
  if (same === value || alike(same, value)) return same;
  setSame(value);
  return value;
}

/** Whether the same blocks stand there and rest on the same: their letters may be others, and the size of the text tells more. */
function restAlike(one: readonly Block[], other: readonly Block[]): boolean {
  return (
    one.length === other.length &&
    one.every(({ id, evidence, vouched }, n) => {
      const now = other[n]!;
      return id === now.id && evidence === now.evidence && vouched === now.vouched;
    })
  );
}

/** Lays notes beside their blocks, anew whenever one of some things or the size of the text is another. */
function useLaid(column: RefObject<HTMLDivElement | null>, view: EditorView, by: readonly unknown[]): void {
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
    // All is read before anything is moved: each look behind a move would lay the whole page out anew.
    const lying = [...notes.children].flatMap((note) => {
      const block = view.dom.children[Number((note as HTMLElement).dataset['n'])];
      if (!(note instanceof HTMLElement) || !block || note.childElementCount === 0) return [];
      return [{ note, from: block.getBoundingClientRect().top - top, height: note.offsetHeight }];
    });
    let below = 0;
    for (const { note, from, height } of lying) {
      const place = Math.max(from, below);
      note.style.top = `${place}px`;
      below = place + height + GAP;
    }
  }, [...by, wide]);
}

function byBlock(doubts: readonly BlockDoubt[]): Map<string, BlockDoubt[]> {
  const out = new Map<string, BlockDoubt[]>();
  for (const doubt of doubts) out.set(doubt.block, [...(out.get(doubt.block) ?? []), doubt]);
  return out;
}

const NONE: readonly BlockDoubt[] = [];
/** A block that did not change keeps its notes as they are. */
const Notes = memo(EvidenceNotes);

/** Taking away what a block does not rest on, picking what it does, and answering for what no source has. */
function changesOf(
  view: EditorView,
  block: Block,
  sources: readonly MeasuredSource[],
  by: string,
): EvidenceChanges | undefined {
  if (!isStatement(block)) return undefined;
  const evidence = block.evidence ?? [];
  const vouched = block.vouched ?? [];
  const rests = (next: typeof evidence) => setAttribute(block.id, 'evidence', next)(view.state, view.dispatch);
  const answers = (next: typeof vouched) => setAttribute(block.id, 'vouched', next)(view.state, view.dispatch);
  const taken = new Set(evidence.map(({ passage }) => passage));
  return {
    remove: (passage) => rests(evidence.filter((one) => one.passage !== passage)),
    vouch: (words, reason) => answers([...vouched, { words, reason, by }]),
    doubt: (words) => answers(vouched.filter((one) => one.words !== words)),
    add:
      sources.length === 0 ? null : (
        <PickPassage
          text={blockText(block)}
          sources={sources.filter(({ id }) => !taken.has(id))}
          onPick={(passage) => rests([...evidence, { passage, digest: textDigest(blockText(block)) }])}
        />
      ),
  };
}
