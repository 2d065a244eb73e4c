import type { Destination, TestLine } from '@grivo/contract';
import { wordsOf } from '@grivo/core';
import type { Secrets } from '../../ground/config/secrets.ts';
import type { Ground } from '../../ground/ground.ts';
import type { Network } from '../../ground/network/network.ts';
import type { Effect } from '../../ports/outcome/outcome.ts';
import { post } from '../../ports/telling/hook.ts';
import type { Mail } from '../../ports/telling/mail.ts';

/** What telling works with. */
export interface TellingPorts {
  ground: Ground;
  network: Network;
  secrets: Secrets;
  mail: Mail | null;
}

/** What a destination is told: each kind takes what it can show. */
export interface Message {
  subject: string;
  text: string;
  /** What a program gets. */
  payload: object;
  /** The same for every repeat, so that the receiver can tell them. */
  id: string;
}

/** Tells a destination by its kind. */
export async function sendTo(
  { ground, network, secrets, mail }: TellingPorts,
  { kind, address }: Pick<Destination, 'kind' | 'address'>,
  { subject, text, payload, id }: Message,
  signal: AbortSignal,
): Promise<Effect<unknown>> {
  if (kind === 'mail')
    return mail
      ? mail.send({ to: address, subject, text, id })
      : { kind: 'not done', failure: { code: 'not-set-up', what: 'mail' } };
  const secret = kind === 'hook' ? secrets.derive(`hook ${new URL(address).origin}`) : null;
  const body = JSON.stringify(kind === 'hook' ? payload : { text });
  return post(network, { address, body, id: `grivo_${id}`, at: Math.floor(ground.now() / 1_000), secret }, signal);
}

const TRIED: Record<Destination['kind'], string> = {
  mail: 'Sent a mail',
  message: 'Sent a message',
  hook: 'Called the program',
};

/** Tells a destination once and says in words what came of it. */
export async function tell(
  ports: TellingPorts,
  destination: Destination,
  message: Message,
  tried: string = TRIED[destination.kind],
): Promise<TestLine> {
  const from = ports.ground.now();
  const outcome = await sendTo(ports, destination, message, AbortSignal.timeout(30_000));
  const ms = ports.ground.now() - from;
  if (outcome.kind === 'done') {
    const came = destination.kind === 'mail' ? 'The mail server took it' : `It answered ${String(outcome.value)}`;
    return { tried, came, well: true, change: null, ms };
  }
  const { sentence, mend } = wordsOf(outcome.failure, () => destination.name);
  return { tried, came: sentence, well: false, change: mend, ms };
}

/** What a destination is tested with: it says that it is a test, and by whom. */
export function sample(ids: () => string, name: string): Message {
  const text = `This is a test by Grivo: ‘${name}’ can be told.`;
  return { subject: 'A test by Grivo', text, payload: { type: 'test', text }, id: ids() };
}
