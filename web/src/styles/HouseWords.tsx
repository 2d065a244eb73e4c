import type { HouseWord } from '@grivo/core';
import { Head, LinesOnce, Word } from '../design/index.ts';
import { linesIn, readWords, writtenWords } from './houseWords.ts';
import type { StyleEdit } from './useStyle.ts';

const MOST_SHOWN = 60;

/** What is said instead of what, and what is never said. */
export function HouseWords({ edit: { words, put } }: { edit: StyleEdit }) {
  const { words: pairs, never } = words;
  const one = (at: number, next: readonly HouseWord[]) =>
    put(({ words: now }) => ({ words: [...now.slice(0, at), ...next, ...now.slice(at + 1)] }));
  return (
    <>
      <Head title="Words" right="use, not" />
      {pairs.length > 0 ? (
        <ul className="grid grid-cols-2 gap-x-4">
          {pairs.slice(0, MOST_SHOWN).map(({ use, not }, i) => (
            <li key={`${use} ${not.join()}`} className="min-w-0 border-b border-rule-soft py-1 text-proc">
              <Word
                label="What is said, and for what"
                editor={(close) => (
                  <WordsOnce
                    value={[{ use, not }]}
                    rows={2}
                    hint="Leave it empty to take it out."
                    onPut={(next) => one(i, next)}
                    close={close}
                  />
                )}
              >
                {use}
              </Word>{' '}
              <s className="pl-1 break-words text-red">{not.join(', ')}</s>
            </li>
          ))}
        </ul>
      ) : null}
      <p className="pt-2 text-proc leading-7">
        {pairs.length > MOST_SHOWN ? `and ${pairs.length - MOST_SHOWN} more. ` : ''}
        <Word
          label="All words"
          editor={(close) => (
            <WordsOnce
              value={pairs}
              rows={10}
              hint="A line a word: what we say, a colon, what it is said for. In English plurals are seen to."
              onPut={(next) => put({ words: [...next] })}
              close={close}
            />
          )}
        >
          {pairs.length === 0 ? 'Say what is said for what' : 'Change them all as a list'}
        </Word>
      </p>
      <p className="text-proc leading-7">
        Never{' '}
        <Word
          label="Words that are never said"
          editor={(close) => (
            <LinesOnce
              label="Words that are never said"
              value={never.join('\n')}
              hint="One a line. An article that holds one does not pass a check of the house style."
              problemOf={(text) => {
                const long = linesIn(text).find((line) => line.length > 80);
                if (long) return `“${long.slice(0, 30)}…” has more than 80 letters.`;
                return linesIn(text).length > 300 ? '300 words are the most.' : null;
              }}
              onPut={(text) => put({ never: [...new Set(linesIn(text))] })}
              close={close}
            />
          )}
        >
          {never.join(', ') || 'nothing yet'}
        </Word>
        .
      </p>
    </>
  );
}

function WordsOnce({
  value,
  rows,
  hint,
  onPut,
  close,
}: {
  value: readonly HouseWord[];
  rows: number;
  hint: string;
  onPut: (words: readonly HouseWord[]) => void;
  close: () => void;
}) {
  return (
    <LinesOnce
      label="Words, a line each"
      rows={rows}
      value={writtenWords(value)}
      hint={hint}
      problemOf={(text) => {
        const read = readWords(text);
        return read.ok ? null : read.problem;
      }}
      onPut={(text) => {
        const read = readWords(text);
        if (read.ok) onPut(read.words);
      }}
      close={close}
    />
  );
}
