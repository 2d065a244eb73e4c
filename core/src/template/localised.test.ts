import { expect, test } from 'vitest';
import { asDay, asNumber } from './localised.ts';
import { fillTemplate } from './template.ts';

test.each([
  ['12345.5', 'en', '12,345.5'],
  ['12345.5', 'de', '12.345,5'],
  ['0.025', 'sv', '0,025'],
  ['about ten', 'de', 'about ten'],
  ['', 'de', ''],
  ['7', 'no such language!', '7'],
])('the number %j in %s is %s', (value, language, written) => {
  expect(asNumber(value, language).replace(/\s/g, ' ')).toBe(written);
});

test.each([
  ['2026-11-30', 'en', '30 November 2026'],
  ['2026-11-30', 'de', '30. November 2026'],
  ['2026-11-30T23:30:00Z', 'ja', '2026年11月30日'],
  ['2026-02-31', 'de', '2026-02-31'],
  ['soon', 'de', 'soon'],
])('the day %j in %s is %s', (value, language, written) => {
  expect(asDay(value, language)).toBe(written);
});

test('in a text they are written in the language of the article, or in one that is named', () => {
  const fields = { weight: '1234.5', day: '2026-11-30', language: 'de' };
  const filled = fillTemplate('{{ weight | as_number }} g, {{ day | as_day }}; {{ weight | as_number: "en" }}', fields);
  expect(filled).toEqual({ ok: true, text: '1.234,5 g, 30. November 2026; 1,234.5' });
  expect(fillTemplate('{{ weight | as_number }}', { weight: 3_000 })).toEqual({ ok: true, text: '3,000' });
});
