import type { ArticleWhole } from '@grivo/contract';
import type { Block } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useCallback, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Key, Loading, Mark, Only, saysOf, stateOf, Trouble } from '../design/index.ts';
import { useLabel } from '../labels/label.ts';
import { AlsoHere, useAlsoHere } from '../proof/AlsoHere.tsx';
import { isKept } from '../proof/kept.ts';
import { goToBlock, Measures } from '../proof/Measures.tsx';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { money } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { ArticleActs } from './ArticleActs.tsx';
import { Decide, useHold } from './Decide.tsx';
import { useDecisions } from './decisions.ts';
import { NotTaken } from './NotTaken.tsx';
import { OnBlogs } from './OnBlogs.tsx';
import { Page } from './Page.tsx';
import { PutBack } from './PutBack.tsx';
import { Revisions } from './Revisions.tsx';
import { useReadAhead } from './readAhead.ts';
import { SaveCopy } from './SaveCopy.tsx';
import { Source } from './Source.tsx';

const ProofPage = lazy(() => import('../proof/ProofPage.tsx'));

const SHOWS = ['page', 'Markdown', 'HTML', 'revisions'] as const;
type Show = (typeof SHOWS)[number];

/** The paragraph that is looked at, walked through by keys. */
function useParagraphs(blocks: readonly Block[]) {
  const [at, setAt] = useState<string | null>(null);
  const resting = blocks.filter((block) => block.type === 'paragraph' || block.type === 'list');
  const put = (id: string | undefined) => {
    setAt(id ?? null);
    if (id) goToBlock(id);
  };
  const step = (by: number) => {
    const i = resting.findIndex((block) => block.id === at);
    put(resting[Math.max(0, Math.min(resting.length - 1, i + by))]?.id);
  };
  return { at, setAt, put, step };
}

/** The articles before and after this one: among those that wait for a person, where they are looked over. */
function useNeighbours(id: string) {
  const { label } = useLabel();
  const [search] = useSearchParams();
  const held = search.has('held');
  const beside = useQuery(read.neighbours(id, label, held ? 'held' : undefined)).data;
  const going = useDecisions((all) => all.going);
  const go = useNavigate();
  return {
    // One that a word was said on just now waits no more.
    next: [beside?.older, beside?.newer].find((one) => one && !going.includes(one)) ?? null,
    step: (by: number) => {
      const to = by > 0 ? beside?.older : beside?.newer;
      if (to) void go(`/articles/${to}${held ? '?held' : ''}`);
    },
  };
}

/** An article as the page it will be; beside every paragraph what it rests on, and its measures. */
export default function ArticlePage() {
  const { id = '' } = useParams();
  const article = useQuery(read.article(id));
  if (article.isPending)
    return (
      <div className="pt-8">
        <Loading rows={12} />
      </div>
    );
  if (!article.data) return <Trouble>{inWords(article.error)}</Trouble>;
  return <Opened key={id} article={article.data} />;
}

/** Where the shown article is read or edited. */
function Opened({ article }: { article: ArticleWhole }) {
  const { id } = article;
  const [show, setShow] = useState<Show>('page');
  const [search] = useSearchParams();
  const [editing, setEditing] = useState(() => search.has('edit') || isKept(id));
  const { at, setAt, put, step } = useParagraphs(article.document.body);
  const { next, step: stepArticle } = useNeighbours(id);
  useReadAhead(next);
  const hold = useHold(article);
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const edit = article.busy === null ? () => setEditing(true) : null;
  const nextMark = () => {
    const marks = [...new Set(article.doubts.map(({ block }) => block))];
    put(marks[(marks.indexOf(at ?? '') + 1) % Math.max(1, marks.length)]);
  };
  useViewKeys(
    editing
      ? {}
      : {
          j: () => step(1),
          k: () => step(-1),
          e: edit,
          n: nextMark,
          ']': () => stepArticle(1),
          '[': () => stepArticle(-1),
        },
  );
  const leave = useCallback(() => setEditing(false), []);
  return (
    <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,972fr)_308px] grid-rows-[1fr_auto]">
      {editing ? (
        <Suspense fallback={<Loading rows={12} />}>
          <ProofPage article={article} onLeave={leave} />
        </Suspense>
      ) : (
        <>
          <div className="min-w-0">
            <ArticleHead article={article} show={show} onShow={setShow} onEdit={edit} now={now} />
            <p className="pr-6 pl-8 text-small empty:hidden">
              <Reading id={id} at={at} body={article.document.body} onPlace={put} />
            </p>
            <Shown article={article} show={show} at={at} onAt={setAt} />
          </div>
          <Beside article={article} now={now} />
        </>
      )}
      <div className="sticky bottom-0 z-20 col-span-2">
        <NotTaken />
        {hold ? <Decide article={article} hold={hold} next={next} now={now} onDecided={leave} /> : null}
      </div>
    </div>
  );
}

