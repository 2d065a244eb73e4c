import type { Item } from '@grivo/contract';
import { useMutation } from '@tanstack/react-query';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Head, Trouble } from '../design/index.ts';
import { count } from '../words/figures.ts';
import { leftOutWords } from './LookWords.tsx';

const SHOWN = 40;

/** What is left out of a source, each with its reason, and the way back. */
export function LeftOut({ source, items }: { source: string; items: readonly Item[] }) {
  const back = useMutation({
    mutationFn: (item: string) => call('POST', `/sources/${source}/offer`, { body: { items: [item], offer: true } }),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['items', source] }),
  });
  if (items.length === 0) return null;
  return (
    <section className="pt-6" aria-label="Left out">
      <Head title="Left out" right={count(items.length)} />
      {back.isError ? <Trouble>{inWords(back.error)}</Trouble> : null}
      <ul className="text-small">
        {items.slice(0, SHOWN).map((item) => (
          <li
            key={item.id}
            className="row grid grid-cols-[minmax(0,1fr)_minmax(0,150px)_auto] items-baseline gap-3 border-b border-rule-soft py-1"
          >
            <s className="truncate text-ink-2">{item.subject}</s>
            <span className="truncate text-ink-3">{leftOutWords(item.leftOut!, item.leftDetail)}</span>
            {item.leftOut === 'unusable' ? null : (
              <Button look="quiet" onClick={() => back.mutate(item.id)}>
                Bring back
              </Button>
            )}
          </li>
        ))}
      </ul>
      {items.length > SHOWN ? (
        <p className="pt-1 text-small text-ink-3">and {count(items.length - SHOWN)} more</p>
      ) : null}
    </section>
  );
}
