import { SAYING_NAMES, type SayingName, sayingsIn } from '@grivo/core';
import { useState } from 'react';
import { Button, Head, Word } from '../design/index.ts';
import type { StyleEdit } from './useStyle.ts';

const STANDS: Record<SayingName, string> = {
  readOn: 'where an article folds',
  readNext: 'above articles to read next',
  madeFrom: 'before a source that is credited',
  by: 'between a source and whose it is',
  readWhole: 'before each source of a round-up',
};

/** What Grivo says in articles by itself, and what the house says in its place. */
export function Wording({ edit: { words, put } }: { edit: StyleEdit }) {
  const { wording } = words;
  const shipped = sayingsIn('en');
  const own = Object.keys(wording).length;
  const back = (name: SayingName) =>
    put(({ wording: now }) => {
      const { [name]: _, ...rest } = now;
      return { wording: rest };
    });
  return (
    <div className="pt-4">
      <Head title="Words of parts" right={own === 0 ? 'as they come' : `${own} of your own`} />
      <ul className="pt-1">
        {SAYING_NAMES.map((name) => (
          <li key={name} className="flex flex-wrap items-baseline gap-x-2 border-b border-rule-soft py-1 text-proc">
            <Word
              label={`Words ${STANDS[name]}`}
              editor={(close) => (
                <OneSaying
                  label={`Words ${STANDS[name]}`}
                  value={wording[name] ?? ''}
                  shipped={shipped[name]}
                  onPut={(text) =>
                    text === '' ? back(name) : put(({ wording: now }) => ({ wording: { ...now, [name]: text } }))
                  }
                  close={close}
                />
              )}
            >
              {wording[name] ?? shipped[name]}
            </Word>
            <span className="text-small text-ink-3">{STANDS[name]}</span>
          </li>
        ))}
      </ul>
      <p className="pt-1 text-small text-ink-3">
        What you change is said in every language of the house; what you leave is said in the language of the article.
      </p>
    </div>
  );
}

function OneSaying({
  label,
  value,
  shipped,
  onPut,
  close,
}: {
  label: string;
  value: string;
  shipped: string;
  onPut: (text: string) => void;
  close: () => void;
}) {
  const [text, setText] = useState(value || shipped);
  const put = (next: string) => {
    onPut(next);
    close();
  };
  return (
    <form
      className="w-80"
      onSubmit={(event) => {
        event.preventDefault();
        put(text.trim() === shipped ? '' : text.trim());
      }}
    >
      <input
        className="field w-full"
        aria-label={label}
        maxLength={80}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="flex items-baseline gap-4 pt-2">
        <Button look="line" type="submit" hint="Enter">
          Set it
        </Button>
        {value === '' ? null : (
          <Button look="quiet" onClick={() => put('')}>
            Back to the shipped wording
          </Button>
        )}
      </div>
    </form>
  );
}
