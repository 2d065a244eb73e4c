import { MOST_COUNTED, type PipelineWhole, Taken } from '@grivo/contract';
import type { ProcedureInput } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, DoneHere, TextArea, Tick, Trouble } from '../design/index.ts';
import { money, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';

/** What there is to take now, as far as it is known without looking outside. */
function useFresh({ document }: PipelineWhole) {
  const take = document.steps[0];
  const sources = useQuery(read.sources()).data?.sources ?? [];
  const own = take?.kind === 'take' ? sources.filter((source) => take.sources.includes(source.id)) : [];
  const fresh = own.reduce((sum, source) => sum + Math.max(0, source.items - source.taken - source.leftOut), 0);
  return {
    most: take?.kind === 'take' && take.most !== null ? Math.min(take.most, fresh) : fresh,
    uncounted: own.some((source) => source.items > MOST_COUNTED),
    // What stands outside is looked at first, so there may be more than is known.
    outside: own.some((source) => source.kind !== 'keywords'),
  };
}

type Fresh = ReturnType<typeof useFresh>;

/** Taking what is new now, with what it will cost before it is pressed. */
export function TakeItems({ pipeline, unsaved, now }: { pipeline: PipelineWhole; unsaved: boolean; now: number }) {
  const fresh = useFresh(pipeline);
  const [inputs, setInputs] = useState<Record<string, string>>({});
  const [byHand, setByHand] = useState(false);
  const asked = pipeline.document.inputs ?? [];
  const lacking = asked.filter(({ name, otherwise }) => otherwise === null && !inputs[name]?.trim());
  const act = useMutation({
    mutationFn: () =>
      call('POST', `/pipelines/${pipeline.id}/take`, {
        body: { inputs, byHand },
        answer: Taken,
        key: freshKey(),
      }),
    onSuccess: () => {
      for (const key of ['pipeline', 'pipelines', 'briefs', 'sources', 'items'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  if (pipeline.problems.some((found) => found.grade === 'error'))
    return <p className="text-small text-ink-3">It can take items once what is marked red is mended.</p>;
  return (
    <div className="text-small">
      <Asked of={asked} given={inputs} onGiven={setInputs} />
      <Button
        look="line"
        busy={act.isPending ? 'Taking' : null}
        disabled={(fresh.most === 0 && !fresh.outside) || lacking.length > 0}
        onClick={() => act.mutate()}
      >
        {actWords(fresh)}
      </Button>
      <span className="inline-flex items-center gap-2 pl-4">
        <Tick label="by hand" state={byHand} onChange={setByHand}>
          by hand, held after every step
        </Tick>
      </span>
      <span className="block pt-1 text-ink-3">
        {costWords(fresh, pipeline.microsEach)}
        {unsaved ? ' By the saved version; your changes are not saved yet.' : ''}
        {pipeline.isOn && pipeline.nextLook !== null ? ` It looks by itself ${moment(pipeline.nextLook, now)}.` : ''}
      </span>
      {act.isError ? <Trouble>{inWords(act.error)}</Trouble> : null}
      {act.data ? (
        <DoneHere>
          {act.data.briefs.length === 0
            ? 'Looked; there is nothing new.'
            : `${plural(act.data.briefs.length, 'brief')} taken.`}{' '}
          <Link to="?show=briefs" className="act brackets">
            See them
          </Link>
        </DoneHere>
      ) : null}
    </div>
  );
}

/** What is asked for at each run. */
function Asked({
  of,
  given,
  onGiven,
}: {
  of: readonly ProcedureInput[];
  given: Record<string, string>;
  onGiven: (given: Record<string, string>) => void;
}) {
  return of.map(({ name, asks, otherwise }) => (
    <div key={name} className="max-w-lg pb-3">
      <TextArea
        label={asks}
        rows={3}
        placeholder={otherwise ?? ''}
        value={given[name] ?? ''}
        onChange={(event) => onGiven({ ...given, [name]: event.target.value })}
      />
    </div>
  ));
}

function actWords({ most, uncounted, outside }: Fresh): string {
  if (outside) return 'Look, and take what is new';
  if (most === 0) return 'Nothing new to take';
  return uncounted ? 'Take what is new now' : `Take ${plural(most, 'new item')} now`;
}

function costWords({ most, uncounted }: Fresh, each: number | null): string {
  if (most === 0 || uncounted) return '';
  return each === null
    ? 'What one costs is known after the first.'
    : `about ${money(each * most)}, as the last ones cost.`;
}
