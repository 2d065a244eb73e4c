import { CardSamples, type HouseStyleWhole } from '@grivo/contract';
import { type CardDocument, newCard } from '@grivo/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords } from '../../api/call.ts';
import { Button, Empty, Loading, TextOnce, Trouble, Word } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';
import type { StyleEdit } from '../useStyle.ts';
import { CardCanvas } from './CardCanvas.tsx';
import { CardSentence } from './CardSentence.tsx';
import { CardTitles } from './CardTitles.tsx';
import { PickedWords } from './PickedWords.tsx';
import { type CardDraft, type Picked, useDraft } from './useDraft.ts';

/** The cards of a house style: templates titles are set into. */
export function Cards({ style, edit }: { style: HouseStyleWhole; edit: StyleEdit }) {
  const { cards } = edit.words;
  const [search, setSearch] = useSearchParams();
  const open = cards.find(({ name }) => name === search.get('card')) ?? cards[0];
  const show = (name: string) => setSearch({ show: 'cards', card: name });
  const add = (card: CardDocument) => {
    const name = freeName(cards, card.name);
    edit.put(({ cards }) => ({ cards: [...cards, { ...card, name }] }));
    show(name);
  };
  return (
    <div className="-mx-8 flex-1 border-t border-ink px-8 pb-8">
      <div className="flex flex-wrap items-center gap-x-5 py-3">
        {cards.map(({ name }) => (
          <button
            key={name}
            type="button"
            aria-pressed={name === open?.name}
            className={`brackets ${name === open?.name ? 'hl hl-full font-semibold' : 'text-ink-2'}`}
            onClick={() => show(name)}
          >
            {name}
          </button>
        ))}
        <Button look="quiet" disabled={cards.length >= 20} onClick={() => add(newCard('Title and blog'))}>
          {cards.length === 0 ? 'Make the first card' : 'Make another'}
        </Button>
      </div>
      {open ? (
        <OneCard key={open.name} style={style} kept={open} edit={edit} show={show} copy={add} />
      ) : (
        <Empty>
          No card yet. A card is a picture with the title of the article set into it; a step ‘illustrate’ can draw one
          for each article, at no cost.
        </Empty>
      )}
    </div>
  );
}

/** A name no other card has. */
function freeName(cards: readonly CardDocument[], name: string): string {
  const taken = new Set(cards.map((card) => card.name));
  if (!taken.has(name)) return name;
  for (let n = 2; ; n++) if (!taken.has(`${name} ${n}`)) return `${name} ${n}`;
}

function OneCard({
  style,
  kept,
  edit,
  show,
  copy,
}: {
  style: HouseStyleWhole;
  kept: CardDocument;
  edit: StyleEdit;
  show: (name: string) => void;
  copy: (card: CardDocument) => void;
}) {
  const draft = useDraft(style.id, kept);
  const [picked, pick] = useState<Picked>(null);
  const [draw, setDraw] = useState(0);
  const [shown, setShown] = useState<number | null>(null);
  const card = useDeferredValue(draft.card);
  const drawn = useQuery({
    queryKey: ['card drawn', style.id, style.rev, card, draw],
    queryFn: () => call('POST', `/styles/${style.id}/cards/drawn`, { body: { card, draw }, answer: CardSamples }),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  const samples = drawn.data?.samples ?? [];
  const at = shown === null || shown >= samples.length ? Math.floor(samples.length / 2) : shown;
  const sample = samples[at];
  const main = Math.max(
    0,
    draft.card.texts.findIndex(({ says }) => says.includes('title')),
  );
  return (
    <>
      <CardHead
        style={style}
        kept={kept}
        draft={draft}
        edit={edit}
        show={show}
        copy={copy}
        title={sample?.title ?? ''}
      />
      {drawn.isError ? <Trouble>{inWords(drawn.error)}</Trouble> : null}
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,2fr)] gap-8 max-[1100px]:grid-cols-1">
        <section>
          <CardSentence draft={draft} pick={pick} />
          <CardCanvas draft={draft} svg={sample?.svg ?? null} picked={picked} pick={pick} />
          {picked ? (
            <div className="pt-3">
              <PickedWords draft={draft} picked={picked} pick={pick} />
            </div>
          ) : (
            <p className="pt-2 text-small text-ink-3">Press what stands on the card to change it.</p>
          )}
        </section>
        <section aria-label="The card with titles of ours">
          {drawn.isPending ? <Loading rows={10} /> : null}
          {drawn.data ? (
            <CardTitles drawn={drawn.data} main={main} shown={at} show={setShown} others={() => setDraw(draw + 1)} />
          ) : null}
        </section>
      </div>
    </>
  );
}

function CardHead({
  style,
  kept,
  draft,
  edit,
  show,
  copy,
  title,
}: {
  style: HouseStyleWhole;
  kept: CardDocument;
  draft: CardDraft;
  edit: StyleEdit;
  show: (name: string) => void;
  copy: (card: CardDocument) => void;
  title: string;
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
      <span className="ml-auto flex flex-wrap items-center gap-x-5">
        {draft.changes === 0 && title !== '' ? (
          <a
            className="act quiet brackets"
            href={`/api/styles/${style.id}/cards/${encodeURIComponent(kept.name)}/file?title=${encodeURIComponent(title)}`}
            download
          >
            Save this one as a file
          </a>
        ) : null}
        <Word
          label="Name of the card"
          editor={(close) => (
            <TextOnce
              label="Name of the card"
              value={kept.name}
              hint="Steps that ask for it by its name have to be told the new one."
              onPut={(name) => name !== '' && rename(name)}
              close={close}
            />
          )}
        >
          rename
        </Word>
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
