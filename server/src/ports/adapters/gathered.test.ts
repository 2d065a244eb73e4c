import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Gathering, gathered } from './gathered.ts';

const piece = (content: string) => `data: ${JSON.stringify({ choices: [{ index: 0, delta: { content } }] })}\n\n`;
const END = 'data: {"choices":[{"delta":{},"finish_reason":"stop"}]}\n\n';
const USAGE = 'data: {"choices":[],"usage":{"prompt_tokens":7,"completion_tokens":3}}\n\n';
const of = (...parts: string[]) => gathered(Buffer.from(parts.join('')));

test('pieces make the reply that would have come at once, however they are cut', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ unit: 'grapheme' })), (texts) => {
      const made = of(
        'data: {"choices":[{"delta":{"role":"assistant"}}]}\n\n',
        ...texts.map(piece),
        END,
        USAGE,
        'data: [DONE]\n\n',
      );
      expect(made).toEqual({
        ok: true,
        completion: {
          choices: [{ index: 0, message: { role: 'assistant', content: texts.join('') }, finish_reason: 'stop' }],
          usage: { prompt_tokens: 7, completion_tokens: 3 },
        },
      });
    }),
  );
});

test('remarks, other line ends and a missing last word do no harm', () => {
  const made = of(': waiting\n\n', piece('salt').replaceAll('\n', '\r\n'), 'event: ping\ndata:\n\n', END);
  expect(made).toMatchObject({ ok: true, completion: { choices: [{ message: { content: 'salt' } }] } });
});

test('what broke off says so', () => {
  expect(of(piece('sal'))).toEqual({ ok: false, problem: 'it ends in the middle' });
  expect(of(piece('sal'), 'data: {"error":{"message":"overloaded"}}\n\n')).toEqual({
    ok: false,
    problem: 'it broke off: overloaded',
  });
  expect(of(piece('sal'), 'data: {"choi')).toEqual({ ok: false, problem: 'a piece of it cannot be read' });
  expect(of('')).toEqual({ ok: false, problem: 'it ends in the middle' });
});

test('whatever comes, it is read or refused', () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      expect(['boolean']).toContain(typeof of(`data: ${text}\n\n`, END).ok);
    }),
  );
});

test('what is written so far is there after each part, a letter cut between two of them too', () => {
  const bytes = Buffer.from(piece('sälz') + piece(' und Kraut') + END);
  const gathering = new Gathering();
  let before = '';
  for (let at = 0; at < bytes.length; at += 7) {
    gathering.feed(bytes.subarray(at, at + 7));
    expect(gathering.content.startsWith(before)).toBe(true);
    before = gathering.content;
  }
  expect(before).toBe('sälz und Kraut');
  expect(gathering.end()).toMatchObject({ ok: true });
});
