import { type Item, ItemText } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { call, inWords } from '../../api/call.ts';
import { queryClient } from '../../api/queries.ts';
import { Button, Head, Loading, Trouble } from '../../design/index.ts';
import { count } from '../../words/figures.ts';
import { leftOutWords } from '../LookWords.tsx';
import type { TakingInto } from '../TakeInto.tsx';
import { TakenBy } from '../TakenBy.tsx';

const SHOWN = 14;

/** One item: what would be read of it, what an article of it can carry, who took it, and why it is left out. */
export function WouldBeRead({
  item,
  source,
  into,
  reads,
}: {
  item: Item;
  source: string;
  into: TakingInto;
  /** What stands in place of its text, for what is not read but heard. */
  reads?: React.ReactNode;
}) {
  const offer = useMutation({
    mutationFn: (on: boolean) => call('POST', `/sources/${source}/offer`, { body: { items: [item.id], offer: on } }),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['items', source] }),
  });
  const waits = item.leftOut === 'to confirm';
  return (
    <section aria-label="What would be read">
      <Head title={item.subject} right="" />
      {item.leftOut ? (
        <p className={`py-1 text-small ${waits ? 'text-blue' : 'text-ink-2'}`}>
          {waits ? 'It waits for your approval.' : `Left out: ${leftOutWords(item.leftOut, item.leftDetail)}.`}{' '}
          {item.leftOut === 'unusable' ? null : (
            <Button look="word" onClick={() => offer.mutate(true)}>
              {waits ? 'Accept it' : 'Include it anyway'}
            </Button>
          )}
        </p>
      ) : item.taken.length === 0 ? (
        <p className="py-1 text-small">
          <Button look="quiet" onClick={() => offer.mutate(false)}>
            Leave it out
          </Button>
        </p>
      ) : null}
      {offer.isError ? <Trouble>{inWords(offer.error)}</Trouble> : null}
      <TakenBy item={item} pipelines={into.pipelines} />
      {reads ?? <Text key={item.id} item={item.id} />}
    </section>
  );
}

function Text({ item }: { item: string }) {
  const read = useQuery({
    queryKey: ['item text', item],
    queryFn: ({ signal }) => call('GET', `/items/${item}/text`, { answer: ItemText, signal }),
    staleTime: 5 * 60_000,
    retry: false,
  });
  if (read.isPending) return <Loading rows={6} label="Reading it" />;
  if (read.isError) return <Trouble>{inWords(read.error)}</Trouble>;
  const { paragraphs, words, carries, address } = read.data;
  return (
    <>
      <p className="py-1 text-small text-ink-2">
        <b className="font-semibold">{count(words)}</b> words can be read, enough for about{' '}
        <b className="font-semibold">{count(carries)}</b> written ones.{' '}
        {address === '' ? null : (
          <a className="act quiet brackets" href={address} target="_blank" rel="noreferrer">
            Open it
          </a>
        )}
      </p>
      <ol className="border-t border-rule-soft text-small">
        {paragraphs.slice(0, SHOWN).map(({ text, place }, i) => (
          <li key={i} className="border-b border-rule-soft py-1.5">
            {place && place !== paragraphs[i - 1]?.place ? <span className="block text-ink-3">{place}</span> : null}
            <span>{text.length > 420 ? `${text.slice(0, 420)} …` : text}</span>
          </li>
        ))}
      </ol>
      {paragraphs.length > SHOWN ? (
        <p className="py-1 text-small text-ink-3">and {count(paragraphs.length - SHOWN)} paragraphs more</p>
      ) : null}
    </>
  );
}
