import { Router } from 'express';
import type { Troubles } from '../ground/trouble.ts';
import { escaped } from '../web/pages.ts';
import { secondsToSay, spokenSamples, wavOf } from './tones.ts';

export interface Episode {
  slug: string;
  title: string;
  day: string;
  about: string;
  /** What is said in it. */
  text: string;
}

export interface Podcast {
  slug: string;
  name: string;
  episodes: readonly Episode[];
}

/** A recording of an episode. */
export function recordingOf({ text }: Episode): Buffer {
  return wavOf(spokenSamples(text));
}

/** Podcasts: a feed with enclosures (RSS 2.0), the recordings, and a page for each episode. */
export function podcastHost(podcasts: readonly Podcast[], troubles: Troubles, origin: () => string): Router {
  const router = Router();
  const find = (slug: unknown) => podcasts.find((one) => one.slug === slug);
  const gone = {
    status: 404,
    type: 'text/html',
    body: '<!doctype html><title>Not found</title><p>There is no such page.',
  };
  router.get(
    '/podcasts/:slug/feed',
    troubles.around('feeds', (request) => {
      const podcast = find(request.params['slug']);
      if (!podcast) return gone;
      const items = podcast.episodes.map((episode) => {
        const seconds = Math.round(secondsToSay(episode.text));
        const page = `${origin()}/podcasts/${podcast.slug}/${episode.slug}`;
        return `<item><title>${escaped(episode.title)}</title><link>${page}</link><guid isPermaLink="false">${podcast.slug}-${episode.slug}</guid><pubDate>${new Date(`${episode.day}T06:00:00Z`).toUTCString()}</pubDate><description>${escaped(episode.about)}</description><enclosure url="${page}.wav" type="audio/wav" length="${44 + seconds * 16_000}"/><itunes:duration>${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}</itunes:duration></item>`;
      });
      return {
        status: 200,
        type: 'application/rss+xml',
        body: Buffer.from(
          `<?xml version="1.0" encoding="UTF-8"?><rss version="2.0" xmlns:itunes="http://www.itunes.com/dtds/podcast-1.0.dtd"><channel><title>${escaped(podcast.name)}</title><link>${origin()}/podcasts/${podcast.slug}/</link><language>en</language>${items.join('')}</channel></rss>`,
        ),
      };
    }),
  );
  router.get(
    '/podcasts/:slug/:file',
    troubles.around('web', (request) => {
      const file = String(request.params['file']);
      const episode = find(request.params['slug'])?.episodes.find(
        ({ slug }) => file === slug || file === `${slug}.wav`,
      );
      if (!episode) return gone;
      return file.endsWith('.wav')
        ? { status: 200, type: 'audio/wav', body: recordingOf(episode) }
        : {
            status: 200,
            type: 'text/html',
            body: `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escaped(episode.title)}</title></head><body><h1>${escaped(episode.title)}</h1><p>${escaped(episode.about)}</p><audio controls src="${file}.wav"></audio></body></html>`,
          };
    }),
  );
  return router;
}
