import type { SourceKind } from '@grivo/contract';
import type { SourceReader } from '../kind.ts';
import { catalogue } from './catalogue.ts';
import { documents } from './documents.ts';
import { feed } from './feed.ts';
import { keywords } from './keywords.ts';
import { publications } from './publications.ts';
import { putIn } from './putIn.ts';
import { recordings } from './recordings.ts';
import { sheet } from './sheet.ts';
import { videos } from './videos.ts';

/** How each kind is looked at. */
export const readers: { [Kind in SourceKind]: SourceReader<Kind> } = {
  keywords,
  sheet,
  videos,
  feed,
  documents,
  catalogue,
  publications,
  recordings,
  hook: putIn,
  requests: putIn,
};
