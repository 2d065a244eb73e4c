import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Problem, Role } from '@grivo/contract';
import { app } from '../../src/api/app.ts';
import { addPerson } from '../../src/nouns/people/repository.ts';
import type { World } from './world.ts';

export interface Answer<T = Record<string, unknown>> {
  status: number;
  body: T;
  problem: Problem;
  headers: Headers;
}

export type Ask = <T = Record<string, unknown>>(
  method: string,
  path: string,
  body?: unknown,
  headers?: Record<string, string>,
) => Promise<Answer<T>>;

/** The API of a world over real HTTP, with people of each role. */
export async function serve(
  w: World,
): Promise<{ address: string; as(role: Role): Promise<Ask>; stranger: Ask; close(): void }> {
  const server = createServer(app(w.product));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const asker = (cookie: string): Ask =>
    Object.assign<Ask, { cookie: string }>(
      async (method, path, body, headers = {}) => {
        const response = await fetch(`${address}/api${path}`, {
          method,
          headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
          ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
        });
        const text = await response.text();
        const read = text === '' ? null : (JSON.parse(text) as unknown);
        return { status: response.status, body: read as never, problem: read as Problem, headers: response.headers };
      },
      { cookie },
    );
  return {
    address,
    stranger: asker(''),
    async as(role) {
      const email = `${role}@crockhaven.example`;
      await addPerson(w.product.ground, { email, name: role, role, password: 'salt-and-patience' });
      const signed = await fetch(`${address}/api/session`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ email, password: 'salt-and-patience' }),
      });
      return asker(signed.headers.get('set-cookie')!.split(';')[0]!);
    },
    close: () => {
      server.close();
      server.closeAllConnections();
    },
  };
}
