import type { Slots, Today } from '@grivo/contract';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Empty, Head, Loading, Mark, saysOf, stateOf, Trouble } from '../design/index.ts';
import { useLabel } from '../labels/label.ts';
import { useNow } from '../shell/useNow.ts';
import { amount, count, plural } from '../words/figures.ts';
import { slotKey } from '../words/slots.ts';
import { clock, dayLong, sameDay, span } from '../words/time.ts';
import { CostRuler, CoverChart } from './Charts.tsx';
import { Needs } from './Needs.tsx';

/** Only a beginner needs it, and it brings the steps to begin with. */
const FirstRun = lazy(() => import('./FirstRun.tsx').then(({ FirstRun }) => ({ default: FirstRun })));

const DAY = 86_400_000;

/** What went out, what comes, what needs you. Before anything was set up: the first steps. */
export function TodayPage() {
  const { label } = useLabel();
  const today = useQuery(read.today(label));
  const slots = useQuery(read.slots(null, 14, label));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? today.data?.now ?? Date.now();
  if (today.isPending)
    return (
      <div className="pt-8">
        <Loading rows={8} />
      </div>
    );
  if (!today.data) return <Trouble>{inWords(today.error)}</Trouble>;
  const { begun, needs } = today.data;
  const begins = begun.blogs === 0 || begun.writers === 0 || begun.sources === 0 || begun.pipelines === 0;
  if (begun.out === 0 && begins)
    return (
      <>
        {needs.length > 0 ? (
          <section className="max-w-[640px] pt-5">
            <Head title="Needs you" right={plural(needs.length, 'thing')} />
            <Needs needs={needs} />
          </section>
        ) : null}
        <Suspense fallback={<Loading rows={8} />}>
          <FirstRun begun={begun} />
        </Suspense>
      </>
    );
  return (
    <>
      <Lead today={today.data} slots={slots.data} now={now} />
      <div className="grid gap-y-6 max-[1100px]:grid-cols-1 min-[1101px]:grid-cols-[464fr_384fr_368fr]">
        <section className="min-[1101px]:pr-6">
          <Head title="Needs you" right={plural(today.data.needs.length, 'thing')} />
          <Needs needs={today.data.needs} />
        </section>
        <section className="border-rule min-[1101px]:border-l min-[1101px]:px-6">
          <Head title="Going out" right={`to ${dayLong(now + 3 * DAY)}`} />
          <GoingOut slots={slots.data} now={now} />
        </section>
        <section className="border-rule min-[1101px]:border-l min-[1101px]:pl-6">
          <WentOut today={today.data} now={now} />
        </section>
      </div>
      <div className="mt-3 grid gap-x-12 border-t border-rule pt-3 pb-6 max-[1100px]:grid-cols-1 min-[1101px]:grid-cols-[540fr_628fr]">
        {slots.data ? <CoverChart slots={slots.data} now={now} /> : null}
        <CostRuler costs={today.data.costs} now={now} />
      </div>
    </>
  );
}

function Lead({ today, slots, now }: { today: Today; slots: Slots | undefined; now: number }) {
  const of = (...kinds: string[]) =>
    today.needs
      .filter(({ kind }) => kinds.includes(kind))
      .reduce((sum, need) => sum + ('briefs' in need && Array.isArray(need.briefs) ? need.briefs.length : 1), 0);
  const stopped = of('incident', 'brief', 'source');
  const waiting = of('hold', 'confirm', 'outside');
  const aside = of('aside');
  const dry = (slots?.blogs ?? [])
    .filter((blog) => blog.dryFrom !== null && blog.dryFrom - now < 4 * DAY)
    .sort((a, b) => a.dryFrom! - b.dryFrom!)[0];
  return (
    <div className="pt-5 pb-3">
      <h1 className="text-lead font-medium tracking-[-0.018em]">
        <Mark state="done" size="big" />{' '}
        {today.begun.out === 0
          ? 'Nothing has gone out yet'
          : `${plural(today.wentOut.length, 'article')} went out since yesterday`}
        {waiting > 0 ? (
          <>
            , <Mark state="wait" size="big" /> {waiting} wait{waiting === 1 ? 's' : ''} for you
          </>
        ) : null}
        {aside > 0 ? (
          <>
            , <Mark state="aside" size="big" /> {aside} set aside
          </>
        ) : null}
        {stopped > 0 ? (
          <>
            , <Mark state="stop" size="big" /> {plural(stopped, 'thing')} {stopped === 1 ? 'has' : 'have'} stopped
          </>
        ) : (
          ', nothing has stopped'
        )}
        .
      </h1>
      <p className="pt-1 text-ink-2">
        {today.begun.out === 0 ? (
          <>
            Everything is in place.{' '}
            <Link className="act brackets" to="/pipelines">
              Try the pipeline and take the first items
            </Link>
          </>
        ) : dry ? (
          <>
            {dry.name} has nothing to publish from {dayLong(dry.dryFrom!, dry.zone)} {clock(dry.dryFrom!, dry.zone)}.{' '}
            <Link className="act brackets" to="/intake">
              Find something to write about
            </Link>
          </>
        ) : (
          'Every blog has articles for the days ahead.'
        )}
      </p>
    </div>
  );
}

