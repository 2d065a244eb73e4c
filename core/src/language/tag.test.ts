import { expect, test } from 'vitest';
import { directionOf, languageTag } from './tag.ts';

test.each([
  ['ar', 'rtl'],
  ['he-IL', 'rtl'],
  ['ur', 'rtl'],
  ['pa-Arab', 'rtl'],
  ['pa', 'ltr'],
  ['az-Arab-IR', 'rtl'],
  ['en', 'ltr'],
  ['zh-Hant', 'ltr'],
  ['not a tag', 'ltr'],
])('%s runs %s', (language, way) => {
  expect(directionOf(language)).toBe(way);
});

test.each([
  ['pt_br', 'pt-BR'],
  [' DE ', 'de'],
  ['zh-hant-tw', 'zh-Hant-TW'],
  ['', null],
  ['english!', null],
])('%j as a tag is %j', (text, tag) => {
  expect(languageTag(text)).toBe(tag);
});
