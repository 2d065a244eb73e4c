import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { inWords } from '../api/call.ts';
import { read } from '../api/queries.ts';
import { Button, Empty, Loading, Trouble } from '../design/index.ts';
import { useArchived } from '../keeping/useArchived.tsx';
import { NoneCarries } from '../labels/NoneCarries.tsx';
import { useNow } from '../shell/useNow.ts';
import { count } from '../words/figures.ts';
import { NewPipeline } from './NewPipeline.tsx';
import { PipelineTable } from './PipelineTable.tsx';
import { Routines } from './Routines.tsx';

/** Every pipeline: on or off, next look, last article, how its briefs stand, what it brought this month. */
export default function Pipelines() {
  const pipelines = useQuery(read.pipelines());
  const slots = useQuery(read.slots(null, 7));
  const now = useNow(slots.data?.now, slots.data?.speed) ?? Date.now();
  const [search, setSearch] = useSearchParams();
  const making = search.has('new');
  const { rows, words: archived } = useArchived(pipelines.data?.pipelines);
  return (
    <>
      <div className="flex h-[68px] items-center gap-4">
        <h1 className="text-title font-semibold tracking-[-0.018em]">Pipelines</h1>
        <span className="text-ink-3">
          {rows ? `${count(rows.length)} in all, ${rows.filter((row) => row.isOn).length} on` : ''}
        </span>
        {archived}
        <Button className="ml-auto" onClick={() => setSearch(making ? {} : { new: '' })}>
          {making ? 'Not now' : 'Make a pipeline'}
        </Button>
      </div>
      {making ? <NewPipeline from={search.get('from')} source={search.get('source')} /> : null}
      <div className="-mx-8 border-t border-ink px-8">
        {pipelines.isPending ? <Loading /> : null}
        {pipelines.isError ? <Trouble>{inWords(pipelines.error)}</Trouble> : null}
        {rows?.length === 0 && !making ? (
          <NoneCarries what="pipeline">
            <Empty
              next={
                <Button look="word" onClick={() => setSearch({ new: '' })}>
                  Make the first
                </Button>
              }
            >
              There is no pipeline yet.
            </Empty>
          </NoneCarries>
        ) : null}
        {rows && rows.length > 0 ? (
          <PipelineTable rows={rows} now={now} onNew={() => setSearch({ new: '' }, { replace: true })} />
        ) : null}
        {rows ? <Routines /> : null}
      </div>
    </>
  );
}
