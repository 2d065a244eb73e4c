import { ArticleSaved, type ArticleWhole } from '@grivo/contract';
import { putBack } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Head, Trouble } from '../design/index.ts';
import { plural } from '../words/figures.ts';

const MOST_SHOWN = 12;

/** What rules of the house replaced in an article, and all of it as it was before at one press. */
export function PutBack({ article, onPlace }: { article: ArticleWhole; onPlace: (block: string) => void }) {
  const [stayed, setStayed] = useState(0);
  const back = useMutation({
    mutationFn: async () => {
      const done = putBack(article.document);
      await call('PUT', `/articles/${article.id}/document`, {
        body: { base: article.revision, document: done.document, sitting: `u${freshKey().slice(0, 8)}` },
        answer: ArticleSaved,
      });
      return done.stayed;
    },
    onSuccess: (left) => {
      setStayed(left);
      void queryClient.invalidateQueries({ queryKey: ['article', article.id] });
    },
  });
  const there = new Set(article.document.body.map(({ id }) => id));
  const replaced = (article.document.replaced ?? []).filter(({ block }) => there.has(block));
  if (replaced.length === 0)
    return back.isSuccess ? (
      <p role="status" className="pt-5 text-small text-ink-3">
        Put back as it was written
        {stayed === 0
          ? ''
          : `; ${plural(stayed, 'place')} had been changed since and ${stayed === 1 ? 'stays' : 'stay'}`}
        . The revision before is kept.
      </p>
    ) : null;
  return (
    <div className="pt-5">
      <Head title="Replaced by rules" right={plural(replaced.length, 'place')} />
      <ul className="text-small">
        {replaced.slice(0, MOST_SHOWN).map(({ block, from, to }, i) => (
          <li key={`${i} ${block}`}>
            <button type="button" className="brackets block min-h-6 text-left" onClick={() => onPlace(block)}>
              <s className="text-ink-3">{from.trim()}</s> {to === '' ? 'left out' : to}
            </button>
          </li>
        ))}
      </ul>
      <p className="flex flex-wrap items-baseline gap-x-3 pt-1 text-small">
        {replaced.length > MOST_SHOWN ? (
          <span className="text-ink-3">and {replaced.length - MOST_SHOWN} more</span>
        ) : null}
        <Button
          look="quiet"
          busy={back.isPending ? 'Putting it back' : null}
          disabled={article.busy !== null}
          onClick={() => back.mutate()}
        >
          Put {replaced.length === 1 ? 'it' : 'all'} back
        </Button>
      </p>
      {back.isError ? <Trouble>{inWords(back.error)}</Trouble> : null}
    </div>
  );
}
