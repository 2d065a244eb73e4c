import {
  type ArticleDocument,
  type MeasuredBeside,
  type MeasuredSource,
  measuresOf,
  NOTHING_BESIDE,
} from '@grivo/core';

/** Revisions whose measures are remembered: a page is read again at every event that touches it. */
const MOST_REMEMBERED = 200;
const remembered = new Map<string, ReturnType<typeof measuresOf>>();

/**
 * The measures of a revision, which never changes, reckoned once for its sources.
 * @param revision id of the revision the document is of
 */
export function measuresOfRevision(
  revision: string,
  document: ArticleDocument,
  sources: readonly MeasuredSource[],
  beside: MeasuredBeside = NOTHING_BESIDE,
): ReturnType<typeof measuresOf> {
  const against = [beside.most, beside.dead, beside.own.map(({ title, text }) => [title, text.length])];
  const key = `${revision} ${sources.length} ${sources[0]?.id ?? ''} ${sources.at(-1)?.id ?? ''} ${JSON.stringify(against)}`;
  const known = remembered.get(key);
  if (known) return known;
  const found = measuresOf(document, sources, undefined, beside);
  const oldest = remembered.size >= MOST_REMEMBERED ? remembered.keys().next().value : undefined;
  if (oldest !== undefined) remembered.delete(oldest);
  remembered.set(key, found);
  return found;
}
