import { expect, test } from 'vitest';
import { fillTemplate } from './template.ts';

test('fields are filled; unknown ones are reported with those there are', () => {
  expect(fillTemplate('On {{ subject | upcase }}', { subject: 'salt' })).toEqual({ ok: true, text: 'On SALT' });
  const unknown = fillTemplate('a\n{{ subjekt }}', { subject: 'salt', title: 't' });
  expect(unknown).toMatchObject({ ok: false });
  expect(!unknown.ok && unknown.problem).toContain('there are: subject, title');
  expect(!unknown.ok && unknown.place).toContain('line:2');
  expect(fillTemplate('{% if %}', {}).ok).toBe(false);
});
