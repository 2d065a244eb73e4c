import { type Item, type SourceWhole, type VideoSettings, VideoText } from '@grivo/contract';
import { clockOf, countWords, languageName } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Head, Loading, Mark, NumberEditor, Ruler, saysOf, stateOf, Trouble, Word } from '../design/index.ts';
import { useViewKeys } from '../shell/keys.ts';
import { useNow } from '../shell/useNow.ts';
import { count, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { LeaveOut } from './items/LeaveOut.tsx';
import { ExcludeWord, LookedHere, Looks, leftOutWords, StartWord } from './LookWords.tsx';
import { SourceHead } from './SourceHead.tsx';
import { IntoWords, TakenHere, type TakingInto, useTakingInto } from './TakeInto.tsx';
import { TakenBy } from './TakenBy.tsx';
import { type Range, TimeRange } from './TimeRange.tsx';
import { Transcript } from './Transcript.tsx';
import { useChange, useLook } from './useSource.ts';

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

function OneVideo({
  source,
  item,
  into,
  list,
  now,
}: {
  source: SourceWhole;
  item: Item;
  into: TakingInto;
  list: React.ReactNode;
  now: number;
}) {
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
            <WouldBeRead text={text} item={item} part={part} whole={whole} setRange={setRange} into={into} />
          ) : null}
        </div>
        <div className="border-l border-rule px-6 pr-8">{list}</div>
      </div>
    </>
  );
}

/** What would be read of a video, how much it carries, and the button that takes it. */
function WouldBeRead({
  text,
  item,
  part,
  whole,
  setRange,
  into,
}: {
  text: VideoText;
  item: Item;
  part: Range;
  whole: Range;
  setRange: (range: Range | null) => void;
  into: TakingInto;
}) {
  const inside = text.lines.filter(({ start }) => start >= part.from - 0.5 && start < part.to);
  const words = inside.reduce((sum, line) => sum + countWords(line.text, text.language), 0);
  // The same share as of the whole: what so many spoken words carry.
  const carries = Math.floor((words / Math.max(1, text.words)) * text.carries);
  const chapters = text.chapters.filter(({ start }, i) => {
    const end = text.chapters[i + 1]?.start ?? text.seconds;
    return start < part.to && end > part.from;
  });
  const partly = part.from > whole.from || part.to < whole.to;
  const taken = item.taken.some((one) => one.pipeline === into.pipeline?.id);
  const asked = wordsAsked(into);
  const top = Math.max(words, asked ?? 0) * 1.1;
  const press = () => into.take.mutate({ items: [item.id], range: partly ? part : null });
  const can = into.pipeline !== undefined && !taken && !into.take.isPending && words > 0;
  useViewKeys({ t: can ? press : null });
  return (
    <>
      <Head title="What would be read" />
      <p className="py-2 text-proc">
        Read the captions from{' '}
        <TimeWord label="From" at={part.from} most={part.to - 1} onChange={(from) => setRange({ ...part, from })} /> to{' '}
        <TimeWord label="To" at={part.to} most={whole.to} onChange={(to) => setRange({ ...part, to })} />;{' '}
        {chapters.length > 1 ? `its ${chapters.length} chapters can give the sections.` : 'it has no chapters there.'}
      </p>
      {partly ? (
        <Button look="quiet" className="text-small" onClick={() => setRange(null)}>
          all of it
        </Button>
      ) : null}
      <p className="pt-2">
        <b className="font-semibold">{count(words)}</b> spoken words are enough for about{' '}
        <b className="font-semibold">{count(carries)}</b> written ones
        {asked === null ? (
          '.'
        ) : (
          <>
            ; the pipeline asks for <b className="font-semibold">{count(asked)}</b>.
          </>
        )}
      </p>
      {asked !== null ? (
        <div className="pt-2">
          <Ruler
            label={`Asked ${asked}, carried ${carries}`}
            value={asked}
            from={0}
            to={top}
            least={0}
            most={carries}
          />
          {asked > carries ? (
            <p className="text-small text-red">
              The pipeline asks for more than the video has material for; the article would have about {count(carries)}.
            </p>
          ) : null}
        </div>
      ) : null}
      <div className="pt-4">
        <Head title="Taken by" right={item.taken.length === 0 ? 'nobody yet' : plural(item.taken.length, 'pipeline')} />
      </div>
      <TakenBy item={item} pipelines={into.pipelines} />
      {item.leftOut ? (
        <p className="pt-2 text-small text-ink-2">
          Left out: {leftOutWords(item.leftOut, item.leftDetail)}. You can take it anyway.
        </p>
      ) : null}
      <div className="pt-3">
        <Button look="solid" hint="T" disabled={!can} busy={into.take.isPending ? 'Taking' : null} onClick={press}>
          {taken
            ? 'This pipeline took it before'
            : partly
              ? `Take ${clockOf(part.from)} to ${clockOf(part.to)}`
              : 'Take it'}
        </Button>
        <p className="pt-1.5">
          <IntoWords into={into} n={1} />
        </p>
        <TakenHere into={into} />
      </div>
    </>
  );
}

