import { createServer, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, test } from 'vitest';
import { isPublic, Network } from './network.ts';

const open: (() => Promise<void>)[] = [];
afterEach(async () => {
  for (const close of open.splice(0)) await close();
});

/** A server that answers as told, and a network that may call it; `seen` are the calls that reached it. */
async function answering(listener: RequestListener, allowed = true) {
  const seen: string[] = [];
  const server = createServer((request, response) => {
    seen.push(`${request.method} ${request.url}`);
    listener(request, response);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const network = new Network((origin) => allowed && origin === address);
  open.push(async () => {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
    await network.close();
  });
  const call = (method: 'GET' | 'POST', path: string, words: object = {}) =>
    network.call({ method, address: `${address}${path}`, timeLimitMs: 2_000, ...words });
  return { address, network, seen, call };
}

describe('what is called', () => {
  test('is the open internet and what the owner allowed', async () => {
    const { call, seen } = await answering((_, response) => void response.end('x'), false);
    expect(await call('GET', '/')).toEqual({ kind: 'refused', reason: '127.0.0.1 is on a private network' });
    expect(seen).toEqual([]);
  });

  test.each([
    ['file:///etc/passwd', 'only http and https are called'],
    ['no address', 'it is no web address'],
    ['http://[::1]:9/', '::1 is on a private network'],
    ['http://169.254.169.254/', '169.254.169.254 is on a private network'],
    ['http://[::ffff:10.0.0.1]/', /is on a private network$/],
    ['http://localhost:9/', /^localhost leads to .*, a private network$/],
  ])('never %s', async (address, reason) => {
    const network = new Network(() => false);
    open.push(() => network.close());
    expect(await network.call({ method: 'GET', address, timeLimitMs: 2_000 })).toEqual({
      kind: 'refused',
      reason: typeof reason === 'string' ? reason : expect.stringMatching(reason),
    });
  });

  test('private ranges are none of the internet, however they are written', () => {
    for (const address of [
      '10.1.2.3',
      '172.16.0.1',
      '192.168.1.1',
      '127.0.0.1',
      '::1',
      'fe80::1',
      'fd00::1',
      '0.0.0.0',
    ])
      expect([address, isPublic(address)]).toEqual([address, false]);
    expect(isPublic('93.184.215.14')).toBe(true);
  });
});

describe('an answer', () => {
  test('that leads elsewhere is followed for reading, and at most so often', async () => {
    const { call, seen } = await answering((request, response) => {
      if (request.url === '/there') return void response.end('here');
      response.writeHead(302, { location: request.url === '/round' ? '/round' : '/there' }).end();
    });
    const found = await call('GET', '/old');
    expect(found.kind === 'reply' && [found.reply.status, found.reply.body.toString()]).toEqual([200, 'here']);
    expect(seen).toEqual(['GET /old', 'GET /there']);
    expect(await call('GET', '/round', { redirects: 2 })).toEqual({
      kind: 'refused',
      reason: 'it redirects too often',
    });
    expect(seen.filter((one) => one === 'GET /round')).toHaveLength(3);
  });

  test('that leads onto a private network is not followed', async () => {
    const { call } = await answering(
      (_, response) => void response.writeHead(302, { location: 'http://10.0.0.1/' }).end(),
    );
    expect(await call('GET', '/')).toEqual({ kind: 'refused', reason: '10.0.0.1 is on a private network' });
  });

  test('to a post is never followed: the post may have been acted on', async () => {
    const { call, seen } = await answering((_, response) => void response.writeHead(303, { location: '/there' }).end());
    const answer = await call('POST', '/', { body: 'x' });
    expect(answer.kind === 'reply' && answer.reply.status).toBe(303);
    expect(seen).toEqual(['POST /']);
  });

  test('longer than allowed is refused, and to a post its outcome is not known', async () => {
    const { call } = await answering((_, response) => void response.end('x'.repeat(5_000)));
    expect(await call('GET', '/', { maxBytes: 4_000 })).toEqual({
      kind: 'refused',
      reason: 'its answer is longer than 4000 bytes',
    });
    expect(await call('POST', '/', { maxBytes: 4_000 })).toEqual({
      kind: 'unknown',
      detail: 'its answer is longer than 4000 bytes',
    });
  });

  test('that comes piece by piece is waited for as long as something comes, and no longer', async () => {
    const { call } = await answering((request, response) => {
      const apart = request.url === '/slow' ? 600 : 40;
      let left = 8;
      const drip = () => {
        response.write('x');
        if (--left === 0) response.end();
        else setTimeout(drip, apart);
      };
      drip();
    });
    const steady = await call('GET', '/steady', { quietLimitMs: 250 });
    expect(steady.kind === 'reply' && steady.reply.body.toString()).toBe('xxxxxxxx');
    const late = { kind: 'unknown', detail: 'it did not answer in time' };
    expect(await call('GET', '/slow', { quietLimitMs: 250 })).toEqual(late);
    expect(await call('GET', '/steady', { quietLimitMs: 250, timeLimitMs: 120 })).toEqual(late);
  });

  test('that never comes, or breaks off, may have been acted on; where nobody listens nothing was', async () => {
    const { call } = await answering((request) => {
      if (request.url === '/cut') request.socket.destroy();
    });
    expect(await call('GET', '/hang', { timeLimitMs: 150 })).toEqual({
      kind: 'unknown',
      detail: 'it did not answer in time',
    });
    expect(await call('POST', '/cut')).toMatchObject({
      kind: 'unknown',
      detail: expect.stringMatching(/^the connection was cut/),
    });
    const giving = new AbortController();
    const given = call('GET', '/hang', { signal: giving.signal });
    giving.abort();
    expect(await given).toEqual({ kind: 'unknown', detail: 'the call was given up' });
    const nobody = new Network(() => true);
    open.push(() => nobody.close());
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    await new Promise((resolve) => server.close(resolve));
    expect(await nobody.call({ method: 'POST', address: `http://127.0.0.1:${port}/`, timeLimitMs: 2_000 })).toEqual({
      kind: 'unsent',
      detail: 'nothing listens there',
    });
  });
});
