import { createSession } from 'better-sse';
import type { Request, Response, Router } from 'express';
import { tellChange } from '../ground/store/event.ts';
import type { EventFeed } from '../nouns/events/feed.ts';
import { signedIn, whoCalls } from './access.ts';
import type { Product } from './product.ts';
import type { Together } from './together.ts';

const BEAT_MS = 20_000;
/** What a client that lost it waits before it comes back. */
const RETRY_MS = 1_500;
/** What of a reader may wait to be taken; who takes less is cut off, and gets `all` when it comes back. */
const MOST_WAITING = 1_000_000;

/** Tells every process that sessions or rights of a person are no longer what they were: open streams look again. */
export async function tellSessions({ ground, bell }: Product, person: string): Promise<void> {
  await tellChange(ground.db, ground, 'session', person);
  bell.ring({ kind: 'event' });
}

/**
 * Changes as server-sent events (HTML standard, section 9.2): `change` carries hints of what to read again, `all` says
 * that some may have been missed. A client that comes back always gets `all` first. A stream ends with the session or key
 * it was opened by.
 */
export function eventRoutes(router: Router, product: Product, feed: EventFeed, together: Together): void {
  router.get('/events', signedIn(product, 'proofreader'), async (request: Request, response: Response) => {
    const stream = await createSession(request, response, {
      retry: RETRY_MS,
      keepAlive: BEAT_MS,
      trustClientEventId: false,
      headers: { 'cache-control': 'no-store' },
    });
    const look = () => {
      // The stream itself is no use of the session: nobody has to be at the desk for it.
      whoCalls(product, request, false)
        .then((person) => person ?? response.end())
        // A database that is away for a moment ends no session.
        .catch(() => undefined);
    };
    const stop = feed.listen((events) => {
      if (!stream.isConnected) return;
      if (events.some(({ noun }) => noun === 'session')) look();
      const told = events.filter(({ noun }) => noun !== 'session');
      if (told.length === 0) return;
      // Who is told of it asks again, and is to see it.
      together.changed();
      if (response.writableLength > MOST_WAITING) return void response.destroy();
      stream.push(told, 'change', told.at(-1)!.id);
    });
    const beat = setInterval(look, BEAT_MS);
    stream.once('disconnected', () => {
      clearInterval(beat);
      stop();
    });
    if (stream.isConnected) stream.push({}, 'all');
  });
}
