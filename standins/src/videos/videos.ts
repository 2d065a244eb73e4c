import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Request, Router } from 'express';
import type { Journal } from '../ground/journal.ts';
import type { Answer, Troubles } from '../ground/trouble.ts';
import { draw } from '../pictures/draw.ts';
import { stemsOf } from '../words/language.ts';
import { captionsOf, type SpokenChapter, timed } from './captions.ts';

/** A video as the host keeps it. */
export interface VideoMaterial {
  slug: string;
  title: string;
  description: string;
  /** Day it was put up. */
  date: string;
  language: 'en' | 'de';
  /** How its captions were made. */
  captions: 'hand' | 'machine' | 'none';
  chapters: SpokenChapter[];
}

export interface ChannelMaterial {
  handle: string;
  name: string;
  videos: VideoMaterial[];
  /** Playlists, by their slug: videos by theirs. */
  lists: Record<string, { title: string; videos: string[] }>;
}

/** Something the channel's owner does. */
export type VideoAct =
  | { act: 'put up'; channel: string; video: VideoMaterial }
  | { act: 'rename'; slug: string; title: string }
  | { act: 'reorder' };

/** Channels and their videos, as their owners have left them. */
export class Channels {
  constructor(
    private readonly material: readonly ChannelMaterial[],
    private readonly acts: Journal<VideoAct>,
  ) {}

  do(act: VideoAct): void {
    this.acts.add(act);
  }

  all(): ChannelMaterial[] {
    return this.material.map((channel) => {
      let videos = [...channel.videos].sort((a, b) => (a.date < b.date ? 1 : -1));
      for (const act of this.acts.entries) {
        if (act.act === 'put up' && act.channel === channel.handle) videos.unshift(act.video);
        else if (act.act === 'rename')
          videos = videos.map((video) => (video.slug === act.slug ? { ...video, title: act.title } : video));
        else if (act.act === 'reorder') videos = videos.reverse();
      }
      return { ...channel, videos };
    });
  }

  channel(handle: string): ChannelMaterial | undefined {
    return this.all().find((channel) => channel.handle === handle);
  }

  video(slug: string): { channel: ChannelMaterial; video: VideoMaterial } | undefined {
    for (const channel of this.all()) {
      const video = channel.videos.find((one) => one.slug === slug);
      if (video) return { channel, video };
    }
    return undefined;
  }
}

/** The video host: pages of channels, lists and videos by open standards, captions, stills, and a look-up of channels. */
export function videoHost(channels: Channels, troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const get: Get = (path, act) => {
    router.get(path, troubles.around('videos', act));
  };
  const at: At = (path) => `${origin()}/videos${path}`;
  get('/videos/find', (request) => found(channels, request, at));
  get('/videos/watch/:slug', (request) => {
    const found = channels.video(String(request.params['slug']));
    return found ? html(watchPage(found.channel, found.video, at)) : missing();
  });
  get('/videos/watch/:slug/captions.vtt', (request) => {
    const found = channels.video(String(request.params['slug']));
    return found && found.video.captions !== 'none'
      ? { status: 200, type: 'text/vtt', body: captionsOf(found.video) }
      : missing();
  });
  get('/videos/watch/:slug/player', (request) => {
    const found = channels.video(String(request.params['slug']));
    return found ? html(playerPage(found.video, at)) : missing();
  });
  get('/videos/watch/:slug/film.webm', (request) => {
    const found = channels.video(String(request.params['slug']));
    const film = found && filmOf(found.video.slug);
    return film ? partOf(film, String(request.headers.range ?? '')) : missing();
  });
  get('/videos/watch/:slug/still.png', async (request) => {
    const found = channels.video(String(request.params['slug']));
    if (!found) return missing();
    return { status: 200, type: 'image/png', body: (await draw(found.video.title, found.video.slug, 640, 360, 0)).png };
  });
  addChannels(channels, get, at);
  return router;
}

