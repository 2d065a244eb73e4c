import { type Item, type SourceWhole, type VideoSettings, VideoText } from '@grivo/contract';
import { languageName } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Loading, Trouble } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { moment } from '../words/time.ts';
import { SourceHead } from './SourceHead.tsx';
import { type TakingInto, useTakingInto } from './TakeInto.tsx';
import { type Range, TimeRange } from './TimeRange.tsx';
import { Transcript } from './Transcript.tsx';
import { useLook } from './useSource.ts';
import { VideoList } from './VideoList.tsx';
import { WouldBeHeard } from './WouldBeHeard.tsx';

/** Videos of a channel or single ones: what is said in each, what of it is to be read, and which are new. */
export function VideoSource({ source, settings }: { source: SourceWhole; settings: VideoSettings }) {
  const [search, setSearch] = useSearchParams();
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const items = useQuery(read.items(source.id)).data?.items ?? [];
  const into = useTakingInto(source.id, 'videos', () => undefined);
  const newest = [...items].sort((a, b) => (b.publishedDesk ?? 0) - (a.publishedDesk ?? 0) || (a.id < b.id ? 1 : -1));
  const chosen =
    newest.find(({ id }) => id === search.get('video')) ??
    newest.find((item) => item.leftOut === null && item.taken.length === 0) ??
    newest[0];
  const step = (by: number) => {
    const next = newest[newest.findIndex(({ id }) => id === chosen?.id) + by];
    if (next) setSearch({ video: next.id });
  };
  const look = useLook(source.id);
  useViewKeys({ j: () => step(1), k: () => step(-1), l: look.isPending ? null : () => look.mutate() });
  const list = (
    <VideoList
      source={source}
      settings={settings}
      items={newest}
      chosen={chosen?.id ?? null}
      choose={(video) => setSearch({ video })}
      look={look}
      now={now}
    />
  );
  return chosen ? (
    <OneVideo key={chosen.id} source={source} item={chosen} into={into} list={list} now={now} />
  ) : (
    <>
      <SourceHead source={source} says="videos" />
      <div className="-mx-8 border-t border-ink px-8 pt-4">
        <div className="max-w-md">{list}</div>
      </div>
    </>
  );
}

interface OneVideoProps {
  source: SourceWhole;
  item: Item;
  into: TakingInto;
  list: ReactNode;
  now: number;
}

function OneVideo({ source, item, into, list, now }: OneVideoProps) {
  const video = useQuery({
    queryKey: ['video', item.id],
    queryFn: () => call('GET', `/items/${item.id}/video`, { answer: VideoText }),
    staleTime: 5 * 60_000,
    retry: false,
  });
  const [range, setRange] = useState<Range | null>(null);
  const text = video.data;
  const whole = text ? { from: 0, to: Math.ceil(text.seconds) } : null;
  const part = range ?? whole;
  return (
    <>
      <VideoHead source={source} item={item} text={text} now={now} />
      {text && part ? (
        <div className="-mx-8 border-t border-ink bg-sheet px-8 pt-3">
          <TimeRange video={text} range={part} onChange={setRange} />
        </div>
      ) : null}
      <div className="-mx-8 grid flex-1 grid-cols-[minmax(0,1.9fr)_minmax(0,1fr)_minmax(0,1fr)] border-t border-ink">
        <div className="min-w-0 px-8">
          {video.isPending ? (
            <div className="pt-4">
              <Loading rows={10} />
            </div>
          ) : null}
          {video.isError ? <Trouble>{inWords(video.error)}</Trouble> : null}
          {text && part ? <Transcript video={text} range={part} onChange={setRange} /> : null}
        </div>
        <div className="border-l border-rule px-6">
          {text && part && whole ? (
            <WouldBeHeard text={text} item={item} part={part} whole={whole} setRange={setRange} into={into} />
          ) : null}
        </div>
        <div className="border-l border-rule px-6 pr-8">{list}</div>
      </div>
    </>
  );
}

function VideoHead({
  source,
  item,
  text,
  now,
}: Pick<OneVideoProps, 'source' | 'item' | 'now'> & { text: VideoText | undefined }) {
  return (
    <SourceHead
      source={source}
      title={item.subject}
      says={
        <>
          video
          {text?.channel ? ` from ${text.channel}` : ''}
          {item.publishedDesk !== null ? `, put up ${moment(item.publishedDesk, now)}` : ''}
          {text ? `, captions ${text.captions} in ${languageName(text.language)}` : ''}
        </>
      }
    >
      {text && text.address !== '' ? (
        <a className="act quiet brackets text-small" href={text.address} target="_blank" rel="noreferrer">
          Watch it there
        </a>
      ) : null}
    </SourceHead>
  );
}
