import {
  ArticleDocumentSchema,
  ArticleSaved,
  type ArticleWhole,
  type RevisionLine,
  Revisions as Shape,
} from '@grivo/contract';
import { type ArticleDocument, blockText, compareArticles, type WordsCompared } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Empty, Loading, Mark, Trouble } from '../design/index.ts';
import { count, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';

/** Every revision of an article beside each other: any two compared, one brought back. */
export function Revisions({ article }: { article: ArticleWhole }) {
  const all = useQuery({
    queryKey: ['article', article.id, 'revisions', article.revision],
    queryFn: () => call('GET', `/articles/${article.id}/revisions`, { answer: Shape }),
  });
  const [chosen, setChosen] = useState<{ before: string | null; after: string | null }>({ before: null, after: null });
  if (all.isPending) return <Loading rows={8} />;
  if (all.isError) return <Trouble>{inWords(all.error)}</Trouble>;
  const { revisions } = all.data;
  const after = revisions.find(({ id }) => id === chosen.after) ?? revisions[0];
  const at = revisions.findIndex(({ id }) => id === after?.id);
  // The first has none before it: it is set against the newest.
  const before =
    revisions.find(({ id }) => id === chosen.before) ?? revisions[at + 1] ?? (at > 0 ? revisions[0] : undefined);
  return (
    <div className="grid grid-cols-[252px_minmax(0,1fr)] gap-x-8 border-t border-ink pr-6 pl-8">
      <ol className="py-2" aria-label="Revisions">
        {revisions.map((one) => (
          <li key={one.id}>
            <Line
              revision={one}
              picked={one.id === after?.id}
              base={one.id === before?.id}
              onPick={() => setChosen({ before: null, after: one.id })}
              onBase={() => setChosen({ before: one.id, after: after?.id ?? null })}
            />
          </li>
        ))}
      </ol>
      {after && before ? (
        <Compared key={`${before.id} ${after.id}`} article={article} before={before} after={after} />
      ) : (
        <Empty>There is one revision so far; the next one is compared with it.</Empty>
      )}
    </div>
  );
}

/** Who or what made it, and when. */
function madeBy({ person, step }: RevisionLine): string {
  if (person) return step ? `${person}, at ‘${step}’` : person;
  return step ? `the step ‘${step}’` : 'a step that is gone';
}

function Line({
  revision,
  picked,
  base,
  onPick,
  onBase,
}: {
  revision: RevisionLine;
  picked: boolean;
  base: boolean;
  onPick: () => void;
  onBase: () => void;
}) {
  return (
    <div className={`border-b border-rule-soft py-1 text-small ${picked ? 'bg-marker-wash' : ''}`}>
      <button type="button" aria-pressed={picked} className="brackets block w-full text-left" onClick={onPick}>
        <span className="flex items-baseline gap-2">
          <Mark state={revision.on.length > 0 ? 'done' : revision.current ? 'busy' : 'plan'} />
          <span className="min-w-0 truncate">{madeBy(revision)}</span>
          <span className="fig ml-auto">{moment(new Date(revision.at).getTime(), Date.now())}</span>
        </span>
        <span className="block text-ink-3">
          {count(revision.words)} words{revision.current ? ', the newest' : ''}
          {revision.on.length > 0 ? `, on ${revision.on.join(', ')}` : ''}
        </span>
      </button>
      {picked ? null : (
        <button
          type="button"
          aria-pressed={base}
          className={`act quiet brackets min-h-6 ${base ? 'hl hl-full' : ''}`}
          onClick={onBase}
        >
          {base ? 'compared with this one' : 'compare with this one'}
        </button>
      )}
    </div>
  );
}

const revisionQuery = (article: string, id: string) => ({
  queryKey: ['revision', id],
  queryFn: () => call('GET', `/articles/${article}/revisions/${id}`, { answer: ArticleDocumentSchema }),
  // It never changes.
  staleTime: Number.POSITIVE_INFINITY,
});

function Compared({ article, before, after }: { article: ArticleWhole; before: RevisionLine; after: RevisionLine }) {
  const was = useQuery(revisionQuery(article.id, before.id));
  const is = useQuery(revisionQuery(article.id, after.id));
  if (was.isError || is.isError) return <Trouble>{inWords(was.error ?? is.error)}</Trouble>;
  if (!was.data || !is.data) return <Loading rows={10} />;
  return (
    <div className="min-w-0 py-2">
      <BringBack article={article} revision={after} document={is.data} />
      <Sheet was={was.data} is={is.data} />
    </div>
  );
}

function BringBack({
  article,
  revision,
  document,
}: {
  article: ArticleWhole;
  revision: RevisionLine;
  document: ArticleDocument;
}) {
  const back = useMutation({
    mutationFn: () =>
      call('PUT', `/articles/${article.id}/document`, {
        body: { base: article.revision, document, sitting: `b${freshKey().slice(0, 8)}` },
        answer: ArticleSaved,
      }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ['article', article.id] }),
  });
  if (revision.current) return null;
  return (
    <p className="pb-2 text-small">
      <Button
        look="line"
        anyone
        busy={back.isPending ? 'Bringing it back' : null}
        disabled={article.busy !== null}
        onClick={() => back.mutate()}
      >
        Bring this one back
      </Button>{' '}
      <span className="text-ink-3">
        {article.busy ?? 'It becomes the newest; the one that is the newest now stays in the list.'}
      </span>
      {back.isError ? <Trouble>{inWords(back.error)}</Trouble> : null}
    </p>
  );
}

/** What one says and the other does not, block beside block. */
function Sheet({ was, is }: { was: ArticleDocument; is: ArticleDocument }) {
  const found = useMemo(() => compareArticles(was, is), [was, is]);
  return (
    <>
      <p className="text-small text-ink-3" role="status">
        {found.changes === 0
          ? 'They say the same.'
          : `${plural(found.changes, 'place')} changed; what is gone is struck, what is new is underlined.`}
      </p>
      <div className="page max-w-[720px] border border-rule bg-sheet px-8 pb-8" lang={is.language}>
        <h1 className="pt-5">
          <Words words={found.title} />
        </h1>
        <p className="!text-[13px] italic text-ink-2">
          <Words words={found.description} />
        </p>
        {found.body.map(({ before, after, changed, words }) => {
          const block = after ?? before!;
          const Tag = block.type === 'heading' ? 'h2' : 'p';
          const shown =
            before && after
              ? words
              : [{ stands: after ? 'after' : 'before', text: blockText(block) || `(${block.type})` } as const];
          return (
            <Tag key={`${block.id}${after ? '' : ' gone'}`} className={changed ? 'border-l-2 border-blue pl-3' : ''}>
              <Words
                words={
                  shown.length === 0
                    ? [{ stands: 'both', text: `(${block.type}${changed ? ', changed' : ''})` }]
                    : shown
                }
              />
            </Tag>
          );
        })}
      </div>
    </>
  );
}

function Words({ words }: { words: readonly WordsCompared[] }) {
  return words.map(({ stands, text }, i) =>
    stands === 'both' ? (
      <span key={i}>{text}</span>
    ) : stands === 'before' ? (
      <del key={i} className="text-ink-3 line-through">
        {text}
      </del>
    ) : (
      <ins key={i} className="bg-blue-wash underline decoration-blue">
        {text}
      </ins>
    ),
  );
}
