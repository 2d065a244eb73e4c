export type { BlogAct, BlogSite, OlderPost, Post } from './blog/posts.ts';
export { type DocumentMaterial, fileOf } from './documents/documents.ts';
export { docxOf } from './documents/docx.ts';
export { pdfOf } from './documents/pdf.ts';
export type { ModelCall } from './ground/modelWire.ts';
export type { ServiceName, Trouble, Watch } from './ground/trouble.ts';
export {
  BLOGS,
  CHANNELS,
  DOCUMENTS,
  ELSEWHERE,
  KEYWORDS,
  NEWS,
  PAGES,
  PODCASTS,
  SEARCHES,
  SHEETS,
  SHOPS,
} from './material/index.ts';
export type { Received } from './receive/receivers.ts';
export type { SheetMaterial } from './sheets/sheets.ts';
export { recordingOf } from './sound/podcasts.ts';
export { spokenSamples, wavOf } from './sound/tones.ts';
export { type StandInOptions, type StandIns, start } from './start.ts';
export type { ChannelMaterial, VideoMaterial } from './videos/videos.ts';
export type { WebPage } from './web/pages.ts';
