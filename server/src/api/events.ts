import type { Request, Response, Router } from 'express';
import type { EventFeed } from '../events/feed.ts';
import type { Product } from '../product.ts';
import { signedIn } from './access.ts';

const BEAT_MS = 20_000;

/**
 * Changes as server-sent events (HTML standard, section 9.2): `change` carries hints of what to read again, `all` says
 * that some may have been missed. A client that comes back always gets `all` first.
 */
export function eventRoutes(router: Router, { ground }: Product, feed: EventFeed): void {
  router.get('/events', signedIn(ground, 'proofreader'), (request: Request, response: Response) => {
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      connection: 'keep-alive',
      'x-accel-buffering': 'no',
    });
    response.write('retry: 1500\nevent: all\ndata: {}\n\n');
    const stop = feed.listen((events) => {
      response.write(`id: ${events.at(-1)!.id}\nevent: change\ndata: ${JSON.stringify(events)}\n\n`);
    });
    const beat = setInterval(() => response.write(': \n\n'), BEAT_MS);
    request.on('close', () => {
      clearInterval(beat);
      stop();
    });
  });
}
