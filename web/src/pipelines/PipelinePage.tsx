import type { PipelineWhole } from '@grivo/contract';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { queryClient, read } from '../api/queries.ts';
import { Loading, Mark, Trouble, useMay } from '../design/index.ts';
import { KeepMenu } from '../keeping/KeepMenu.tsx';
import { useNow } from '../shell/useNow.ts';
import { amount, count, counted, plural } from '../words/figures.ts';
import { moment } from '../words/time.ts';
import { Briefs } from './Briefs.tsx';
import { useDraft } from './draft.ts';
import { PipelineMenu } from './PipelineMenu.tsx';
import { Procedure } from './Procedure.tsx';
import { whole } from './read.ts';
import { Versions } from './Versions.tsx';

const TABS = ['procedure', 'briefs', 'versions'] as const;

/** A pipeline: its procedure with the trial beside it, its briefs, its versions. */
export default function PipelinePage() {
  const { id = '' } = useParams();
  const pipeline = useQuery(whole.pipeline(id));
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const [search, setSearch] = useSearchParams();
  const tab = TABS.find((one) => one === search.get('show')) ?? (search.has('brief') ? 'briefs' : 'procedure');
  const open = useDraft((store) => store.open);
  useEffect(() => {
    if (pipeline.data) open(id, pipeline.data.rev, pipeline.data.document);
  }, [id, pipeline.data, open]);
  if (pipeline.isPending)
    return (
      <div className="pt-8">
        <Loading rows={9} />
      </div>
    );
  if (!pipeline.data) return <Trouble>{inWords(pipeline.error)}</Trouble>;
  return (
    <>
      <PipelineHead pipeline={pipeline.data} now={now}>
        {TABS.map((one) => (
          <button
            key={one}
            type="button"
            aria-current={tab === one ? 'page' : undefined}
            className={`brackets ${tab === one ? 'hl hl-full font-semibold text-ink' : ''}`}
            onClick={() => setSearch(one === 'procedure' ? {} : { show: one })}
          >
            {one.charAt(0).toUpperCase() + one.slice(1)}
          </button>
        ))}
      </PipelineHead>
      {tab === 'procedure' ? <Procedure pipeline={pipeline.data} now={now} /> : null}
      {tab === 'briefs' ? <Briefs pipeline={pipeline.data} now={now} /> : null}
      {tab === 'versions' ? <Versions id={id} now={now} /> : null}
    </>
  );
}

/** Its name, whether it is on, how its briefs stand, and what can be done with it as a whole. */
function PipelineHead({ pipeline, now, children }: { pipeline: PipelineWhole; now: number; children: ReactNode }) {
  const may = useMay();
  const { id, name, isOn, counts, nextLook, version, outThisMonth, microsEach, note } = pipeline;
  const act = useMutation({
    mutationFn: (word: 'on' | 'off') => call('POST', `/pipelines/${id}/${word}`, { body: {} }),
    onSettled: () => {
      void queryClient.invalidateQueries({ queryKey: ['pipeline', id] });
      void queryClient.invalidateQueries({ queryKey: ['pipelines'] });
    },
  });
  return (
    <div className="pt-2 pb-2">
      <div className="flex items-center">
        <h1 className="truncate text-title font-semibold tracking-[-0.018em]">{name}</h1>
        <nav aria-label="Parts of the pipeline" className="ml-8 flex flex-1 gap-5 pt-1 font-medium text-ink-2">
          {children}
        </nav>
        <span className="mr-5 text-ink-2">
          It is{' '}
          <button
            type="button"
            className="word hl hl-rest brackets font-semibold text-ink"
            aria-pressed={isOn}
            disabled={!may}
            onClick={() => act.mutate(isOn ? 'off' : 'on')}
          >
            {isOn ? 'on' : 'off'}
          </button>
          {isOn ? (nextLook === null ? ' and looks when asked' : ` and looks next ${moment(nextLook, now)}`) : ''}
        </span>
      </div>
      <div className="flex flex-wrap gap-x-5 text-small leading-5 text-ink-2">
        <Standing state="plan" says={`${counted(counts.waiting)} waiting`} />
        <Standing state="busy" says={`${count(counts['in work'])} in work`} />
        {counts.held > 0 ? <Standing state="wait" says={`${counted(counts.held)} held for you`} /> : null}
        {counts.stopped > 0 ? <Standing state="stop" says={`${counted(counts.stopped)} stopped`} /> : null}
        <Standing state="done" says={`${counted(counts.ready)} ready`} />
        <span>
          {plural(outThisMonth, 'article')} out this month
          {microsEach === null ? '' : `, ${amount(microsEach)} € each`}
        </span>
        {note === '' ? null : <span className="text-ink-3">{note}</span>}
        <span className="ml-auto text-ink-3">version {version}</span>
        <PipelineMenu pipeline={pipeline} />
        <KeepMenu of="pipelines" it={pipeline} />
      </div>
      {act.isError ? <Trouble>{inWords(act.error)}</Trouble> : null}
    </div>
  );
}

function Standing({ state, says }: { state: Parameters<typeof Mark>[0]['state']; says: string }) {
  return (
    <span className="flex items-center gap-2">
      <Mark state={state} /> {says}
    </span>
  );
}
