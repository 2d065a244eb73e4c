import type { Item, SourceWhole, VideoSettings } from '@grivo/contract';
import { clockOf } from '@grivo/core';
import { useMutation } from '@tanstack/react-query';
import { call, inWords } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Head, Mark, NumberEditor, saysOf, stateOf, Trouble, Word } from '../design/index.ts';
import { plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { LeaveOut } from './items/LeaveOut.tsx';
import { ExcludeWord, LookedHere, Looks, leftOutWords, StartWord } from './LookWords.tsx';
import { useChange, type useLook } from './useSource.ts';

interface ListProps {
  source: SourceWhole;
  settings: VideoSettings;
  items: readonly Item[];
  chosen: string | null;
  choose: (id: string) => void;
  look: ReturnType<typeof useLook>;
  now: number;
}

/** All videos of a source, how they are looked for, and the one that is shown. */
export function VideoList(props: ListProps) {
  const { source, items, chosen, look, now } = props;
  const others = items.flatMap((item) =>
    item.id !== chosen && item.leftOut === null && item.taken.length === 0 ? item.id : [],
  );
  return (
    <>
      <Head title={source.name} right={plural(items.length, 'video')} />
      <HowLooked {...props} />
      <Button look="line" hint="L" busy={look.isPending ? 'Looking' : null} onClick={() => look.mutate()}>
        {source.lastLook === null ? 'Look at it' : 'Look again'}
      </Button>
      <LookedHere looked={look.data} error={look.isError ? inWords(look.error) : null} />
      {source.trouble && !look.data ? <Trouble>{source.trouble}</Trouble> : null}
      <ul className="pt-2 pb-4">
        {items.map((item) => (
          <VideoLine key={item.id} item={item} source={source.id} isChosen={item.id === chosen} choose={props.choose} />
        ))}
      </ul>
      {others.length > 0 ? (
        <p className="pb-4">
          <LeaveOut source={source.id} ticked={chosen ? [chosen] : []} others={others} onDone={() => undefined} />
        </p>
      ) : null}
      <Looks source={source.id} now={now} />
    </>
  );
}

function HowLooked({ source, settings, now }: ListProps) {
  const change = useChange(source);
  const put = (next: Partial<VideoSettings>) => change.mutate({ ...settings, ...next });
  return (
    <>
      <p className="py-2 text-small">
        {source.lastLook === null ? 'Not looked at yet. ' : `Looked at ${moment(source.lastLook, now)}. `}
        Start from <StartWord start={settings.startFrom} onChange={(startFrom) => put({ startFrom })} />; leave out
        those shorter than{' '}
        <Word
          label="Shortest"
          editor={() => (
            <NumberEditor
              label="Shortest, in seconds"
              value={settings.shortest}
              least={0}
              most={36_000}
              unit="seconds"
              onChange={(shortest) => shortest !== null && put({ shortest })}
            />
          )}
        >
          {clockOf(settings.shortest)}
        </Word>{' '}
        and titles with <ExcludeWord exclude={settings.exclude} onChange={(exclude) => put({ exclude })} />.
      </p>
      {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
    </>
  );
}

function VideoLine({
  item,
  source,
  isChosen,
  choose,
}: {
  item: Item;
  source: string;
  isChosen: boolean;
  choose: (id: string) => void;
}) {
  const offer = useMutation({
    mutationFn: (on: boolean) => call('POST', `/sources/${source}/offer`, { body: { items: [item.id], offer: on } }),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['items', source] }),
  });
  const last = item.taken.at(-1);
  const { leftOut } = item;
  return (
    <li className={`row border-b border-rule-soft ${isChosen ? 'picked' : ''}`}>
      <button
        type="button"
        aria-current={isChosen}
        className="brackets grid w-full grid-cols-[16px_1fr] py-1 text-left"
        onClick={() => choose(item.id)}
      >
        <Mark state={last ? stateOf(last.standing) : leftOut ? 'aside' : 'plan'} />
        <span className="min-w-0">
          <span className={`block truncate ${isChosen ? 'font-semibold' : ''}`}>{item.subject}</span>
          <span className="block text-small text-ink-3">
            {last ? saysOf(last.standing) : leftOut ? leftOutWords(leftOut, item.leftDetail) : 'new'}
          </span>
        </span>
      </button>
      {isChosen && !last ? (
        <Button look="quiet" className="mb-1 ml-4 min-h-6 text-small" onClick={() => offer.mutate(leftOut !== null)}>
          {leftOut ? 'include it anyway' : 'leave it out'}
        </Button>
      ) : null}
    </li>
  );
}
