import { type Hold, HeldText as Text } from '@grivo/contract';
import { countWords } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { lazy, Suspense, useEffect, useState } from 'react';
import { call } from '../api/call.ts';
import { Button, Loading } from '../design/index.ts';
import { count } from '../words/figures.ts';
import { useKeptText } from '../words/keptText.ts';

const SourceText = lazy(() => import('../design/SourceText.tsx'));

/**
 * The article of a held step, to be edited as Markdown. What is typed is kept in the browser until the step is passed, also
 * when the page is left; it counts with the person's word on the step.
 * @param onChange told the text, or null when nothing is changed
 */
export function HeldText({ hold, onChange }: { hold: Hold; onChange: (text: string | null) => void }) {
  const { data } = useQuery({
    queryKey: ['held text', hold.run],
    queryFn: () => call('GET', `/briefs/${hold.brief}/holds/${hold.run}/text`, { answer: Text }),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [kept, keep] = useKeptText(hold.run);
  const [open, setOpen] = useState(false);
  const was = data?.text ?? null;
  const changed = kept !== null && kept !== was ? kept : null;
  useEffect(() => onChange(changed), [changed, onChange]);
  if (was === null) return null;
  const language = data?.language ?? 'en';
  const words = (text: string) => count(countWords(text, language));
  return (
    <p className="flex items-baseline gap-3 pt-2 text-small">
      <span className="text-ink-3">
        The text has <span className="fig">{words(was)}</span> words
        {changed === null ? '' : ', as you changed it '}
        {changed === null ? null : <span className="fig text-ink">{words(changed)}</span>}
      </span>
      <Dialog.Root open={open} onOpenChange={setOpen}>
        <Dialog.Trigger asChild>
          <Button look="word">Edit the text</Button>
        </Dialog.Trigger>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-paper/80" />
          <Dialog.Content
            aria-describedby={undefined}
            className="pop fixed top-[6vh] left-1/2 z-50 flex h-[86vh] w-[780px] max-w-[94vw] -translate-x-1/2 flex-col"
          >
            <div className="flex items-baseline justify-between gap-4 pb-2">
              <Dialog.Title className="truncate font-semibold text-head">The text of ‘{hold.subject}’</Dialog.Title>
              <span className="fig shrink-0 text-ink-3">
                {words(kept ?? was)} words, {words(was)} before
              </span>
            </div>
            <Suspense fallback={<Loading rows={8} />}>
              <SourceText value={kept ?? was} label="The text in Markdown" onChange={keep} />
            </Suspense>
            <Below
              onLeave={
                changed === null
                  ? null
                  : () => {
                      keep(null);
                      setOpen(false);
                    }
              }
            />
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </p>
  );
}

function Below({ onLeave }: { onLeave: (() => void) | null }) {
  return (
    <div className="flex items-center gap-4 pt-3">
      <Dialog.Close asChild>
        <Button look="line">Done for now</Button>
      </Dialog.Close>
      {onLeave ? (
        <Button look="quiet" onClick={onLeave}>
          Leave it as it was
        </Button>
      ) : null}
      <span className="ml-auto text-small text-ink-3">
        Paragraphs keep what they rest on; it counts when you pass the step.
      </span>
    </div>
  );
}
