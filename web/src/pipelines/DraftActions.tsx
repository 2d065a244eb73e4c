import { Button, DoneHere } from '../design/index.ts';
import { isChanged, useDraft } from './draft.ts';

/** What can be done with unsaved changes; without any, that they were saved, or how to make some. */
export function DraftActions({
  version,
  save,
  onSave,
}: {
  version: number;
  save: { isPending: boolean; isSuccess: boolean };
  onSave: () => void;
}) {
  const { draft, undo, redo, drop } = useDraft();
  if (!isChanged(draft))
    return save.isSuccess ? (
      <DoneHere>Saved as version {version}.</DoneHere>
    ) : (
      <span className="text-ink-3">Marked words can be changed; a number moves its line.</span>
    );
  return (
    <>
      <Button look="quiet" onClick={undo} disabled={!draft || draft.history.past.length === 0} hint="Z">
        Take back
      </Button>
      {draft && draft.history.future.length > 0 ? (
        <Button look="quiet" onClick={redo} hint="⇧Z">
          Again
        </Button>
      ) : null}
      <Button look="quiet" onClick={drop}>
        Drop changes
      </Button>
      <Button look="word" onClick={onSave} busy={save.isPending ? 'Saving' : null} hint="S">
        Save as version {version + 1}
      </Button>
    </>
  );
}
