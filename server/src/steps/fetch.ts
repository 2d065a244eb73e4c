import { type StepOf, valueAt } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { field, PassagesField } from '../nouns/articles/fields.ts';
import { storePage } from '../nouns/materials/repository.ts';
import { readPage } from '../ports/adapters/pages.ts';
import { jsonOf } from '../ports/adapters/port.ts';
import type { Tools } from '../ports/tools.ts';
import { filled } from './asking.ts';

const TIME_LIMIT_MS = 20_000;

/** Fetches an address through the guard and keeps what is asked for of it. */
export function performFetch(tools: Tools): Performer<StepOf<'fetch'>> {
  return async (step, context) => {
    const own = await filled(tools, { address: step.address }, context);
    if (!own.ok) return own.result;
    const address = own.texts.address.trim();
    const unreadable = (reason: string) => ({
      kind: 'failed' as const,
      failure: { code: 'page-unreadable' as const, address: address.slice(0, 300), reason },
    });
    if (!URL.canParse(address)) return unreadable('it is not an address');
    if (step.what === 'its data') {
      const outcome = await tools.network.call({
        method: 'GET',
        address,
        headers: { accept: 'application/json' },
        timeLimitMs: TIME_LIMIT_MS,
        signal: context.signal,
      });
      if (outcome.kind !== 'reply') return unreadable('detail' in outcome ? outcome.detail : outcome.kind);
      if (outcome.reply.status >= 400) return unreadable(`it answered ${outcome.reply.status}`);
      const parsed = jsonOf(outcome.reply.body);
      if (!parsed.ok) return unreadable('it holds no JSON');
      const value = step.part === '' ? parsed.value : valueAt({ whole: parsed.value }, `whole.${step.part}`);
      return value === undefined
        ? unreadable(`it has no ‘${step.part}’`)
        : { kind: 'done', fields: { [step.as]: value } };
    }
    const read = await readPage(tools, address, context.brief.document.language, context.signal);
    if (!read.ok) return unreadable(read.reason);
    if (step.what === 'its title') return { kind: 'done', fields: { [step.as]: read.page.title } };
    if (step.what === 'its text') return { kind: 'done', fields: { [step.as]: read.page.paragraphs.join('\n\n') } };
    const passages = await storePage(tools.ground.db, read.page, read.digest);
    const before = field(context.fields, 'passages', PassagesField) ?? [];
    return { kind: 'done', fields: { passages: [...new Set([...before, ...passages.map(({ id }) => id)])] } };
  };
}
