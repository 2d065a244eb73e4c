import { type HouseStyleWhole, StyleSample } from '@grivo/contract';
import { FIGURES } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, Mark, Tick, Trouble } from '../design/index.ts';
import { useNow } from '../shell/useNow.ts';
import { money, plural } from '../words/figures.ts';
import { inARow } from '../words/list.ts';
import { moment } from '../words/time.ts';

/** So long nothing is changed before it is written anew, so that a row of changes is one. */
const CALM_MS = 4_000;

/** Two paragraphs written in the style, to hear it. */
export function Sample({ style }: { style: HouseStyleWhole }) {
  const { id, sample, samples, version } = style;
  const slots = useQuery(read.slots(null, 7)).data;
  const now = useNow(slots?.now, slots?.speed) ?? Date.now();
  const write = useMutation<StyleSample, Error, void>({
    mutationFn: () => call('POST', `/styles/${id}/sample`, { answer: StyleSample }),
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: ['style', id] }),
  });
  const [anew, setAnew] = useAnew(id);
  const { mutate, isPending, isError } = write;
  const stale = sample !== null && sample.version !== version && !isPending && !isError;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a further change begins the wait again
  useEffect(() => {
    if (!anew || !stale) return;
    const calm = setTimeout(mutate, CALM_MS);
    return () => clearTimeout(calm);
  }, [anew, stale, version, mutate]);
  if (samples.length === 0) return null;
  return (
    <div className="mt-3 border-t border-rule pt-2">
      <div className="flex flex-wrap items-baseline gap-x-4 text-small text-ink-3">
        <span>{sample ? 'Written in it, to be heard' : 'Hear it: two paragraphs written in it'}</span>
        <span className="ml-auto">
          {sample ? `${moment(sample.atDesk, now)}, ${money(sample.micros)}, ${plural(sample.words, 'word')}` : ''}
        </span>
        <Button look="quiet" busy={write.isPending ? 'Writing' : null} onClick={() => write.mutate()}>
          {sample ? 'Write another' : 'Write it'}
        </Button>
      </div>
      {write.isError ? <Trouble>{inWords(write.error)}</Trouble> : null}
      {sample ? (
        <>
          <blockquote className="mt-2 border-l-[5px] border-rule pl-6 font-read text-[16px] leading-[26px]">
            <p className="font-bold">{sample.heading}</p>
            {sample.paragraphs.map((text) => (
              <p key={text}>{text}</p>
            ))}
          </blockquote>
          <p className="flex items-baseline gap-2 pt-2 text-small">
            <Mark state={sample.outside.length === 0 ? 'done' : 'wait'} />
            <span>
              <SampleSays sample={sample} />
              {sample.version === version ? null : (
                <span className="text-ink-3"> Written in version {sample.version}; the style was changed since.</span>
              )}
            </span>
          </p>
          <p className="pt-1 text-small">
            <Tick state={anew} onChange={setAnew} label="Write it anew after each change">
              Write it anew after each change, about {money(sample.micros)} each
            </Tick>
          </p>
        </>
      ) : null}
    </div>
  );
}

const kept = (style: string) => `grivo sample anew ${style}`;

/** Whether the sample of a style follows what is changed, as chosen in this browser. */
function useAnew(style: string): [boolean, (on: boolean) => void] {
  const [on, setOn] = useState(() => localStorage.getItem(kept(style)) !== null);
  return [
    on,
    (next) => {
      if (next) localStorage.setItem(kept(style), 'yes');
      else localStorage.removeItem(kept(style));
      setOn(next);
    },
  ];
}

function SampleSays({ sample: { outside, reworded } }: { sample: StyleSample }) {
  return (
    <>
      {outside.length === 0
        ? 'All its figures lie in their ranges'
        : `Outside of their ranges: ${inARow(outside.map((name) => FIGURES[name].says.toLowerCase()))}`}
      {reworded.length === 0 ? '.' : '; put in the words of the house: '}
      {reworded.map(({ from, to }, i) => (
        <span key={`${from} ${to} ${i}`}>
          {i === 0 ? '' : ', '}
          <s className="text-ink-3">{from}</s> to <b>{to}</b>
        </span>
      ))}
      {reworded.length === 0 ? '' : '.'}
    </>
  );
}
