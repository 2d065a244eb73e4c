import { type ArticleWhole, OutsideShown, PublicationActed, type PublicationLine } from '@grivo/contract';
import type { OutsideChoice } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { call, inWords } from '../../api/call.ts';
import { freshKey } from '../../api/fresh.ts';
import { queryClient, read } from '../../api/queries.ts';
import { ActionBar, Button, Empty, Key, Loading, Mark, Trouble } from '../../design/index.ts';
import { useViewKeys } from '../../shell/keys.ts';
import { plural } from '../../words/figures.ts';
import { moment } from '../../words/time.ts';
import { ActLine } from './ActLine.tsx';
import { chosenWords, placesOf, useChoices } from './choices.ts';
import { PlaceRow, SameRow, TitleRow } from './PlaceRow.tsx';

/** What somebody changed on a blog beside what was sent, settled place by place. */
export default function OutsidePage() {
  const { id = '', publication = '' } = useParams();
  const article = useQuery(read.article(id));
  const path = `/articles/${id}/publications/${publication}/outside`;
  const shown = useQuery({
    queryKey: ['outside', publication],
    queryFn: () => call('GET', path, { answer: OutsideShown }),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
    retry: false,
  });
  const line = article.data?.publications.find((one) => one.id === publication);
  if (article.isError || shown.isError) return <Trouble>{inWords(article.error ?? shown.error)}</Trouble>;
  if (!article.data || !shown.data) return <Loading rows={10} />;
  if (!line) return <Trouble>This article is on no such blog.</Trouble>;
  const again = () => void shown.refetch();
  return (
    <div className="-mx-8 flex flex-1 flex-col">
      <Top article={article.data} line={line} busy={shown.isFetching} onAgain={again} />
      <ActLine acts={shown.data.acts} />
      {shown.data.kind === 'changed' ? (
        <Places
          key={shown.data.digest}
          article={article.data}
          line={line}
          shown={shown.data}
          path={path}
          onAgain={again}
        />
      ) : (
        <Otherwise article={article.data} line={line} shown={shown.data} path={path} />
      )}
    </div>
  );
}

interface Opened {
  article: ArticleWhole;
  line: PublicationLine;
}

function Top({ article, line, busy, onAgain }: Opened & { busy: boolean; onAgain: () => void }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 border-b border-ink px-8 py-3">
      <h1 className="min-w-0 truncate text-title font-semibold tracking-[-0.018em]">{article.title}</h1>
      <span className="flex items-center gap-2 text-small text-ink-2">
        <Mark state={line.outside ? 'wait' : 'done'} />
        {line.outside
          ? `${line.outside.kind === 'gone' ? 'removed' : 'changed'} on ${line.blogName} itself, seen ${moment(new Date(line.outside.at).getTime(), Date.now())}; the blog does not say by whom`
          : `on ${line.blogName} as it was sent`}
      </span>
      <span className="ml-auto flex items-center gap-4">
        {line.address ? (
          <a href={line.address} target="_blank" rel="noreferrer" className="act quiet brackets text-small">
            On the blog
          </a>
        ) : null}
        <Link to={`/articles/${article.id}`} className="act quiet brackets text-small">
          The article
        </Link>
        <Button look="line" busy={busy ? 'Looking' : null} onClick={onAgain}>
          Look again now
        </Button>
      </span>
    </div>
  );
}

/** Does what was chosen, and leads back to the article. */
function useSettle({ article, path }: Pick<Opened, 'article'> & { path: string }) {
  const go = useNavigate();
  return useMutation({
    mutationFn: (body: { digest: string; title: string; choices: (string | null)[] }) =>
      call('POST', path, { body, answer: PublicationActed, key: freshKey() }),
    onSuccess: () => go(`/articles/${article.id}`),
    onSettled: () => {
      for (const key of [['article', article.id], ['articles'], ['today'], ['blog outside']])
        void queryClient.invalidateQueries({ queryKey: key });
    },
  });
}