/** Words the pipeline's write step asks for, read from its sentence. */
function wordsAsked({ pipeline }: TakingInto): number | null {
  const sentence = pipeline?.sentences.find((one) => /^Write about [\d,]+ words/.test(one));
  const figure = /^Write about ([\d,]+) words/.exec(sentence ?? '')?.[1];
  return figure ? Number(figure.replace(/,/g, '')) : null;
}

function TimeWord({
  label,
  at,
  most,
  onChange,
}: {
  label: string;
  at: number;
  most: number;
  onChange: (at: number) => void;
}) {
  return (
    <Word
      label={label}
      editor={() => (
        <NumberEditor
          label={`${label}, in seconds`}
          value={at}
          least={0}
          most={most}
          unit={`seconds, ${clockOf(at)}`}
          onChange={(next) => next !== null && onChange(next)}
        />
      )}
    >
      {clockOf(at)}
    </Word>
  );
}

function VideoList({
  source,
  settings,
  items,
  chosen,
  choose,
  look,
  now,
}: {
  source: SourceWhole;
  settings: VideoSettings;
  items: readonly Item[];
  chosen: string | null;
  choose: (id: string) => void;
  look: ReturnType<typeof useLook>;
  now: number;
}) {
  const change = useChange(source);
  const put = (next: Partial<VideoSettings>) => change.mutate({ ...settings, ...next });
  const offer = useMutation({
    mutationFn: ({ id, on }: { id: string; on: boolean }) =>
      call('POST', `/sources/${source.id}/offer`, { body: { items: [id], offer: on } }),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['items', source.id] }),
  });
  const others = items.flatMap((item) =>
    item.id !== chosen && item.leftOut === null && item.taken.length === 0 ? item.id : [],
  );
  return (
    <>
      <Head title={source.name} right={plural(items.length, 'video')} />
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
      <Button look="line" hint="L" busy={look.isPending ? 'Looking' : null} onClick={() => look.mutate()}>
        {source.lastLook === null ? 'Look at it' : 'Look again'}
      </Button>
      <LookedHere looked={look.data} error={look.isError ? inWords(look.error) : null} />
      {source.trouble && !look.data ? <Trouble>{source.trouble}</Trouble> : null}
      {change.isError ? <Trouble>{inWords(change.error)}</Trouble> : null}
      <ul className="pt-2 pb-4">
        {items.map((item) => {
          const last = item.taken.at(-1);
          return (
            <li key={item.id} className={`row border-b border-rule-soft ${item.id === chosen ? 'picked' : ''}`}>
              <button
                type="button"
                aria-current={item.id === chosen}
                className="brackets grid w-full grid-cols-[16px_1fr] py-1 text-left"
                onClick={() => choose(item.id)}
              >
                <Mark state={last ? stateOf(last.standing) : item.leftOut ? 'aside' : 'plan'} />
                <span className="min-w-0">
                  <span className={`block truncate ${item.id === chosen ? 'font-semibold' : ''}`}>{item.subject}</span>
                  <span className="block text-small text-ink-3">
                    {last ? saysOf(last.standing) : item.leftOut ? leftOutWords(item.leftOut, item.leftDetail) : 'new'}
                  </span>
                </span>
              </button>
              {item.id === chosen && !last ? (
                <Button
                  look="quiet"
                  className="mb-1 ml-4 min-h-6 text-small"
                  onClick={() => offer.mutate({ id: item.id, on: item.leftOut !== null })}
                >
                  {item.leftOut ? 'include it anyway' : 'leave it out'}
                </Button>
              ) : null}
            </li>
          );
        })}
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
