import { DoneToBriefs, type ManyBriefs, type Need } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Empty, Mark, Trouble } from '../design/index.ts';
import { count, money, plural } from '../words/figures.ts';
import { clock, dayLong, moment } from '../words/time.ts';

type NeedOf<K extends Need['kind']> = Extract<Need, { kind: K }>;

/** Everything that wants a person, each cause once, with what can be done about it. */
export function Needs({ needs }: { needs: readonly Need[] }) {
  if (needs.length === 0) return <Empty>Nothing needs you.</Empty>;
  return (
    <ul>
      {needs.map((need) => (
        <li
          key={need.kind === 'limit' ? 'limit' : `${need.kind} ${need.id}`}
          className="grid grid-cols-[16px_1fr] border-b border-rule-soft pt-2.5 pb-2"
        >
          <span className="pt-0.5">
            <NeedMark kind={need.kind} />
          </span>
          <NeedWords need={need} />
        </li>
      ))}
    </ul>
  );
}

function NeedMark({ kind }: { kind: Need['kind'] }) {
  if (kind === 'hold' || kind === 'confirm' || kind === 'outside') return <Mark state="wait" label="waits for you" />;
  if (kind === 'aside') return <Mark state="aside" label="set aside" />;
  return kind === 'again' ? <Mark state="busy" label="tried again" /> : <Mark state="stop" label="stopped" />;
}

function NeedWords({ need }: { need: Need }) {
  switch (need.kind) {
    case 'limit':
      return <NearLimit need={need} />;
    case 'source':
      return <Unread need={need} />;
    case 'incident':
      return <OneCause need={need} />;
    case 'outside':
      return <ChangedThere need={need} />;
    case 'confirm':
      return (
        <div>
          <p className="text-proc font-medium">
            {plural(need.items, 'item')} from {need.name}
          </p>
          <p className="text-small text-ink-3">
            {need.items === 1 ? `‘${need.subject}’ waits` : `‘${need.subject}’ and others wait`} for your yes.{' '}
            <Link to={`/intake/${need.id}`} className="act brackets">
              Look at {need.items === 1 ? 'it' : 'them'}
            </Link>
          </p>
        </div>
      );
    default:
      return <AtStep need={need} />;
  }
}

function useAct(path: string) {
  return useMutation({
    mutationFn: () => call('POST', path, { body: {} }),
    onSettled: () => void queryClient.invalidateQueries({ queryKey: ['today'] }),
  });
}

function Failed({ error }: { error: Error | null }) {
  return error ? <Trouble>{inWords(error)}</Trouble> : null;
}

function NearLimit({ need }: { need: NeedOf<'limit'> }) {
  return (
    <div>
      <p className="text-proc font-semibold">The month’s limit is nearly used</p>
      <p className="text-small text-red">
        {money(need.spentMicros)} of {money(need.capMicros)} are spent.{' '}
        <Link to="/settings" className="act brackets">
          Raise it
        </Link>{' '}
        or let the month pass.
      </p>
    </div>
  );
}

function ChangedThere({ need }: { need: NeedOf<'outside'> }) {
  return (
    <div>
      <p className="text-proc font-medium">{need.title}</p>
      <p className="text-small text-ink-3">
        Somebody {need.what === 'gone' ? 'removed' : 'changed'} it on {need.blogName} itself.{' '}
        <Link to={`/articles/${need.article}/outside/${need.id}`} className="act brackets">
          Look at it and settle it
        </Link>
      </p>
    </div>
  );
}

function Unread({ need }: { need: NeedOf<'source'> }) {
  const look = useAct(`/sources/${need.id}/look`);
  return (
    <div>
      <p className="text-proc font-semibold">{need.name} could not be read</p>
      <p className="text-small text-ink-3">
        {need.lookedDesk === null
          ? 'never read yet'
          : `read well last ${dayLong(need.lookedDesk)} ${clock(need.lookedDesk)}`}
        ; what it held is still there
      </p>
      <p className="wrong text-small">
        {need.sentence} {need.mend}{' '}
        <Button look="word" busy={look.isPending ? 'Looking' : null} onClick={() => look.mutate()}>
          Look again
        </Button>{' '}
        or{' '}
        <Link to={`/intake/${need.id}`} className="act brackets">
          go to it
        </Link>
        .
      </p>
      <Failed error={look.error} />
    </div>
  );
}

