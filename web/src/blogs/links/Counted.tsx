import { Clicks, type CountClicks } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { z } from 'zod';
import { call, inWords } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { ChoiceWord, Empty, Head, Trouble } from '../../design/index.ts';
import { count, plural } from '../../words/figures.ts';
import { inList } from './useLinks.ts';

const WAYS = [
  { value: 'plain', says: 'not counted', does: 'each leads straight to where it says' },
  {
    value: 'counted',
    says: 'counted when they are followed',
    does: 'each leads through this installation, which must be up for them to work; nothing is kept of who follows it',
  },
] as const;

const clicksRead = (blog: string, article: string | null) => ({
  queryKey: ['links', blog, 'clicks', article],
  queryFn: () =>
    call('GET', `/blogs/${blog}/clicks${article === null ? '' : `?article=${article}`}`, { answer: Clicks }),
  placeholderData: (before: Clicks | undefined) => before,
});

/** Whether links out of a blog are counted, and how often which was followed. */
export function Counted({ blog, name }: { blog: string; name: string }) {
  const [article, setArticle] = useState<Clicks['articles'][number] | null>(null);
  const clicks = useQuery({ ...clicksRead(blog, article?.id ?? null), refetchInterval: 15_000 });
  const put = useMutation({
    mutationFn: (body: z.infer<typeof CountClicks>) => call('PUT', `/blogs/${blog}/clicks`, { body, answer: Clicks }),
    onSuccess: (data) => {
      queryClient.setQueryData(clicksRead(blog, null).queryKey, data);
      setArticle(null);
    },
  });
  if (clicks.isError) return <Trouble>{inWords(clicks.error)}</Trouble>;
  if (!clicks.data) return null;
  const { counts, can, left, days } = clicks.data;
  const total = days.reduce((sum, { times }) => sum + times, 0);
  return (
    <section className="pt-5">
      <Head title="Links followed" right={total > 0 ? `${plural(total, 'time')} in 30 days` : ''} />
      <p className="pt-2 text-proc leading-7">
        Links that lead out of {name} are{' '}
        <ChoiceWord
          label="Whether links are counted"
          value={counts ? 'counted' : 'plain'}
          options={WAYS}
          onChoose={(way) => put.mutate({ counts: way === 'counted' })}
        />
        .
      </p>
      {put.isError ? <Trouble>{inWords(put.error)}</Trouble> : null}
      {!can && !counts ? (
        <p className="text-small text-ink-3">
          They can be counted once whoever runs Grivo has said where readers reach it (GRIVO_PUBLIC_URL).
        </p>
      ) : null}
      {left > 0 ? (
        <p role="status" className="text-small">
          {plural(left, 'post')} {left === 1 ? 'is' : 'are'} still to be brought to this. It goes on by itself; posts
          that were changed on the blog wait until you have settled that.
        </p>
      ) : null}
      {total > 0 ? (
        <>
          <Days days={days} />
          <Most clicks={clicks.data} article={article} show={setArticle} />
        </>
      ) : counts ? (
        <Empty>Nobody has followed one yet. Visits of programs are left out.</Empty>
      ) : null}
    </section>
  );
}

/** How often links were followed on each day. */
function Days({ days }: { days: Clicks['days'] }) {
  const most = Math.max(...days.map(({ times }) => times));
  const said = days.filter(({ times }) => times > 0).map(({ day, times }) => `${day}: ${times}`);
  return (
    <div className="pt-1">
      <div
        role="img"
        aria-label={`By day. ${said.join(', ')}`}
        className="flex h-12 items-end gap-0.5 border-b border-ink"
      >
        {days.map(({ day, times }) => (
          <span key={day} title={`${day}: ${plural(times, 'time')}`} className="flex h-full flex-1 items-end">
            <span
              className="w-full bg-ink-2"
              style={{ height: times === 0 ? 0 : `max(2px, ${(times / most) * 100}%)` }}
            />
          </span>
        ))}
      </div>
      <p className="fig flex justify-between text-small text-ink-3">
        <span>{days[0]!.day}</span>
        <span>at most {count(most)} a day</span>
        <span>{days.at(-1)!.day}</span>
      </p>
    </div>
  );
}

function WhereTo({ links }: Pick<Clicks, 'links'>) {
  return (
    <div>
      <Head title="Where they lead" />
      <ul>
        {links.map(({ address, times, articles: many }) => (
          <li key={address} className="flex min-h-7 items-center gap-2 border-b border-rule-soft text-small">
            <a className="act quiet brackets min-w-0 truncate" href={address} rel="noreferrer" title={address}>
              {inList(address)}
            </a>
            {many > 1 ? <span className="whitespace-nowrap text-ink-3">in {plural(many, 'article')}</span> : null}
            <span className="fig ml-auto">{count(times)}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What was followed most, and in which articles. */
function Most({
  clicks: { links, articles },
  article,
  show,
}: {
  clicks: Clicks;
  article: Clicks['articles'][number] | null;
  show: (article: Clicks['articles'][number] | null) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-8 pt-3 max-[700px]:grid-cols-1">
      <WhereTo links={links} />
      <div>
        <Head
          title="In which articles"
          right={
            article ? (
              <button type="button" className="act quiet brackets" onClick={() => show(null)}>
                show all
              </button>
            ) : (
              ''
            )
          }
        />
        <ul>
          {articles.map((one) => (
            <li key={one.id} className="flex min-h-7 items-center gap-2 border-b border-rule-soft text-small">
              <Link to={`/articles/${one.id}`} className="work brackets min-w-0 truncate">
                {one.title}
              </Link>
              {article ? null : (
                <button
                  type="button"
                  className="act quiet brackets ml-auto whitespace-nowrap"
                  aria-label={`only this: ${one.title}`}
                  onClick={() => show(one)}
                >
                  only this
                </button>
              )}
              <span className={`fig ${article ? 'ml-auto' : ''}`}>{count(one.times)}</span>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}
