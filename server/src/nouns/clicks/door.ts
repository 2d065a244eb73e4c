import { createHmac, timingSafeEqual } from 'node:crypto';
import { countedAddress, isCounted } from '@grivo/core';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Sql } from '../../ground/store/database.ts';
import type { BlogTarget } from '../../ports/blogs/blog.ts';
import { listBlogs } from '../blogs/repository.ts';

/** What links are counted with: where readers reach this installation, and what the marks of its links are made with. */
export interface CountingDoor {
  publicUrl: string | null;
  secrets: Secrets;
}

/** Bytes of a mark; nobody guesses sixteen of them. */
const MARK_BYTES = 16;

const markOf = (secrets: Secrets, by: string, address: string): Buffer =>
  createHmac('sha256', secrets.derive('clicks')).update(`${by}\n${address}`).digest().subarray(0, MARK_BYTES);

/** Whether a link was made here, so that nobody leads readers elsewhere in our name. */
export function isOurs(secrets: Secrets, by: string, address: string, mark: string): boolean {
  const sent = Buffer.from(mark, 'base64url');
  return sent.length === MARK_BYTES && timingSafeEqual(sent, markOf(secrets, by, address));
}

/**
 * How addresses stand in an article on a blog whose links are counted.
 * @param by the publication
 * @returns undefined where they are not counted
 */
export async function countedOn(
  sql: Sql,
  { publicUrl, secrets }: CountingDoor,
  { settings }: Pick<BlogTarget, 'settings'>,
  by: string,
): Promise<((address: string) => string) | undefined> {
  if (!settings.counts || publicUrl === null) return undefined;
  const own = [...(await listBlogs(sql)).map(({ address }) => address), publicUrl];
  return (address) =>
    isCounted(address, own)
      ? countedAddress(publicUrl, { by, mark: markOf(secrets, by, address).toString('base64url') }, address)
      : address;
}