function OneCause({ need }: { need: NeedOf<'incident'> }) {
  const release = useAct(`/incidents/${need.id}/release`);
  return (
    <div>
      <p className="text-proc font-semibold">
        {need.name}: {need.problem.toLowerCase()}
      </p>
      <p className="text-small text-ink-3">
        {plural(need.briefs, 'brief')} {need.briefs === 1 ? 'is' : 'are'} stopped by it, since {since(need.openedAt)}
      </p>
      <p className="wrong text-small">
        {need.sentence} {need.mend}{' '}
        <Button look="word" busy={release.isPending ? 'Going on' : null} onClick={() => release.mutate()}>
          {need.briefs === 1 ? 'Let it go on' : 'Let them go on'}
        </Button>
      </p>
      <Failed error={release.error} />
    </div>
  );
}

/** Acts on all briefs of an entry at once, by what they are called there. */
const ACTS: Record<'brief' | 'again' | 'hold' | 'aside', { act: ManyBriefs['do']; one: string; all: string }[]> = {
  brief: [
    { act: 'go on', one: 'Try again', all: 'Try all again' },
    { act: 'set aside', one: 'Set it aside', all: 'Set all aside' },
  ],
  again: [
    { act: 'stop', one: 'Stop it', all: 'Stop all' },
    { act: 'set aside', one: 'Set it aside', all: 'Set all aside' },
  ],
  hold: [],
  aside: [
    { act: 'leave aside', one: 'Leave it', all: 'Leave them' },
    { act: 'bring back', one: 'Bring it back', all: 'Bring all back' },
  ],
};

function AtStep({ need }: { need: NeedOf<'brief' | 'again' | 'hold' | 'aside'> }) {
  const act = useMutation({
    mutationFn: (act: ManyBriefs['do']) =>
      call('POST', '/briefs/many', { body: { do: act, briefs: need.briefs }, answer: DoneToBriefs }),
    onSettled: () => {
      for (const key of ['today', 'briefs', 'brief', 'pipelines', 'pipeline'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  const n = need.briefs.length;
  const standing = { brief: 'stopped', again: 'in work', hold: 'held', aside: 'set aside' }[need.kind];
  const to =
    n === 1
      ? `/pipelines/${need.pipeline}?brief=${need.id}`
      : `/pipelines/${need.pipeline}?show=briefs&standing=${encodeURIComponent(standing)}`;
  return (
    <div>
      <p className="text-proc font-medium">
        {need.subject}
        {n > 1 ? <span className="text-ink-2"> and {count(n - 1)} more</span> : null}
      </p>
      <p className="text-small text-ink-3">
        {need.pipelineName}, {where(need)}.{' '}
        <Link to={to} className="act brackets">
          Look at {n === 1 ? 'it' : 'them'}
        </Link>
      </p>
      <p className={need.kind === 'brief' ? 'wrong text-small' : 'text-small text-ink-2'}>
        {says(need)}{' '}
        {ACTS[need.kind].map(({ act: word, one, all }) => (
          <span key={word} className="pr-3">
            <Button
              look="word"
              busy={act.isPending && act.variables === word ? 'Working' : null}
              onClick={() => act.mutate(word)}
            >
              {n === 1 ? one : all}
            </Button>
          </span>
        ))}
      </p>
      <Failed error={act.error} />
    </div>
  );
}

function where(need: NeedOf<'brief' | 'again' | 'hold' | 'aside'>): string {
  const at = `at ‘${need.step}’`;
  switch (need.kind) {
    case 'brief':
      return `stopped ${at}`;
    case 'again':
      return `tried again and again ${at} since ${since(need.since)}`;
    case 'hold':
      return `held for you ${at} since ${since(need.since)}`;
    case 'aside':
      return `set aside ${at}`;
  }
}

function says(need: NeedOf<'brief' | 'again' | 'hold' | 'aside'>): ReactNode {
  switch (need.kind) {
    case 'brief':
      return `${need.sentence} ${need.mend}`;
    case 'again':
      return `${need.sentence} It goes on by itself once that is over. ${need.mend}`;
    case 'hold':
      return null;
    case 'aside':
      return need.why === '' ? null : /[.!?]$/.test(need.why) ? capital(need.why) : `${capital(need.why)}.`;
  }
}

/** Since when, by the real clock. */
const since = (time: string | Date) => moment(Date.parse(String(time)), Date.now());
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