type At = (path: string) => string;
type Get = (path: string, act: (request: Request) => Answer | Promise<Answer>) => void;

/** Videos on a subject, the best fitting first, or channels by their name. */
function found(channels: Channels, request: Request, at: At): Answer {
  const subject = request.query['videos'];
  if (typeof subject === 'string') {
    const wanted = new Set(stemsOf(subject));
    const fits = ({ title, description }: VideoMaterial) =>
      new Set(stemsOf(`${title} ${description}`).filter((stem) => wanted.has(stem))).size;
    const videos = channels
      .all()
      .flatMap((channel) => channel.videos)
      .map((video) => ({ video, fits: fits(video) }))
      .filter((one) => one.fits > 0)
      .sort((a, b) => b.fits - a.fits);
    return { status: 200, body: { videos: videos.map(({ video }) => ({ address: at(`/watch/${video.slug}`) })) } };
  }
  const words = folded(String(request.query['q'] ?? ''));
  const named = channels
    .all()
    .filter(
      ({ handle, name }) =>
        words !== '' && [folded(handle), folded(name)].some((one) => one === words || one.includes(words)),
    );
  return { status: 200, body: { channels: named.map(({ handle, name }) => ({ address: at(`/@${handle}`), name })) } };
}

/** The pages and feeds of channels and of their lists. */
function addChannels(channels: Channels, get: Get, at: At): void {
  get('/videos/:channel/feed.xml', (request) => {
    const channel = channels.channel(handleOf(request));
    return channel ? feed(channel.name, channel.videos, at) : missing();
  });
  get('/videos/:channel/lists/:list/feed.xml', (request) => {
    const channel = channels.channel(handleOf(request));
    const list = channel?.lists[String(request.params['list'])];
    return channel && list
      ? feed(
          list.title,
          channel.videos.filter(({ slug }) => list.videos.includes(slug)),
          at,
        )
      : missing();
  });
  get('/videos/:channel/lists/:list', (request) => {
    const channel = channels.channel(handleOf(request));
    const list = channel?.lists[String(request.params['list'])];
    return channel && list
      ? html(
          listPage(
            list.title,
            at(`/@${channel.handle}/lists/${String(request.params['list'])}/feed.xml`),
            channel.videos.filter(({ slug }) => list.videos.includes(slug)),
            at,
          ),
        )
      : missing();
  });
  get('/videos/:channel', (request) => {
    const channel = channels.channel(handleOf(request));
    return channel ? html(listPage(channel.name, at(`/@${channel.handle}/feed.xml`), channel.videos, at)) : missing();
  });
}

/** The film itself, of the one video that has one: a minute, drawn by hand of the program. */
function filmOf(slug: string): Buffer | null {
  const path = join(import.meta.dirname, '..', 'material', 'videos', `${slug}.webm`);
  return existsSync(path) ? readFileSync(path) : null;
}

/** A part of a file, as players ask for one (RFC 9110, section 14.2). */
function partOf(whole: Buffer, range: string): Answer {
  const type = 'video/webm';
  const asked = /^bytes=(\d+)-(\d*)$/.exec(range);
  if (!asked) return { status: 200, type, headers: { 'accept-ranges': 'bytes' }, body: whole };
  const from = Number(asked[1]);
  const to = asked[2] === '' ? whole.length - 1 : Math.min(Number(asked[2]), whole.length - 1);
  if (from > to) return { status: 416, type, headers: { 'content-range': `bytes */${whole.length}` }, body: '' };
  const headers = { 'accept-ranges': 'bytes', 'content-range': `bytes ${from}-${to}/${whole.length}` };
  return { status: 206, type, headers, body: whole.subarray(from, to + 1) };
}

function handleOf(request: Request): string {
  return String(request.params['channel']).replace(/^@/, '');
}

function folded(text: string): string {
  return text.toLowerCase().replace(/[^a-z0-9äöüß]+/g, '');
}

function html(body: string, status = 200): Answer {
  return { status, type: 'text/html', body };
}

