import {
  countVariants,
  leadsSomewhere,
  STANDING_PLACES,
  type StandingPlace,
  type StandingWords,
  variantProblem,
} from '@grivo/core';
import { useState } from 'react';
import { Button, ChoiceWord, Head, LinesOnce, NumberOnce, TextOnce, Word } from '../design/index.ts';
import { count } from '../words/figures.ts';
import { linesIn } from './houseWords.ts';
import type { StyleEdit } from './useStyle.ts';

/** What stands in every article: texts of the house, what readers are asked to do, what they are told. */
export function Standing({ edit: { words, put } }: { edit: StyleEdit }) {
  const change = (at: number, next: Partial<StandingWords> | null) =>
    put(({ standing }) => ({
      standing: next
        ? standing.map((one, i) => (i === at ? { ...one, ...next } : one))
        : standing.filter((_, i) => i !== at),
    }));
  return (
    <div className="pt-4">
      <Head title="Standing text" right="in every article" />
      <ul>
        {words.standing.map((one, i) => (
          <li key={`${i} ${one.texts[0]}`} className="border-b border-rule-soft py-2">
            <OneStanding standing={one} onPut={(next) => change(i, next)} />
          </li>
        ))}
      </ul>
      <p className="pt-1">
        <Button
          look="quiet"
          onClick={() =>
            put(({ standing }) => ({
              standing: [
                ...standing,
                { at: 'at the end', section: 1, texts: ['Say here what stands in every article.'] },
              ],
            }))
          }
        >
          Add a text
        </Button>
      </p>
      <Call edit={{ words, put, error: null }} />
      <p className="pt-1 text-proc leading-7">
        Readers are told:{' '}
        <Word
          label="What readers are told"
          editor={(close) => (
            <LinesOnce
              label="What readers are told"
              rows={3}
              value={words.disclosure}
              hint="How it was made, or who pays. It stands last; fields are said as {{ subject }}."
              problemOf={(text) => (text.length > 500 ? '500 letters are the most.' : null)}
              onPut={(disclosure) => put({ disclosure })}
              close={close}
            />
          )}
        >
          {words.disclosure || 'nothing'}
        </Word>
      </p>
    </div>
  );
}

const DOES: Record<StandingPlace, string> = {
  'above the opening': 'the first thing readers see',
  'below the opening': 'after the first paragraph',
  'before the first quotation': 'at the end, where there is none',
  'after a section': 'of an article with fewer, after its last',
  'at the end': 'after everything else',
};

function OneStanding({
  standing: { at, section, texts },
  onPut,
}: {
  standing: StandingWords;
  onPut: (next: Partial<StandingWords> | null) => void;
}) {
  const ways = countVariants(texts);
  return (
    <>
      <p className="font-read text-[15px] leading-6 break-words italic">{texts[0]}</p>
      <p className="flex flex-wrap items-baseline gap-x-3 pt-0.5 text-small text-ink-2">
        <Word
          label="The text"
          editor={(close) => (
            <LinesOnce
              label="The text"
              rows={6}
              value={texts.join('\n')}
              hint="One a line; of several one is chosen for each article. Lists in braces: {brief|short}. Fields: {{ subject }}. Links: [words](https://…)."
              problemOf={(text) => {
                const lines = linesIn(text);
                if (lines.length === 0) return 'Say something, or take the text out.';
                if (lines.length > 50) return '50 texts are the most.';
                return lines.map(variantProblem).find((problem) => problem !== null) ?? null;
              }}
              onPut={(text) => onPut({ texts: linesIn(text) })}
              close={close}
            />
          )}
        >
          {texts.length === 1 ? 'Change the text' : `${texts.length} texts`}
        </Word>
        <span>
          stands{' '}
          <ChoiceWord
            label="Where it stands"
            value={at}
            options={STANDING_PLACES.map((value) => ({ value, says: value, does: DOES[value] }))}
            onChoose={(place) => onPut({ at: place })}
          />
          {at === 'after a section' ? (
            <>
              {' '}
              number{' '}
              <Word
                label="Which section"
                editor={(close) => (
                  <NumberOnce
                    value={section}
                    least={1}
                    most={50}
                    unit="section"
                    onPut={(n) => onPut({ section: n })}
                    close={close}
                  />
                )}
              >
                {section}
              </Word>
            </>
          ) : null}
          {ways > 1 ? <span className="text-ink-3"> · one of {count(ways)} ways to say it</span> : null}
        </span>
        <Button look="quiet" className="ml-auto" onClick={() => onPut(null)}>
          Take it out
        </Button>
      </p>
    </>
  );
}

/** What readers are asked to do, at the end. */
function Call({ edit: { words, put } }: { edit: StyleEdit }) {
  const { call } = words;
  const [making, setMaking] = useState(false);
  const set = (next: Partial<NonNullable<typeof call>>) =>
    put({ call: { before: call?.before ?? '', button: call?.button ?? '', address: call?.address ?? '', ...next } });
  if (!call && !making)
    return (
      <p className="pt-1">
        <Button look="quiet" onClick={() => setMaking(true)}>
          Ask readers to do something
        </Button>
      </p>
    );
  if (!call)
    return (
      <NewCall
        onMade={(next) => {
          put({ call: { before: '', ...next } });
          setMaking(false);
        }}
        onLeave={() => setMaking(false)}
      />
    );
  const word = (label: string, name: 'before' | 'button' | 'address', none: string, hint: string) => (
    <Word
      label={label}
      editor={(close) => (
        <TextOnce
          label={label}
          value={call[name]}
          hint={hint}
          onPut={(text) => {
            if (text !== '' || name === 'before') set({ [name]: text });
          }}
          close={close}
        />
      )}
    >
      {call[name] || none}
    </Word>
  );
  return (
    <p className="flex flex-wrap items-baseline gap-x-2 pt-2 text-proc leading-7">
      <span>
        Then {word('Words before the button', 'before', 'no words', 'Above the button; may be empty.')} and the button{' '}
        {word('Words on the button', 'button', '', 'What readers press.')} to{' '}
        {word('Where the button leads', 'address', '', 'An address, or a page of the blog as /ask.')}
      </span>
      <Button look="quiet" className="ml-auto text-small" onClick={() => put({ call: null })}>
        Take it out
      </Button>
    </p>
  );
}

function NewCall({
  onMade,
  onLeave,
}: {
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
        Words on the button
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
