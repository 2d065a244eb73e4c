import type { ArticleDocument, Block, Inline, Replaced } from '../article/block.ts';
import { withTexts } from '../article/text.ts';
import { restingStill } from './reword.ts';

/** Letters beside a replaced place that are kept, so that it is found again. */
export const BESIDE = 24;

/** A place in a text, from one letter to before another, and what is said there. */
export interface Place {
  from: number;
  to: number;
  say: string;
}

/** Words with other words at some places; what replaces something looks and leads as its first letter did. */
export function putAt(content: readonly Inline[], places: readonly Place[]): Inline[] {
  let at = 0;
  return content.flatMap((part) => {
    const [start, end] = [at, at + part.text.length];
    at = end;
    let text = '';
    let from = start;
    for (const place of places) {
      if (!reaches(place, start, end)) continue;
      text += part.text.slice(from - start, Math.max(from, place.from) - start);
      if (place.from >= start) text += place.say;
      from = Math.min(end, Math.max(from, place.to));
    }
    text += part.text.slice(from - start);
    return text === '' ? [] : [{ ...part, text }];
  });
}

/** Whether a place has letters of a part, or begins right after some of it where something is only put in. */
const reaches = ({ from, to }: Place, start: number, end: number): boolean =>
  from === to ? (from > start || from === 0) && from >= start && from <= end : to > start && from < end;

/**
 * An article with what rules replaced as it was before, wherever that still stands as they left it.
 * @returns the article, and how many places were changed since and so stay
 */
export function putBack<D extends Pick<ArticleDocument, 'body' | 'replaced'>>(
  document: D,
): { document: D; stayed: number } {
  const open = new Map<string, Replaced[]>();
  for (const one of document.replaced ?? []) open.set(one.block, [...(open.get(one.block) ?? []), one]);
  let stayed = 0;
  const body = document.body.map((block): Block => {
    const notes = open.get(block.id);
    if (!notes) return block;
    open.delete(block.id);
    let left = notes;
    let next = block;
    // What stands as it was left is found first, so that nothing else is taken for it.
    for (const find of [wholePlace, nearPlace]) {
      const rich = (content: readonly Inline[]): Inline[] => {
        const { places, rest } = placesOf(content.map((part) => part.text).join(''), left, find);
        left = rest;
        return places.length === 0 ? [...content] : putAt(content, places);
      };
      const plain = (text: string): string =>
        rich([{ text }])
          .map((part) => part.text)
          .join('');
      if (left.length > 0) next = withTexts(next, { rich, plain, aside: plain });
    }
    stayed += left.length;
    return left.length === notes.length ? block : restingStill(block, next);
  });
  for (const notes of open.values()) stayed += notes.length;
  const { replaced: _, ...rest } = { ...document, body };
  return { document: rest as D, stayed };
}

/** Where notes of replaced places are found in a text, one after the other. */
function placesOf(text: string, notes: readonly Replaced[], find: FindPlace): { places: Place[]; rest: Replaced[] } {
  const places: Place[] = [];
  const rest: Replaced[] = [];
  let read = 0;
  for (const note of notes) {
    const from = find(text, note, read);
    if (from === null) {
      rest.push(note);
      continue;
    }
    places.push({ from, to: from + note.to.length, say: note.from });
    read = from + note.to.length;
  }
  return { places, rest };
}

/** Where a note's place begins from some letter on; null where it does not stand there. */
type FindPlace = (text: string, note: Replaced, from: number) => number | null;

const wholePlace: FindPlace = (text, { before, to, after }, from) => {
  const all = `${before}${to}${after}`;
  const at = text.indexOf(all, Math.max(0, from - before.length));
  // Fewer letters than are kept stood beside it: there the text began, or ended.
  const begins = before.length === BESIDE || at === 0;
  const ends = after.length === BESIDE || at + all.length === text.length;
  return at >= 0 && begins && ends ? at + before.length : null;
};

/** Letters that must still stand on one side of a place whose other side was changed. */
const LEAST_BESIDE = 6;

/** Where nothing was said instead, one side alone does not tell the place. */
const nearPlace: FindPlace = (text, { before, to, after }, from) => {
  const [left, right] = [before.slice(-LEAST_BESIDE), after.slice(0, LEAST_BESIDE)];
  if (to === '') return null;
  const behind = left === '' ? -1 : text.indexOf(`${left}${to}`, Math.max(0, from - left.length));
  const ahead = right === '' ? -1 : text.indexOf(`${to}${right}`, from);
  if (behind >= 0) return behind + left.length;
  return ahead >= 0 ? ahead : null;
};
