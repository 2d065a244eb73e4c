import { CARD_FIELDS, type CardBox, type CardPicture, type CardText } from '@grivo/core';
import { Button, ChoiceWord, ColourWord, TextWord } from '../../design/index.ts';
import { PickPicture } from '../../pictures/PickPicture.tsx';
import { FigureWord } from './FigureWord.tsx';
import type { CardDraft, Picked } from './useDraft.ts';

/** What is picked on a card, as a sentence whose words can be changed. */
export function PickedWords({
  draft,
  picked,
  pick,
}: {
  draft: CardDraft;
  picked: NonNullable<Picked>;
  pick: (picked: Picked) => void;
}) {
  const { card, change } = draft;
  const { what, n } = picked;
  const one = card[what][n];
  if (!one) return null;
  const put = (changed: object) =>
    change({ [what]: card[what].map((it, i) => (i === n ? { ...it, ...changed } : it)) });
  const out = () => {
    change({ [what]: (card[what] as unknown[]).filter((_, i) => i !== n) });
    pick(null);
  };
  return (
    <div className="border-t border-rule pt-2 text-proc leading-8">
      {what === 'texts' ? <TextWords text={card.texts[n]!} put={put} /> : null}
      {what === 'pictures' ? <PictureWords picture={card.pictures[n]!} put={put} /> : null}
      {what === 'areas' ? (
        <p>
          An area of{' '}
          <ColourWord label="Its colour" value={card.areas[n]!.colour} onChange={(colour) => put({ colour })} />,{' '}
          <BoxWords box={one.box} put={(box) => put({ box })} />.
        </p>
      ) : null}
      <p className="flex flex-wrap items-center gap-x-4 text-base [&_button]:min-h-6">
        <Button look="quiet" disabled={what === 'texts' && card.texts.length === 1} onClick={out}>
          Take it out
        </Button>
        <span className="text-small text-ink-3">
          Drag it, or move it with the arrows; with Shift they make it larger and smaller.
        </span>
      </p>
    </div>
  );
}

function BoxWords({ box, put }: { box: CardBox; put: (box: CardBox) => void }) {
  const side = (label: string, name: keyof CardBox, least: number) => (
    <FigureWord
      label={label}
      value={box[name]}
      least={least}
      most={3_000}
      unit="px"
      onPut={(n) => put({ ...box, [name]: n })}
    />
  );
  return (
    <span className="whitespace-nowrap">
      at {side('From the left', 'x', -3_000)}, {side('From the top', 'y', -3_000)},{' '}
      {side('Width of its box', 'width', 1)} × {side('Height of its box', 'height', 1)} px
    </span>
  );
}

function TextWords({ text, put }: { text: CardText; put: (changed: Partial<CardText>) => void }) {
  return (
    <p>
      <SaysWord text={text} put={put} /> in{' '}
      <ChoiceWord
        label="Face"
        value={text.face}
        options={[
          { value: 'book', says: 'the book face', does: 'Literata, with serifs' },
          { value: 'plain', says: 'the plain face', does: 'Schibsted Grotesk, without serifs' },
        ]}
        onChoose={(face) => put({ face })}
      />
      ,{' '}
      <ChoiceWord
        label="Weight"
        value={text.bold ? 'bold' : 'regular'}
        options={[
          { value: 'regular', says: 'regular', does: 'as text is' },
          { value: 'bold', says: 'bold', does: 'as headings are' },
        ]}
        onChoose={(weight) => put({ bold: weight === 'bold' })}
      />
      , <ColourWord label="Colour of its letters" value={text.colour} onChange={(colour) => put({ colour })} />, from{' '}
      <FigureWord
        label="Smallest size"
        value={text.from}
        least={12}
        most={text.to}
        unit="px"
        onPut={(from) => put({ from })}
      />{' '}
      to{' '}
      <FigureWord
        label="Largest size"
        value={text.to}
        least={text.from}
        most={600}
        unit="px"
        onPut={(to) => put({ to })}
      />{' '}
      px by its length, in at most{' '}
      <FigureWord label="Lines" value={text.most} least={1} most={12} unit="lines" onPut={(most) => put({ most })} />{' '}
      {text.most === 1 ? 'line' : 'lines'}, <Standing text={text} put={put} /> of its box,{' '}
      <BoxWords box={text.box} put={(box) => put({ box })} />.
    </p>
  );
}

/** Where the lines of a text stand in its box. */
function Standing({ text, put }: { text: CardText; put: (changed: Partial<CardText>) => void }) {
  return (
    <>
      <ChoiceWord
        label="Where its lines stand across"
        value={text.across}
        options={[
          { value: 'start', says: 'from where one reads', does: 'left, or right in Arabic' },
          { value: 'middle', says: 'in the middle', does: 'both sides alike' },
          { value: 'end', says: 'at the far side', does: 'right, or left in Arabic' },
        ]}
        onChoose={(across) => put({ across })}
      />{' '}
      <ChoiceWord
        label="Where its lines stand in its box"
        value={text.down}
        options={[
          { value: 'top', says: 'at the top', does: 'room is left below' },
          { value: 'middle', says: 'half way down', does: 'room is left above and below alike' },
          { value: 'foot', says: 'at the foot', does: 'room is left above' },
        ]}
        onChoose={(down) => put({ down })}
      />
    </>
  );
}

function PictureWords({ picture, put }: { picture: CardPicture; put: (changed: Partial<CardPicture>) => void }) {
  return (
    <p>
      <PickPicture says="The picture" onPick={({ file }) => put({ file })} />{' '}
      <ChoiceWord
        label="How it stands in its box"
        value={picture.fills ? 'fills' : 'whole'}
        options={[
          { value: 'fills', says: 'fills its box', does: 'what stands out of it is cut off' },
          { value: 'whole', says: 'stands in it whole', does: 'as large as the box lets it, as for a logo' },
        ]}
        onChoose={(how) => put({ fills: how === 'fills' })}
      />
      ,{' '}
      <ChoiceWord
        label="Its corners"
        value={picture.round ? 'round' : 'square'}
        options={[
          { value: 'square', says: 'with corners', does: 'as it is' },
          { value: 'round', says: 'round', does: 'as for a portrait' },
        ]}
        onChoose={(how) => put({ round: how === 'round' })}
      />
      , <BoxWords box={picture.box} put={(box) => put({ box })} />.
    </p>
  );
}

function SaysWord({ text, put }: { text: CardText; put: (changed: Partial<CardText>) => void }) {
  return (
    <TextWord
      label="What it says"
      value={text.says}
      hint={`Words of your own and fields: ${CARD_FIELDS.map(({ name, says }) => `{{ ${name} }} is ${says}`).join(', ')}; named texts of the house style are {{ house.name }}.`}
      onPut={(says) => says !== '' && put({ says: says.slice(0, 400) })}
    >
      {text.says}
    </TextWord>
  );
}
