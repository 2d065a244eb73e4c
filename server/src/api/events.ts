import type { Request, Response, Router } from 'express';
import type { EventFeed } from '../events/feed.ts';
import type { Product } from '../product.ts';
import { signedIn, whoCalls } from './access.ts';

const BEAT_MS = 20_000;
/** What of a reader may wait to be taken; who takes less is cut off, and gets `all` when it comes back. */
const MOST_WAITING = 1_000_000;

/** Tells every process that sessions or rights of a person are no longer what they were: open streams look again. */
export async function tellSessions({ ground, bell }: Product, person: string): Promise<void> {
  await ground.db.run("INSERT INTO event (id, noun, noun_id) VALUES (?, 'session', ?)", [ground.ids(), person]);
  bell.ring({ kind: 'event' });
}

/**
 * Changes as server-sent events (HTML standard, section 9.2): `change` carries hints of what to read again, `all` says
 * that some may have been missed. A client that comes back always gets `all` first. A stream ends with the session or key
 * it was opened by.
 */
export function eventRoutes(router: Router, product: Product, feed: EventFeed): void {
  router.get('/events', signedIn(product, 'proofreader'), (request: Request, response: Response) => {
    response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      connection: 'keep-alive',
      'x-accel-buffering': 'no',
    });
    response.write('retry: 1500\nevent: all\ndata: {}\n\n');
    const look = () => {
      // The stream itself is no use of the session: nobody has to be at the desk for it.
      whoCalls(product, request, false)
        .then((person) => person ?? response.end())
        // A database that is away for a moment ends no session.
        .catch(() => undefined);
    };
    const stop = feed.listen((events) => {
      if (events.some(({ noun }) => noun === 'session')) look();
      const told = events.filter(({ noun }) => noun !== 'session');
      if (told.length === 0) return;
      if (response.writableLength > MOST_WAITING) return void response.destroy();
      response.write(`id: ${told.at(-1)!.id}\nevent: change\ndata: ${JSON.stringify(told)}\n\n`);
    });
    const beat = setInterval(() => {
      response.write(': \n\n');
      look();
    }, BEAT_MS);
    request.on('close', () => {
      clearInterval(beat);
      stop();
    });
  });
}
