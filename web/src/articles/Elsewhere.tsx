import { type ArticleWhole, PublicationActed, type PublicationLine } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient, read } from '../api/queries.ts';
import { ChoiceWord, Confirm, Trouble, useMay } from '../design/index.ts';

type As = 'live' | 'draft';
const SEEN = [
  { value: 'live', says: 'for all to read', does: 'at once, whatever its cadence says' },
  { value: 'draft', says: 'as a draft', does: 'nobody sees it yet' },
];

/** Puts an article on a blog it is not on yet, at once. */
export function Elsewhere({ article, shown }: { article: ArticleWhole; shown: readonly PublicationLine[] }) {
  const may = useMay();
  const all = useQuery(read.blogs()).data?.blogs ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const [as, setAs] = useState<As>('live');
  const [asking, setAsking] = useState(false);
  const put = useMutation({
    mutationFn: (blog: string) =>
      call('POST', `/articles/${article.id}/publications`, {
        body: { blog, as, revision: article.revision },
        answer: PublicationActed,
        key: freshKey(),
      }),
    onSettled: () => queryClient.invalidateQueries({ queryKey: ['article', article.id] }),
  });
  const there = new Set(shown.map(({ blog }) => blog));
  const open = all.filter(({ id, archived }) => !archived && !there.has(id));
  const blog = open.find(({ id }) => id === chosen) ?? open[0];
  if (!may || !blog) return null;
  return (
    <div className="py-2 text-small">
      <p className="leading-6">
        Put it on{' '}
        <ChoiceWord
          label="Another blog"
          value={blog.id}
          options={open.map(({ id, name, language }) => ({ value: id, says: name, does: `in ${language}` }))}
          onChoose={setChosen}
        />{' '}
        <ChoiceWord label="Who sees it there" value={as} options={SEEN} onChoose={(next) => setAs(next as As)} />:{' '}
        <button
          type="button"
          className="act brackets"
          disabled={put.isPending || article.busy !== null}
          onClick={() => (as === 'live' ? setAsking(true) : put.mutate(blog.id))}
        >
          {put.isPending ? 'Publishing it…' : 'publish it now'}
        </button>
      </p>
      {put.data?.done === false ? (
        <p role="status">Asked for; what came of it is not known yet and is found out by itself.</p>
      ) : null}
      {put.isError ? <Trouble>{inWords(put.error)}</Trouble> : null}
      <Confirm
        open={asking}
        onOpen={setAsking}
        title={`Publish it on ${blog.name}?`}
        says={`Readers of ${blog.name} see it at once; it takes no slot there. ${there.size > 0 ? 'Where it stood first is named to search engines as the original.' : 'Its own steps go on as before.'}`}
        does="Publish it"
        onDo={() => put.mutate(blog.id)}
      />
    </div>
  );
}
