export type { BlogAct, BlogSite, OlderPost, Post } from './blog/posts.ts';
export type { ServiceName, Trouble, Watch } from './control/trouble.ts';
export { BLOGS, CHANNELS, ELSEWHERE, KEYWORDS, PAGES, SEARCHES, SHEETS } from './material/index.ts';
export type { ModelCall } from './model/service.ts';
export type { Received } from './receive/receivers.ts';
export type { SheetMaterial } from './sheets/sheets.ts';
export { type StandInOptions, type StandIns, start } from './start.ts';
export type { ChannelMaterial, VideoMaterial } from './videos/videos.ts';
export type { WebPage } from './web/pages.ts';