function Places({
  article,
  line,
  shown,
  path,
  onAgain,
}: Opened & { shown: OutsideShown; path: string; onAgain: () => void }) {
  const places = placesOf(shown);
  const choices = useChoices(places, shown);
  const { chosen, at, setAt, choose } = choices;
  const settle = useSettle({ article, path });
  const send = () => {
    const inText = chosen.filter((_, i) => places[i]!.kind === 'text');
    const title = places[0]?.kind === 'title' && chosen[0] === 'theirs' ? 'theirs' : 'ours';
    settle.mutate({ digest: shown.digest, title, choices: inText });
  };
  const of = (n: number) => ({
    here: at === n,
    chosen: chosen[n] ?? null,
    onChoose: (one: OutsideChoice) => choose(n, one),
    onHere: () => setAt(n),
  });
  const rowOf = (place: number) => places.findIndex((one) => one.kind === 'text' && one.at === place);
  return (
    <>
      <Sides n={places.length} />
      <div className="flex-1 bg-sheet">
        {shown.title ? <TitleRow title={shown.title} {...of(0)} /> : null}
        {shown.places.map((place, i) =>
          place.changed ? (
            <PlaceRow key={i} place={place} {...of(rowOf(i))} />
          ) : (
            <SameRow key={i} blocks={place.blocks} document={shown.document} />
          ),
        )}
      </div>
      {settle.isError ? (
        <div className="px-8">
          <Trouble>
            {inWords(settle.error)}{' '}
            <Button look="word" onClick={onAgain}>
              Look again
            </Button>
          </Trouble>
        </div>
      ) : null}
      <SettleBar blog={line.blogName} newer={shown.newer} choices={choices} busy={settle.isPending} onSend={send} />
    </>
  );
}

function Sides({ n }: { n: number }) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_184px] border-b border-ink text-small">
      <p className="px-6 py-2">
        <strong>Ours</strong> <span className="text-ink-3">as it was sent</span>
      </p>
      <p className="px-6 py-2">
        <strong>On the blog</strong> <span className="text-ink-3">{plural(n, 'place')} changed</span>
      </p>
      <p className="border-l border-rule px-4 py-2 font-semibold">For each place</p>
    </div>
  );
}

/** What can be done with what is chosen, and the keys for it. */
function SettleBar({
  blog,
  newer,
  choices: { chosen, at, step, choose, all, back, isWhole },
  busy,
  onSend,
}: {
  blog: string;
  newer: boolean;
  choices: ReturnType<typeof useChoices>;
  busy: boolean;
  onSend: () => void;
}) {
  const ready = isWhole && !busy;
  useViewKeys({
    j: () => step(1),
    k: () => step(-1),
    t: () => choose(at, 'theirs'),
    o: () => choose(at, 'ours'),
    b: () => choose(at, 'both'),
    a: () => all('theirs'),
    r: () => all('ours'),
    z: back,
    'Ctrl+Enter': ready ? onSend : null,
  });
  const nothingSent = chosen.every((one) => one === 'theirs') && !newer;
  return (
    <div className="px-8">
      <ActionBar keys={<BarKeys />}>
        <Button look="solid" hint="Ctrl Enter" disabled={!ready} busy={busy ? 'Settling it' : null} onClick={onSend}>
          {nothingSent ? 'Take it into ours' : `Send it to ${blog}`}
        </Button>
        <Button look="line" hint="A" onClick={() => all('theirs')}>
          Take all theirs
        </Button>
        <Button look="line" hint="R" onClick={() => all('ours')}>
          Put all ours back
        </Button>
        <span className="text-small text-ink-3" role="status">
          {chosenWords(chosen)}.{newer ? ' What was changed here since goes out with it.' : ''} Both texts are kept.
        </span>
      </ActionBar>
    </div>
  );
}

function BarKeys() {
  return (
    <>
      <span>
        <Key>J</Key> <Key>K</Key> place
      </span>
      <span>
        <Key>Z</Key> take back
      </span>
    </>
  );
}

/** A post that is gone, or is as it was sent. */
function Otherwise({ article, line, shown, path }: Opened & { shown: OutsideShown; path: string }) {
  const settle = useSettle({ article, path });
  if (shown.kind === 'same')
    return (
      <div className="px-8 py-4">
        <Empty
          next={
            <Link to={`/articles/${article.id}`} className="act quiet">
              Back to the article
            </Link>
          }
        >
          {line.blogName} shows it as it was sent. Nothing is to be settled.
        </Empty>
      </div>
    );
  return (
    <div className="max-w-[640px] px-8 py-5">
      <p>
        There is no post at its address any more: somebody removed it on {line.blogName} itself. It is not made again by
        itself.
      </p>
      <p className="flex flex-wrap gap-x-4 pt-4">
        <Button
          look="solid"
          busy={settle.isPending ? 'Settling it' : null}
          onClick={() => settle.mutate({ digest: shown.digest, title: 'ours', choices: [] })}
        >
          It stays removed
        </Button>
        <span className="self-center text-small text-ink-3">
          It counts as taken back then; on the article’s page it can be published there again, at another address.
        </span>
      </p>
      {settle.isError ? <Trouble>{inWords(settle.error)}</Trouble> : null}
    </div>
  );
}
