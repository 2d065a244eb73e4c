import type { OutsideShown } from '@grivo/contract';
import type { OutsideChoice } from '@grivo/core';
import { useState } from 'react';
import { plural } from '../../words/figures.ts';
import { inARow } from '../../words/list.ts';

/** A place to choose for: the title, or a place of the text. */
export type Place = { kind: 'title' } | { kind: 'text'; at: number };

/** The places that were changed, the title first. */
export function placesOf({ title, places }: OutsideShown): Place[] {
  const text = places.flatMap((place, at): Place[] => (place.changed ? [{ kind: 'text', at }] : []));
  return title ? [{ kind: 'title' }, ...text] : text;
}

/** What can be chosen for a place: where one side has nothing, both is the other. */
export function optionsOf(place: Place, { places }: OutsideShown): readonly OutsideChoice[] {
  const there = place.kind === 'text' ? places[place.at] : undefined;
  const isBothSides = there?.changed && there.blocks.length > 0 && there.put.length + there.others > 0;
  return isBothSides ? ['theirs', 'ours', 'both'] : ['theirs', 'ours'];
}

/** What is chosen for each place, with the place the keys speak of; what was chosen last can be taken back. */
export function useChoices(places: readonly Place[], shown: OutsideShown) {
  const [chosen, setChosen] = useState<(OutsideChoice | null)[]>(() => places.map(() => null));
  const [before, setBefore] = useState<(OutsideChoice | null)[][]>([]);
  const [at, setAt] = useState(0);
  const put = (next: (OutsideChoice | null)[]) => {
    setBefore((all) => [...all, chosen]);
    setChosen(next);
  };
  return {
    chosen,
    at,
    setAt,
    step: (by: number) => setAt((now) => Math.min(Math.max(now + by, 0), Math.max(places.length - 1, 0))),
    choose: (place: number, choice: OutsideChoice) => {
      const of = places[place];
      if (of && optionsOf(of, shown).includes(choice)) put(chosen.map((was, i) => (i === place ? choice : was)));
      setAt(place);
    },
    all: (choice: OutsideChoice) => put(places.map(() => choice)),
    back: () => {
      const last = before.at(-1);
      if (!last) return;
      setChosen(last);
      setBefore(before.slice(0, -1));
    },
    isWhole: chosen.every((one) => one !== null),
  };
}

const SAYS: readonly [OutsideChoice, string][] = [
  ['theirs', 'as theirs'],
  ['ours', 'as ours'],
  ['both', 'both'],
];

/** ‘1 as theirs, 2 as ours and 1 still open’. */
export function chosenWords(chosen: readonly (OutsideChoice | null)[]): string {
  const open = chosen.filter((one) => one === null).length;
  const said = SAYS.flatMap(([choice, says]) => {
    const n = chosen.filter((one) => one === choice).length;
    return n === 0 ? [] : [`${n} ${says}`];
  });
  return inARow([...said, ...(open > 0 ? [`${plural(open, 'place')} still to choose`] : [])]);
}
