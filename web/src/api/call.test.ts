import { afterEach, describe, expect, test, vi } from 'vitest';
import { z } from 'zod';
import { call, fetchFile, inWords, Refused, Unreached } from './call.ts';

/** What was asked last, and what is answered. */
function answering(response: () => Response | Promise<Response>) {
  const asked = vi.fn<(address: string, how: RequestInit) => Promise<Response>>(async () => response());
  vi.stubGlobal('fetch', asked);
  return () => {
    const [address, how] = asked.mock.calls.at(-1)!;
    return { address, ...how, headers: how?.headers as Record<string, string> };
  };
}
const json = (value: unknown, status = 200) => new Response(JSON.stringify(value), { status });
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('asking the API', () => {
  test('what is asked goes out as JSON with the rev it is made from and its key; a file as it is', async () => {
    const last = answering(() => json({ n: 1 }));
    await call('PUT', '/articles/1', { body: { a: 'ä' }, rev: 7, key: 'k', answer: z.object({ n: z.number() }) });
    expect(last()).toMatchObject({
      address: '/api/articles/1',
      method: 'PUT',
      body: '{"a":"ä"}',
      headers: { 'content-type': 'application/json', 'if-match': '"7"', 'idempotency-key': 'k' },
    });
    const file = new Blob(['x']);
    await call('POST', '/uploads', { file });
    expect(last()).toMatchObject({ body: file, headers: { 'content-type': 'application/octet-stream' } });
    await call('GET', '/today');
    expect(last()).not.toHaveProperty('body');
    expect(last().headers).toEqual({});
  });

  test('an answer of another shape than the contract says is not taken', async () => {
    answering(() => json({ n: 'one' }));
    await expect(call('GET', '/x', { answer: z.object({ n: z.number() }) })).rejects.toThrow(z.ZodError);
  });

  test('nothing is read of an answer that has nothing', async () => {
    answering(() => new Response(null, { status: 204 }));
    expect(await call('DELETE', '/x', { answer: z.object({}) })).toBeUndefined();
  });

  test('what the page reads by itself, long after anybody pressed a key, says so', async () => {
    const last = answering(() => json({}));
    vi.useFakeTimers({ now: Date.now() + 6 * 60_000 });
    await call('GET', '/today');
    expect(last().headers).toEqual({ 'x-grivo-unattended': '1' });
  });
});

describe('what goes wrong', () => {
  const problem = { type: 'about:blank', title: 'No', status: 422, detail: 'The row is empty.', mend: 'Fill it in.' };
  const failed = (act: () => Promise<unknown>) =>
    act().then(
      () => null,
      (error: unknown) => error,
    );

  test('a refusal says what is wrong and what mends it', async () => {
    answering(() => json(problem, 422));
    const error = await failed(() => call('POST', '/x', { body: {} }));
    expect(error).toBeInstanceOf(Refused);
    expect((error as Refused).problem.status).toBe(422);
    expect(inWords(error)).toBe('The row is empty. Fill it in.');
  });

  test.each(['<h1>502 Bad Gateway</h1>', '', '{"other":1}'])(
    'an error nobody wrote for us (%s) has words all the same',
    async (body) => {
      answering(() => new Response(body, { status: 502 }));
      expect(inWords(await failed(() => call('GET', '/x')))).toBe('Grivo answered 502. Try again in a moment.');
      expect(inWords(await failed(() => fetchFile('/x')))).toBe('Grivo answered 502. Try again in a moment.');
    },
  );

  test('a line that is down is told apart from a refusal, and what was left off is no error of the line', async () => {
    answering(() => Promise.reject(new TypeError('fetch failed')));
    for (const act of [() => call('GET', '/x'), () => fetchFile('/x')]) {
      const error = await failed(act);
      expect(error).toBeInstanceOf(Unreached);
      expect(inWords(error)).toMatch(/does not answer/);
    }
    answering(() => Promise.reject(new DOMException('left off', 'AbortError')));
    expect(await failed(() => call('GET', '/x'))).not.toBeInstanceOf(Unreached);
    expect(inWords(new Error('whatever'))).toMatch(/Load the page again/);
  });
});
