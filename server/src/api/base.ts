import type { Request } from 'express';
import { isSecure } from './access.ts';
import type { Product } from './product.ts';

/** Where this installation is reached: as it was told, else by the request's own word. */
export function baseOf({ tools }: Product, request: Request): string {
  return tools.publicUrl?.replace(/\/$/, '') ?? `${request.protocol}://${request.headers.host ?? 'localhost'}`;
}

/** Where the browser at hand reaches this installation, which comes back to the same place. */
export const homeOf = (product: Product, request: Request): string =>
  request.headers.origin ?? `${isSecure(product, request) ? 'https' : 'http'}://${request.headers.host}`;