function missing(): Answer {
  return html('<!doctype html><title>Not found</title><p>There is nothing here.', 404);
}

function escaped(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
}

function watchPage(channel: ChannelMaterial, video: VideoMaterial, at: (path: string) => string): string {
  const { seconds, chapters } = timed(video);
  const own = at(`/watch/${video.slug}`);
  const described = {
    '@context': 'https://schema.org',
    '@type': 'VideoObject',
    name: video.title,
    description: video.description,
    thumbnailUrl: [`${own}/still.png`],
    embedUrl: `${own}/player`,
    ...(filmOf(video.slug) ? { contentUrl: `${own}/film.webm` } : {}),
    uploadDate: `${video.date}T10:00:00Z`,
    duration: `PT${Math.floor(seconds / 60)}M${Math.floor(seconds % 60)}S`,
    inLanguage: video.language,
    author: { '@type': 'Person', name: channel.name },
    hasPart: chapters.map(({ title, start }) => ({
      '@type': 'Clip',
      name: title,
      startOffset: Math.floor(start),
      url: `${own}#t=${Math.floor(start)}`,
    })),
  };
  const track =
    video.captions === 'none'
      ? ''
      : `<track kind="captions" src="/videos/watch/${video.slug}/captions.vtt" srclang="${video.language}" label="${video.captions === 'machine' ? 'auto-generated' : 'by hand'}">`;
  return `<!doctype html><html lang="${video.language}"><head><meta charset="utf-8"><title>${escaped(video.title)} · ${escaped(channel.name)}</title>
<link rel="canonical" href="${own}"><script type="application/ld+json">${JSON.stringify(described).replace(/</g, '\\u003c')}</script></head><body>
<video poster="/videos/watch/${video.slug}/still.png" controls>${track}</video><h1>${escaped(video.title)}</h1><p>${escaped(video.description)}</p><p><a href="/videos/@${channel.handle}">${escaped(channel.name)}</a></p></body></html>`;
}

/** What other pages show of it: the picture and the way here. */
function playerPage(video: VideoMaterial, at: (path: string) => string): string {
  const own = at(`/watch/${video.slug}`);
  return `<!doctype html><html lang="${video.language}"><meta charset="utf-8"><title>${escaped(video.title)}</title><style>body{margin:0}img{width:100%}</style><a href="${own}" target="_blank" rel="noreferrer"><img src="${own}/still.png" alt="${escaped(video.title)}"></a></html>`;
}

function listPage(
  title: string,
  feedAt: string,
  videos: readonly VideoMaterial[],
  at: (path: string) => string,
): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(title)}</title><link rel="alternate" type="application/atom+xml" href="${feedAt}"></head><body><h1>${escaped(title)}</h1><ul>${videos
    .map((video) => `<li><a href="${at(`/watch/${video.slug}`)}">${escaped(video.title)}</a></li>`)
    .join('')}</ul></body></html>`;
}

function feed(title: string, videos: readonly VideoMaterial[], at: (path: string) => string): Answer {
  const entries = videos.map((video) => {
    const { seconds } = timed(video);
    return `<entry><id>${at(`/watch/${video.slug}`)}</id><title>${escaped(video.title)}</title><link rel="alternate" href="${at(`/watch/${video.slug}`)}"/><published>${video.date}T10:00:00Z</published><updated>${video.date}T10:00:00Z</updated><media:group><media:content url="${at(`/watch/${video.slug}`)}" medium="video" duration="${Math.floor(seconds)}"/></media:group></entry>`;
  });
  return {
    status: 200,
    type: 'application/atom+xml',
    body: `<?xml version="1.0" encoding="utf-8"?><feed xmlns="http://www.w3.org/2005/Atom" xmlns:media="http://search.yahoo.com/mrss/"><title>${escaped(title)}</title><id>${at('')}</id><updated>${videos[0]?.date ?? '2026-01-01'}T10:00:00Z</updated>${entries.join('')}</feed>`,
  };
}
