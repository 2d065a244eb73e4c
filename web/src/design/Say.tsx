import { AlertDialog, Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button, Key } from './Button.tsx';
import { Mark } from './Mark.tsx';

/** Done is told where it happened; nothing flies in. */
export function DoneHere({ children, back }: { children: ReactNode; back?: { does: () => void } }) {
  return (
    <p role="status" className="flex items-center gap-2">
      <Mark state="done" /> {children}
      {back ? (
        <button type="button" className="act quiet brackets" onClick={back.does}>
          Take back <Key>Z</Key>
        </button>
      ) : null}
    </p>
  );
}

/** A long job: how far it is, how long it will take, what it costs; it can be stopped. */
export function LongJob({
  title,
  done,
  of,
  says,
  onStop,
}: {
  title: string;
  done: number;
  of: number;
  says: string;
  onStop?: () => void;
}) {
  const shown = Math.min(of, 40);
  const full = Math.round((done / Math.max(1, of)) * shown);
  return (
    <div>
      <div className="flex items-baseline justify-between">
        <strong className="font-semibold">{title}</strong>
        {onStop ? (
          <Button look="word" onClick={onStop}>
            Stop after this
          </Button>
        ) : null}
      </div>
      <div
        className="flex items-center gap-0.5 py-1"
        role="progressbar"
        aria-label={title}
        aria-valuenow={done}
        aria-valuemin={0}
        aria-valuemax={of}
      >
        {Array.from({ length: shown }, (_, i) => (
          <span key={i} className="max-w-5 flex-1">
            {i < full ? (
              <Mark state="done" size="bar" />
            ) : i === full ? (
              <Mark state="busy" size="bar" />
            ) : (
              <span className="block border-t border-dotted border-graphite" />
            )}
          </span>
        ))}
      </div>
      <p className="fig text-ink-2">{says}</p>
    </div>
  );
}

/** An empty list says what is not there and the next thing to do. */
export function Empty({ children, next }: { children: ReactNode; next?: ReactNode }) {
  return (
    <div className="py-3">
      <p>{children}</p>
      {next ? <p className="text-ink-3">{next}</p> : null}
    </div>
  );
}

/** What is not there yet is drawn dotted in its place. */
export function Loading({ rows = 4, label = 'Reading' }: { rows?: number; label?: string }) {
  return (
    <div role="status" aria-label={label}>
      {Array.from({ length: rows }, (_, i) => (
        <div key={i} className="flex h-6 items-center gap-2 border-b border-rule-soft">
          <Mark state="plan" />
          <span className="border-t border-dotted border-graphite" style={{ width: `${48 - ((i * 13) % 30)}%` }} />
          <span className="ml-auto w-8 border-t border-dotted border-graphite" />
        </div>
      ))}
    </div>
  );
}

/** Trouble mends in place: the reason, and its actions as underlined words in the same sentence. */
export function Trouble({ children, actions }: { children: ReactNode; actions?: ReactNode }) {
  return (
    <p role="alert" className="wrong text-small">
      {children} {actions}
    </p>
  );
}

/** Asks before what cannot be taken back, and says what is lost elsewhere too. */
export function Confirm({
  open,
  onOpen,
  title,
  says,
  does,
  onDo,
}: {
  open: boolean;
  onOpen: (open: boolean) => void;
  title: string;
  says: string;
  does: string;
  onDo: () => void;
}) {
  return (
    <AlertDialog.Root open={open} onOpenChange={onOpen}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-paper/70" />
        <AlertDialog.Content className="pop fixed left-1/2 top-1/3 z-50 w-[380px] -translate-x-1/2">
          <AlertDialog.Title className="font-semibold">{title}</AlertDialog.Title>
          <AlertDialog.Description className="pt-1 text-ink-2">{says}</AlertDialog.Description>
          <div className="flex justify-end gap-4 pt-3">
            <AlertDialog.Cancel asChild>
              <Button look="quiet">Keep</Button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <Button look="line" onClick={onDo}>
                {does}
              </Button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

/** A flag on a staff, after 0.4 s. */
export function Flag({ says, children }: { says: ReactNode; children: ReactNode }) {
  return (
    <Tooltip.Root delayDuration={400}>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content className="flag" sideOffset={6}>
          {says}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}

/** The head of a work surface. */
export function Head({ title, right, level = 2 }: { title: ReactNode; right?: ReactNode; level?: 2 | 3 }) {
  const Title = level === 2 ? 'h2' : 'h3';
  return (
    <div className="colhead">
      <Title className="font-semibold text-head">{title}</Title>
      {right === undefined ? null : <span className="r">{right}</span>}
    </div>
  );
}

/** The foot of a screen where things can be picked: the one solid button, the cost in words, the keys. */
export function ActionBar({ children, keys }: { children: ReactNode; keys?: ReactNode }) {
  return (
    <footer className="sticky bottom-0 z-10 -mx-8 flex h-[52px] items-center gap-3 border-t border-ink bg-paper px-8">
      {children}
      {keys ? <span className="ml-auto flex gap-4 text-small text-ink-3">{keys}</span> : null}
    </footer>
  );
}
