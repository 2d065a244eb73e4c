import type { StepRun } from '@grivo/contract';
import { clockOf, textOf } from '@grivo/core';
import { Link } from 'react-router';
import { z } from 'zod';
import { Mark, stateOf } from '../design/index.ts';
import { amount, count, plural } from '../words/figures.ts';
import { clock, dayLong, took } from '../words/time.ts';
import { JudgedItems, Judgements } from './Judgements.tsx';

const Gave = z
  .object({
    pages: z.array(z.object({ title: z.string(), address: z.string() })),
    carriesWords: z.number(),
    passages: z.array(z.string()),
    fitting: z.object({ pages: z.number(), of: z.number(), lacking: z.array(z.string()) }),
    outline: z.array(z.object({ heading: z.string() })),
    article: z.object({ id: z.string(), words: z.number() }),
    figuresNotFound: z.array(z.string()),
    carriedWords: z.number(),
    sectionsLeftOut: z.array(z.string()),
    notTaken: z.array(z.string()),
    titleChoices: z.array(z.string()),
    picture: z.object({ file: z.string() }),
    links: z.array(z.object({ title: z.string(), anchor: z.string() })),
    check: z.record(z.string(), z.unknown()),
    publication: z.object({ would: z.string(), when: z.string() }),
    judgement: z.object({ score: z.number(), kind: z.string(), reason: z.string() }),
    judgements: JudgedItems,
    heard: z.object({ sure: z.number().nullable(), seconds: z.number() }),
    spokenWords: z.number(),
    notes: z.array(z.object({ heading: z.string(), points: z.array(z.object({ point: z.string() })) })),
    holds: z.boolean(),
    looked: z.record(z.string(), z.unknown()),
    values: z.record(z.string(), z.unknown()),
    asked: z.object({ for: z.string(), note: z.string() }),
  })
  .partial();

/** What one step of a trial gave, beside its sentence: state, time, cost, the real thing. */
export function TrialResult({
  run,
  until,
  narrow = false,
}: {
  run: StepRun | null;
  until: string;
  /** Beside others: time and cost stand under the result. */
  narrow?: boolean;
}) {
  if (!run)
    return (
      <Line state="plan" time="" cost="" narrow={narrow}>
        <span className="text-ink-3">{until}</span>
      </Line>
    );
  const ms = run.startedAt && run.endedAt ? Date.parse(String(run.endedAt)) - Date.parse(String(run.startedAt)) : null;
  return (
    <Line
      narrow={narrow}
      state={stateOf(run.state)}
      time={run.state === 'running' ? 'now' : ms === null ? '' : took(ms)}
      cost={run.state === 'done' ? amount(run.micros) : ''}
    >
      {run.failure ? (
        <span className="text-red">
          {run.failure.sentence} {run.failure.mend}
        </span>
      ) : run.state === 'done' || run.state === 'held' ? (
        <Given run={run} />
      ) : (
        <span className="text-ink-3">{standsFor(run)}</span>
      )}
    </Line>
  );
}

/** What a step that has not ended is about. */
function standsFor(run: StepRun): string {
  if (run.state === 'waiting' && run.dueDesk !== null)
    return `${run.kind === 'publish' ? 'waits for its slot,' : 'waits until'} ${dayLong(run.dueDesk).replace(',', '')} ${clock(run.dueDesk)}`;
  if (run.state === 'waiting') return 'tried again in a moment';
  return run.state === 'ready' ? 'about to begin' : 'being done';
}

function Line({
  state,
  time,
  cost,
  narrow,
  children,
}: {
  narrow: boolean;
  state: Parameters<typeof Mark>[0]['state'];
  time: string;
  cost: string;
  children: React.ReactNode;
}) {
  if (narrow)
    return (
      <div className="grid grid-cols-[16px_minmax(0,1fr)] py-2 text-small [&_.columns-2]:columns-1 [&_.truncate]:whitespace-normal">
        <Mark state={state} />
        <div className="min-w-0">
          {children}
          <span className="fig block text-ink-3">
            {time} {cost}
          </span>
        </div>
      </div>
    );
  return (
    <div className="grid grid-cols-[18px_54px_50px_minmax(0,1fr)] py-2 text-small">
      <span className="-mt-px">
        <Mark state={state} />
      </span>
      <span className="fig text-ink-3">{time}</span>
      <span className="fig text-ink-3">{cost}</span>
      <div className="min-w-0 pl-1">{children}</div>
    </div>
  );
}

