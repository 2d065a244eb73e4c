import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { afterEach, expect, test } from 'vitest';
import { Mail } from './mail.ts';

const LETTER = { to: 'editor@crockhaven.example', subject: 'x', text: 'y', id: 'one' };
let server: Server | null = null;
const open = new Set<Socket>();
afterEach(() => {
  for (const socket of open) socket.destroy();
  server?.close();
});

/** A mail server that says these lines, one for each it hears, and then nothing more. */
async function saying(lines: readonly string[]): Promise<string> {
  server = createServer((socket) => {
    open.add(socket);
    const left = [...lines];
    const say = () => {
      const line = left.shift();
      if (line !== undefined) socket.write(`${line}\r\n`);
    };
    say();
    socket.on('data', say);
    socket.on('error', () => undefined);
  });
  await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve));
  return `smtp://127.0.0.1:${(server.address() as AddressInfo).port}`;
}

test('a mail server that says nothing has taken nothing, and is not waited for beyond the time limit', async () => {
  const mail = new Mail(await saying([]), 'ines@crockhaven.example', 400);
  expect(await mail.send(LETTER)).toMatchObject({ kind: 'not done', failure: { code: 'service-unreachable' } });
}, 10_000);

test('one that falls silent after the text was sent may have taken it', async () => {
  const mail = new Mail(
    await saying(['220 here', '250 hello', '250 from', '250 to', '354 go on']),
    'ines@crockhaven.example',
    2_500,
  );
  expect(await mail.send(LETTER)).toMatchObject({ kind: 'unknown', failure: { code: 'outcome-unknown' } });
}, 10_000);

test('a line cut before the text went out is no reason to ask anybody', async () => {
  const mail = new Mail(await saying(['220 here', '250 hello', '250 from']), 'ines@crockhaven.example', 400);
  expect(await mail.send(LETTER)).toMatchObject({ kind: 'not done', failure: { code: 'service-unreachable' } });
}, 10_000);

test('a mailbox the server does not know is told as such', async () => {
  const mail = new Mail(
    await saying(['220 here', '250 hello', '250 from', '550 no such mailbox']),
    'ines@crockhaven.example',
    2_000,
  );
  expect(await mail.send(LETTER)).toMatchObject({
    kind: 'not done',
    failure: { code: 'not-taken', to: 'editor@crockhaven.example' },
  });
}, 10_000);
