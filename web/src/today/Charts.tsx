import type { Slots, Today } from '@grivo/contract';
import { Link } from 'react-router';
import { amount, plural } from '../words/figures.ts';
import { slotKey } from '../words/slots.ts';
import { dayLong } from '../words/time.ts';

const DAY = 86_400_000;
const AHEAD = 14;
/** As far as slots are reckoned: what does not run dry by then is covered. */
const COVERED = 56;

/** Cover in days ahead, each blog a bar of what stands firm and what is being made. */
export function CoverChart({ slots, now }: { slots: Slots; now: number }) {
  const at = (ms: number) => `${Math.max(0, Math.min(1, (ms - now) / (AHEAD * DAY))) * 100}%`;
  return (
    <section aria-label="Cover, days ahead">
      <h3 className="font-semibold">Cover, days ahead</h3>
      <div className="relative pt-2">
        {slots.blogs.map((blog) => {
          const until = blog.dryFrom ?? now + COVERED * DAY;
          const coming = blog.slots.filter((slot) => slot.at >= now && slot.at < until && slot.title !== null);
          const days = (until - now) / DAY;
          const empty = blog.slots.filter((slot) => slot.standing === 'planned' && slot.at < now + 7 * DAY).length;
          return (
            <div key={blog.blog} className="grid h-6 grid-cols-[128px_1fr_230px] items-center text-small">
              <Link to={`/blogs/${blog.blog}`} className="brackets truncate">
                {blog.name}
              </Link>
              <span className="relative block h-2.5">
                {coming.map((slot, i) => {
                  const from = i === 0 ? now : coming[i - 1]!.at;
                  return (
                    <span
                      key={slotKey(slot)}
                      className={`drawn absolute top-0 h-2.5 border-r border-paper ${slot.standing === 'in work' ? 'mk busy !h-2.5' : slot.standing === 'held' ? 'mk wait !h-2.5' : slot.standing === 'stopped' ? 'mk stop !h-2.5' : 'bg-ink'}`}
                      style={{ left: at(from), width: `calc(${at(slot.at)} - ${at(from)})` }}
                    />
                  );
                })}
              </span>
              <span className={`pl-2 whitespace-nowrap ${days < 4 ? 'font-bold' : ''}`}>
                {blog.dryFrom !== null
                  ? plural(Math.floor(days), 'day')
                  : coming.length > 0 || blog.ahead > 0
                    ? 'eight weeks'
                    : 'no slots'}
                {empty > 0 ? `, then ${plural(empty, 'empty slot')} in a week` : ''}
              </span>
            </div>
          );
        })}
        <div className="mr-[230px] ml-[128px] flex justify-between border-t border-rule-strong pt-0.5 text-small text-ink-3">
          <span>now</span>
          <span>7 days</span>
          <span>14 days</span>
        </div>
      </div>
    </section>
  );
}

/** What each article of four weeks cost, one mark each, with the median of every week. */
export function CostRuler({ costs, now }: { costs: Today['costs']; now: number }) {
  if (costs.length === 0) return <section />;
  const from = now - 28 * DAY;
  const top = Math.max(...costs.map(({ micros }) => micros), 1);
  const highest = costs.reduce((a, b) => (b.micros > a.micros ? b : a));
  const weeks = [0, 1, 2, 3].map((week) => {
    const own = costs.filter(({ at }) => at >= from + week * 7 * DAY && at < from + (week + 1) * 7 * DAY);
    return { at: from + week * 7 * DAY, median: median(own.map(({ micros }) => micros)) };
  });
  const x = (at: number) => ((at - from) / (28 * DAY)) * 100;
  return (
    <section aria-label="Cost of each article">
      <h3 className="font-semibold">
        Cost of each article, €{' '}
        <span className="pl-2 text-small font-normal text-ink-3">
          four weeks, {plural(costs.length, 'article')}; the dearest {amount(highest.micros)}
        </span>
      </h3>
      <div className="relative mt-2 h-[76px] border-b border-rule-strong">
        <span className="absolute inset-x-0 top-0 border-t border-dotted border-rule-strong" />
        {costs.map(({ article, title, at, micros }) => (
          <Link
            key={article}
            to={`/articles/${article}`}
            title={`${title}, ${amount(micros)} €`}
            aria-label={`${title}, ${amount(micros)} €`}
            className="absolute bottom-0 w-px bg-rule"
            style={{ left: `${x(at)}%`, height: `${(micros / top) * 100}%` }}
          >
            <span className="drawn absolute -left-px top-0 block h-[5px] w-[3px] bg-ink" />
          </Link>
        ))}
      </div>
      <div className="relative h-5 text-small text-ink-3">
        {weeks.map((week, i) => (
          <span key={week.at} className="absolute pt-1 whitespace-nowrap" style={{ left: `${x(week.at)}%` }}>
            {i === 0 ? 'from ' : ''}
            {dayLong(week.at).split(' ').slice(1).join(' ')}
            {week.median === null ? '' : <b className="fig pl-2 font-semibold text-ink">{amount(week.median)}</b>}
          </span>
        ))}
      </div>
    </section>
  );
}

function median(values: readonly number[]): number | null {
  if (values.length === 0) return null;
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
}
