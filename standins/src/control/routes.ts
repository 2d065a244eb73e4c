import { Router } from 'express';
import type { BlogAct, Posts } from '../blog/posts.ts';
import type { Journal } from '../ground/journal.ts';
import type { ModelCall } from '../ground/modelWire.ts';
import type { ServiceName, Trouble, Troubles } from '../ground/trouble.ts';
import type { Channels, VideoAct } from '../videos/videos.ts';
import type { News, NewsPiece } from '../web/feeds.ts';

/** Orders to misbehave, and what was received, for tests and demonstrations. */
export interface Introduction {
  services: {
    role: 'writer' | 'illustrator' | 'look-up' | 'video host' | 'keyword service' | 'transcriber' | 'picture library';
    name: string;
    address: string;
    secret: string | null;
    price: {
      microsPerThousandIn: number;
      microsPerThousandOut: number;
      microsPerPicture: number;
      microsPerMinute?: number;
    };
  }[];
  blogs: { name: string; address: string; secret: string; language: string; user: string }[];
}

export function controlRoutes(
  troubles: Troubles,
  calls: Journal<ModelCall>,
  posts: Posts,
  introduce: () => Introduction,
  channels: Channels,
  news: News,
): Router {
  const router = Router();
  router.get('/control/introduction', (_request, response) => void response.json(introduce()));
  router.post('/control/trouble', (request, response) => {
    troubles.order(
      request.body as { at: ServiceName; trouble: Trouble; times: number; path?: string; holding?: string },
    );
    response.status(204).end();
  });
  router.delete('/control/trouble', (_request, response) => {
    troubles.clear();
    response.status(204).end();
  });
  router.post('/control/videos', (request, response) => {
    channels.do(request.body as VideoAct);
    response.status(204).end();
  });
  router.post('/control/blogs', (request, response) => {
    posts.do({ ...(request.body as BlogAct), at: new Date().toISOString() });
    response.status(204).end();
  });
  router.post('/control/news', (request, response, next) => {
    const { site, piece } = request.body as { site: string; piece: NewsPiece };
    news.publish(site, piece).then((told) => response.json({ told }), next);
  });
  router.get('/control/received', (_request, response) => {
    const micros = calls.entries.reduce((sum, call) => sum + call.micros, 0);
    response.json({
      calls: calls.entries,
      micros,
      acts: posts.acts.map((act) => (act.act === 'media' ? { ...act, body: undefined } : act)),
    });
  });
  return router;
}
