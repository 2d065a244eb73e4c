import { expect, test } from 'vitest';
import { fillMarkup, fillTemplate } from './template.ts';

test('fields are filled; unknown ones are reported with those there are', () => {
  expect(fillTemplate('On {{ subject | upcase }}', { subject: 'salt' })).toEqual({ ok: true, text: 'On SALT' });
  const unknown = fillTemplate('a\n{{ subjekt }}', { subject: 'salt', title: 't' });
  expect(unknown).toMatchObject({ ok: false });
  expect(!unknown.ok && unknown.problem).toContain('there are: subject, title');
  expect(!unknown.ok && unknown.place).toContain('line:2');
  expect(fillTemplate('{% if %}', {}).ok).toBe(false);
});

test('what is put into markup is shown and never run, also after filters; the markup itself stays', () => {
  const fields = { subject: `<script>alert('x')</script> & "more"` };
  const filled = (text: string) => fillMarkup(text, fields);
  expect(filled('<b title="{{ subject }}">{{ subject | upcase }}</b>')).toMatchObject({
    ok: true,
    text: expect.not.stringMatching(/<script|<SCRIPT|" & "/) as string,
  });
  expect(filled('<i>{% if subject %}yes{% endif %}</i>')).toEqual({ ok: true, text: '<i>yes</i>' });
  expect(filled('{{ subject | url_encode }}')).toMatchObject({
    text: expect.stringMatching(/^%3Cscript%3E/) as string,
  });
  expect(filled('{{ subject | raw }}').ok).toBe(false);
});
