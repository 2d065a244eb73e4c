import { type Comment, Made, Comments as Shape } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient } from '../api/queries.ts';
import { Button, TextArea, Trouble } from '../design/index.ts';
import { moment } from '../words/time.ts';

/** What was said of an article, by the block it was said at. */
export function useComments(article: string): ReadonlyMap<string, readonly Comment[]> {
  const found = useQuery({
    queryKey: ['article', article, 'comments'],
    queryFn: () => call('GET', `/articles/${article}/comments`, { answer: Shape }),
  }).data?.comments;
  return useMemo(() => {
    const out = new Map<string, Comment[]>();
    for (const one of found ?? []) out.set(one.block, [...(out.get(one.block) ?? []), one]);
    return out;
  }, [found]);
}

/** What was said at a block; where it is looked at, something more can be said. */
export function BlockComments({
  article,
  block,
  comments,
  open,
}: {
  article: string;
  block: string;
  comments: readonly Comment[];
  open: boolean;
}) {
  const [words, setWords] = useState<string | null>(null);
  const path = `/articles/${article}/comments`;
  const again = () => queryClient.invalidateQueries({ queryKey: ['article', article, 'comments'] });
  const say = useMutation({
    mutationFn: () => call('POST', path, { body: { block, words }, answer: Made, key: freshKey() }),
    onSuccess: () => setWords(null),
    onSettled: again,
  });
  const done = useMutation({
    mutationFn: ({ id, done: is }: Comment) => call('PUT', `${path}/${id}`, { body: { done: !is } }),
    onSettled: again,
  });
  const back = useMutation({ mutationFn: ({ id }: Comment) => call('DELETE', `${path}/${id}`), onSettled: again });
  const shown = open ? comments : comments.filter((one) => !one.done);
  const error = say.error ?? done.error ?? back.error;
  if (shown.length === 0 && !open) return null;
  return (
    // Presses here are not presses on the paragraph.
    // biome-ignore lint/a11y/useKeyWithClickEvents: it only keeps presses to itself
    // biome-ignore lint/a11y/noStaticElementInteractions: it only keeps presses to itself
    <div className="border-r-2 border-blue pr-3 text-[12px] leading-4" onClick={(event) => event.stopPropagation()}>
      {shown.map((one) => (
        <Said key={one.id} comment={one} onDone={() => done.mutate(one)} onBack={() => back.mutate(one)} />
      ))}
      {open && words === null ? (
        <Button look="quiet" anyone className="!text-[12px]" onClick={() => setWords('')}>
          Say something…
        </Button>
      ) : null}
      {words === null ? null : (
        <form
          className="text-left"
          onSubmit={(event) => {
            event.preventDefault();
            if (words.trim() !== '') say.mutate();
          }}
          onKeyDown={(event) => event.key === 'Escape' && setWords(null)}
        >
          <TextArea
            label="What you say of it"
            rows={3}
            autoFocus
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
          <Button
            look="line"
            anyone
            type="submit"
            disabled={words.trim() === ''}
            busy={say.isPending ? 'Saying it' : null}
          >
            Say it
          </Button>
        </form>
      )}
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
    </div>
  );
}

function Said({ comment, onDone, onBack }: { comment: Comment; onDone: () => void; onBack: () => void }) {
  const { person, at, words, done, mine } = comment;
  return (
    <div className={`pb-1 ${done ? 'text-ink-3 line-through' : ''}`}>
      <p className="!mt-0 !font-ui !text-[12px] !leading-4">
        <strong className="font-medium">{person}</strong>{' '}
        <span className="text-ink-3">{moment(new Date(at).getTime(), Date.now())}</span>
      </p>
      <p className="!mt-0 !font-ui !text-[12px] !leading-4 whitespace-pre-wrap">{words}</p>
      <Button look="quiet" anyone className="!text-[12px]" onClick={onDone}>
        {done ? 'not done after all' : 'done'}
      </Button>{' '}
      {mine ? (
        <Button look="quiet" anyone className="!text-[12px]" onClick={onBack}>
          take back
        </Button>
      ) : null}
    </div>
  );
}
