import type { ItemField } from '@grivo/core';
import type { SourceKind, SourceSettings } from './settings.ts';

const always = (...names: string[]): ItemField[] => names.map((name) => ({ name, always: true }));
const some = (...names: string[]): ItemField[] => names.map((name) => ({ name, always: false }));

const BRINGS: { [K in SourceKind]: (settings: Extract<SourceSettings, { kind: K }>) => ItemField[] } = {
  keywords: ({ lines }) => [
    ...some('volume', 'difficulty', 'phrases'),
    ...(lines === 'titles' ? some('title', 'titleStays') : lines === 'descriptions' ? some('description') : []),
  ],
  sheet: ({ columns }) => always('row', 'sheet', ...columns.flatMap(({ field }) => field ?? [])),
  videos: () => [...always('title', 'video'), ...some('link', 'captions')],
  feed: () => [...always('title', 'about', 'entry'), ...some('link', 'summary')],
  documents: () => [...always('about'), ...some('link', 'document')],
  catalogue: () => [...always('about', 'row', 'product'), ...some('link', 'partnerLink')],
  publications: ({ of }) =>
    of === 'every new post'
      ? [...always('title', 'about', 'entry'), ...some('link', 'summary')]
      : always('link', 'title', 'about', 'publication'),
  recordings: () => [...always('title', 'about', 'recording'), ...some('link')],
  hook: ({ fields }) => [
    ...always('about', ...fields.flatMap(({ name, needed }) => (needed ? name : []))),
    ...some('text', 'link', ...fields.flatMap(({ name, needed }) => (needed ? [] : name))),
  ],
  requests: () => [...always('about'), ...some('text', 'link')],
};

/** The fields items of a source bring along, by its kind and what it is set to. */
export function bringsOf(settings: SourceSettings): ItemField[] {
  return (BRINGS[settings.kind] as (settings: SourceSettings) => ItemField[])(settings);
}
