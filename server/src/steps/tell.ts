import { createHash } from 'node:crypto';
import { articleHtml, articleMarkdown, articleWords, type StepOf } from '@grivo/core';
import { bad, good } from '../adapters/port.ts';
import { ArticleField, field } from '../articles/fields.ts';
import { sentFiles } from '../articles/inTexts.ts';
import { addressesOf, readRevision } from '../articles/repository.ts';
import { resolverFor } from '../articles/resolver.ts';
import type { Performer, StepContext } from '../engine/performer.ts';
import { effect } from '../intents/effect.ts';
import type { Tools } from '../ports/tools.ts';
import { POST_TIME_LIMIT_MS, post } from '../telling/hook.ts';
import { filled } from './asking.ts';

type TellStep = StepOf<'tell'>;

/** Tells a person or a program, once for each brief, step and draw. */
export function performTell(tools: Tools): Performer<TellStep> {
  return async (step, context) => {
    const own = await filled(tools, { to: step.to, subject: step.subject, text: step.text }, context);
    if (!own.ok) return own.result;
    const { to, subject, text } = own.texts;
    if (context.brief.trial) return { kind: 'done', fields: { told: { would: step.by, to } } };
    const id = createHash('sha256')
      .update([context.brief.id, context.run.path, context.draw, to].join('\n'))
      .digest('hex')
      .slice(0, 32);
    const told =
      step.by === 'mail'
        ? await mail(tools, context, { to, subject, text, id })
        : await call(tools, context, step, { to, text, id });
    switch (told.kind) {
      case 'done':
        return { kind: 'done', fields: { told: { by: step.by, to } } };
      case 'later':
        return { kind: 'later', inMs: told.inMs };
      case 'failed':
        return { kind: 'failed', failure: told.failure };
    }
  };
}

async function mail(
  { ground, mail: server }: Tools,
  context: StepContext,
  letter: { to: string; subject: string; text: string; id: string },
) {
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
  step: TellStep,
  { to, text, id }: { to: string; text: string; id: string },
) {
  const address = to.trim();
  if (!URL.canParse(address))
    return {
      kind: 'failed' as const,
      failure: { code: 'page-unreadable' as const, address: address.slice(0, 300), reason: 'it is not an address' },
    };
  const body = JSON.stringify(step.by === 'hook' ? await payload(ground, context) : { text });
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
          secret: step.by === 'hook' ? secrets.derive(`hook ${new URL(address).origin}`) : null,
        },
        context.signal,
      ),
    // A repeat carries the same id, by which the receiver knows it.
    find: async () => good(null),
  });
}

/** What a hook is told: the brief, and the article as it stands. */
async function payload(ground: Tools['ground'], context: StepContext): Promise<object> {
  const given = field(context.fields, 'article', ArticleField);
  const brief = { id: context.brief.id, subject: context.brief.subject };
  if (!given) return { type: 'brief', brief };
  const document = await readRevision(ground.db, given.revision);
  const addresses = await addressesOf(ground.db, [given.id]);
  const files = await sentFiles(ground.db, document);
  const resolve = await resolverFor(ground.db, document, (digest) => files.get(digest) ?? '');
  const first = document.body.find((block) => block.type === 'figure');
  return {
    type: 'article',
    brief,
    article: {
      id: given.id,
      title: document.title,
      language: document.language,
      description: document.description,
      slug: document.slug,
      keyPhrase: document.keyPhrase,
      keywords: document.keywords,
      hashtags: document.hashtags,
      words: articleWords(document),
      address: addresses.get(given.id) ?? null,
      picture: (first && files.get(first.file)) ?? null,
      markdown: articleMarkdown(document, resolve),
      html: articleHtml(document, resolve),
    },
  };
}
