import { ProposalPrice, TextsProposed } from '@grivo/contract';
import { chooseVariant, countVariants, variantProblem } from '@grivo/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call, inWords } from '../api/call.ts';
import { freshKey } from '../api/fresh.ts';
import { Button, Trouble } from '../design/index.ts';
import { useSettled } from '../design/useSettled.ts';
import { money, plural } from '../words/figures.ts';

const MANY = 5;
const MOST_GIVEN = 10;

/** Has the writer propose more texts like those that are there, at a price that is said first; they are added to be changed. */
export function Propose({ texts, onProposed }: { texts: readonly string[]; onProposed: (texts: string[]) => void }) {
  const [again, setAgain] = useState(0);
  const given = texts.slice(0, MOST_GIVEN);
  const asks = given.length > 0 && given.every((text) => text.length <= 2_000);
  // The price follows what is typed once the typing rests.
  const priced = useSettled(given.join('\n'), 400);
  const price = useQuery({
    queryKey: ['proposal price', priced],
    queryFn: () =>
      call('POST', '/texts/proposed/price', {
        body: { texts: priced.split('\n'), many: MANY, again: 0 },
        answer: ProposalPrice,
      }),
    enabled: asks && priced !== '',
    retry: false,
    staleTime: 60_000,
  });
  const propose = useMutation({
    mutationFn: () =>
      call('POST', '/texts/proposed', {
        body: { texts: given, many: MANY, again },
        answer: TextsProposed,
        key: freshKey(),
      }),
    onSuccess: ({ texts: proposed }) => {
      setAgain(again + 1);
      onProposed(proposed);
    },
  });
  if (!asks) return null;
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-3 pt-2 text-small">
        <Button look="quiet" busy={propose.isPending ? 'Asking the writer' : null} onClick={() => propose.mutate()}>
          Have {MANY} more proposed{price.data ? `, about ${money(price.data.micros)}` : ''}
        </Button>
        {propose.data ? (
          <span role="status" className="text-ink-3">
            {plural(propose.data.texts.length, 'text')} added; they are yours to change.
          </span>
        ) : null}
      </p>
      {propose.isError ? <Trouble>{inWords(propose.error)}</Trouble> : null}
    </>
  );
}

const SHOWN = 3;

/** In how many ways texts with lists in braces can be said, some of them, and more from the writer. */
export function Variants({ texts, onProposed }: { texts: readonly string[]; onProposed: (texts: string[]) => void }) {
  const well = texts.length > 0 && texts.every((text) => variantProblem(text) === null);
  const some = well
    ? [...new Set(Array.from({ length: 12 }, (_, i) => chooseVariant(texts, `shown ${i}`)))].slice(0, SHOWN)
    : [];
  return (
    <>
      {well ? (
        <p className="pt-1 text-small text-ink-2">
          {plural(countVariants(texts), 'possible text')}
          {some.length > 1 ? ', as ' : ''}
          {(some.length > 1 ? some : []).map((text, i) => (
            <span key={text} className="font-read italic">
              {i === 0 ? '' : ' · '}
              {text.length > 90 ? `${text.slice(0, 88)}…` : text}
            </span>
          ))}
        </p>
      ) : null}
      <Propose texts={texts} onProposed={onProposed} />
    </>
  );
}