function Given({ run }: { run: StepRun }) {
  const read = Gave.safeParse(run.gave ?? {});
  const gave = read.success ? read.data : {};
  if (gave.pages)
    return (
      <span title={gave.pages.map((page) => page.title).join('\n')}>
        <TooFew fitting={gave.fitting} />
        {plural(gave.pages.length, 'page')}, enough for about {count(gave.carriesWords ?? 0)} words:{' '}
        <span className="text-ink-2">{gave.pages.map((page) => page.title).join(' · ')}</span>
      </span>
    );
  if (gave.outline)
    return (
      <span className="block columns-2 gap-3 font-read text-[12.5px] leading-4">
        {gave.outline.map(({ heading }) => (
          <span key={heading} className="block truncate" title={heading}>
            {heading}
          </span>
        ))}
      </span>
    );
  if (gave.titleChoices && gave.titleChoices.length > 0)
    return (
      <ul>
        {gave.titleChoices.map((title, i) => (
          <li key={title} className="flex justify-between gap-2">
            <span
              className={`truncate font-read text-[13px] leading-4 font-medium ${i === 0 ? 'hl hl-full' : 'text-ink-2'}`}
            >
              {title}
            </span>
            <span className="fig text-ink-3">{title.length}</span>
          </li>
        ))}
      </ul>
    );
  if (gave.picture)
    return (
      <img
        src={`/api/files/${gave.picture.file}`}
        alt="As it would head the article"
        className="h-14 border border-rule"
        loading="lazy"
      />
    );
  if (gave.links)
    return (
      <span>
        {gave.links.length === 0 ? 'none of our pages fits' : `${plural(gave.links.length, 'link')} placed: `}
        <span className="text-ink-2">{gave.links.map((link) => link.anchor).join(', ')}</span>
      </span>
    );
  if (gave.check) return <Check check={gave.check} />;
  if (gave.publication)
    return (
      <span className="text-ink-3">
        not in a trial; it would go out {gave.publication.when === 'at once' ? 'at once' : 'in the next free slot'}
      </span>
    );
  if (gave.article)
    return (
      <span>
        <Link to={`/articles/${gave.article.id}`} className="act brackets">
          {count(gave.article.words)} words
        </Link>
        {gave.carriedWords === undefined ? '' : `; the sources are enough for about ${count(gave.carriedWords)}`}
        {gave.sectionsLeftOut && gave.sectionsLeftOut.length > 0 ? (
          <span className="block text-red">left out, as no source speaks of it: {gave.sectionsLeftOut.join('; ')}</span>
        ) : null}
        {gave.notTaken && gave.notTaken.length > 0 ? (
          <span className="block text-red">not taken over: {gave.notTaken.join('; ')}</span>
        ) : null}
        {gave.figuresNotFound && gave.figuresNotFound.length > 0 ? (
          <span className="block text-red">
            not found in the sources:{' '}
            {gave.figuresNotFound.map((figure) => (
              <s key={figure} className="fig mr-1.5 border-b-2 border-red no-underline">
                {figure}
              </s>
            ))}
          </span>
        ) : (
          <span className="block text-ink-3">every figure stands in a source</span>
        )}
      </span>
    );
  if (gave.judgements) return <Judgements items={gave.judgements} />;
  if (gave.heard)
    return (
      <span>
        {plural(gave.spokenWords ?? 0, 'word')} heard in {clockOf(gave.heard.seconds)}
        {gave.heard.sure === null ? '' : `, ${gave.heard.sure} % sure`}
      </span>
    );
  if (gave.judgement)
    return (
      <span>
        <span className="fig font-semibold">{gave.judgement.score}</span> of 10, {gave.judgement.kind}.{' '}
        <span className="text-ink-2">{gave.judgement.reason}</span>
      </span>
    );
  if (gave.notes)
    return (
      <span title={gave.notes.flatMap(({ points }) => points.map(({ point }) => point)).join('\n')}>
        {plural(
          gave.notes.reduce((sum, { points }) => sum + points.length, 0),
          'note',
        )}{' '}
        for {plural(gave.notes.length, 'section')}
      </span>
    );
  if (gave.holds !== undefined)
    return (
      <span>
        {gave.holds ? 'it holds' : 'it does not hold'}
        {Object.entries(gave.looked ?? {}).map(([field, value]) => (
          <span key={field} className="block truncate text-ink-3">
            {field}: {textOf(value) || 'empty'}
          </span>
        ))}
      </span>
    );
  if (gave.values) return <span>{Object.values(gave.values).map(String).join(', ') || 'no values'}</span>;
  if (gave.asked) return <span className="text-ink-3">waits for {gave.asked.for}</span>;
  if (gave.passages && gave.carriesWords !== undefined)
    return (
      <span>
        {plural(gave.passages.length, 'passage')}, about {plural(gave.carriesWords, 'word')} to write from
      </span>
    );
  return <OwnFields gave={run.gave ?? {}} />;
}

/** How many of the pages found do not speak of the subject, and what none of them says. */
function TooFew({ fitting }: { fitting: { pages: number; of: number; lacking: string[] } | undefined }) {
  if (!fitting || (fitting.pages === fitting.of && fitting.lacking.length === 0)) return null;
  return (
    <span className={`block ${fitting.pages === 0 ? 'text-red' : 'text-ink-3'}`}>
      {fitting.pages === fitting.of
        ? ''
        : `${fitting.pages} of ${plural(fitting.of, 'page')} found answer the subject. `}
      {fitting.lacking.length === 0
        ? ''
        : `Nothing is said of ${fitting.lacking.map((word) => `‘${word}’`).join(', ')}.`}
    </span>
  );
}

/** Fields of one's own, by name. */
function OwnFields({ gave }: { gave: Record<string, unknown> }) {
  const fields = Object.entries(gave).filter(([, value]) => value !== null);
  if (fields.length === 0) return <span className="text-ink-3">done</span>;
  return (
    <span>
      {fields.map(([name, value]) => (
        <span key={name} className="block truncate" title={textOf(value)}>
          <span className="text-ink-3">{name}</span> {textOf(value)}
        </span>
      ))}
    </span>
  );
}

function Check({ check }: { check: Record<string, unknown> }) {
  const { words, fits, failing } = check as { words?: number; fits?: boolean; failing?: string[] };
  if (fits === false && failing && failing.length > 0) return <span className="text-red">{failing.join('; ')}</span>;
  return (
    <span className={fits === false ? 'text-red' : ''}>
      {words === undefined ? 'looked at' : `${count(words)} words`} {fits === false ? 'do not fit' : 'fit'}
    </span>
  );
}
