import { createServer, type IncomingMessage, request, type ServerResponse } from 'node:http';
import { type AddressInfo, connect, type Socket } from 'node:net';
import type { Network } from './network.ts';

/** The way out of a program of others, as a browser: the same that is open to us, and no more than so many bytes. */
export interface GuardedProxy {
  /** Where it listens, as `http://127.0.0.1:40123`. */
  address: string;
  close: () => void;
}

const QUIET_MS = 15_000;

/**
 * A proxy (RFC 9110, section 9.3.6) on loopback that lets through what {@link Network} lets through: names are looked up here, and what
 * they lead to is what is connected to. Nothing but reading goes through where it can be seen.
 * @param mostBytes what may come through altogether
 */
export async function guardedProxy(network: Network, mostBytes: number): Promise<GuardedProxy> {
  const sockets = new Set<Socket>();
  let left = mostBytes;
  const kept = (socket: Socket) => {
    sockets.add(socket);
    socket.setTimeout(QUIET_MS, () => socket.destroy());
    socket.on('error', () => socket.destroy()).on('close', () => sockets.delete(socket));
  };
  const counted = (part: Buffer, end: () => void) => {
    left -= part.length;
    if (left < 0) end();
  };
  const server = createServer((asked, answer) => void plain(asked, answer));
  const plain = async (asked: IncomingMessage, answer: ServerResponse) => {
    const target = URL.parse(asked.url ?? '');
    const at = target?.protocol === 'http:' ? await network.placeOf(target) : null;
    if (!target || !at || left < 0 || (asked.method !== 'GET' && asked.method !== 'HEAD')) {
      answer.writeHead(403).end();
      return;
    }
    const { 'proxy-connection': _, ...headers } = asked.headers;
    const going = request(
      { host: at.address, port: at.port, method: asked.method, path: target.pathname + target.search, headers },
      (reply) => {
        answer.writeHead(reply.statusCode ?? 502, reply.headers);
        reply.on('data', (part: Buffer) => counted(part, () => reply.destroy())).pipe(answer);
      },
    );
    going.setTimeout(QUIET_MS, () => going.destroy()).on('error', () => answer.destroy());
    answer.on('close', () => going.destroy());
    going.end();
  };
  server.on('connection', kept);
  server.on('connect', (asked: IncomingMessage, socket: Socket) => {
    const target = URL.parse(`https://${asked.url}`);
    void (async () => {
      const at = target ? await network.placeOf(target) : null;
      if (!at || left < 0) {
        socket.end('HTTP/1.1 403 Forbidden\r\n\r\n');
        return;
      }
      const there = connect(at.port, at.address, () => {
        socket.write('HTTP/1.1 200 OK\r\n\r\n');
        there.on('data', (part) => counted(part, () => there.destroy()));
        there.pipe(socket).pipe(there);
      });
      kept(there);
      there.on('close', () => socket.destroy());
      socket.on('close', () => there.destroy());
    })();
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () => {
      server.close();
      for (const socket of sockets) socket.destroy();
    },
  };
}
