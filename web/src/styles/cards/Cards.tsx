import { CardSamples, type HouseStyleWhole } from '@grivo/contract';
import { type CardDocument, newCard } from '@grivo/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { useSearchParams } from 'react-router';
import { call, inWords } from '../../api/call.ts';
import { Button, Empty, Loading, Trouble } from '../../design/index.ts';
import type { StyleEdit } from '../useStyle.ts';
import { CardCanvas } from './CardCanvas.tsx';
import { CardHead } from './CardHead.tsx';
import { CardSentence } from './CardSentence.tsx';
import { CardTitles } from './CardTitles.tsx';
import { freeName } from './names.ts';
import { PickedWords } from './PickedWords.tsx';
import { type Picked, useDraft } from './useDraft.ts';

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

/** A card as it is typed, drawn with titles of ours. */
function useSamples({ id, rev }: HouseStyleWhole, typed: CardDocument) {
  const [draw, setDraw] = useState(0);
  const card = useDeferredValue(typed);
  const drawn = useQuery({
    queryKey: ['card drawn', id, rev, card, draw],
    queryFn: () => call('POST', `/styles/${id}/cards/drawn`, { body: { card, draw }, answer: CardSamples }),
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  return { drawn, others: () => setDraw(draw + 1) };
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
  const [shown, setShown] = useState<number | null>(null);
  const { drawn, others } = useSamples(style, draft.card);
  const samples = drawn.data?.samples ?? [];
  const at = shown === null || shown >= samples.length ? Math.floor(samples.length / 2) : shown;
  const sample = samples[at];
  const main = Math.max(
    0,
    draft.card.texts.findIndex(({ says }) => says.includes('title')),
  );
  return (
    <>
      <CardHead style={style} kept={kept} draft={draft} edit={edit} show={show} copy={copy} sample={sample} />
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
          {drawn.data ? <CardTitles drawn={drawn.data} main={main} shown={at} show={setShown} others={others} /> : null}
        </section>
      </div>
    </>
  );
}