/** Where it stands, how it measures, and what can be done with it. */
function Beside({ article, now }: { article: ArticleWhole; now: number }) {
  const mayPublish = useQuery(read.session()).data?.role !== 'proofreader';
  return (
    <aside className="border-l border-rule px-6 pb-8" aria-label="Measures">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls by itself, by keys too */}
      <div className="measures brackets" tabIndex={0}>
        <Only if={mayPublish}>
          <OnBlogs article={article} now={now} />
        </Only>
        <Measures measures={article.measures} doubts={article.doubts} onPlace={goToBlock} />
        <PutBack article={article} onPlace={goToBlock} />
        <Keys />
        <ArticleActs id={article.id} labels={article.labels} />
      </div>
    </aside>
  );
}

const KEYS = [
  { keys: ['J', 'K'], does: 'paragraph' },
  { keys: ['N'], does: 'next mark' },
  { keys: ['E'], does: 'edit' },
  { keys: ['[', ']'], does: 'article' },
];

function Keys() {
  return (
    <p className="flex flex-wrap gap-x-4 gap-y-1 pt-4 text-small text-ink-3">
      {KEYS.map(({ keys, does }) => (
        <span key={does}>
          {keys.map((key) => (
            <span key={key}>
              <Key>{key}</Key>{' '}
            </span>
          ))}
          {does}
        </span>
      ))}
    </p>
  );
}

function Shown({
  article,
  show,
  at,
  onAt,
}: {
  article: ArticleWhole;
  show: Show;
  at: string | null;
  onAt: (id: string | null) => void;
}) {
  if (show === 'page') return <Page article={article} at={at} onAt={onAt} />;
  if (show === 'revisions') return <Revisions article={article} />;
  return <Source article={article} as={show === 'Markdown' ? 'markdown' : 'html'} />;
}

/** How it stands, since when, what it cost, where it is, and as what it is shown. */
function ArticleHead({
  article: { id, title, standing, outDesk, dueDesk, address, micros, busy },
  show,
  onShow,
  onEdit,
  now,
}: {
  article: ArticleWhole;
  show: Show;
  onShow: (show: Show) => void;
  /** Null while it cannot be changed. */
  onEdit: (() => void) | null;
  now: number;
}) {
  const when =
    outDesk !== null
      ? `since ${moment(outDesk, now)}`
      : dueDesk !== null
        ? `goes out ${moment(dueDesk, now)}`
        : 'no slot';
  return (
    <div className="flex min-h-[33px] flex-wrap items-center gap-x-3 pr-6 pl-8 text-small text-ink-3">
      <span className="flex items-center gap-2 text-base text-ink">
        <Mark state={stateOf(standing)} /> {saysOf(standing)}
      </span>
      <span>
        {when}, {money(micros)}
      </span>
      {address ? (
        <a href={address} target="_blank" rel="noreferrer" className="act quiet brackets">
          {openWords(standing)}
        </a>
      ) : null}
      <span className="ml-auto flex items-baseline gap-4">
        {SHOWS.map((one) => (
          <button
            key={one}
            type="button"
            aria-pressed={show === one}
            className={`brackets ${show === one ? 'hl hl-full font-semibold text-ink' : ''}`}
            onClick={() => onShow(one)}
          >
            {one === 'page' ? 'Page' : one === 'revisions' ? 'Revisions' : one}
          </button>
        ))}
        <SaveCopy id={id} title={title} />
        <Button
          look="line"
          anyone
          hint="E"
          disabled={onEdit === null}
          title={busy ?? undefined}
          onClick={onEdit ?? undefined}
        >
          Edit
        </Button>
      </span>
    </div>
  );
}

/** What leads to its post; one that readers do not find yet is for whoever signs in there. */
function openWords(standing: ArticleWhole['standing']): string {
  if (standing === 'draft') return 'Open the draft, for the owner of the blog';
  return standing === 'ready' ? 'Open it there, for the owner of the blog' : 'Open it on the blog';
}

/** Who else has it open, while it is only read here. */
function Reading({
  id,
  at,
  body,
  onPlace,
}: {
  id: string;
  at: string | null;
  body: ArticleWhole['document']['body'];
  onPlace: (block: string) => void;
}) {
  return <AlsoHere others={useAlsoHere(id, at, false)} body={body} onPlace={onPlace} />;
}
