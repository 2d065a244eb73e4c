import { languageOf as bySmallWords } from '@grivo/core';
import { describe, expect, test } from 'vitest';
import { FRENCH, ITALIAN, PORTUGUESE, SPANISH } from './judged/romance.ts';
import { DANISH, SWEDISH } from './judged/scandinavian.ts';
import { CZECH, POLISH, SLOVAK } from './judged/slavonic.ts';
import { DUTCH, ENGLISH, GERMAN } from './judged/western.ts';
import { isInOther, languageOf } from './recognise.ts';

const JUDGED: Record<string, string> = {
  sv: SWEDISH,
  da: DANISH,
  en: ENGLISH,
  de: GERMAN,
  nl: DUTCH,
  fr: FRENCH,
  it: ITALIAN,
  es: SPANISH,
  pt: PORTUGUESE,
  cs: CZECH,
  sk: SLOVAK,
  pl: POLISH,
};
const fragments = Object.entries(JUDGED).flatMap(([language, text]) =>
  text
    .trim()
    .split('\n')
    .map((fragment) => ({ language, fragment })),
);

test('of 408 fragments in twelve languages, near ones among them, more than 97 of 100 are told right', () => {
  expect(fragments).toHaveLength(408);
  for (const { fragment } of fragments) {
    const words = fragment.split(' ').length;
    expect(words, fragment).toBeGreaterThanOrEqual(8);
    expect(words, fragment).toBeLessThanOrEqual(20);
  }
  const wrong = fragments.filter(({ language, fragment }) => languageOf(fragment) !== language);
  expect(
    1 - wrong.length / fragments.length,
    JSON.stringify(wrong.map((one) => [languageOf(one.fragment), one])),
  ).toBeGreaterThan(0.97);
});

describe('scripts tell', () => {
  test.each([
    ['革の自転車用バッグは雨の日にも長持ちします', 'ja'],
    ['حقيبة الدراجة الجلدية تدوم طويلا تحت المطر', 'ar'],
    ['Кожаная сумка на велосипеде служит много лет', 'ru'],
    ['皮革自行車包在雨中也很耐用', 'zh'],
    ['자전거 가죽 가방은 비가 와도 오래갑니다', 'ko'],
    ['תיק עור לאופניים מחזיק שנים רבות גם בגשם', 'he'],
    ['กระเป๋าหนังสำหรับจักรยานทนฝนได้หลายปี', 'th'],
    ['Η δερμάτινη τσάντα αντέχει στη βροχή για χρόνια', 'el'],
    ['Vesken henger på bagasjebrettet og tåler regn og snø i mange år', 'nb'],
  ])('%s', (text, language) => {
    expect(languageOf(text)).toBe(language);
  });
});

test.each(['', 'Kahm', '12 345 67', 'a b', '革', '!!! ??? ---'])('%j tells nothing', (text) => {
  expect(languageOf(text)).toBeNull();
});

test('a text in another language than it should be is told, one in a language that is written alike is not', () => {
  expect(isInOther(SWEDISH, 'sv')).toBeNull();
  expect(isInOther(SWEDISH, 'pl')).toBe('sv');
  expect(isInOther(PORTUGUESE, 'pt-BR')).toBeNull();
  expect(isInOther(DANISH, 'nb')).toBeNull();
  expect(isInOther('Kahm', 'pl')).toBeNull();
});

test('a text of megabytes is taken in its stride', () => {
  expect(languageOf(ENGLISH.repeat(2_000))).toBe('en');
});

test('by small words alone, as where others’ documents are read, four fragments in a row are told, and none for another language', () => {
  const rows = Object.entries(JUDGED).flatMap(([language, text]) => {
    const lines = text.trim().split('\n');
    return Array.from({ length: Math.floor(lines.length / 4) }, (_, i) => ({
      language,
      told: bySmallWords(lines.slice(i * 4, i * 4 + 4).join('. ')),
    }));
  });
  expect(rows.filter(({ language, told }) => told !== null && told !== language)).toEqual([]);
  expect(rows.filter(({ language, told }) => told === language).length / rows.length).toBeGreaterThan(0.94);
  for (const [language, text] of [
    ['ja', '塩はスプーンに頼らず、はかりで量りましょう。'],
    ['ar', 'اعتمد على الميزان لا على الملعقة'],
    ['zh', '盐要用秤称，不要用勺子量。'],
    ['ko', '소금은 숟가락이 아니라 저울로 잽니다.'],
    ['el', 'Ζυγίστε το αλάτι με ζυγαριά.'],
  ])
    expect(bySmallWords(text!)).toBe(language);
});
