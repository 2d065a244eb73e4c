import type { Source } from '@grivo/contract';

/** What each kind of source is called, and one of what it holds. */
export const SOURCES: Record<Source['kind'], { says: string; one: string; many?: string }> = {
  keywords: { says: 'keyword list', one: 'phrase' },
  sheet: { says: 'sheet', one: 'row' },
  videos: { says: 'videos', one: 'video' },
  feed: { says: 'feeds', one: 'entry', many: 'entries' },
  documents: { says: 'documents', one: 'document' },
  catalogue: { says: 'catalogue', one: 'product' },
  publications: { says: 'publications', one: 'publication' },
  recordings: { says: 'recordings', one: 'recording' },
  hook: { says: 'hook', one: 'call' },
  requests: { says: 'requests', one: 'request' },
};
