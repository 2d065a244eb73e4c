/** Where somebody is in a list: the row of the keys, and how far it is scrolled. */
export interface Place {
  row: number;
  scrolled: number;
}

const places = new Map<string, Place>();
const MOST_KEPT = 50;

/** The place in a list, kept while the page is open, so that one who comes back from an article is where they were. */
export function placeOf(list: string): Place {
  let place = places.get(list);
  if (!place) {
    place = { row: 0, scrolled: 0 };
    const oldest = places.size >= MOST_KEPT ? places.keys().next().value : undefined;
    if (oldest !== undefined) places.delete(oldest);
    places.set(list, place);
  }
  return place;
}
