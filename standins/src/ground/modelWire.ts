import type { Answer } from './trouble.ts';

/** A call a model service was paid for. */
export interface ModelCall {
  at: string;
  service: string;
  what: 'text' | 'picture' | 'sound';
  /** The name of the shape asked for; empty for pictures. */
  name: string;
  tokensIn: number;
  tokensOut: number;
  micros: number;
}

/** A refusal in the widely used form. */
export const modelError = (
  status: number,
  message: string,
  { code = null, param = null }: { code?: string | null; param?: string | null } = {},
): Answer => ({
  status,
  body: {
    error: {
      message,
      type: status === 429 ? 'rate_limit_error' : status >= 500 ? 'server_error' : 'invalid_request_error',
      param,
      code,
    },
  },
});

export const invalidKey = (): Answer => modelError(401, 'invalid key', { code: 'invalid_api_key' });
