import { Problem } from '@grivo/contract';
import type { z } from 'zod';

/** What the API answered instead of doing what was asked: what is wrong, and what mends it. */
export class Refused extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The server was not reached: nothing is known of what it did. */
export class Unreached extends Error {}

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

export interface CallOptions<T> {
  answer?: z.ZodType<T>;
  body?: unknown;
  /** Sent as it is, instead of a body of JSON. */
  file?: Blob;
  /** The rev a change is made from. */
  rev?: number;
  /** Makes a repeated post harmless. */
  key?: string;
  signal?: AbortSignal;
  /** It is sent though the page goes away meanwhile. */
  outlives?: boolean;
}

/** When a person last pressed a key or the pointer here; what the page reads by itself long after is no use of the session. */
let attendedAt = Date.now();
const UNATTENDED_MS = 5 * 60_000;
for (const sign of ['pointerdown', 'keydown'])
  globalThis.addEventListener?.(
    sign,
    () => {
      attendedAt = Date.now();
    },
    { capture: true, passive: true },
  );

/** Asks the API. Answers are checked by the schema of the contract. */
export async function call<T = undefined>(method: Method, path: string, options: CallOptions<T> = {}): Promise<T> {
  const response = await send(method, path, options);
  if (response.status === 204 || !options.answer) return undefined as T;
  return options.answer.parse(await response.json());
}

/** Sends a request, its answer still to be read. @throws {Refused} or {Unreached} where there is none to read */
export async function send(
  method: Method,
  path: string,
  { body, file, rev, key, signal, outlives, accept }: Omit<CallOptions<unknown>, 'answer'> & { accept?: string },
): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        ...(accept === undefined ? {} : { accept }),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(file ? { 'content-type': 'application/octet-stream' } : {}),
        ...(rev === undefined ? {} : { 'if-match': `"${rev}"` }),
        ...(key === undefined ? {} : { 'idempotency-key': key }),
        ...(Date.now() - attendedAt > UNATTENDED_MS ? { 'x-grivo-unattended': '1' } : {}),
      },
      ...(file ? { body: file } : body === undefined ? {} : { body: JSON.stringify(body) }),
      ...(signal ? { signal } : {}),
      ...(outlives ? { keepalive: true } : {}),
    });
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new Unreached('Grivo does not answer.');
  }
  if (!response.ok) throw new Refused(await problemOf(response));
  return response;
}

/** A file the API makes. */
export async function fetchFile(path: string): Promise<Blob> {
  const response = await fetch(`/api${path}`).catch(() => {
    throw new Unreached('Grivo does not answer.');
  });
  if (!response.ok) throw new Refused(await problemOf(response));
  return response.blob();
}

async function problemOf(response: Response): Promise<Problem> {
  const read = Problem.safeParse(await response.json().catch(() => null));
  return (
    read.data ?? {
      type: 'about:blank',
      title: 'Fault',
      status: response.status,
      detail: `Grivo answered ${response.status}.`,
      mend: 'Try again in a moment.',
    }
  );
}

/** What to say of an error, in a sentence with its mend. */
export function inWords(error: unknown): string {
  if (error instanceof Refused) return `${error.problem.detail} ${error.problem.mend}`;
  if (error instanceof Unreached) return 'Grivo does not answer. What you typed stays; try again in a moment.';
  return 'Something went wrong here. Load the page again.';
}
