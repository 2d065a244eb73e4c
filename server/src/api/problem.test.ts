import { createServer as httpServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import { pino } from 'pino';
import { expect, test } from 'vitest';
import { answerProblems, problem } from './problem.ts';

/** Answers of an application whose handlers fail, by path. */
async function answers<T>(work: (address: string, logged: string[]) => Promise<T>): Promise<T> {
  const logged: string[] = [];
  const app = express();
  app.get('/known', () => {
    throw problem(409, 'Taken', 'Somebody was faster.', 'Look again.');
  });
  app.get('/fault', () => {
    throw new Error('the database is gone');
  });
  app.get('/begun', (_request, response, next) => {
    response.type('text/csv').write('one,two\r\n', () => next(new Error('the database is gone')));
  });
  app.use(answerProblems(pino({ level: 'error' }, { write: (line: string) => logged.push(line) })));
  const server = httpServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  try {
    return await work(`http://127.0.0.1:${(server.address() as AddressInfo).port}`, logged);
  } finally {
    server.closeAllConnections();
    server.close();
  }
}

test('a problem is answered as it is and not logged; a fault is logged, and its words stay inside', () =>
  answers(async (address, logged) => {
    const known = await fetch(`${address}/known`);
    expect([known.status, await known.json()]).toEqual([409, expect.objectContaining({ mend: 'Look again.' })]);
    expect(logged).toEqual([]);
    const fault = await fetch(`${address}/fault`);
    expect(fault.status).toBe(500);
    expect(await fault.text()).not.toContain('database');
    expect(logged.join()).toContain('the database is gone');
  }));

test('a file that cannot be ended is broken off, so that nobody takes it for whole', () =>
  answers(async (address, logged) => {
    const begun = await fetch(`${address}/begun`);
    expect(begun.status).toBe(200);
    await expect(begun.text()).rejects.toThrow();
    expect(logged.join()).toContain('the database is gone');
  }));
