import { PipelineWhole } from '@grivo/contract';
import { allSteps, fieldsThroughout, type StepOf, withWord } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { call, inWords, Refused } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { useWords } from '../api/useWords.ts';
import { Button, Empty, Head, Trouble, useMay } from '../design/index.ts';
import { useChecked } from '../pipelines/checked.ts';
import { whole } from '../pipelines/read.ts';
import { StepSentence } from '../pipelines/StepSentence.tsx';

/** A pipeline that publishes here, and how its step says so. */
export interface Feeding {
  id: string;
  name: string;
  says: string;
}

/** The steps that publish here, each as its sentence: its words are changed in place, and the pipeline has them at once. */
export function HowTheyArrive({ blog, feeding }: { blog: string; feeding: readonly Feeding[] }) {
  return (
    <div className="pt-4">
      <Head title="How articles arrive" />
      <ul>
        {feeding.map((one) => (
          <li key={one.id} className="border-b border-rule-soft py-1.5 text-proc">
            <Arrival blog={blog} of={one} />
          </li>
        ))}
      </ul>
      {feeding.length === 0 ? (
        <Empty
          next={
            <Link to="/pipelines?new" className="act quiet">
              Make a pipeline
            </Link>
          }
        >
          No pipeline publishes here yet.
        </Empty>
      ) : null}
    </div>
  );
}

function Arrival({ blog, of }: { blog: string; of: Feeding }) {
  const may = useMay();
  const pipeline = useQuery(whole.pipeline(of.id)).data;
  const name = (
    <Link to={`/pipelines/${of.id}`} className="act quiet brackets text-small">
      {of.name}
    </Link>
  );
  if (!may || !pipeline)
    return (
      <>
        {of.says}. {name}
      </>
    );
  return <ArrivalWords blog={blog} pipeline={pipeline} name={name} />;
}

/** A procedure whose words are saved as soon as they are changed, with the way back to what it was before the first of them. */
function useSavedAtOnce(pipeline: PipelineWhole) {
  const before = useRef<PipelineWhole['document'] | null>(null);
  const rev = useRef(pipeline.rev);
  const { words, put, error } = useWords({ document: pipeline.document }, async ({ document }) => {
    const saved = await call('PUT', `/pipelines/${pipeline.id}`, {
      body: { document },
      rev: rev.current,
      answer: PipelineWhole,
    }).catch(async (failed) => {
      // Somebody else saved first: what they saved is shown.
      if (failed instanceof Refused && failed.problem.status === 412)
        await queryClient.invalidateQueries({ queryKey: ['pipeline', pipeline.id] });
      before.current = null;
      throw failed;
    });
    rev.current = saved.rev;
    queryClient.setQueryData(['pipeline', pipeline.id], saved);
    void queryClient.invalidateQueries({ queryKey: ['pipelines'] });
    void queryClient.invalidateQueries({ queryKey: ['versions', pipeline.id] });
  });
  // Newer than what was saved from here: somebody changed it elsewhere.
  rev.current = Math.max(rev.current, pipeline.rev);
  const back = before.current;
  return {
    document: words.document,
    error,
    change(step: string, field: string, value: unknown) {
      before.current ??= words.document;
      put(({ document }) => ({ document: withWord(document, step, field, value) }));
    },
    /** Null where nothing was changed. */
    takeBack:
      back === null || error
        ? null
        : () => {
            before.current = null;
            put({ document: back });
          },
  };
}

function ArrivalWords({ blog, pipeline, name }: { blog: string; pipeline: PipelineWhole; name: ReactNode }) {
  const [adds, setAdds] = useState(false);
  const { document, error, change, takeBack } = useSavedAtOnce(pipeline);
  const { choices, context, problems } = useChecked(pipeline.id, document);
  const seen = useMemo(() => fieldsThroughout(document, context), [document, context]);
  const steps = allSteps(document.steps).filter(
    (step): step is StepOf<'publish'> => step.kind === 'publish' && step.blog === blog && !step.off,
  );
  return (
    <>
      {steps.map((step) => (
        <span key={step.id} className="block">
          <StepSentence
            step={step}
            choices={choices}
            fields={seen(step.id)}
            problems={problems.filter((found) => found.step === step.id)}
            adds={adds}
            onChange={(field, value) => change(step.id, field, value)}
          />
          {adds ? null : '.'}
        </span>
      ))}
      <span className="flex gap-4 text-small leading-6">
        {name}
        <Button look="quiet" onClick={() => setAdds(!adds)}>
          {adds ? 'Say no more' : 'Say more'}
        </Button>
      </span>
      {error ? <Trouble>{inWords(error)}</Trouble> : null}
      {takeBack ? (
        <span className="block text-small text-ink-3">
          Saved: briefs taken from now on are published so.{' '}
          <Button look="word" onClick={takeBack}>
            Take it back
          </Button>
        </span>
      ) : null}
    </>
  );
}
