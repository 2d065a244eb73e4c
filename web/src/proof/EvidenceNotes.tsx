import type { Evidence } from '@grivo/contract';
import { type Block, type Doubt, doubtWords, isStatement } from '@grivo/core';
import { type ReactNode, useState } from 'react';
import { plural } from '../words/figures.ts';

/** What can be changed about what a block rests on, while the article is edited. */
export interface EvidenceChanges {
  remove: (passage: string) => void;
  /** Somebody answers for words no source has. */
  vouch: (words: string, reason: string) => void;
  /** They are a doubt again. */
  doubt: (words: string) => void;
  add: ReactNode;
}

const LINE = '!mt-0 !font-ui !text-[12px] !leading-4';

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
  changes?: EvidenceChanges | undefined;
}) {
  const own = (block.evidence ?? []).flatMap(({ passage }) => passages.get(passage) ?? []);
  const vouched = block.vouched ?? [];
  // What was written has evidence or lacks it; what somebody laid out is their own.
  const bare =
    (passages.size > 0 || block.evidence !== undefined) &&
    own.length === 0 &&
    isStatement(block) &&
    block.type !== 'quote' &&
    block.type !== 'key points';
  const says = own.length + doubts.length + vouched.length > 0 || bare;
  if (!says && !(open && changes?.add)) return null;
  const shown = open ? own : own.slice(0, 1);
  return (
    <div
      className={`border-r pr-3 ${doubts.length > 0 ? 'border-r-2 border-red' : open ? 'border-ink' : 'border-rule-strong'}`}
    >
      {doubts.map((doubt) => (
        <Doubted key={doubtWords(doubt)} doubt={doubt} onVouch={changes?.vouch} />
      ))}
      {vouched.map((one) => (
        <Vouched key={one.words} vouched={one} onDoubt={changes?.doubt} />
      ))}
      {bare ? <p className={`${LINE} text-ink-3`}>rests on nothing</p> : null}
      {shown.map((passage) => (
        <p key={passage.id} className="!mt-0 pb-1 !text-[12px] !leading-4">
          <Where passage={passage} />
          <span className="text-ink-2 italic">“{open ? passage.text : shorten(passage.text)}”</span>
          {open && changes ? (
            <button
              type="button"
              className="act quiet brackets ml-auto block min-h-6 w-fit !font-ui"
              onClick={() => changes.remove(passage.id)}
            >
              does not rest on it
            </button>
          ) : null}
        </p>
      ))}
      {open && changes ? changes.add : null}
      {!open && own.length > 1 ? (
        <p className={`${LINE} text-ink-3`}>and {plural(own.length - 1, 'passage')} more</p>
      ) : null}
    </div>
  );
}

/** What somebody answers for. */
function Vouched({
  vouched: { words, reason, by },
  onDoubt,
}: {
  vouched: NonNullable<Block['vouched']>[number];
  onDoubt: EvidenceChanges['doubt'] | undefined;
}) {
  return (
    <p className={`${LINE} text-ink-2`}>
      {by || 'You'} {by ? 'answers' : 'answer'} for ‘{words}’: {reason}{' '}
      {onDoubt ? (
        <button type="button" className="act quiet brackets min-h-6" onClick={() => onDoubt(words)}>
          not any more
        </button>
      ) : null}
    </p>
  );
}

/** What no source has; while the article is edited somebody may answer for it, and says why. */
function Doubted({ doubt, onVouch }: { doubt: Doubt; onVouch: EvidenceChanges['vouch'] | undefined }) {
  const [reason, setReason] = useState<string | null>(null);
  return (
    <div className={`${LINE} text-[12px] leading-4 text-red`}>
      {doubtWords(doubt)}
      {onVouch && reason === null ? (
        <button
          type="button"
          className="act quiet brackets ml-auto block min-h-6 w-fit !font-ui"
          onClick={() => setReason('')}
        >
          answer for it…
        </button>
      ) : null}
      {onVouch && reason !== null ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (reason.trim() !== '') onVouch(doubt.words, reason.trim());
          }}
          onKeyDown={(event) => event.key === 'Escape' && setReason(null)}
        >
          <input
            className="field text-ink"
            aria-label={`Why ‘${doubt.words}’ is right`}
            placeholder="why it is right, then Enter"
            // biome-ignore lint/a11y/noAutofocus: it was asked for just now
            autoFocus
            value={reason}
            onChange={(event) => setReason(event.target.value)}
          />
        </form>
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
