import { useMutation } from '@tanstack/react-query';
import { call, inWords } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { Button, Trouble } from '../../design/index.ts';
import { count } from '../../words/figures.ts';

/** As many items as one request names. */
const AT_ONCE = 1_000;

/** Leaving out what is ticked, or all that is not, in one act; what was left out can be offered again. */
export function LeaveOut({
  source,
  ticked,
  others,
  onDone,
}: {
  source: string;
  ticked: readonly string[];
  /** Items that could be ticked and are not. */
  others: readonly string[];
  onDone: () => void;
}) {
  const offer = useMutation({
    mutationFn: async ({ items, on }: { items: readonly string[]; on: boolean }) => {
      for (let at = 0; at < items.length; at += AT_ONCE)
        await call('POST', `/sources/${source}/offer`, { body: { items: items.slice(at, at + AT_ONCE), offer: on } });
    },
    onSuccess: () => onDone(),
    onSettled: () => {
      for (const key of ['items', 'sources', 'source']) void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  const last = offer.isSuccess ? offer.variables : null;
  return (
    <span className="flex items-baseline gap-4">
      {ticked.length > 0 ? (
        <Button look="word" disabled={offer.isPending} onClick={() => offer.mutate({ items: ticked, on: false })}>
          {`Leave ${count(ticked.length)} out`}
        </Button>
      ) : null}
      {others.length > 0 && last?.on !== false ? (
        <Button
          look="word"
          busy={offer.isPending ? 'Leaving out' : null}
          onClick={() => offer.mutate({ items: others, on: false })}
        >
          {`Leave the other ${count(others.length)} out`}
        </Button>
      ) : null}
      {last && !last.on ? (
        <span className="text-small text-ink-2">
          {count(last.items.length)} left out.{' '}
          <Button look="word" onClick={() => offer.mutate({ items: last.items, on: true })}>
            Take that back
          </Button>
        </span>
      ) : null}
      {offer.isError ? <Trouble>{inWords(offer.error)}</Trouble> : null}
    </span>
  );
}
