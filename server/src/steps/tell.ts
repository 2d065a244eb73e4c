import { createHash } from 'node:crypto';
import type { StepOf } from '@grivo/core';
import type { Performer, StepContext } from '../engine/performer.ts';
import { givenArticle } from '../nouns/articles/edits.ts';
import { missing } from '../nouns/articles/fields.ts';
import { articlePayload } from '../nouns/destinations/payload.ts';
import { getDestination } from '../nouns/destinations/repository.ts';
import { bad, good } from '../ports/adapters/port.ts';
import { effect } from '../ports/intents/effect.ts';
import { POST_TIME_LIMIT_MS, post } from '../ports/telling/hook.ts';
import type { Letter } from '../ports/telling/mail.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';
import { attachedTo } from './attached.ts';

type TellStep = StepOf<'tell'>;

/** Tells a person or a program, once for each brief, step and draw. */
export function performTell(tools: Tools): Performer<TellStep> {
  return async (step, context) => {
    const kept = step.destination === null ? null : await getDestination(tools.ground.db, step.destination);
    if (step.destination !== null && !kept) return missing('destination');
    const own = await filled(tools, { to: kept ? '' : step.to, subject: step.subject, text: step.text }, context);
    if (!own.ok) return own.result;
    const { subject, text } = own.texts;
    const to = kept?.address ?? own.texts.to;
    const by = kept?.kind ?? step.by;
    if (context.brief.trial) return { kind: 'done', fields: { told: { would: by, to: kept?.name ?? to } } };
    const id = createHash('sha256')
      .update([context.brief.id, context.run.path, context.draw, to].join('\n'))
      .digest('hex')
      .slice(0, 32);
    const attached = by === 'mail' ? await attachedTo(tools, step, context) : null;
    if (attached?.ok === false) return { kind: 'failed', failure: attached.failure };
    const told =
      by === 'mail'
        ? await mail(tools, context, { to, subject, text, id, attachments: attached?.files ?? [] })
        : await call(tools, context, by, { to, text, id });
    switch (told.kind) {
      case 'done':
        return { kind: 'done', fields: { told: { by, to: kept?.name ?? to } } };
      case 'later':
        return { kind: 'later', inMs: told.inMs };
      case 'failed':
        return { kind: 'failed', failure: told.failure };
    }
  };
}

async function mail({ ground, mail: server }: Tools, context: StepContext, letter: Letter) {
  if (!server) return { kind: 'failed' as const, failure: { code: 'not-set-up' as const, what: 'mail' } };
  return effect<string>(ground, context, {
    key: `mail/${letter.id}`,
    kind: 'tell',
    service: 'mail',
    timeLimitMs: server.timeLimitMs,
    call: () => server.send(letter),
    // A mail server cannot be asked what it has sent.
    find: async () => bad({ code: 'outcome-unfindable', service: 'the mail server', action: `a mail to ${letter.to}` }),
  });
}

async function call(
  { ground, network, secrets }: Tools,
  context: StepContext,
  by: TellStep['by'],
  { to, text, id }: { to: string; text: string; id: string },
) {
  const address = to.trim();
  if (!URL.canParse(address))
    return {
      kind: 'failed' as const,
      failure: { code: 'page-unreadable' as const, address: address.slice(0, 300), reason: 'it is not an address' },
    };
  const body = JSON.stringify(by === 'hook' ? await payload(ground, context) : { text });
  return effect<number>(ground, context, {
    key: `post/${id}`,
    kind: 'tell',
    service: new URL(address).host,
    timeLimitMs: POST_TIME_LIMIT_MS,
    call: () =>
      post(
        network,
        {
          address,
          body,
          id: `grivo_${id}`,
          at: Math.floor(ground.now() / 1_000),
          secret: by === 'hook' ? secrets.derive(`hook ${new URL(address).origin}`) : null,
        },
        context.signal,
      ),
    // A repeat carries the same id, by which the receiver knows it.
    find: async () => good(null),
  });
}

/** What a hook is told: the brief, and the article as it stands. */
async function payload({ db }: Tools['ground'], context: StepContext): Promise<object> {
  const given = await givenArticle(db, context.fields);
  const brief = { id: context.brief.id, subject: context.brief.subject };
  return given ? articlePayload(db, given, brief) : { type: 'brief', brief };
}
