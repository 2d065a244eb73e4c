import { ArticleSaved, type EditableAs, EditableText } from '@grivo/contract';
import { countWords } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import { call, inWords, Refused } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Loading, Trouble } from '../design/index.ts';
import { count } from '../words/figures.ts';
import { useKept } from '../words/keptText.ts';

const SourceText = lazy(() => import('../design/SourceText.tsx'));

/** What is typed, and of which revision it is. */
interface Typed {
  base: string;
  text: string;
}

/** Names this page, so that what is kept in a row from it is one revision. */
const SITTING = `md-${Math.random().toString(36).slice(2, 12)}`;

/** How each form is called. */
const CALLED: Record<EditableAs, string> = { markdown: 'Markdown', html: 'HTML' };
const HINTS: Record<EditableAs, string> = {
  markdown: 'Paragraphs keep what they rest on.',
  html: 'Paragraphs keep what they rest on; classes and styles of your own are not kept.',
};

/** The body of an article edited as Markdown or as HTML. What is typed is kept in the browser until it is kept here. */
export function EditText({ id, title, busy, as }: { id: string; title: string; busy: string | null; as: EditableAs }) {
  const [open, setOpen] = useState(false);
  const [typed, keep] = useKept<Typed>(`${as} ${id}`);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button look="word" anyone disabled={busy !== null} title={busy ?? undefined}>
          {typed ? 'Go on editing it' : 'Edit it here'}
        </Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-paper/80" />
        <Dialog.Content
          aria-describedby={undefined}
          className="pop fixed top-[6vh] left-1/2 z-50 flex h-[86vh] w-[780px] max-w-[94vw] -translate-x-1/2 flex-col"
        >
          <Dialog.Title className="truncate pb-2 font-semibold text-head">
            {title || 'no title yet'}, as {CALLED[as]}
          </Dialog.Title>
          <Editing id={id} as={as} typed={typed} keep={keep} onEnd={() => setOpen(false)} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Brings what was typed to the server. */
function useSave(id: string, as: EditableAs, onKept: () => void) {
  return useMutation({
    mutationFn: (edit: Typed) =>
      call('PUT', `/articles/${id}/editable`, { body: { ...edit, as, sitting: SITTING }, answer: ArticleSaved }),
    onSuccess: () => {
      onKept();
      void queryClient.invalidateQueries({ queryKey: ['article', id] });
      void queryClient.invalidateQueries({ queryKey: ['articles'] });
    },
  });
}

interface EditingProps {
  id: string;
  as: EditableAs;
  typed: Typed | null;
  keep: (typed: Typed | null) => void;
  onEnd: () => void;
}

function Editing({ id, as, typed, keep, onEnd }: EditingProps) {
  const now = useQuery({
    queryKey: ['article', id, 'editable', as],
    queryFn: () => call('GET', `/articles/${id}/editable?as=${as}`, { answer: EditableText }),
  });
  const save = useSave(id, as, () => {
    keep(null);
    onEnd();
  });
  if (now.isPending) return <Loading rows={8} />;
  if (!now.data) return <Trouble>{inWords(now.error)}</Trouble>;
  const { revision, text, language } = now.data;
  const shown = typed?.text ?? text;
  const overtaken = typed !== null && typed.base !== revision;
  return (
    <>
      <Suspense fallback={<Loading rows={8} />}>
        <SourceText
          value={shown}
          label={`The text in ${CALLED[as]}`}
          as={as}
          onChange={(next) => keep(next === text ? null : { base: typed?.base ?? revision, text: next })}
        />
      </Suspense>
      {save.isError ? <Trouble>{inWords(save.error)}</Trouble> : null}
      {overtaken || (save.error instanceof Refused && save.error.problem.status === 412) ? (
        <Overtaken
          onNewest={() => {
            save.reset();
            keep({ base: revision, text: shown });
          }}
        />
      ) : null}
      <div className="flex items-center gap-4 pt-3">
        <Button
          look="solid"
          anyone
          disabled={typed === null || overtaken}
          busy={save.isPending ? 'Keeping it' : null}
          onClick={() => typed && save.mutate(typed)}
        >
          Keep it
        </Button>
        {typed === null ? null : (
          <Button look="quiet" anyone onClick={() => keep(null)}>
            Leave it as it was
          </Button>
        )}
        <Told as={as} words={countWords(shown, language)} />
      </div>
    </>
  );
}

/** How long it is, and what becomes of it; HTML is not counted, its marks are no words. */
function Told({ as, words }: { as: EditableAs; words: number }) {
  return (
    <>
      {as === 'markdown' ? <span className="fig text-small text-ink-3">{count(words)} words</span> : null}
      <span className="ml-auto text-small text-ink-3">{HINTS[as]}</span>
    </>
  );
}

/** Somebody else was quicker. */
function Overtaken({ onNewest }: { onNewest: () => void }) {
  return (
    <p className="pt-2 text-small">
      The article was changed since you began. What you typed is kept here; look at its revisions, then{' '}
      <Button look="word" anyone onClick={onNewest}>
        let yours be the newest
      </Button>
      : the other stays among them.
    </p>
  );
}
