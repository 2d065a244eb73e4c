import { LimitStanding } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Head, NumberEditor, Trouble, Word } from '../design/index.ts';
import { exact, money } from '../words/figures.ts';
import { monthWords } from '../words/time.ts';

type LimitScope = 'month' | 'day' | 'article';

/** What may be spent in a month, in a day and on one article, and what has been. */
export function Limit({ owner }: { owner: boolean }) {
  const limit = useQuery(read.limit());
  const put = useMutation({
    mutationFn: (body: { capMicros: number | null; scope: LimitScope }) =>
      call('PUT', '/limit', { body, answer: LimitStanding }),
    onSuccess: (standing) => queryClient.setQueryData(['limit'], standing),
  });
  if (!limit.data) return null;
  const { capMicros, dayCapMicros, articleCapMicros, spentMicros, trialsMicros, testsMicros, reservedMicros, month } =
    limit.data;
  const word = (scope: LimitScope, cap: number | null) => (
    <Word
      label={scope === 'article' ? 'Limit of one article' : `Limit of the ${scope}`}
      disabled={!owner}
      editor={(close) => (
        <LimitEditor value={cap} scope={scope} onPut={(next) => put.mutate({ capMicros: next, scope })} close={close} />
      )}
    >
      {cap === null ? 'no limit' : exact(cap)}
    </Word>
  );
  return (
    <section aria-label="Limits">
      <Head title="Limits" right={monthWords(month)} />
      <p className="pt-2 text-proc leading-7">
        For a month {word('month', capMicros)}, for a day {word('day', dayCapMicros)}, for one article{' '}
        {word('article', articleCapMicros)}. Work stops before a limit is passed, and goes on by itself with the next
        day or month.
      </p>
      <p className="pt-1 text-small text-ink-2">
        So far this month {money(spentMicros)}
        {trialsMicros + testsMicros > 0
          ? `, of it ${money(trialsMicros)} for trials and ${money(testsMicros)} for tests of services`
          : ''}
        {reservedMicros > 0 ? `, ${money(reservedMicros)} set aside for calls under way` : ''}.
      </p>
      {put.isError ? <Trouble>{inWords(put.error)}</Trouble> : null}
    </section>
  );
}

function LimitEditor({
  value,
  scope,
  onPut,
  close,
}: {
  value: number | null;
  scope: LimitScope;
  onPut: (cap: number | null) => void;
  close: () => void;
}) {
  const each = scope === 'article' ? 10_000 : 1_000_000;
  const [wanted, setWanted] = useState<number | null>(value === null ? null : Math.round(value / each));
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        onPut(wanted === null ? null : wanted * each);
        close();
      }}
    >
      <NumberEditor
        label="Limit"
        value={wanted}
        least={0}
        most={100_000}
        unit={scope === 'article' ? 'cents an article' : `€ a ${scope}`}
        none="no limit"
        onChange={setWanted}
      />
      <button type="submit" className="btn line brackets mt-2">
        Set it
      </button>
    </form>
  );
}
