import { contentStems, type MeasuredSource } from '@grivo/core';
import { Popover } from 'radix-ui';
import { useMemo, useState } from 'react';

const MOST_SHOWN = 8;

/** Passages by how many of a text's words they have. */
export function nearest(text: string, sources: readonly MeasuredSource[], most = MOST_SHOWN): MeasuredSource[] {
  const wanted = new Set(contentStems(text));
  return sources
    .map((source) => ({ source, n: new Set(contentStems(source.text).filter((stem) => wanted.has(stem))).size }))
    .filter(({ n }) => n > 0 || wanted.size === 0)
    .sort((a, b) => b.n - a.n)
    .slice(0, most)
    .map(({ source }) => source);
}

/** Picks a passage a paragraph rests on: the nearest stand first, others are found by their words. */
export function PickPassage({
  text,
  sources,
  onPick,
}: {
  text: string;
  sources: readonly MeasuredSource[];
  onPick: (passage: string) => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button type="button" className="act quiet brackets !font-ui min-h-6 text-[12px]">
          It also rests on…
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="pop w-[420px]" sideOffset={8} align="end" collisionPadding={12}>
          {open ? (
            <Passages
              text={text}
              sources={sources}
              onPick={(passage) => {
                onPick(passage);
                setOpen(false);
              }}
            />
          ) : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Passages({
  text,
  sources,
  onPick,
}: {
  text: string;
  sources: readonly MeasuredSource[];
  onPick: (passage: string) => void;
}) {
  const [words, setWords] = useState('');
  const shown = useMemo(() => nearest(words.trim() === '' ? text : words, sources), [words, text, sources]);
  return (
    <div className="pop-in">
      <input
        className="field"
        aria-label="Words of the passage"
        placeholder="Words of the passage"
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      {shown.length === 0 ? (
        <p className="pt-2 text-ink-3">No passage this article was made from has these words.</p>
      ) : (
        <ul>
          {shown.map(({ id, text: passage }) => (
            <li key={id}>
              <button type="button" className="choice !block cursor-pointer text-small" onClick={() => onPick(id)}>
                {passage}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
