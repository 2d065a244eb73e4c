import { ClearedPipeline, MadeByPipeline } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, DoneHere, Field, Trouble } from '../design/index.ts';
import { count, plural } from '../words/figures.ts';

/** Deleting all a pipeline made, its posts on blogs too, after saying how much that is; the number is typed to mean it. */
export function ClearMade({ pipeline, onCleared }: { pipeline: string; onCleared: () => void }) {
  const made = useQuery({
    queryKey: ['made', pipeline],
    queryFn: () => call('GET', `/pipelines/${pipeline}/made`, { answer: MadeByPipeline }),
    staleTime: 0,
    gcTime: 0,
  });
  const [typed, setTyped] = useState('');
  const clear = useClear(pipeline, onCleared);
  if (!made.data) return made.isError ? <Trouble>{inWords(made.error)}</Trouble> : null;
  const { briefs, articles, posts, open } = made.data;
  if (briefs === 0 || open > 0) return null;
  return (
    <form
      className="pt-2"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        clear.mutate(articles);
      }}
    >
      <p>
        Delete all it made: {plural(briefs, 'brief')}, {plural(articles, 'article')}
        {posts > 0 ? `, and ${plural(posts, 'post')} on your blogs` : ''}. What it cost stays in the books. This cannot
        be taken back.
      </p>
      <div className="flex items-end gap-4 pt-2">
        <div className="w-56">
          <Field
            label={`Type ${count(articles)} to say that you mean it`}
            inputMode="numeric"
            autoComplete="off"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </div>
        <Button
          look="line"
          type="submit"
          disabled={typed.trim() !== String(articles)}
          busy={clear.isPending ? 'Deleting' : null}
        >
          Delete all it made
        </Button>
      </div>
      {clear.isError ? <Trouble>{inWords(clear.error)}</Trouble> : null}
      {clear.data && clear.data.kept.length > 0 ? <NotTakenOff kept={clear.data.kept} /> : null}
      {clear.data ? <DoneHere>{plural(clear.data.briefs, 'brief')} deleted.</DoneHere> : null}
    </form>
  );
}

/** Deletes all a pipeline made, as long as that is as many articles as were shown. */
const useClear = (pipeline: string, onCleared: () => void) =>
  useMutation({
    mutationFn: (articles: number) =>
      call('POST', `/pipelines/${pipeline}/clear`, { body: { articles }, answer: ClearedPipeline }),
    onSuccess: ({ kept }) => {
      void queryClient.invalidateQueries();
      if (kept.length === 0) onCleared();
    },
  });

function NotTakenOff({ kept }: { kept: readonly { address: string; said: string }[] }) {
  const some = kept.slice(0, 5).map(({ address, said }) => `${address} (${said})`);
  return (
    <Trouble>
      {plural(kept.length, 'post')} could not be taken off their blogs, and what belongs to them is kept:{' '}
      {some.join(', ')}
    </Trouble>
  );
}
