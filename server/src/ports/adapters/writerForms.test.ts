import type { Failure } from '@grivo/core';
import { expect, test } from 'vitest';
import { WriterForms } from './writerForms.ts';

const BODY = {
  model: 'quill',
  seed: 3,
  messages: [{ role: 'user', content: 'Write.' }],
  max_tokens: 60,
  response_format: { type: 'json_schema', json_schema: { name: 'x', strict: true, schema: { type: 'object' } } },
};
const refuses = (because: 'the shape' | 'the request'): Failure => ({
  code: 'service-refuses',
  service: 's',
  status: 400,
  because,
  said: '',
});
const said = (message: string, marks = '') => ({ message, marks });

test('the shape is asked for by a schema, then as JSON, then in words; each service by itself', () => {
  const forms = new WriterForms();
  expect(forms.shaped('s', BODY)).toMatchObject({ response_format: BODY.response_format, messages: BODY.messages });
  expect(forms.learn('s', refuses('the shape'), said('response_format json_schema is not supported'))).toBe(true);
  expect(forms.shaped('s', BODY)).toMatchObject({ response_format: { type: 'json_object' } });
  expect((forms.shaped('s', BODY)['messages'] as { content: string }[])[0]!.content).toContain('{"type":"object"}');
  expect(forms.learn('s', refuses('the shape'), said('response_format?'))).toBe(true);
  expect(forms.shaped('s', BODY)).not.toHaveProperty('response_format');
  expect(forms.form('s')).toBe('words');
  // There is no other form: it is a refusal.
  expect(forms.learn('s', refuses('the shape'), said('schema?'))).toBe(false);
  expect(forms.form('another')).toBe('schema');
});

test('the limit of the length goes by its other name where the first is not known', () => {
  const forms = new WriterForms();
  expect(forms.learn('s', refuses('the request'), said('unsupported: max_tokens, use max_completion_tokens'))).toBe(
    true,
  );
  expect(forms.shaped('s', BODY)).toMatchObject({ max_completion_tokens: 60 });
  expect(forms.shaped('s', BODY)).not.toHaveProperty('max_tokens');
});

test('a part of the request that is not known is left out, one after the other', () => {
  const forms = new WriterForms();
  expect(forms.learn('s', refuses('the request'), said('Unrecognized request argument: seed'))).toBe(true);
  expect(forms.shaped('s', BODY)).not.toHaveProperty('seed');
  expect(forms.learn('s', refuses('the request'), said('', 'stream_options unknown'))).toBe(true);
  expect(forms.shaped('s', BODY)).toMatchObject({ stream: true });
  expect(forms.shaped('s', BODY)).not.toHaveProperty('stream_options');
  expect(forms.learn('s', refuses('the request'), said('Unrecognized request argument: seed'))).toBe(false);
});

test('other refusals teach nothing', () => {
  const forms = new WriterForms();
  expect(forms.learn('s', { code: 'key-refused', service: 's' } as Failure, said('seed'))).toBe(false);
  expect(forms.learn('s', refuses('the request'), said('your text is too long'))).toBe(false);
  expect(forms.learn('s', refuses('the request'), said('seed must be at least 1'))).toBe(false);
});
