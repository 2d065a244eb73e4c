import type { CardSample, HouseStyleWhole } from '@grivo/contract';
import type { CardDocument } from '@grivo/core';
import { Button, TextWord } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';
import type { StyleEdit } from '../useStyle.ts';
import { freeName } from './names.ts';
import type { CardDraft } from './useDraft.ts';

/** How a card stands, and what can be done with it as a whole. */
export function CardHead({
  style,
  kept,
  draft,
  edit,
  show,
  copy,
  sample,
}: {
  style: HouseStyleWhole;
  kept: CardDocument;
  draft: CardDraft;
  edit: StyleEdit;
  show: (name: string) => void;
  copy: (card: CardDocument) => void;
  sample: CardSample | undefined;
}) {
  const replace = (card: CardDocument | null) =>
    edit.put(({ cards }) => ({
      cards: cards.flatMap((one) => (one.name === kept.name ? (card ? [card] : []) : [one])),
    }));
  const keep = () => {
    replace(draft.card);
    draft.drop();
  };
  const rename = (name: string) => {
    const free = freeName(
      edit.words.cards.filter((one) => one.name !== kept.name),
      name.slice(0, 60),
    );
    replace({ ...draft.card, name: free });
    draft.drop();
    show(free);
  };
  return (
    <div className="flex flex-wrap items-center gap-x-5 pb-2 text-small">
      <Keeping draft={draft} version={style.version} keep={keep} />
      <Acts style={style} kept={kept} draft={draft} replace={replace} rename={rename} copy={copy} sample={sample} />
    </div>
  );
}

/** Whether it is kept as it stands, and what can be done about it. */
function Keeping({ draft, version, keep }: { draft: CardDraft; version: number; keep: () => void }) {
  return (
    <>
      <span className="text-ink-2" role="status">
        {draft.changes === 0 ? `kept, version ${version}` : `${plural(draft.changes, 'change')} not kept yet`}
      </span>
      {draft.changes > 0 ? (
        <>
          <Button look="solid" onClick={keep}>
            Keep as version {version + 1}
          </Button>
          <Button look="quiet" onClick={draft.undo}>
            Undo
          </Button>
          <Button look="quiet" onClick={draft.drop}>
            Give them up
          </Button>
        </>
      ) : null}
    </>
  );
}

/** Saved as a file, renamed, copied, removed. */
function Acts({
  style,
  kept,
  draft,
  replace,
  rename,
  copy,
  sample,
}: {
  style: HouseStyleWhole;
  kept: CardDocument;
  draft: CardDraft;
  replace: (card: CardDocument | null) => void;
  rename: (name: string) => void;
  copy: (card: CardDocument) => void;
  sample: CardSample | undefined;
}) {
  return (
    <span className="ml-auto flex flex-wrap items-center gap-x-5">
      {draft.changes === 0 && sample ? (
        <a
          className="act quiet brackets"
          href={`/api/styles/${style.id}/cards/${encodeURIComponent(kept.name)}/file?${asked(sample)}`}
          download
        >
          Save this one as a file
        </a>
      ) : null}
      <TextWord
        label="Name of the card"
        value={kept.name}
        hint="Steps that ask for it by its name have to be told the new one."
        onPut={(name) => name !== '' && rename(name)}
      >
        rename
      </TextWord>
      <Button look="quiet" onClick={() => copy({ ...draft.card, name: `${kept.name}, copy`.slice(0, 60) })}>
        copy it
      </Button>
      <Button
        look="quiet"
        onClick={() => {
          draft.drop();
          replace(null);
        }}
      >
        remove it
      </Button>
      <span className="text-ink-3">Versions bring it back</span>
    </span>
  );
}

/** What of a sample stands on the card, so that the file is what is shown. */
const asked = ({ title, blog, language }: CardSample): string =>
  new URLSearchParams({ title, blog, language }).toString();
