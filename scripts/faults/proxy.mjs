// A proxy before the database, one for each process of ours: sees the statements go by and can strike at named ones.
import { connect, createServer } from 'node:net';

const COM_QUERY = 0x03;

/** Calls `seen` with the text of every statement the client sends (MySQL client/server protocol, text protocol). */
function statements(seen) {
  let rest = Buffer.alloc(0);
  return (chunk) => {
    rest = rest.length === 0 ? chunk : Buffer.concat([rest, chunk]);
    while (rest.length >= 4) {
      const length = rest.readUIntLE(0, 3);
      if (rest.length < 4 + length) {
        // Only the head of a long statement is of interest; its tail is waited for.
        return;
      }
      if (rest[4] === COM_QUERY) seen(rest.subarray(5, Math.min(5 + 60, 4 + length)).toString());
      rest = rest.subarray(4 + length);
    }
  };
}

/**
 * @param {number} target the port of the database
 * @param {(statement: string) => null | 'cut before' | 'cut after'} strike asked at every statement that matters
 */
export async function databaseProxy(target, strike) {
  const sockets = new Set();
  const server = createServer((client) => {
    const upstream = connect(target, '127.0.0.1');
    sockets.add(client);
    const end = () => {
      client.destroy();
      upstream.destroy();
      sockets.delete(client);
    };
    let deaf = false;
    let verdict = null;
    const look = statements((text) => {
      if (/^(COMMIT|INSERT (IGNORE )?INTO intent)/.test(text)) verdict = strike(text) ?? verdict;
    });
    client.on('data', (chunk) => {
      verdict = null;
      look(chunk);
      if (verdict === 'cut before') return end();
      // Done there, and the answer never arrives here.
      if (verdict === 'cut after') deaf = true;
      upstream.write(chunk);
    });
    upstream.on('data', (chunk) => (deaf ? end() : client.write(chunk)));
    for (const socket of [client, upstream]) {
      socket.setNoDelay(true);
      socket.on('error', end);
      socket.on('close', end);
    }
  });
  await new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  return {
    port: server.address().port,
    close: () => {
      for (const socket of sockets) socket.destroy();
      server.close();
    },
  };
}
