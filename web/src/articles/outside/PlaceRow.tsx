import type { OutsideShown } from '@grivo/contract';
import { blockText, compareWords, type OutsideChoice, type WordsCompared } from '@grivo/core';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Key } from '../../design/index.ts';
import { plural } from '../../words/figures.ts';

type TextPlace = OutsideShown['places'][number];
type Changed = Extract<TextPlace, { changed: true }>;

/** Paragraphs that are the same on both sides, folded away. */
export function SameRow({ blocks, document }: { blocks: readonly string[]; document: OutsideShown['document'] }) {
  const [open, setOpen] = useState(false);
  const texts = document.body.filter(({ id }) => blocks.includes(id)).map(blockText);
  return (
    <div className="border-b border-rule-soft px-6 py-1.5 text-small text-ink-3">
      {plural(blocks.length, 'part is', 'parts are')} the same{' '}
      <button
        type="button"
        className="act quiet brackets ml-2 min-h-6"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {open ? 'Fold' : 'Unfold'}
      </button>
      {open ? (
        <div className="page max-w-[680px] pt-1 text-ink-2">
          {texts.map((text, i) => (
            <p key={i}>{text || 'a part without words'}</p>
          ))}
        </div>
      ) : null}
    </div>
  );
}

interface ChooseProps {
  /** Whether the keys speak of it. */
  here: boolean;
  chosen: OutsideChoice | null;
  onChoose: (choice: OutsideChoice) => void;
  onHere: () => void;
}

/** The two titles. */
export function TitleRow({ title, ...choose }: { title: { ours: string; theirs: string } } & ChooseProps) {
  const words = compareWords(title.ours, title.theirs);
  return (
    <Row
      label="The title"
      ours={
        <h2 className="!mt-0">
          <Side words={words} of="before" chosen={choose.chosen !== 'theirs'} />
        </h2>
      }
      theirs={
        <h2 className="!mt-0">
          <Side words={words} of="after" chosen={choose.chosen !== 'ours'} />
        </h2>
      }
      options={['theirs', 'ours']}
      says={{ theirs: 'take theirs', ours: 'put ours back' }}
      {...choose}
    />
  );
}

/** A place of the text, as ours was sent and as it stands there. */
export function PlaceRow({ place, ...choose }: { place: Changed } & ChooseProps) {
  const added = place.blocks.length === 0;
  const removed = place.put.length === 0 && place.others === 0;
  return (
    <Row
      label={added ? 'Put in on the blog' : removed ? 'Taken out on the blog' : 'Changed on the blog'}
      ours={
        added ? (
          <Nothing>Nothing stands here in ours.</Nothing>
        ) : (
          <Text words={place.words} of="before" chosen={choose.chosen !== 'theirs'} />
        )
      }
      theirs={
        removed ? (
          <Nothing>Nothing stands here on the blog.</Nothing>
        ) : (
          <Text words={place.words} of="after" chosen={choose.chosen !== 'ours'} />
        )
      }
      options={added || removed ? ['theirs', 'ours'] : ['theirs', 'ours', 'both']}
      says={{
        theirs: removed ? 'leave it out' : 'take theirs',
        ours: added ? 'take it off again' : 'put ours back',
        both: 'keep both',
      }}
      note={
        place.others > 0
          ? `${plural(place.others, 'picture or the like', 'pictures or the like')} put in there cannot be taken over; put them into the article yourself.`
          : null
      }
      {...choose}
    />
  );
}

const Nothing = ({ children }: { children: ReactNode }) => (
  <p className="border-b border-dotted border-rule pb-1 text-small text-ink-3">{children}</p>
);

const KEYS: Record<OutsideChoice, string> = { theirs: 'T', ours: 'O', both: 'B' };

interface OptionsProps extends Pick<ChooseProps, 'chosen' | 'onChoose'> {
  options: readonly OutsideChoice[];
  says: Partial<Record<OutsideChoice, string>>;
}

function Options({ options, says, chosen, onChoose }: OptionsProps) {
  return (
    <ul>
      {options.map((one) => (
        <li key={one} className="flex items-baseline gap-2">
          <Key>{KEYS[one]}</Key>
          <button
            type="button"
            aria-pressed={chosen === one}
            className={`act brackets min-h-6 text-small ${chosen === one ? 'hl hl-full font-semibold' : 'quiet'}`}
            onClick={() => onChoose(one)}
          >
            <span>{says[one]}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function Row({
  label,
  ours,
  theirs,
  options,
  says,
  note = null,
  here,
  chosen,
  onChoose,
  onHere,
}: ChooseProps & OptionsProps & { label: string; ours: ReactNode; theirs: ReactNode; note?: string | null }) {
  const row = useRef<HTMLElement>(null);
  useEffect(() => {
    if (here) row.current?.scrollIntoView?.({ block: 'nearest' });
  }, [here]);
  return (
    <section
      ref={row}
      aria-label={label}
      aria-current={here ? 'true' : undefined}
      onClick={onHere}
      onKeyDown={undefined}
      className={`grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_184px] border-b border-rule-soft ${here ? 'outline-1 -outline-offset-1 outline-ink' : ''}`}
    >
      <div
        className={`page px-6 py-3 ${chosen === 'ours' || chosen === 'both' ? 'shadow-[inset_4px_0_0_var(--color-marker)]' : ''}`}
      >
        {ours}
      </div>
      <div
        className={`page px-6 py-3 ${chosen === 'theirs' || chosen === 'both' ? 'shadow-[inset_4px_0_0_var(--color-marker)]' : ''}`}
      >
        {theirs}
      </div>
      <div className="border-l border-rule px-4 py-3">
        <Options options={options} says={says} chosen={chosen} onChoose={onChoose} />
        {note ? <p className="pt-1 text-small text-ink-3">{note}</p> : null}
      </div>
    </section>
  );
}

function Text(props: { words: readonly WordsCompared[]; of: 'before' | 'after'; chosen: boolean }) {
  return (
    <p className="!mt-0 whitespace-pre-line">
      <Side {...props} />
    </p>
  );
}

/** One side of a text: what only it says is underlined where it stays, and struck where it goes. */
function Side({ words, of, chosen }: { words: readonly WordsCompared[]; of: 'before' | 'after'; chosen: boolean }) {
  return words.map(({ stands, text }, i) => {
    if (stands === 'both') return <span key={i}>{text}</span>;
    if (stands !== of) return null;
    return chosen ? (
      <ins key={i} className="underline decoration-blue decoration-2 underline-offset-4">
        {text}
      </ins>
    ) : (
      <del key={i} className="text-ink-3 line-through">
        {text}
      </del>
    );
  });
}
