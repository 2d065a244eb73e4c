import { plainInline } from '@grivo/core';
import type { Command } from 'prosemirror-state';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { useParams } from 'react-router';
import { PictureChoice } from '../pictures/PickPicture.tsx';
import { insertBlock, newWhole } from './commands.ts';

/** Puts a picture of the library, or of a file, where one types. */
export function PutPicture({ does, onClosed }: { does: (command: Command) => void; onClosed: () => void }) {
  const [open, setOpen] = useState(false);
  const { id } = useParams();
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button type="button" className="act quiet brackets">
          Picture…
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="pop"
          sideOffset={8}
          align="start"
          collisionPadding={12}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            onClosed();
          }}
        >
          {open ? (
            <div className="pop-in">
              <PictureChoice
                article={id}
                close={() => setOpen(false)}
                onPick={({ file, width, height, words, credit }) =>
                  does(
                    insertBlock(
                      newWhole({
                        type: 'figure',
                        id: '',
                        file,
                        width,
                        height,
                        alternative: words,
                        ...(credit === '' ? {} : { credit: plainInline(credit) }),
                        lead: false,
                      }),
                    ),
                  )
                }
              />
            </div>
          ) : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
