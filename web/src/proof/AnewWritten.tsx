import type { WrittenAnew } from '@grivo/contract';
import { blockText, compareWords, doubtWords } from '@grivo/core';
import type { ReactNode } from 'react';
import { Button } from '../design/index.ts';
import { money } from '../words/figures.ts';

/** What was there and what comes in its place, side by side. */
function SideBySide({ before, after, busy = false }: { before: ReactNode; after: ReactNode; busy?: boolean }) {
  return (
    <div className="page grid max-h-[38vh] grid-cols-2 gap-6 overflow-auto" aria-busy={busy}>
      <p className="whitespace-pre-wrap text-ink-2">{before}</p>
      <p className="whitespace-pre-wrap">{after}</p>
    </div>
  );
}

/** A part while it is written, beside what was there. */
export function AnewWriting({ before, soFar, onDrop }: { before: string; soFar: string; onDrop: () => void }) {
  return (
    <section className="border-t border-rule-soft px-8 py-2" aria-label="Being written anew">
      <SideBySide
        busy
        before={before}
        after={
          <>
            {soFar}
            <span className="writing-mark" aria-hidden="true" />
          </>
        }
      />
      <div className="flex flex-wrap items-baseline gap-4 pt-2 text-small">
        <span role="status" className="text-ink-3">
          The writer is writing.
        </span>
        <Button look="quiet" anyone hint="Esc" onClick={onDrop}>
          Leave it as it is
        </Button>
      </div>
    </section>
  );
}

/** What came, against what was there, and what of it no source says. */
export function AnewWritten({
  before,
  written,
  onKeep,
  onAgain,
  onDrop,
}: {
  before: string;
  written: WrittenAnew;
  onKeep: () => void;
  onAgain: () => void;
  onDrop: () => void;
}) {
  const words = compareWords(before, written.blocks.map(blockText).join('\n\n'));
  const bare = written.blocks.filter(({ evidence }) => (evidence?.length ?? 0) === 0).length;
  return (
    <section className="border-t border-rule-soft px-8 py-2" aria-label="Written anew">
      <SideBySide
        before={words.map(({ stands, text }, i) =>
          stands === 'after' ? null : stands === 'before' ? (
            <del key={i} className="text-ink-3 line-through">
              {text}
            </del>
          ) : (
            <span key={i}>{text}</span>
          ),
        )}
        after={words.map(({ stands, text }, i) =>
          stands === 'before' ? null : stands === 'after' ? (
            <ins key={i} className="bg-blue-wash underline decoration-blue">
              {text}
            </ins>
          ) : (
            <span key={i}>{text}</span>
          ),
        )}
      />
      <div className="flex flex-wrap items-baseline gap-4 pt-2 text-small">
        <Button look="line" onClick={onKeep}>
          Keep it
        </Button>
        <Button look="quiet" onClick={onAgain}>
          Another way
        </Button>
        <Button look="quiet" anyone hint="Esc" onClick={onDrop}>
          Leave it as it is
        </Button>
        <span className="text-ink-3">cost {money(written.micros)}</span>
        {bare > 0 ? (
          <span className="text-red">{bare === 1 ? 'One paragraph rests' : `${bare} paragraphs rest`} on nothing.</span>
        ) : null}
        {written.doubts.map((doubt) => (
          <span key={doubtWords(doubt)} className="text-red">
            {doubtWords(doubt)}
          </span>
        ))}
      </div>
    </section>
  );
}
