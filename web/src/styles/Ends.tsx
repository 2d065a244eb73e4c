import { leadsSomewhere } from '@grivo/core';
import { useState } from 'react';
import { Button, ChoiceWord, TextWord } from '../design/index.ts';
import type { StyleEdit } from './useStyle.ts';

const SIZES = [
  { value: 'small', says: 'small button', does: 'no larger than its words' },
  { value: 'medium', says: 'medium button', does: 'room around its words' },
  { value: 'full', says: 'button as wide as the text', does: 'from edge to edge' },
];
const SIDES = [
  { value: 'left', says: 'on the left', does: 'where lines begin' },
  { value: 'middle', says: 'in the middle', does: 'of the text' },
  { value: 'right', says: 'on the right', does: 'where lines end' },
];

/** What readers are asked to do, at the end. */
export function CallToReaders({ edit: { words, put } }: { edit: StyleEdit }) {
  const { call } = words;
  const [making, setMaking] = useState(false);
  const set = (next: Partial<NonNullable<typeof call>>) =>
    put(({ call: now }) => ({ call: now ? { ...now, ...next } : now }));
  if (!call && !making) return <Begin says="Ask readers to do something" onBegin={() => setMaking(true)} />;
  if (!call)
    return (
      <NewCall
        what="Words on the button"
        onMade={(next) => {
          put({ call: { before: '', size: 'medium', side: 'left', ...next } });
          setMaking(false);
        }}
        onLeave={() => setMaking(false)}
      />
    );
  const word = (label: string, name: 'before' | 'button' | 'address', none: string, hint: string) => (
    <TextWord
      label={label}
      value={call[name]}
      hint={hint}
      onPut={(text) => {
        if (text !== '' || name === 'before') set({ [name]: text });
      }}
    >
      {call[name] || none}
    </TextWord>
  );
  return (
    <p className="flex flex-wrap items-baseline gap-x-2 pt-2 text-proc leading-7">
      <span>
        Then {word('Words before the button', 'before', 'no words', 'Above the button; may be empty.')} and the{' '}
        <ChoiceWord
          label="Size of the button"
          value={call.size}
          options={SIZES}
          onChoose={(size) => set({ size: size as typeof call.size })}
        />{' '}
        {word('Words on the button', 'button', '', 'What readers press.')}{' '}
        <ChoiceWord
          label="Where the button stands"
          value={call.side}
          options={SIDES}
          onChoose={(side) => set({ side: side as typeof call.side })}
        />
        , to {word('Where the button leads', 'address', '', 'An address, or a page of the blog as /ask.')}
      </span>
      <Button look="quiet" className="ml-auto text-small" onClick={() => put({ call: null })}>
        Take it out
      </Button>
    </p>
  );
}

const Begin = ({ says, onBegin }: { says: string; onBegin: () => void }) => (
  <p className="pt-1">
    <Button look="quiet" onClick={onBegin}>
      {says}
    </Button>
  </p>
);

function NewCall({
  what,
  onMade,
  onLeave,
}: {
  what: string;
  onMade: (call: { button: string; address: string }) => void;
  onLeave: () => void;
}) {
  const [button, setButton] = useState('');
  const [address, setAddress] = useState('');
  const well = button.trim() !== '' && leadsSomewhere(address.trim());
  return (
    <form
      className="flex flex-wrap items-end gap-3 pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (well) onMade({ button: button.trim(), address: address.trim() });
      }}
    >
      <label className="text-small text-ink-3">
        {what}
        <input className="field" value={button} maxLength={80} onChange={(event) => setButton(event.target.value)} />
      </label>
      <label className="text-small text-ink-3">
        Where it leads, as https://… or /ask
        <input className="field" value={address} onChange={(event) => setAddress(event.target.value)} />
      </label>
      <Button look="line" type="submit" disabled={!well}>
        Keep it
      </Button>
      <Button look="quiet" onClick={onLeave}>
        Not now
      </Button>
    </form>
  );
}

/** Where the last line of every article leads. */
export function ClosingLink({ edit: { words, put } }: { edit: StyleEdit }) {
  const { closingLink } = words;
  const [making, setMaking] = useState(false);
  if (!closingLink)
    return making ? (
      <NewCall
        what="Words of the link"
        onMade={({ button, address }) => {
          put({ closingLink: { before: '', words: button, address } });
          setMaking(false);
        }}
        onLeave={() => setMaking(false)}
      />
    ) : (
      <Begin says="Close with a link" onBegin={() => setMaking(true)} />
    );
  const word = (label: string, name: 'before' | 'words' | 'address', none: string, hint: string) => (
    <TextWord
      label={label}
      value={closingLink[name]}
      hint={hint}
      onPut={(text) => {
        if (text !== '' || name === 'before')
          put(({ closingLink: now }) => ({ closingLink: now ? { ...now, [name]: text } : now }));
      }}
    >
      {closingLink[name] || none}
    </TextWord>
  );
  return (
    <p className="flex flex-wrap items-baseline gap-x-2 pt-1 text-proc leading-7">
      <span>
        It closes with {word('Words before the link', 'before', 'no words', 'May be empty.')} and a link{' '}
        {word('Words of the link', 'words', '', 'What readers press.')} to{' '}
        {word('Where the link leads', 'address', '', 'An address, or a page of the blog as /all.')}
      </span>
      <Button look="quiet" className="ml-auto text-small" onClick={() => put({ closingLink: null })}>
        Take it out
      </Button>
    </p>
  );
}
