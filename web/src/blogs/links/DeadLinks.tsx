import type { DeadLinkLine, MendedLinks } from '@grivo/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { inWords } from '../../api/call.ts';
import { Button, Confirm, DoneHere, Empty, Head, LinesOnce, Mark, Trouble, Word } from '../../design/index.ts';
import { count, plural } from '../../words/figures.ts';
import { moment } from '../../words/time.ts';
import { addressProblem } from './RuleSentence.tsx';
import { inList, mendedInWords, shortAddress, useMend } from './useLinks.ts';

type Mend = { from: string; to: string | null };

/** Links that lead nowhere, what would take their place, and in how many articles; mended one by one or all at once. */
export function DeadLinks({ blog, dead, now }: { blog: string; dead: readonly DeadLinkLine[]; now: number }) {
  const mend = useMend(blog);
  const [chosen, setChosen] = useState<Record<string, string>>({});
  const [asking, setAsking] = useState<Mend[] | null>(null);
  const toOf = ({ address, replacement }: DeadLinkLine): string | null =>
    chosen[address] ?? replacement?.address ?? null;
  const all = dead.map((one) => ({ from: one.address, to: toOf(one) }));
  const sure = all.filter(({ to }) => to !== null);
  const articles = new Set(dead.filter((one) => toOf(one) !== null).flatMap((one) => one.articles.map(({ id }) => id)));
  return (
    <section>
      <Head title="Dead links" right={dead.length > 0 ? 'what would replace them, in how many articles' : ''} />
      {dead.length === 0 ? <Empty>No link of a live article is known to be dead.</Empty> : null}
      <ul>
        {dead.map((one) => (
          <DeadLine
            key={one.address}
            one={one}
            now={now}
            to={toOf(one)}
            choose={(to) => setChosen((before) => ({ ...before, [one.address]: to }))}
            busy={mend.isPending}
            onMend={(to) =>
              to === null ? setAsking([{ from: one.address, to }]) : mend.mutate([{ from: one.address, to }])
            }
          />
        ))}
      </ul>
      {sure.length > 1 ? (
        <p className="flex flex-wrap items-baseline gap-3 pt-3">
          <Button look="solid" busy={mend.isPending ? 'Mending' : null} onClick={() => setAsking(sure)}>
            Mend all {count(sure.length)} in {plural(articles.size, 'article')}
          </Button>
          <span className="text-small text-ink-3">Their posts are brought up to date, at no cost.</span>
        </p>
      ) : null}
      {mend.isError ? <Trouble>{inWords(mend.error)}</Trouble> : null}
      {mend.data ? <MendedSaid mended={mend.data} /> : null}
      <Confirm
        open={asking !== null}
        onOpen={(open) => !open && setAsking(null)}
        title={asking?.length === 1 ? 'Take this link off?' : `Mend ${plural(asking?.length ?? 0, 'link')}?`}
        says={
          asking?.length === 1
            ? 'Its words stay in the articles. Each article keeps the revision it has now, so that the link can be brought back there.'
            : 'Every article that has one of them is changed, and its post brought up to date. Each keeps the revision it has now.'
        }
        does={asking?.length === 1 ? 'Take it off' : 'Mend them'}
        onDo={() => asking && mend.mutate(asking)}
      />
    </section>
  );
}

/** What became of articles that were changed at once. */
export function MendedSaid({ mended }: { mended: MendedLinks }) {
  return (
    <>
      <DoneHere>{mendedInWords(mended)}</DoneHere>
      {mended.left.map(({ article, title, why }) => (
        <p key={article} className="wrong text-small">
          <Link to={`/articles/${article}`} className="act brackets">
            {title}
          </Link>
          : {why}.
        </p>
      ))}
    </>
  );
}

function DeadLine({
  one,
  now,
  to,
  choose,
  busy,
  onMend,
}: {
  one: DeadLinkLine;
  now: number;
  to: string | null;
  choose: (to: string) => void;
  busy: boolean;
  onMend: (to: string | null) => void;
}) {
  const { reason, since, articles, replacement } = one;
  const [open, setOpen] = useState(false);
  return (
    <li className="border-b border-rule-soft py-2 text-small">
      <Where one={one} open={open} onOpen={setOpen} />
      <p className="pl-6 text-red">
        {reason}, since {moment(new Date(since).getTime(), now)}
      </p>
      <p className="flex flex-wrap items-baseline gap-x-3 pt-1 pl-6">
        <span className="min-w-0 break-all">
          <Word
            label="What takes its place"
            editor={(close) => (
              <LinesOnce
                label="What takes its place"
                rows={3}
                value={to ?? ''}
                problemOf={addressProblem}
                onPut={choose}
                close={close}
              />
            )}
          >
            {to === null ? 'nothing found; choose an address' : inList(to)}
          </Word>
        </span>
        {to !== null && to === replacement?.address ? <span className="text-ink-3">{replacement.why}</span> : null}
        <span className="ml-auto flex gap-3">
          {to !== null ? (
            <button type="button" className="act brackets" disabled={busy} onClick={() => onMend(to)}>
              Mend
            </button>
          ) : null}
          <button type="button" className="act quiet brackets" disabled={busy} onClick={() => onMend(null)}>
            Take it off
          </button>
        </span>
      </p>
      {open ? <InArticles articles={articles} /> : null}
    </li>
  );
}

/** Where it leads, and in how many articles it stands. */
function Where({ one, open, onOpen }: { one: DeadLinkLine; open: boolean; onOpen: (open: boolean) => void }) {
  const { address, articles } = one;
  return (
    <div className="flex items-baseline gap-2">
      <Mark state={one.state === 'moved' ? 'wait' : 'stop'} />
      <span className="fig min-w-0 flex-1 break-all" title={address}>
        {inList(address)}
      </span>
      <button
        type="button"
        className="act quiet brackets whitespace-nowrap"
        aria-expanded={open}
        aria-label={`in ${plural(articles.length, 'article')}: ${shortAddress(address)}`}
        onClick={() => onOpen(!open)}
      >
        in {plural(articles.length, 'article')}
      </button>
    </div>
  );
}

function InArticles({ articles }: { articles: DeadLinkLine['articles'] }) {
  return (
    <ul className="pt-1 pl-6">
      {articles.map(({ id, title, anchor }) => (
        <li key={id} className="flex min-h-7 items-center gap-2">
          <Link to={`/articles/${id}`} className="work brackets truncate">
            {title}
          </Link>
          {anchor ? <span className="truncate text-ink-3">on “{anchor}”</span> : null}
        </li>
      ))}
    </ul>
  );
}
