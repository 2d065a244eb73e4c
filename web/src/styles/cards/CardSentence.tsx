import { CARD_SIDES, type CardDocument, resizedCard } from '@grivo/core';
import { Button, ChoiceWord, ColourWord } from '../../design/index.ts';
import { PickPicture } from '../../pictures/PickPicture.tsx';
import { FigureWord } from './FigureWord.tsx';
import type { CardDraft, Picked } from './useDraft.ts';

const LEAST = 100;
const MOST = 3_000;

/** What a card is as a whole: its sides, its ground, and what can be put on it. */
export function CardSentence({ draft, pick }: { draft: CardDraft; pick: (picked: Picked) => void }) {
  const { card, change } = draft;
  const add = (what: 'texts' | 'pictures' | 'areas', added: Partial<CardDocument>) => {
    change(added);
    pick({ what, n: card[what].length });
  };
  return (
    <div className="text-proc leading-8">
      <p>
        <Sides card={card} change={change} />, on <Ground card={card} change={change} />.
      </p>
      <p className="flex flex-wrap items-center gap-x-4 pb-2 text-base [&_button]:min-h-6">
        <span className="text-ink-3">Add</span>
        <Button
          look="quiet"
          disabled={card.texts.length >= 8}
          onClick={() => add('texts', { texts: [...card.texts, newText(card)] })}
        >
          a text
        </Button>
        {card.pictures.length < 6 ? (
          <PickPicture
            says="a picture"
            onPick={({ file }) =>
              add('pictures', {
                pictures: [...card.pictures, { file, fills: true, round: false, box: middleOf(card, 0.3, 0.4) }],
              })
            }
          />
        ) : null}
        <Button
          look="quiet"
          disabled={card.areas.length >= 8}
          onClick={() =>
            add('areas', { areas: [...card.areas, { colour: '#2f5a5d', box: middleOf(card, 0.4, 0.02) }] })
          }
        >
          a rule or band
        </Button>
      </p>
    </div>
  );
}

const middleOf = ({ width, height }: CardDocument, wide: number, high: number) => {
  const [w, h] = [Math.round(width * wide), Math.max(4, Math.round(height * high))];
  return { x: Math.round((width - w) / 2), y: Math.round((height - h) / 2), width: w, height: h };
};

const newText = (card: CardDocument): CardDocument['texts'][number] => ({
  says: '{{ keyPhrase }}',
  face: 'plain',
  bold: false,
  colour: '#0d2a2d',
  from: 24,
  to: 36,
  most: 1,
  across: 'start',
  down: 'middle',
  box: middleOf(card, 0.8, 0.12),
});

type Part = { card: CardDocument; change: (changed: Partial<CardDocument>) => void };

function Sides({ card, change }: Part) {
  const { width, height } = card;
  const named = CARD_SIDES.find((one) => one.width === width && one.height === height)?.name ?? 'own';
  const side = (label: string, value: number, put: (n: number) => void) => (
    <FigureWord label={label} value={value} least={LEAST} most={MOST} unit="px" onPut={put} />
  );
  return (
    <>
      A{named === 'own' ? 'n ' : ' '}
      <ChoiceWord
        label="Form of the card"
        value={named}
        options={[
          ...CARD_SIDES.map((one) => ({
            value: one.name,
            says: one.name,
            does: `${one.width} × ${one.height}, all on it grows along`,
          })),
          { value: 'own' as const, says: 'own', does: 'sides of your own' },
        ]}
        onChoose={(name) => {
          const sides = CARD_SIDES.find((one) => one.name === name);
          if (sides) change(resizedCard(card, sides.width, sides.height));
        }}
      >
        {named === 'own' ? 'odd' : named}
      </ChoiceWord>{' '}
      card, {side('Width', width, (n) => change({ width: n }))} × {side('Height', height, (n) => change({ height: n }))}
    </>
  );
}

function Ground({ card: { ground }, change }: Part) {
  const put = (changed: Partial<CardDocument['ground']>) => change({ ground: { ...ground, ...changed } });
  return (
    <>
      <ColourWord label="Ground" value={ground.colour} onChange={(colour) => put({ colour })} />{' '}
      <ChoiceWord
        label="Whether the ground runs to another colour"
        value={ground.to === null ? 'alone' : ground.towards}
        options={[
          { value: 'alone', says: 'alone', does: 'one colour all over' },
          { value: 'down', says: 'running down to', does: 'from the top to the bottom' },
          { value: 'across', says: 'running across to', does: 'from the left to the right' },
          { value: 'corner', says: 'running to the corner, to', does: 'from one corner to the other' },
        ]}
        onChoose={(how) => put(how === 'alone' ? { to: null } : { to: ground.to ?? '#c4d6d1', towards: how })}
      />{' '}
      {ground.to === null ? null : (
        <ColourWord label="The colour it runs to" value={ground.to} onChange={(to) => put({ to })} />
      )}
      {ground.picture === null ? (
        <>
          {', '}
          <PickPicture says="no picture behind" onPick={({ file }) => put({ picture: { file, veil: 60 } })} />
        </>
      ) : (
        <>
          , over{' '}
          <PickPicture says="a picture" onPick={({ file }) => put({ picture: { file, veil: ground.picture!.veil } })} />{' '}
          veiled by{' '}
          <FigureWord
            label="Veil"
            value={ground.picture.veil}
            least={0}
            most={95}
            unit="%"
            onPut={(veil) => put({ picture: { file: ground.picture!.file, veil } })}
          />{' '}
          <Button look="quiet" onClick={() => put({ picture: null })}>
            take it out
          </Button>
        </>
      )}
    </>
  );
}
