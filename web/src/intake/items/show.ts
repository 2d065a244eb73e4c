import type { Item } from '@grivo/contract';

/** Parts of a source's items that can be looked at by themselves. */
export const SHOWS = ['new', 'taken', 'left out', 'all'] as const;
export type Show = (typeof SHOWS)[number];

/** How an item stands to the pipeline it would be taken into. */
export function standsAs(item: Item, pipeline: string | undefined): 'new' | 'taken' | 'left out' {
  if (item.taken.some((one) => one.pipeline === pipeline)) return 'taken';
  // What is not there any more is not offered; what was found of it can still be looked at.
  return item.leftOut === null && !item.gone ? 'new' : 'left out';
}

/** Items newest first where they have days, else as they are listed, parted by how they stand. */
export function partsOf(items: readonly Item[], pipeline: string | undefined): Record<Show, Item[]> {
  const dated = items.some(({ publishedDesk }) => publishedDesk !== null);
  // One without a day lies where it came in: beside the one before it.
  let at = 0;
  const placed = items.map((item, n) => {
    at = item.publishedDesk ?? at;
    return { item, at, n };
  });
  const all = dated
    ? placed.sort((a, b) => b.at - a.at || b.n - a.n).map(({ item }) => item)
    : placed.map(({ item }) => item);
  const of = (stands: Show) => all.filter((item) => standsAs(item, pipeline) === stands);
  return { new: of('new'), taken: of('taken'), 'left out': of('left out'), all };
}
