import type { ServiceRow } from '../ports/services/entity.ts';
import { problem } from './problem.ts';
import type { Product } from './product.ts';

/** The writer that is asked where no step names one. @throws where there is none */
export function standardWriter({ services }: Pick<Product['tools'], 'services'>): ServiceRow {
  const service = services.standard('writer');
  if (!service) throw problem(409, 'No writer', 'There is no writer to ask.', 'An owner connects one in the settings.');
  return service;
}
