import type { Evidence } from '@grivo/contract';
import { type Block, type Doubt, doubtWords, isStatement } from '@grivo/core';
import type { ReactNode } from 'react';
import { plural } from '../words/figures.ts';

/** Which passages a block rests on; open, with their words. */
export function EvidenceNotes({
  block,
  passages,
  open,
  doubts,
  changes,
}: {
  block: Block;
  passages: ReadonlyMap<string, Evidence>;
  open: boolean;
  /** What it says and what it rests on does not. */
  doubts: readonly Doubt[];
  /** What can be changed about it while the article is edited. */
  changes?: { remove: (passage: string) => void; add: ReactNode } | undefined;
}) {
  const own = (block.evidence ?? []).flatMap(({ passage }) => passages.get(passage) ?? []);
  // What was written has evidence or lacks it; what somebody laid out is their own.
  const bare =
    (passages.size > 0 || block.evidence !== undefined) &&
    own.length === 0 &&
    isStatement(block) &&
    block.type !== 'quote' &&
    block.type !== 'key points';
  if (own.length === 0 && doubts.length === 0 && !bare && !(open && changes)) return null;
  const shown = open ? own : own.slice(0, 1);
  return (
    <div
      className={`border-r pr-3 ${doubts.length > 0 ? 'border-r-2 border-red' : open ? 'border-ink' : 'border-rule-strong'}`}
    >
      {doubts.map((doubt) => (
        <p key={doubtWords(doubt)} className="!mt-0 !font-ui !text-[12px] !leading-4 text-red">
          {doubtWords(doubt)}
        </p>
      ))}
      {bare ? <p className="!mt-0 !font-ui !text-[12px] !leading-4 text-ink-3">rests on nothing</p> : null}
      {shown.map((passage) => (
        <p key={passage.id} className="!mt-0 pb-1 !text-[12px] !leading-4">
          <Where passage={passage} />
          <span className="text-ink-2 italic">“{open ? passage.text : shorten(passage.text)}”</span>
          {open && changes ? (
            <button
              type="button"
              className="act quiet brackets block min-h-6 w-full !text-right !font-ui"
              onClick={() => changes.remove(passage.id)}
            >
              does not rest on it
            </button>
          ) : null}
        </p>
      ))}
      {open && changes ? changes.add : null}
      {!open && own.length > 1 ? (
        <p className="!mt-0 !font-ui !text-[12px] !leading-4 text-ink-3">
          and {plural(own.length - 1, 'passage')} more
        </p>
      ) : null}
    </div>
  );
}

/** What a passage is from and where in it; leads there where that is on the web. */
function Where({ passage: { title, place, address } }: { passage: Evidence }) {
  const says = (
    <>
      <span className="block truncate font-ui font-medium">{title}</span>
      <span className="block truncate font-ui text-ink-3">{place}</span>
    </>
  );
  if (address === '') return says;
  return (
    <a href={address} target="_blank" rel="noreferrer" className="brackets block hover:underline">
      {says}
    </a>
  );
}

function shorten(text: string): string {
  if (text.length <= 90) return text;
  return `${text.slice(0, text.lastIndexOf(' ', 86))} …`;
}
