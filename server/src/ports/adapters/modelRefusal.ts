import { type Failure, visibleText } from '@grivo/core';
import { z } from 'zod';
import type { Reply } from '../../ground/network/network.ts';
import { jsonOf, refusalOf } from './port.ts';

const Said = z.object({
  message: z.string().catch(''),
  type: z.string().nullish().catch(null),
  code: z.union([z.string(), z.number()]).nullish().catch(null),
  param: z.string().nullish().catch(null),
});
/** Errors as the widely used model services say them: in an object, as a text, or beside the status. */
const ErrorReply = z.union([
  z.object({ error: Said }).transform(({ error }) => error),
  z.object({ error: z.string() }).transform(({ error }) => ({ message: error, type: null, code: null, param: null })),
  Said.refine(({ message }) => message !== ''),
]);

/** What a service says of its refusal. */
export interface SaidRefusal {
  message: string;
  /** Its type, code and the part of the request it names, in one text. */
  marks: string;
}

const LONGEST = 300;

/**
 * What a service says of a refusal, in its own words.
 * @param secret never part of it, even where the service repeats it
 */
export function saidOf(body: Buffer, secret: string | null): SaidRefusal {
  const parsed = jsonOf(body);
  const read = parsed.ok ? ErrorReply.safeParse(parsed.value) : null;
  if (!read?.success) return { message: '', marks: '' };
  const { message, type, code, param } = read.data;
  const plain = visibleText(message).replace(/\s+/g, ' ').trim();
  const safe = secret && secret.length > 3 ? plain.replaceAll(secret, '…') : plain;
  return { message: safe.slice(0, LONGEST), marks: [type, code, param].filter(Boolean).join(' ').toLowerCase() };
}

const QUOTA = /quota|billing|credit|balance|insufficient_funds/;
const MODEL = /\bmodel\b/i;
const SHAPE = /response_format|json_schema|\bschema\b/i;

/**
 * Why a model service refused a call: its key, its credit, the model, the shape asked for, or the request otherwise, each
 * with its own words. What it refuses for good is not tried again, and costs nothing.
 */
export function modelRefusalOf(
  reply: Reply,
  service: string,
  secret: string | null,
): { failure: Failure; acted: 'no' | 'unknown'; said: SaidRefusal } | null {
  const plain = refusalOf(reply, service);
  if (!plain) return null;
  const said = saidOf(reply.body, secret);
  const { status } = reply;
  const of = (failure: Failure) => ({ failure, acted: plain.acted, said });
  const words = said.message === '' ? {} : { said: said.message };
  if ((status === 429 || status === 403) && QUOTA.test(said.marks))
    return of({ code: 'credit-used-up', service, ...words });
  if (plain.failure.code === 'key-refused') return of({ ...plain.failure, ...words });
  if (plain.failure.code === 'credit-used-up') return of({ ...plain.failure, ...words });
  if (status >= 400 && status < 500 && status !== 408 && status !== 425 && status !== 429) {
    const all = `${said.marks} ${said.message}`;
    const because = SHAPE.test(all)
      ? 'the shape'
      : MODEL.test(all) || (status === 404 && all.trim() === '')
        ? 'the model'
        : 'the request';
    return of({ code: 'service-refuses', service, status, because, said: said.message });
  }
  return of(plain.failure);
}

/** The other name of the length limit, where a service says that it does not know the one that was used. */
export function otherLengthName({ message, marks }: SaidRefusal): boolean {
  return (
    /max_tokens/.test(`${marks} ${message}`) &&
    /max_completion_tokens|unsupported|unknown|unrecognized|not supported/i.test(`${marks} ${message}`)
  );
}
