import { type Call, type CallOutcome, type Network, whyNot } from '../../ground/network/network.ts';

/** What came of telling somebody. `later` may be told again; `no` is not until somebody mends it. */
export type Pinged =
  | { kind: 'told' }
  | { kind: 'later'; said: string; afterMs: number | null }
  | { kind: 'no'; said: string };

const TIME_LIMIT_MS = 15_000;
const MOST_BYTES = 20_000;

/** What a search engine is told by the IndexNow protocol (indexnow.org, read October 2021): addresses that are new, changed or gone. */
export interface IndexNews {
  /** Where it is told. */
  search: string;
  /** Eight to 128 letters, digits and dashes, shown at `codeAt` to prove that these addresses are ours to speak for. */
  code: string;
  codeAt: string;
  /** At most 10,000, all of one host. */
  addresses: readonly string[];
}

export async function tellSearch(network: Network, { search, code, codeAt, addresses }: IndexNews): Promise<Pinged> {
  const outcome = await post(network, search, 'application/json; charset=utf-8', {
    body: JSON.stringify({ host: new URL(codeAt).host, key: code, keyLocation: codeAt, urlList: addresses }),
  });
  const plain = unreached(outcome);
  if (plain) return plain;
  const status = outcome.kind === 'reply' ? outcome.reply.status : 0;
  if (status === 403) return { kind: 'no', said: `it did not find its text at ${codeAt}` };
  if (status === 422) return { kind: 'no', said: `it does not take addresses of ${new URL(codeAt).host} from us` };
  return { kind: 'no', said: `it answered ${status}` };
}

/** Tells a hub that a feed has news, as publishers of WebSub do (`hub.mode=publish`, by either name of the feed). */
export async function tellHub(network: Network, { hub, feed }: { hub: string; feed: string }): Promise<Pinged> {
  const body = new URLSearchParams({ 'hub.mode': 'publish', 'hub.url': feed, 'hub.topic': feed }).toString();
  const outcome = await post(network, hub, 'application/x-www-form-urlencoded', { body });
  const status = outcome.kind === 'reply' ? outcome.reply.status : 0;
  return unreached(outcome) ?? { kind: 'no', said: `it answered ${status}` };
}

function post(network: Network, address: string, type: string, more: Pick<Call, 'body'>): Promise<CallOutcome> {
  return network.call({
    method: 'POST',
    address,
    headers: { 'content-type': type, accept: '*/*' },
    ...more,
    redirects: 0,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    signal: AbortSignal.timeout(TIME_LIMIT_MS + 5_000),
  });
}

/** What holds for all who are told; null for a refusal that they say in their own ways. */
function unreached(outcome: CallOutcome): Pinged | null {
  if (outcome.kind === 'refused') return { kind: 'no', said: whyNot(outcome) };
  if (outcome.kind !== 'reply') return { kind: 'later', said: whyNot(outcome), afterMs: null };
  const { status, headers } = outcome.reply;
  if (status >= 200 && status < 300) return { kind: 'told' };
  if (status !== 429 && status < 500) return null;
  const seconds = Number(headers['retry-after']);
  const afterMs = Number.isFinite(seconds) && seconds > 0 ? Math.min(seconds, 86_400) * 1_000 : null;
  return { kind: 'later', said: `it answered ${status}`, afterMs };
}

/** Whether a text is read at an address, alone. */
export async function showsText(network: Network, address: string, text: string): Promise<boolean> {
  const outcome = await network.call({
    method: 'GET',
    address,
    timeLimitMs: TIME_LIMIT_MS,
    maxBytes: MOST_BYTES,
    signal: AbortSignal.timeout(TIME_LIMIT_MS + 5_000),
  });
  return outcome.kind === 'reply' && outcome.reply.status < 300 && outcome.reply.body.toString('utf8').trim() === text;
}
