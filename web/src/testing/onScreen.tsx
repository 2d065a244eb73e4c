import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, configure, render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { afterEach, vi } from 'vitest';
import { queryClient } from '../api/queries.ts';

// What is waited for comes at once; on a machine that does other things as well that may be seconds.
configure({ asyncUtilTimeout: 20_000 });

/** jsdom lays nothing out, so nothing ever changes its size. */
class NoSize {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}

/** What was asked of the API. */
export interface Asked {
  method: string;
  path: string;
  body: unknown;
}

/** An answer: a value, or what a request says of it; a problem has a status of its own. */
export type Answer = object | ((asked: Asked) => object | undefined | Promise<object | undefined>);

export class Problem {
  constructor(
    readonly status: number,
    readonly detail: string,
    /** What stands now, where a change came too late. */
    readonly current?: unknown,
  ) {}
}

/** One of the house, so that what only an editor may is there. */
const SESSION = { id: 'p'.repeat(20), email: 'ada@strings.example', name: 'Ada', role: 'owner' };

/**
 * Shows a part of the screen with an API that answers from a table: `GET /labels` to what it gives, `GET /articles*` to what
 * begins like that. What it does not know it answers with 404.
 * @returns what was asked that changes something, and hands that press and type
 */
export function onScreen(shown: ReactNode, answers: Record<string, Answer> = {}) {
  const asked: Asked[] = [];
  const known: Record<string, Answer> = { 'GET /session': SESSION, ...answers };
  vi.stubGlobal('ResizeObserver', NoSize);
  // Nothing has a size there; long lists draw what is in sight of a window as large as this.
  vi.spyOn(Element.prototype, 'clientHeight', 'get').mockReturnValue(800);
  vi.spyOn(Element.prototype, 'clientWidth', 'get').mockReturnValue(1_280);
  Element.prototype.scrollIntoView ??= () => undefined;
  Element.prototype.scrollTo ??= () => undefined;
  vi.stubGlobal(
    'fetch',
    vi.fn(async (address: string | URL | Request, init: RequestInit = {}) => {
      const path = String(address).replace(/^\/api/, '');
      const method = init.method ?? 'GET';
      const body = typeof init.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined;
      const one = { method, path, body };
      if (method !== 'GET') asked.push(one);
      const asks = `${method} ${path}`;
      const like = Object.keys(known).find((key) => key.endsWith('*') && asks.startsWith(key.slice(0, -1)));
      const answer = known[asks] ?? (like === undefined ? undefined : known[like]);
      const value: object | undefined = typeof answer === 'function' ? await answer(one) : answer;
      if (value instanceof Problem)
        return new Response(
          JSON.stringify({
            type: 'about:blank',
            status: value.status,
            title: 'No',
            detail: value.detail,
            mend: 'Try.',
            ...(value.current === undefined ? {} : { current: value.current }),
          }),
          { status: value.status, headers: { 'content-type': 'application/problem+json' } },
        );
      if (answer === undefined)
        return new Response(
          JSON.stringify({ type: 'about:blank', status: 404, title: 'Not found', detail: path, mend: '' }),
          { status: 404 },
        );
      return value === undefined
        ? new Response(null, { status: 204 })
        : new Response(JSON.stringify(value), { status: 200, headers: { 'content-type': 'application/json' } });
    }),
  );
  const screen = render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter>{shown}</MemoryRouter>
    </QueryClientProvider>,
  );
  return { ...screen, asked, hands: userEvent.setup() };
}

afterEach(() => {
  cleanup();
  queryClient.clear();
  localStorage.clear();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});
