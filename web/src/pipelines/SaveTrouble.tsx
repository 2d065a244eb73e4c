import { PipelineWhole } from '@grivo/contract';
import { inWords, Refused } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { Button, Trouble } from '../design/index.ts';
import { useDraft } from './draft.ts';
import { SentencesCompared } from './SentencesCompared.tsx';

/** Saving failed; when somebody else saved first, both are looked at before one is chosen. */
export function SaveTrouble({
  error,
  pipeline,
  mine,
  onChosen,
}: {
  error: unknown;
  pipeline: PipelineWhole;
  mine: readonly string[];
  onChosen: () => void;
}) {
  const { drop, over } = useDraft();
  const current =
    error instanceof Refused && error.problem.status === 412 ? PipelineWhole.safeParse(error.problem.current) : null;
  const theirs = current?.success ? current.data : null;
  const take = (keepMine: boolean) => {
    if (!theirs) return;
    over(theirs.rev, theirs.document);
    if (!keepMine) drop();
    queryClient.setQueryData(['pipeline', pipeline.id], theirs);
    onChosen();
  };
  return (
    <div className="relative col-span-2 px-8 pb-2">
      <Trouble
        actions={
          theirs ? (
            <>
              <Button look="word" onClick={() => take(false)}>
                Take theirs
              </Button>{' '}
              or{' '}
              <Button look="word" onClick={() => take(true)}>
                keep mine and save again
              </Button>
              .
            </>
          ) : null
        }
      >
        {inWords(error)}
      </Trouble>
      {theirs ? <SentencesCompared before={theirs.sentences} after={mine} names={['theirs', 'mine']} /> : null}
    </div>
  );
}
