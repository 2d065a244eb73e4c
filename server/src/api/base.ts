import type { Request } from 'express';
import type { Product } from './product.ts';

/** Where this installation is reached: as it was told, else by the request's own word. */
export function baseOf({ tools }: Product, request: Request): string {
  return tools.publicUrl?.replace(/\/$/, '') ?? `${request.protocol}://${request.headers.host ?? 'localhost'}`;
}
