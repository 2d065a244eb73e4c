import type { Problem } from '@grivo/contract';
import type { NextFunction, Request, Response } from 'express';
import type { Logger } from 'pino';
import type { z } from 'zod';

/** Thrown by a handler to answer with a problem. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

export function problem(
  status: number,
  title: string,
  detail: string,
  mend: string,
  places?: Problem['places'],
): ProblemError {
  return new ProblemError({ type: 'about:blank', status, title, detail, mend, ...(places ? { places } : {}) });
}

export const notFound = (what: string) =>
  problem(404, 'Not found', `There is no such ${what}.`, 'Go back to the list; it may have been removed.');

/** A request's body by its schema, or a problem that names every place that does not fit. */
export function bodyOf<T>(request: Request, shape: z.ZodType<T>): T {
  return fitting(request.body ?? {}, shape, 'body');
}

/** A value by its schema, or a problem that names every place that does not fit. */
export function fitting<T>(value: unknown, shape: z.ZodType<T>, whole: string): T {
  const fit = shape.safeParse(value);
  if (fit.success) return fit.data;
  const places = fit.error.issues
    .slice(0, 20)
    .map((issue) => ({ place: issue.path.join('.') || whole, problem: issue.message }));
  throw problem(
    422,
    'Does not fit',
    `${places[0]!.place}: ${places[0]!.problem}`,
    'Correct the places named and send it again.',
    places,
  );
}

/** Errors of the body parser carry their own status; everything else unknown is a fault of ours and is only logged. */
export function answerProblems(log: Logger) {
  return (error: unknown, request: Request, response: Response, _next: NextFunction): void => {
    const found = problemOf(error);
    if (found.status >= 500) log.error({ err: error, path: request.path }, 'request failed');
    // An answer begun as a file cannot become a problem; broken off, it is not taken for whole.
    if (response.headersSent) return void response.destroy();
    response.status(found.status).type('application/problem+json').send(JSON.stringify(found));
  };
}

/** Bytes as people say them, by the thousand and twenty-four that limits are written in. */
function sizeOf(bytes: number): string {
  return bytes >= 1_048_576 ? `${Math.round(bytes / 1_048_576)} MB` : `${Math.round(bytes / 1_024)} KB`;
}

/** What is said of an error to whoever asked. */
export function problemOf(error: unknown): Problem {
  if (error instanceof ProblemError) return error.problem;
  const { type, status, limit } = (typeof error === 'object' && error !== null ? error : {}) as {
    type?: unknown;
    status?: unknown;
    limit?: unknown;
  };
  if (type === 'entity.too.large')
    return problem(
      413,
      'Too long',
      `The request is longer than ${typeof limit === 'number' ? sizeOf(limit) : 'may be'}.`,
      'Send it in parts.',
    ).problem;
  if (type === 'entity.parse.failed')
    return problem(
      400,
      'Not JSON',
      'The body of the request is not JSON.',
      'Send JSON, with the content type application/json.',
    ).problem;
  if (typeof status === 'number' && status >= 400 && status < 500)
    return problem(status, 'Bad request', 'The request cannot be read.', 'Correct it and send it again.').problem;
  return problem(
    500,
    'Error in Grivo',
    'The request failed because of an error in Grivo. Nothing was changed.',
    'Try again; if it fails again, look into the log.',
  ).problem;
}
