import { Popover } from 'radix-ui';
import { Children, type ReactNode, useState } from 'react';
import { useMay } from './may.tsx';

/** A word that can be changed: it opens its small editor, which hangs from it. */
export function Word({
  children,
  label,
  wrong,
  disabled,
  anyone = false,
  plain = false,
  editor,
  onOpen,
  onClosed,
}: {
  children: ReactNode;
  /** What the word is, for those who do not see the sentence around it. */
  label: string;
  wrong?: string | null;
  disabled?: boolean;
  /** Whether it changes only what is shown, which everybody may. */
  anyone?: boolean;
  /** Whether it is a figure that tells more, and no word to be changed. */
  plain?: boolean;
  editor: (close: () => void) => ReactNode;
  /** Told when the editor is opened and closed. */
  onOpen?: (open: boolean) => void;
  /** Takes the focus once the editor is closed; the word itself gets it otherwise. */
  onClosed?: () => void;
}) {
  const may = useMay();
  const [open, put] = useState(false);
  const setOpen = (next: boolean) => {
    put(next);
    onOpen?.(next);
  };
  if (!may && !anyone) return <span>{children}</span>;
  return (
    <>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger asChild>
          <button
            type="button"
            className={plain ? 'act quiet' : `word hl brackets ${wrong ? 'hl-wrong' : 'hl-rest'}`}
            aria-label={`${label}: ${wordsOf(children)}`}
            disabled={disabled}
          >
            <span>{children}</span>
          </button>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            className="pop"
            sideOffset={8}
            align="start"
            alignOffset={-16}
            collisionPadding={12}
            onCloseAutoFocus={(event) => {
              if (!onClosed) return;
              event.preventDefault();
              onClosed();
            }}
          >
            {/* Its stem stands outside of what scrolls. */}
            {open ? <div className="pop-in">{editor(() => setOpen(false))}</div> : null}
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {wrong ? <span className="pl-1.5 text-small text-red">{wrong}</span> : null}
    </>
  );
}

/** The plain words of what stands in it. */
function wordsOf(children: ReactNode): string {
  return Children.toArray(children)
    .filter((child) => typeof child === 'string' || typeof child === 'number')
    .join('');
}
