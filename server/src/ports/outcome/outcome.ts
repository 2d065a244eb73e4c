import type { Failure } from '@grivo/core';

/** A call that changes something outside: done, certainly not done, or nobody knows. */
export type Effect<T> =
  | { kind: 'done'; value: T }
  | { kind: 'not done'; failure: Failure }
  | { kind: 'unknown'; failure: Failure };

/** What a call that changes nothing brought. */
export type Result<T> = { ok: true; value: T } | { ok: false; failure: Failure };

export const good = <T>(value: T): Result<T> => ({ ok: true, value });
export const bad = (failure: Failure): Result<never> => ({ ok: false, failure });
