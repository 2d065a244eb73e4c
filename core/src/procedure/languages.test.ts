import { expect, test } from 'vitest';
import { LANGUAGES, languageCalled, languageName } from './languages.ts';

test.each([
  ['German', 'de'],
  [' german ', 'de'],
  ['Deutsch', 'de'],
  ['polski', 'pl'],
  ['svenska', 'sv'],
  ['日本語', 'ja'],
  ['العربية', 'ar'],
  ['Norwegian', 'nb'],
  ['Yoruba', 'yo'],
  ['Luxembourgish', 'lb'],
  ['Brazilian Portuguese', 'pt-BR'],
  ['pt_br', 'pt-BR'],
  ['zh-hant', 'zh-Hant'],
  ['sv', 'sv'],
])('%j is called %j', (text, tag) => {
  expect(languageCalled(text)).toBe(tag);
});

test.each(['', 'Klingonese', 'xx', 'zz-ZZ', '{{ language }}', 'the language of the source', 'x'.repeat(500)])(
  '%j is no language',
  (text) => {
    expect(languageCalled(text)).toBeNull();
  },
);

test('every language that is offered is found by its name', () => {
  for (const [tag, name] of Object.entries(LANGUAGES)) expect(languageCalled(name)).toBe(tag);
  expect(languageName('pt-BR')).toBe('Brazilian Portuguese');
});
