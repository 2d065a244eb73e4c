import { type PipelineWhole, Taken } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, DoneHere, TextArea, Tick, Trouble } from '../design/index.ts';
import { money, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';

/** Taking what is new now, with what it will cost before it is pressed. */
export function TakeItems({ pipeline, unsaved, now }: { pipeline: PipelineWhole; unsaved: boolean; now: number }) {
  const take = pipeline.document.steps[0];
  const sources = useQuery(read.sources()).data?.sources ?? [];
  const own = take?.kind === 'take' ? sources.filter((source) => take.sources.includes(source.id)) : [];
  const fresh = own.reduce((sum, source) => sum + Math.max(0, source.items - source.taken - source.leftOut), 0);
  const most = take?.kind === 'take' && take.most !== null ? Math.min(take.most, fresh) : fresh;
  // What stands outside is looked at first, so there may be more than is known.
  const outside = own.some((source) => source.kind !== 'keywords');
  const each = pipeline.microsEach;
  const errors = pipeline.problems.filter((found) => found.grade === 'error');
  const [inputs, setInputs] = useState<Record<string, string>>({});
  const [byHand, setByHand] = useState(false);
  const asked = pipeline.document.inputs ?? [];
  const lacking = asked.filter(({ name, otherwise }) => otherwise === null && !inputs[name]?.trim());
  const act = useMutation({
    mutationFn: () =>
      call('POST', `/pipelines/${pipeline.id}/take`, {
        body: { inputs, byHand },
        answer: Taken,
        key: crypto.randomUUID(),
      }),
    onSuccess: () => {
      for (const key of ['pipeline', 'pipelines', 'briefs', 'sources', 'items'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
  if (errors.length > 0)
    return <p className="text-small text-ink-3">It can take items once what is marked red is mended.</p>;
  return (
    <div className="text-small">
      {asked.map(({ name, asks, otherwise }) => (
        <div key={name} className="max-w-lg pb-3">
          <TextArea
            label={asks}
            rows={3}
            placeholder={otherwise ?? ''}
            value={inputs[name] ?? ''}
            onChange={(event) => setInputs({ ...inputs, [name]: event.target.value })}
          />
        </div>
      ))}
      <Button
        look="line"
        busy={act.isPending ? 'Taking' : null}
        disabled={(most === 0 && !outside) || lacking.length > 0}
        onClick={() => act.mutate()}
      >
        {outside
          ? 'Look, and take what is new'
          : most === 0
            ? 'Nothing new to take'
            : `Take ${plural(most, 'new item')} now`}
      </Button>
      <span className="inline-flex items-center gap-2 pl-4">
        <Tick label="by hand" state={byHand} onChange={setByHand}>
          by hand, held after every step
        </Tick>
      </span>
      <span className="block pt-1 text-ink-3">
        {most === 0
          ? ''
          : each === null
            ? 'What one costs is known after the first.'
            : `about ${money(each * most)}, as the last ones cost.`}
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
