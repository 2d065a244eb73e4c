import { Button } from '../design/index.ts';
import { useDraft } from './draft.ts';

/** What can be done with unsaved changes. */
export function DraftActions({ version, saving, onSave }: { version: number; saving: boolean; onSave: () => void }) {
  const { draft, undo, redo, drop } = useDraft();
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
      <Button look="word" onClick={onSave} busy={saving ? 'Saving' : null} hint="S">
        Save as version {version + 1}
      </Button>
    </>
  );
}
