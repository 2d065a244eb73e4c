import type { Article, Blog } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { ActionBar, ChoiceWord, Empty, Key, Loading, Mark, saysOf, stateOf, Trouble } from '../design/index.ts';
import { useLabel } from '../labels/label.ts';
import { NoneCarries } from '../labels/NoneCarries.tsx';
import { ArticleTabs } from '../pictures/ArticleTabs.tsx';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { count, plural } from '../words/figures.ts';
import { dayLong } from '../words/time.ts';
import { Columns, type Line } from './Columns.tsx';
import { WriteOne } from './WriteOne.tsx';

const STANDINGS = [
  { value: '', says: 'any state', does: 'everything but what is set aside' },
  { value: 'ready', says: 'ready', does: 'finished, waits for its slot' },
  { value: 'draft', says: 'draft on the blog', does: 'put there, and no reader sees it' },
  { value: 'out', says: 'out', does: 'readers see it' },
  { value: 'held', says: 'waits for you', does: 'to be looked over' },
  { value: 'in work', says: 'in work', does: 'being made' },
  { value: 'withdrawn', says: 'taken back', does: 'was on the blog, and is not any more' },
  { value: 'set aside', says: 'set aside', does: 'ended on purpose' },
];

/** Which articles are shown. */
function useShownArticles() {
  const { label } = useLabel();
  const articles = useQuery(read.articles(label));
  const [blog, setBlog] = useState('');
  const [standing, setStanding] = useState('');
  const [q, setQ] = useState('');
  const shown = useMemo(() => {
    const words = q.trim().toLowerCase();
    return (articles.data ?? []).filter(
      (article) =>
        (standing === '' ? article.standing !== 'set aside' : article.standing === standing) &&
        (blog === '' || article.blog === blog) &&
        article.title.toLowerCase().includes(words),
    );
  }, [articles.data, blog, standing, q]);
  return { articles, shown, blog, setBlog, standing, setStanding, q, setQ };
}

type ShownArticles = ReturnType<typeof useShownArticles>;

/** Every article, what comes first and then week by week; two columns like a newspaper, one when narrow. */
export default function Articles() {
  const list = useShownArticles();
  const { articles, shown } = list;
  const blogs = useQuery(read.blogs()).data?.blogs;
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const [at, setAt] = useState(0);
  const go = useNavigate();
  const lines = useMemo(() => grouped(shown), [shown]);
  const rows = lines.filter((line) => line.kind === 'article');
  const put = (n: number) => setAt(Math.max(0, Math.min(rows.length - 1, n)));
  useViewKeys({
    j: () => put(at + 1),
    k: () => put(at - 1),
    Enter: rows[at] ? () => void go(`/articles/${rows[at]!.article.id}`) : null,
  });
  const short = useCallback((id: string | null) => shortName(blogs?.find((one) => one.id === id)?.name ?? ''), [blogs]);
  if (articles.isPending)
    return (
      <div className="pt-8">
        <Loading rows={14} />
      </div>
    );
  if (!articles.data) return <Trouble>{inWords(articles.error)}</Trouble>;
  return (
    <>
      <Shown list={list} blogs={blogs ?? []} of={articles.data.length} />
      <div className="-mx-8 flex-1 border-t border-ink">
        {shown.length === 0 ? (
          <div className="px-8">{articles.data.length === 0 ? <None /> : <Empty>No article fits this.</Empty>}</div>
        ) : (
          <Columns
            lines={lines}
            at={rows[at]?.article.id ?? null}
            short={short}
            now={Math.floor(now / 600_000) * 600_000}
          />
        )}
      </div>
      <Bar />
    </>
  );
}

/** How many are shown, and the words by which. */
function Shown({ list, blogs, of }: { list: ShownArticles; blogs: readonly Blog[]; of: number }) {
  const { shown, blog, setBlog, standing, setStanding, q, setQ } = list;
  return (
    <>
      <div className="flex h-[52px] items-center gap-4 pt-2">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Articles</h1>
        <ArticleTabs at="list" />
        <span className="text-ink-3">
          {count(shown.length)} shown of {count(of)}
        </span>
        <LookOver articles={list.articles.data ?? []} />
        <WriteOne blogs={blogs} />
        <input
          className="field ml-auto !w-56"
          placeholder="Find a title…"
          aria-label="Titles with"
          value={q}
          onChange={(event) => setQ(event.target.value)}
        />
      </div>
      <p className="h-10 py-2 text-proc">
        Show{' '}
        <ChoiceWord
          label="Blogs"
          value={blog}
          options={[
            { value: '', says: 'all blogs', does: plural(blogs.length, 'blog') },
            ...blogs.map(({ id, name, out }) => ({ value: id, says: name, does: `${count(out)} out` })),
          ]}
          onChoose={setBlog}
        />
        , <ChoiceWord label="Standing" value={standing} options={STANDINGS} onChoose={setStanding} />.
      </p>
    </>
  );
}

/** Leads to the first of those that wait for a person; the others follow by one key each. */
function LookOver({ articles }: { articles: readonly Article[] }) {
  const held = articles.filter(({ standing }) => standing === 'held');
  const [first] = held.toSorted((a, b) => (a.id < b.id ? 1 : -1));
  if (!first) return null;
  return (
    <Link to={`/articles/${first.id}?held`} className="act brackets">
      {held.length === 1
        ? 'Look over the one that waits for you'
        : `Look over the ${count(held.length)} that wait for you`}
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
            <Key>Enter</Key> open
          </span>
        </>
      }
    >
      <span className="flex gap-5 text-small text-ink-2">
        {(['ready', 'draft', 'in work', 'held', 'stopped', 'set aside'] as const).map((name) => (
          <span key={name} className="flex items-center gap-2">
            <Mark state={stateOf(name)} /> {name === 'ready' ? 'ready or out' : saysOf(name)}
          </span>
        ))}
      </span>
    </ActionBar>
  );
}

/** A blog's name, or the word of it that fits beside a title. */
function shortName(name: string): string {
  return name.length <= 11 ? name : (name.split(' ').find((word) => word.length <= 9) ?? name);
}

/** What comes first, by its slot; then what went out, week by week. */
function grouped(articles: readonly Article[]): Line[] {
  const drafts = articles.filter((article) => article.standing === 'draft');
  const out = articles
    .filter((article) => article.outDesk !== null && article.standing !== 'draft')
    .sort((a, b) => b.outDesk! - a.outDesk!);
  const coming = articles
    .filter((article) => article.outDesk === null && article.standing !== 'draft')
    .sort((a, b) => (a.dueDesk ?? Number.MAX_SAFE_INTEGER) - (b.dueDesk ?? Number.MAX_SAFE_INTEGER));
  const lines: Line[] = [];
  const section = (says: string, own: readonly Article[]) => {
    if (own.length === 0) return;
    lines.push({ kind: 'head', says, n: own.length });
    for (const article of own) lines.push({ kind: 'article', article });
  };
  section('Coming', coming);
  section('Drafts on blogs, which no reader sees', drafts);
  const weeks = new Map<number, Article[]>();
  for (const article of out) {
    const monday = weekOf(article.outDesk!);
    weeks.set(monday, [...(weeks.get(monday) ?? []), article]);
  }
  for (const [monday, own] of weeks) section(`Out, week of ${dayLong(monday).split(' ').slice(1).join(' ')}`, own);
  return lines;
}

function weekOf(ms: number): number {
  const date = new Date(ms);
  date.setHours(0, 0, 0, 0);
  date.setDate(date.getDate() - ((date.getDay() + 6) % 7));
  return date.getTime();
}
