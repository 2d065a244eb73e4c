import type { Request, Response } from 'express';
import { ProblemError, problem } from './problem.ts';

/** The tag of something editable: its rev (RFC 9110, section 8.8.3). */
export function tag(response: Response, rev: number): void {
  response.setHeader('etag', `"${rev}"`);
}

/**
 * The rev a change is made from. A change must say it, so that nobody overwrites what they have not seen.
 */
export function revFrom(request: Request): number {
  const match = /^"(\d+)"$/.exec(request.header('if-match') ?? '');
  if (!match)
    throw problem(
      428,
      'What was seen is missing',
      'A change needs the header If-Match with the tag of what was read.',
      'Read it again, and send its ETag along.',
    );
  return Number(match[1]);
}

/** Answers a change made from an older state with what stands now, so that both can be looked at. */
export function changedMeanwhile(what: string, current: unknown): ProblemError {
  const { problem: said } = problem(
    412,
    'Changed meanwhile',
    `Somebody else has changed this ${what} since you opened it.`,
    'Look at both, then save again.',
  );
  return new ProblemError({ ...said, current });
}
