import { sha } from '../../ground/sha.ts';

/**
 * What makes an item the same item for every pipeline, for ever.
 * @param identity digest of what tells it from others; with the digest of its content where changed ones are new ones
 */
export function fingerprintOf(source: string, identity: string): string {
  return sha(`${source}:${identity}`);
}
