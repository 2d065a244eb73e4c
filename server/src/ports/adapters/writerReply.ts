import { visibleText } from '@grivo/core';
import { z } from 'zod';
import { jsonOf } from './port.ts';

/** Letters of a text that was asked for: more than a service gives for the most it is allowed. */
const LONGEST_TEXT = 400_000;
/** Objects that are looked at in one reply, and faults of one that are named. */
const MOST_OBJECTS = 20;
const MOST_FAULTS = 12;

/** What a value that fits the shape is worth: taken, perhaps mended, or refused with all that is wrong with it. */
export type Accepted<T> = { ok: true; value: T } | { ok: false; problem: string };

export interface Wanted<T> {
  shape: z.ZodType<T>;
  /**
   * Looks at a value that fits the shape. The last time it is asked it takes what can be used and leaves out the rest;
   * before, what is wrong is sent back to the service.
   */
  accept?: (value: T, last: boolean) => Accepted<T>;
}

export type ReadReply<T> =
  | { ok: true; value: T }
  | {
      ok: false;
      problem: string;
      /** It ends where its length did. */
      cut?: true;
      /** It says in words that it will not. */
      declined?: string;
    };

export const Completion = z.object({
  choices: z
    .array(
      z.object({
        message: z.object({
          content: z.union([z.string(), z.array(z.object({ text: z.string().optional() }))]).nullish(),
          /** Why it will not answer. */
          refusal: z.string().nullish(),
        }),
        finish_reason: z.string().nullish(),
      }),
    )
    .min(1),
  usage: z.object({ prompt_tokens: z.number(), completion_tokens: z.number() }).nullish(),
});

/** The text of a reply; null where it is no chat completion or has none. */
export function contentOf(body: Buffer): string | null {
  const parsed = jsonOf(body);
  const content = parsed.ok ? Completion.safeParse(parsed.value).data?.choices[0]?.message.content : null;
  if (content === undefined || content === null) return null;
  return withoutThoughts(typeof content === 'string' ? content : content.map((part) => part.text ?? '').join(''));
}

const THOUGHTS = /^\s*<(think|thinking|reasoning|thought)>/;

/** What a model thinks aloud before it answers is no answer. */
function withoutThoughts(content: string): string {
  const name = THOUGHTS.exec(content)?.[1];
  const end = name === undefined ? -1 : content.lastIndexOf(`</${name}>`);
  return end >= 0 ? content.slice(end + `</${name}>`.length) : content;
}

/** Words with which a model says that it will not; only where nothing else is in its reply. */
const DECLINES =
  /^(?:i['’]?m sorry|i am sorry|sorry|i can(?:['’]t|not)|i won['’]t|i(?:['’]m| am) (?:not able|unable)|as an ai|es tut mir leid|das kann ich nicht|ich kann (?:das|dir|ihnen|dabei)|leider kann ich)\b/i;

/**
 * The value in a reply. JSON may stand in a code fence, behind a polite sentence, or as the last of several objects: all
 * are common and harmless. Linear in the length of the reply.
 * @param last whether the service is not asked again
 */
export function readReply<T>(body: Buffer, wanted: Wanted<T>, last = false): ReadReply<T> {
  const content = contentOf(body);
  if (content === null) return { ok: false, problem: 'the reply is no chat completion' };
  if (content.length > LONGEST_TEXT) return { ok: false, problem: 'it is many times as long as was asked for' };
  let problem: string | null = null;
  // Of several the last is the answer: what comes before it are drafts.
  for (const text of objectsIn(content).reverse()) {
    const read = readObject(text, wanted, last);
    if (read.ok) return read;
    problem ??= read.problem;
  }
  if (endsCut(body)) return { ok: false, cut: true, problem: 'it was cut short by the length it was allowed' };
  if (problem !== null) return { ok: false, problem };
  const words = visibleText(content).replace(/\s+/g, ' ').trim();
  if (words === '') return { ok: false, problem: 'it is empty' };
  if (DECLINES.test(words)) return { ok: false, declined: words.slice(0, 300), problem: 'it declines in words' };
  return { ok: false, problem: content.includes('{') ? 'its JSON does not come to an end' : 'it holds no JSON' };
}

function endsCut(body: Buffer): boolean {
  const parsed = jsonOf(body);
  const finish = parsed.ok ? Completion.safeParse(parsed.value).data?.choices[0]?.finish_reason : null;
  return finish === 'length' || finish === 'max_tokens';
}

function readObject<T>(text: string, { shape, accept }: Wanted<T>, last: boolean): Accepted<T> {
  const parsed = jsonOf(Buffer.from(text));
  if (!parsed.ok) return { ok: false, problem: 'problem' in parsed ? parsed.problem : 'no JSON' };
  const fit = shape.safeParse(parsed.value);
  if (fit.success) return accept ? accept(fit.data, last) : { ok: true, value: fit.data };
  const faults = fit.error.issues.map(({ path, message }) => `${path.join('.') || 'the reply'}: ${message}`);
  return { ok: false, problem: named(faults) };
}

/** All faults in one sentence, the first of them where there are very many. */
export function named(faults: readonly string[]): string {
  const more = faults.length - MOST_FAULTS;
  return [...faults.slice(0, MOST_FAULTS), ...(more > 0 ? [`and ${more} more`] : [])].join('; ');
}

/** The objects of a text that are in no other, each as far as its closing brace. */
function objectsIn(text: string): string[] {
  const out: string[] = [];
  let depth = 0;
  let from = 0;
  let quoted = false;
  for (let at = 0; at < text.length && out.length < MOST_OBJECTS; at++) {
    const letter = text[at]!;
    if (quoted) {
      if (letter === '\\') at++;
      else if (letter === '"') quoted = false;
    } else if (letter === '"' && depth > 0) quoted = true;
    else if (letter === '{') {
      if (depth === 0) from = at;
      depth++;
    } else if (letter === '}' && depth > 0) {
      depth--;
      if (depth === 0) out.push(text.slice(from, at + 1));
    }
  }
  return out;
}