function GoingOut({ slots, now }: { slots: Slots | undefined; now: number }) {
  if (!slots) return <Loading />;
  const coming = slots.blogs
    .flatMap((blog) => blog.slots.map((slot) => ({ ...slot, blog: blog.name, zone: blog.zone })))
    .filter((slot) => slot.at >= now && slot.at < now + 3 * DAY && slot.title !== null)
    .sort((a, b) => a.at - b.at);
  if (coming.length === 0)
    return (
      <Empty
        next={
          <Link className="act quiet" to="/cadence">
            See the weeks ahead
          </Link>
        }
      >
        Nothing goes out in the next three days.
      </Empty>
    );
  return (
    <ul>
      {coming.map((slot, i) => {
        const fresh = i === 0 || !sameDay(coming[i - 1]!.at, slot.at);
        return (
          <li key={`${slot.blog} ${slotKey(slot)}`}>
            {fresh ? (
              <p className="border-b border-rule-soft pt-3 pb-0.5 text-small font-semibold text-ink-2">
                {sameDay(slot.at, now) ? `Today, ${dayLong(slot.at)}` : dayLong(slot.at)}
              </p>
            ) : null}
            <div className="grid grid-cols-[48px_16px_minmax(0,1fr)] pt-1 pb-1.5">
              <time className="fig leading-6">{clock(slot.at)}</time>
              <span className="pt-1">
                <Mark state={stateOf(slot.standing)} />
              </span>
              <span className="min-w-0">
                {slot.article ? (
                  <Link to={`/articles/${slot.article}`} className="work brackets block truncate leading-6">
                    {slot.title}
                  </Link>
                ) : (
                  <span className="block truncate leading-6">{slot.title}</span>
                )}
                <span className="block text-small text-ink-3">
                  {slot.blog}, {slot.foreseen ? `expected, ${saysOf(slot.standing)} now` : saysOf(slot.standing)}
                </span>
              </span>
            </div>
          </li>
        );
      })}
    </ul>
  );
}

function WentOut({ today, now }: { today: Today; now: number }) {
  const { wentOut } = today;
  const words = wentOut.reduce((sum, row) => sum + row.words, 0);
  // One that went out on two blogs was paid for once.
  const micros = [...new Map(wentOut.map((row) => [row.article, row.micros])).values()].reduce((a, b) => a + b, 0);
  return (
    <>
      <div className="colhead">
        <h2>Went out</h2>
        <span className="r flex">
          <span className="w-12 text-right">words</span>
          <span className="w-12 text-right">€</span>
        </span>
      </div>
      {wentOut.length === 0 ? <Empty>Nothing went out since yesterday.</Empty> : null}
      <ul>
        {wentOut.slice(0, 8).map((row) => (
          <li
            key={`${row.article}${row.blog}`}
            className="grid grid-cols-[56px_minmax(0,1fr)_48px_48px] border-b border-rule-soft py-1.5"
          >
            <time className="fig leading-6 text-ink-2">
              {sameDay(row.at, now) ? 'Today' : dayLong(row.at).split(' ').slice(0, 2).join(' ')}
              <br />
              {clock(row.at)}
            </time>
            <span className="min-w-0">
              <Link to={`/articles/${row.article}`} className="work brackets block truncate leading-6">
                {row.title}
              </Link>
              <a
                href={row.address}
                target="_blank"
                rel="noreferrer"
                className="brackets block w-fit max-w-full truncate text-small leading-6 text-ink-3 underline decoration-rule-strong underline-offset-3"
              >
                {row.blogName}
              </a>
            </span>
            <span className="fig text-right leading-6">{count(row.words)}</span>
            <span className="fig text-right leading-6">{amount(row.micros)}</span>
          </li>
        ))}
      </ul>
      {wentOut.length > 0 ? (
        <div className="grid grid-cols-[1fr_60px_48px] pt-2 text-small text-ink-3">
          {plural(wentOut.length, 'article')} since yesterday
          <span className="fig text-right text-ink">{count(words)}</span>
          <span className="fig text-right text-ink">{amount(micros)}</span>
        </div>
      ) : null}
      <p className="pt-2 text-small text-ink-3">{wentOut[0] ? `The last one ${span(now - wentOut[0].at)} ago.` : ''}</p>
    </>
  );
}
