import type { IncomingHttpHeaders } from 'node:http';
import { isbot } from 'isbot';

/**
 * Whether a person seems to have pressed a link, by what a request says of itself: not a program that calls itself one,
 * nothing that is only fetched ahead (`Sec-Purpose`, Fetch Standard), and not something that says nothing at all.
 */
export function isPerson(method: string, headers: IncomingHttpHeaders): boolean {
  const agent = headers['user-agent'] ?? '';
  const ahead = [headers['sec-purpose'], headers['purpose'], headers['x-moz']].some((one) =>
    /prefetch|prerender|preview/i.test(String(one ?? '')),
  );
  return method === 'GET' && agent !== '' && !isbot(agent) && !ahead;
}
