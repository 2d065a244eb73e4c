import { whyNot } from '../ground/network/network.ts';
import type { Tools } from '../ports/tools.ts';

const TIME_LIMIT_MS = 20_000;
/** What is fetched of a picture at most, in bytes. */
const MOST_BYTES = 20_000_000;

/** The bytes of a picture at an address of the web; else why they cannot be had, in words that go on from the address. */
export async function fetchedPicture(
  { network }: Pick<Tools, 'network'>,
  address: string,
  signal: AbortSignal,
): Promise<Buffer | string> {
  if (!/^https?:\/\//i.test(address) || !URL.canParse(address)) return 'it has no address of the web';
  const outcome = await network.call({
    method: 'GET',
    address,
    headers: { accept: 'image/avif,image/webp,image/png,image/jpeg' },
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    signal,
  });
  if (outcome.kind !== 'reply') return whyNot(outcome);
  return outcome.reply.status === 200 ? outcome.reply.body : `it answers ${outcome.reply.status}`;
}
