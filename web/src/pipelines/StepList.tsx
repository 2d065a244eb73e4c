import type { Step, StepKindName } from '@grivo/core';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { Key } from '../design/index.ts';
import { kindsFor, type Listing } from './lineCommands.ts';

const ASKS: Record<Listing, string> = {
  add: 'Which step?',
  change: 'Which kind shall it be?',
  wrap: 'Into which block?',
};

interface StepListProps {
  listing: Listing;
  step: Step | null;
  anchor: HTMLElement;
  onChoose: (kind: StepKindName) => void;
  close: () => void;
}

/** The kinds of steps with what each does, searched by typing; it hangs from the line it is for. */
export function StepList({ listing, step, anchor, onChoose, close }: StepListProps) {
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const kinds = kindsFor(listing, step, typed);
  const now = Math.min(at, kinds.length - 1);
  return (
    <Popover.Root open onOpenChange={(open) => !open && close()}>
      <Popover.Anchor virtualRef={{ current: anchor }} />
      <Popover.Portal>
        <Popover.Content
          className="pop !w-[430px]"
          aria-label={ASKS[listing]}
          sideOffset={8}
          align="start"
          alignOffset={-16}
          collisionPadding={12}
          onCloseAutoFocus={(event) => event.preventDefault()}
        >
          <input
            className="field"
            role="combobox"
            aria-label={ASKS[listing]}
            aria-expanded
            aria-controls="step-kinds"
            aria-activedescendant={kinds[now] ? `kind-${kinds[now].kind}` : undefined}
            placeholder={`${ASKS[listing]} Type to find`}
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
              setAt(0);
            }}
            onKeyDown={(event) => {
              if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
                event.preventDefault();
                const by = event.key === 'ArrowDown' ? 1 : -1;
                setAt((now + by + kinds.length) % Math.max(1, kinds.length));
              } else if (event.key === 'Enter' && kinds[now]) {
                event.preventDefault();
                onChoose(kinds[now].kind);
              }
            }}
          />
          <Kinds kinds={kinds} now={now} onChoose={onChoose} />
          <p className="pt-2 text-small text-ink-3">
            <Key>↑</Key> <Key>↓</Key> <Key>Enter</Key>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Kinds({
  kinds,
  now,
  onChoose,
}: {
  kinds: ReturnType<typeof kindsFor>;
  now: number;
  onChoose: (kind: StepKindName) => void;
}) {
  return (
    <div id="step-kinds" role="listbox" aria-label="Kinds of steps" className="mt-2 max-h-[300px] overflow-y-auto">
      {kinds.map(({ kind, does }, i) => (
        // biome-ignore lint/a11y/useKeyWithClickEvents: keys are the field's
        <div
          key={kind}
          id={`kind-${kind}`}
          role="option"
          tabIndex={-1}
          aria-selected={i === now}
          ref={(row) => {
            if (i === now) row?.scrollIntoView({ block: 'nearest' });
          }}
          className={`grid cursor-pointer grid-cols-[84px_1fr] px-2 py-0.5 ${i === now ? 'bg-marker' : 'hover:bg-marker-wash'}`}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onChoose(kind)}
        >
          <span className="font-medium">{kind}</span>
          <span className={`text-small leading-5 ${i === now ? 'text-ink' : 'text-ink-3'}`}>{does}</span>
        </div>
      ))}
      {kinds.length === 0 ? <p className="px-2 py-1 text-ink-3">No step does that.</p> : null}
    </div>
  );
}
