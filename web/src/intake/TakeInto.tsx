import { Estimate, type Pipeline, PipelineWhole, type Source, Taken } from '@grivo/contract';
import { SHIPPED } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { queryClient, read } from '../api/queries.ts';
import { Button, ChoiceWord, DoneHere, Trouble } from '../design/index.ts';
import { money, plural } from '../words/figures.ts';

export interface TakingInto {
  pipelines: readonly Pipeline[];
  pipeline: Pipeline | undefined;
  choose: (id: string) => void;
  take: ReturnType<typeof useTake>;
  /** The source taken from, and its kind. */
  source: string;
  kind: Source['kind'];
}

/** What is taken: items each by itself, or groups of them together. */
export interface Chosen {
  items?: string[];
  groups?: string[][];
  range?: { from: number; to: number } | null;
}

function useTake(pipeline: Pipeline | undefined, onTaken: () => void) {
  return useMutation({
    mutationFn: (body: Chosen) =>
      call('POST', `/pipelines/${pipeline!.id}/take`, { body, answer: Taken, key: freshKey() }),
    onSuccess: () => {
      onTaken();
      for (const key of ['items', 'sources', 'source', 'pipelines', 'sheet'])
        void queryClient.invalidateQueries({ queryKey: [key] });
    },
  });
}

/** What most procedures can make something of; anything else has to be read first, which takes one made for it. */
const LOOKED_UP: ReadonlySet<Source['kind']> = new Set(['keywords', 'sheet', 'videos']);

/** The pipeline items are taken into: the one fed by the source, else the first that can; another can be chosen. */
export function useTakingInto(source: string, kind: Source['kind'], onTaken: () => void): TakingInto {
  const pipelines = useQuery(read.pipelines()).data?.pipelines ?? [];
  const [chosen, choose] = useState<string | null>(null);
  const fed = pipelines.find((one) => one.sources.includes(source));
  const pipeline =
    pipelines.find((one) => one.id === chosen) ?? fed ?? (LOOKED_UP.has(kind) ? pipelines[0] : undefined);
  return { pipelines, pipeline, choose, take: useTake(pipeline, onTaken), source, kind };
}

/** About what taking so many items costs: as articles of the pipeline cost lately, else by the prices of what it calls. */
function useCost(pipeline: Pipeline | undefined, n: number): number | null {
  const document = useQuery({
    queryKey: ['pipeline', pipeline?.id],
    queryFn: () => call('GET', `/pipelines/${pipeline?.id}`, { answer: PipelineWhole }),
    enabled: pipeline !== undefined && n > 0,
  }).data?.document;
  const byPrice = useQuery({
    queryKey: ['estimate', pipeline?.id, document],
    queryFn: () => call('POST', '/procedures/estimate', { body: { document }, answer: Estimate }),
    enabled: document !== undefined && pipeline?.microsEach === null,
  }).data;
  if (!pipeline || n === 0) return null;
  const each = pipeline.microsEach ?? byPrice?.micros ?? null;
  const gather = document?.steps.find((step) => step.kind === 'take')?.gather ?? 1;
  return each === null ? null : each * Math.ceil(n / gather);
}

/** What taking so many costs, and into which pipeline they go. */
export function IntoWords({ into: { pipelines, pipeline, choose, source, kind }, n }: { into: TakingInto; n: number }) {
  const make = `/pipelines?new&from=${SHIPPED.find(({ from }) => from === kind)?.key ?? 'guides'}&source=${source}`;
  const cost = useCost(pipeline, n);
  if (pipelines.length === 0)
    return (
      <span className="text-small">
        There is no pipeline to take them.{' '}
        <Link to={make} className="act">
          Make one
        </Link>
      </span>
    );
  return (
    <span className="text-small">
      {cost === null ? '' : `about ${money(cost)}, `}
      into{' '}
      <ChoiceWord
        label="Into the pipeline"
        value={pipeline?.id ?? ''}
        options={pipelines.map((one) => ({
          value: one.id,
          says: one.name,
          does: one.microsEach === null ? 'no article yet' : `${money(one.microsEach)} each`,
        }))}
        onChoose={(next) => choose(next)}
      >
        {pipeline?.name ?? 'no pipeline yet'}
      </ChoiceWord>
      {pipelines.some((one) => one.sources.includes(source)) ? null : (
        <>
          {' or '}
          <Link to={make} className="act brackets">
            one made for it
          </Link>
        </>
      )}
    </span>
  );
}

/** What became of the last taking. */
export function TakenHere({ into: { pipeline, take } }: { into: TakingInto }) {
  return (
    <>
      {take.data ? (
        <DoneHere>
          {take.data.briefs.length === 0
            ? 'Nothing taken, all were taken before.'
            : `${plural(take.data.briefs.length, 'brief')} taken.`}{' '}
          {pipeline ? (
            <Link to={`/pipelines/${pipeline.id}?show=briefs`} className="act brackets">
              Watch them
            </Link>
          ) : null}
        </DoneHere>
      ) : null}
      {take.isError ? <Trouble>{inWords(take.error)}</Trouble> : null}
    </>
  );
}

/** The one solid button of a source: takes what is ticked. */
export function TakeButton({ into, chosen, says }: { into: TakingInto; chosen: Chosen | null; says: ReactNode }) {
  return (
    <Button
      look="solid"
      hint="T"
      disabled={chosen === null || into.pipeline === undefined || into.take.isPending}
      busy={into.take.isPending ? 'Taking' : null}
      onClick={() => chosen && into.take.mutate(chosen)}
    >
      {says}
    </Button>
  );
}
