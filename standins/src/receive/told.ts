import express, { Router } from 'express';
import type { Journal } from '../ground/journal.ts';
import type { Troubles } from '../ground/trouble.ts';
import type { Received } from './receivers.ts';

const CODE = /^[a-zA-Z0-9-]{8,128}$/;

/**
 * A search engine that is told addresses by IndexNow, and a hub that is told that a feed has news. The search engine reads
 * the text at the place it was told, and takes addresses below that place alone.
 */
export function toldPlaces(inbox: Journal<Received>, troubles: Troubles): Router {
  const router = Router();
  router.post(
    '/told/search',
    troubles.around('inbox', async (request) => {
      const { host, key, keyLocation, urlList } = request.body as {
        host?: string;
        key?: string;
        keyLocation?: string;
        urlList?: string[];
      };
      if (!host || !key || !CODE.test(key) || !keyLocation || !Array.isArray(urlList) || urlList.length === 0)
        return { status: 400, type: 'text/plain', body: 'that is no message of the protocol' };
      const below = new URL('.', keyLocation).href;
      if (new URL(keyLocation).host !== host || urlList.some((one) => !one.startsWith(below)))
        return { status: 422, type: 'text/plain', body: 'addresses of another place' };
      const shown = await fetch(keyLocation).catch(() => null);
      if (!shown?.ok || (await shown.text()).trim() !== key)
        return { status: 403, type: 'text/plain', body: 'the key is not there' };
      inbox.add({ by: 'search', to: keyLocation, headers: {}, text: urlList.join('\n') });
      return { status: 202, type: 'text/plain', body: '' };
    }),
  );
  router.post(
    '/told/hub',
    express.urlencoded({ extended: false }),
    troubles.around('inbox', (request) => {
      const { 'hub.mode': mode, 'hub.url': feed } = request.body as Record<string, string>;
      if (mode !== 'publish' || !feed) return { status: 400, type: 'text/plain', body: 'a feed and hub.mode=publish' };
      inbox.add({ by: 'hub', to: feed, headers: {}, text: '' });
      return { status: 204, type: 'text/plain', body: '' };
    }),
  );
  return router;
}
