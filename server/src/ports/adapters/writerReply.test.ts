import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { readReply } from './writerReply.ts';

const shape = z.object({ answer: z.string(), n: z.int().optional() });
const body = (content: unknown, finish = 'stop') =>
  Buffer.from(JSON.stringify({ choices: [{ message: { content }, finish_reason: finish }] }));
const read = (content: unknown, finish?: string) => readReply(body(content, finish), { shape });
const GOOD = '{"answer":"rosin"}';

describe('a reply', () => {
  it.each([
    ['plain', GOOD],
    ['in a fence', `\`\`\`json\n${GOOD}\n\`\`\``],
    ['behind a polite sentence', `Here it is {as you asked}:\n${GOOD}\nAnything else?`],
    ['after thoughts', `<think>maybe {"answer":"gut"}? no</think>${GOOD}`],
    ['after thoughts by another name', `<reasoning>{</reasoning>\n${GOOD}`],
    ['as the last of two objects', `{"answer":"gut"} or rather ${GOOD}`],
    ['before an object of another shape', `${GOOD}\n{"note":"done"}`],
    ['in parts', [{ text: '{"answer":' }, { text: '"rosin"}' }]],
    ['with braces in a string', '{"answer":"rosin"}  {"x": "}{"}'],
  ])('%s is read', (_name, content) => expect(read(content)).toEqual({ ok: true, value: { answer: 'rosin' } }));

  it.each([
    ['empty', '', { problem: 'it is empty' }],
    ['only thoughts', '<think>hm</think>', { problem: 'it is empty' }],
    ['words', 'The answer is rosin.', { problem: 'it holds no JSON' }],
    ['cut', '{"answer":"ros', { problem: 'its JSON does not come to an end' }],
    ['declined in words', "I'm sorry, I cannot help with that.", { declined: "I'm sorry, I cannot help with that." }],
    ['declined in German', 'Ich kann dabei nicht helfen.', { declined: 'Ich kann dabei nicht helfen.' }],
    ['of another shape', '{"other":1}', { problem: expect.stringMatching(/^answer: /) }],
  ])('%s says what is wrong', (_name, content, wrong) => expect(read(content)).toMatchObject({ ok: false, ...wrong }));

  it('cut by its length says so, but not where its object was whole before', () => {
    expect(read('{"answer":"ros', 'length')).toMatchObject({ ok: false, cut: true });
    expect(read(`${GOOD} and furthermore`, 'length')).toMatchObject({ ok: true });
  });

  it('names all its faults at once', () => {
    const wrong = read('{"answer":7,"n":"two"}');
    expect(wrong).toMatchObject({ ok: false, problem: expect.stringMatching(/^answer: .*; n: /) });
  });

  it('that is no completion, or very long, is said to be', () => {
    expect(readReply(Buffer.from('<html>'), { shape })).toMatchObject({ problem: 'the reply is no chat completion' });
    expect(read('x'.repeat(500_000))).toMatchObject({ problem: 'it is many times as long as was asked for' });
  });

  it('made to harm is read, however many braces and quotation marks', () => {
    for (const part of ['{', '}', '{"', '"{', '{}', '\\"'])
      expect(read(part.repeat(Math.floor(390_000 / part.length))).ok).toBe(false);
  });

  it('is mended the last time only', () => {
    const accept = (value: { answer: string }, last: boolean) =>
      last
        ? ({ ok: true, value: { answer: value.answer.trim() } } as const)
        : ({ ok: false, problem: 'spaces' } as const);
    const spaced = body('{"answer":" rosin "}');
    expect(readReply(spaced, { shape, accept })).toEqual({ ok: false, problem: 'spaces' });
    expect(readReply(spaced, { shape, accept }, true)).toEqual({ ok: true, value: { answer: 'rosin' } });
  });
});
