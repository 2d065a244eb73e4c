import { type Names, type ProcedureDocument, toldProcedure } from '@grivo/core';
import { inWords, Refused } from '../api/call.ts';
import { Button, Trouble } from '../design/index.ts';
import { useDraft } from './draft.ts';
import { SentencesCompared } from './SentencesCompared.tsx';

/** A procedure as somebody else saved it. */
interface Saved {
  rev: number;
  document: ProcedureDocument;
}

/** Saving failed; when somebody else saved first, both are looked at before one is chosen. */
export function SaveTrouble<T extends Saved>({
  error,
  read,
  mine,
  names,
  onChosen,
}: {
  error: unknown;
  /** What is saved now, as the refusal tells it. */
  read: (current: unknown) => T | null;
  mine: ProcedureDocument;
  names: Names;
  onChosen: (theirs: T) => void;
}) {
  const { drop, over } = useDraft();
  const theirs = error instanceof Refused && error.problem.status === 412 ? read(error.problem.current) : null;
  const take = (keepMine: boolean) => {
    if (!theirs) return;
    over(theirs.rev, theirs.document);
    if (!keepMine) drop();
    onChosen(theirs);
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
      {theirs ? (
        <SentencesCompared
          before={toldProcedure(theirs.document, names)}
          after={toldProcedure(mine, names)}
          names={['theirs', 'mine']}
        />
      ) : null}
    </div>
  );
}
