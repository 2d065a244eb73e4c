import { z } from 'zod';
import { CatalogueSettings } from './kinds/catalogue.ts';
import { DocumentSettings } from './kinds/documents.ts';
import { FeedSettings } from './kinds/feed.ts';
import { HookSettings } from './kinds/hook.ts';
import { KeywordSettings } from './kinds/keywords.ts';
import { PublicationSettings } from './kinds/publications.ts';
import { RecordingSettings } from './kinds/recordings.ts';
import { RequestSettings } from './kinds/requests.ts';
import { SheetSettings } from './kinds/sheet.ts';
import { VideoSettings } from './kinds/videos.ts';

export { CatalogueColumns, CatalogueSettings } from './kinds/catalogue.ts';
export { DocumentSettings } from './kinds/documents.ts';
export { FeedSettings } from './kinds/feed.ts';
export { HookSettings } from './kinds/hook.ts';
export { KeywordSettings } from './kinds/keywords.ts';
export { GivenFile, StartFrom } from './kinds/look.ts';
export { PublicationSettings } from './kinds/publications.ts';
export { RecordingSettings } from './kinds/recordings.ts';
export { RequestSettings } from './kinds/requests.ts';
export { SheetSettings } from './kinds/sheet.ts';
export { VideoSettings } from './kinds/videos.ts';

/** How a source is looked at, by its kind. */
export const SourceSettings = z.discriminatedUnion('kind', [
  KeywordSettings,
  SheetSettings,
  VideoSettings,
  FeedSettings,
  DocumentSettings,
  CatalogueSettings,
  PublicationSettings,
  RecordingSettings,
  HookSettings,
  RequestSettings,
]);
export type SourceSettings = z.infer<typeof SourceSettings>;
export type SourceKind = SourceSettings['kind'];

/** Every kind of source, as they are offered. */
export const SOURCE_KINDS = SourceSettings.options.map((option) => option.shape.kind.value);
