import type { AddressInfo } from 'node:net';
import { type Request, Router } from 'express';
import { SMTPServer } from 'smtp-server';
import type { Journal } from '../ground/journal.ts';
import type { Answer, Troubles } from '../ground/trouble.ts';

/** Something that was told to somebody. */
export interface Received {
  by: 'mail' | 'message' | 'hook' | 'search' | 'hub';
  to: string;
  /** Headers of a mail or a call, names in small letters. */
  headers: Record<string, string>;
  text: string;
}

/** Where messages and hooks are posted: /inbox/message/{room} and /inbox/hook/{name}. */
export function receivers(inbox: Journal<Received>, troubles: Troubles): Router {
  const router = Router();
  for (const by of ['message', 'hook'] as const)
    router.post(
      `/inbox/${by}/:name`,
      troubles.around('inbox', (request: Request): Answer => {
        const headers = Object.fromEntries(
          Object.entries(request.headers).map(([name, value]) => [name, String(value)]),
        );
        inbox.add({ by, to: String(request.params['name']), headers, text: JSON.stringify(request.body) });
        return { status: 200, body: { taken: true } };
      }),
    );
  return router;
}

/** Takes mail by SMTP for whomever, keeps it, and delivers nothing. */
export async function mailServer(
  inbox: Journal<Received>,
  port: number,
): Promise<{ address: string; close(): Promise<void> }> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    logger: false,
    onData(stream, session, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        const whole = Buffer.concat(chunks).toString('utf8');
        const [head = '', ...rest] = whole.split('\r\n\r\n');
        const headers = Object.fromEntries(
          head
            .replace(/\r\n[ \t]+/g, ' ')
            .split('\r\n')
            .map((line) => [line.slice(0, line.indexOf(':')).toLowerCase(), line.slice(line.indexOf(':') + 1).trim()]),
        );
        for (const { address } of session.envelope.rcptTo)
          inbox.add({ by: 'mail', to: address, headers, text: rest.join('\r\n\r\n').trim() });
        done();
      });
    },
  });
  const listening = server.listen(port, '127.0.0.1');
  await new Promise<void>((resolve, reject) => {
    listening.once('listening', resolve);
    listening.once('error', reject);
  });
  return {
    address: `smtp://127.0.0.1:${(listening.address() as AddressInfo).port}`,
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
