import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { inWords } from '../../api/call.ts';
import { read } from '../../api/queries.ts';
import { ActionBar, Empty, Key, Loading, Mark, saysOf, stateOf, Trouble, usePicked } from '../../design/index.ts';
import { useLabel } from '../../labels/label.ts';
import { NoneCarries } from '../../labels/NoneCarries.tsx';
import { ArticleTabs } from '../../pictures/ArticleTabs.tsx';
import { useViewKeys } from '../../shell/keys.ts';
import { useNow } from '../../shell/useNow.ts';
import { count, counted } from '../../words/figures.ts';
import { NotTaken } from '../NotTaken.tsx';
import { Columns } from './Columns.tsx';
import { grouped } from './grouped.ts';
import { KeptLists } from './KeptLists.tsx';
import { ManyBar, WhatCame } from './ManyBar.tsx';
import { COLUMNS } from './Measured.tsx';
import { FindWords, Narrowed } from './Narrowed.tsx';
import { placeOf } from './place.ts';
import { useMany } from './useMany.ts';
import { WriteOne } from './WriteOne.tsx';
import { useWanted, type Wanted } from './wanted.ts';

/** So many can be picked at once by a key; more would be acted on unseen. */
const MOST_PICKED = 2_000;

/** The list as it is narrowed, as far as it was read. */
function useList(wanted: Wanted) {
  const pages = useInfiniteQuery(read.articles(wanted.asked));
  const { data, hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  const articles = useMemo(() => {
    // One that went from one section to another while pages were read may stand on two of them.
    const once = new Map((data?.pages ?? []).flatMap((page) => page.articles).map((one) => [one.id, one]));
    return [...once.values()];
  }, [data]);
  const bySection = !wanted.asked.includes('order=fit');
  const lines = useMemo(() => grouped(articles, !hasNextPage, bySection), [articles, hasNextPage, bySection]);
  const more = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  return { pages, articles, lines, more };
}

/** Every article, what comes first and then week by week; two columns like a newspaper, one when narrow. */
export default function Articles() {
  const wanted = useWanted();
  const { pages, articles, lines, more } = useList(wanted);
  const blogs = useQuery(read.blogs()).data?.blogs;
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const many = useMany();
  const picks = usePicked(articles);
  const { none } = picks;
  // What is picked is what is seen: another list begins with nothing picked.
  // biome-ignore lint/correctness/useExhaustiveDependencies: told by the list that is asked for
  useEffect(() => none(), [wanted.asked]);
  const chosen = useMemo(() => articles.filter(({ id }) => picks.picked.has(id)), [articles, picks.picked]);
  const shown = useQuery(read.articlesCounted(wanted.counted)).data?.shown ?? articles.length;
  const all = useAll(pages, articles.length < MOST_PICKED ? picks.pick : null);
  const at = useRowKeys(articles, picks.toggle, all);
  const short = useCallback((id: string | null) => shortName(blogs?.find((one) => one.id === id)?.name ?? ''), [blogs]);
  if (pages.isPending) return <ListLoading />;
  if (!pages.data) return <Trouble>{inWords(pages.error)}</Trouble>;
  return (
    <>
      <ListHead wanted={wanted} n={articles.length} />
      <Narrowed wanted={wanted} blogs={blogs ?? []}>
        <KeptLists wanted={wanted} />
      </Narrowed>
      <NotTaken />
      <WhatCame many={many} />
      <div className="-mx-8 min-h-0 flex-1 border-t border-ink">
        {articles.length === 0 ? (
          <div className="px-8">{wanted.narrowed ? <Empty>No article fits this.</Empty> : <None />}</div>
        ) : (
          <Columns
            lines={lines}
            at={articles[at]?.id ?? null}
            picked={picks.picked}
            onPick={picks.toggle}
            onEnd={more}
            place={wanted.asked}
            short={short}
            now={Math.floor(now / 600_000) * 600_000}
          />
        )}
      </div>
      {chosen.length > 0 || many.going ? (
        <ManyBar
          picked={chosen}
          more={Math.max(0, Math.min(shown, MOST_PICKED) - chosen.length)}
          many={many}
          onAll={all}
          onNone={none}
        />
      ) : (
        <Bar />
      )}
    </>
  );
}

const ListLoading = () => (
  <div className="pt-8">
    <Loading rows={14} />
  </div>
);

/** Reads the list to its end, as far as can be picked at once, and picks all of it. */
function useAll(
  pages: ReturnType<typeof useList>['pages'],
  pick: ((ids: ReadonlySet<string>) => void) | null,
): () => void {
  const { fetchNextPage } = pages;
  return useCallback(() => {
    void (async () => {
      let read = pages.data?.pages ?? [];
      const n = () => read.reduce((sum, page) => sum + page.articles.length, 0);
      while (read.at(-1)?.next && n() < MOST_PICKED) {
        const next = await fetchNextPage();
        if (!next.data || next.isError) return;
        read = next.data.pages;
      }
      pick?.(new Set(read.flatMap((page) => page.articles.map(({ id }) => id)).slice(0, MOST_PICKED)));
    })();
  }, [pages.data, fetchNextPage, pick]);
}

/** The row the keys are at; it is there again when one comes back to the same list. */
function useRowKeys(
  articles: ReturnType<typeof useList>['articles'],
  toggle: (id: string, range: boolean) => void,
  all: () => void,
): number {
  const { asked } = useWanted();
  const [at, setAt] = useState(() => placeOf(asked).row);
  const go = useNavigate();
  const put = (n: number) => setAt(Math.max(0, Math.min(articles.length - 1, n)));
  // biome-ignore lint/correctness/useExhaustiveDependencies: another list has a place of its own
  useEffect(() => setAt(placeOf(asked).row), [asked]);
  useEffect(() => {
    placeOf(asked).row = at;
  }, [asked, at]);
  const here = articles[at];
  useViewKeys({
    j: () => put(at + 1),
    k: () => put(at - 1),
    ' ': here ? () => toggle(here.id, false) : null,
    a: articles.length > 0 ? all : null,
    Enter: here ? () => void go(`/articles/${here.id}`) : null,
  });
  return at;
}

/** How many are shown, the words by which something is found, and what is to be done next. */
function ListHead({ wanted, n }: { wanted: Wanted; n: number }) {
  const numbers = useQuery(read.articlesCounted(wanted.counted)).data;
  const blogs = useQuery(read.blogs()).data?.blogs ?? [];
  return (
    <div className="flex h-[52px] items-center gap-4 pt-2">
      <h1 className="text-title font-semibold tracking-[-0.018em]">Articles</h1>
      <ArticleTabs at="list" />
      <span className="whitespace-nowrap text-ink-3">
        {numbers ? `${counted(numbers.shown)} shown of ${counted(numbers.all)}` : `${count(n)} shown`}
      </span>
      <FindWords wanted={wanted} />
      <WriteOne blogs={blogs} />
      <LookOver n={numbers?.held ?? 0} />
    </div>
  );
}

/** Leads to the first of those that wait for a person; the others follow by one key each. */
function LookOver({ n }: { n: number }) {
  const { label } = useLabel();
  const first = useQuery({
    ...read.someArticles(`standing=held${label === null ? '' : `&label=${label}`}`, 1),
    enabled: n > 0,
  }).data?.articles[0];
  const go = useNavigate();
  const open = first ? () => void go(`/articles/${first.id}?held`) : null;
  useViewKeys({ l: n > 0 ? open : null });
  if (!first || n === 0) return null;
  return (
    <Link to={`/articles/${first.id}?held`} className="btn line brackets whitespace-nowrap">
      Look over {n === 1 ? 'the one waiting' : `the ${count(n)} waiting`} <Key>L</Key>
    </Link>
  );
}

function None() {
  return (
    <NoneCarries what="article">
      <Empty
        next={
          <Link to="/pipelines" className="act quiet">
            See the pipelines
          </Link>
        }
      >
        No article yet.
      </Empty>
    </NoneCarries>
  );
}

function Bar() {
  return (
    <ActionBar
      keys={
        <>
          <span>
            <Key>J</Key> <Key>K</Key> row
          </span>
          <span>
            <Key>Space</Key> pick
          </span>
          <span>
            <Key>Enter</Key> open
          </span>
          <span>
            <Key>F</Key> find
          </span>
        </>
      }
    >
      <span className="flex flex-col text-small leading-5">
        <span className="flex gap-4 text-ink-2">
          {(['ready', 'draft', 'in work', 'held', 'stopped'] as const).map((name) => (
            <span key={name} className="flex items-center gap-1.5 whitespace-nowrap">
              <Mark state={stateOf(name)} /> {name === 'ready' ? 'ready or out' : saysOf(name)}
            </span>
          ))}
        </span>
        <span className="flex gap-3 text-ink-3">
          <span className="whitespace-nowrap">Under or over its range:</span>
          {COLUMNS.map(({ letter, name }) => (
            <span key={letter} className="whitespace-nowrap">
              <b className="font-semibold text-ink">{letter}</b> {name.toLowerCase()}
            </span>
          ))}
        </span>
      </span>
    </ActionBar>
  );
}

/** A blog's name, or the word of it that fits beside a title. */
function shortName(name: string): string {
  return name.length <= 11 ? name : (name.split(' ').find((word) => word.length <= 9) ?? name);
}
