import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { fittingOf } from './fitting.ts';
import { holds } from './heldPage.ts';

interface Judged {
  answered: boolean;
  subject: string;
  pages: { title: string; paragraphs: string[]; language: string }[];
}

/** Subjects with the pages found on them, and whether these answer them as a reader would say: made up, of all sorts of things. */
function judged(file: 'english' | 'german' | 'kept'): Judged[] {
  const own = file === 'german' ? 'de' : 'en';
  return readFileSync(new URL(`./answering/${file}.txt`, import.meta.url), 'utf8')
    .split(/^== /m)
    .slice(1)
    .map((one) => {
      const [head = '', ...rest] = one.split('\n');
      const {
        language = own,
        is,
        subject,
      } = /^(?:(?<language>en|de) )?(?<is>answered|not): (?<subject>.+)$/.exec(head)!.groups!;
      const pages = rest
        .join('\n')
        .split(/^# /m)
        .slice(1)
        .map((page) => {
          const [title = '', ...paragraphs] = page.trim().split('\n');
          return { title, paragraphs, language };
        });
      return { answered: is === 'answered', subject: subject!, pages };
    });
}

/** Of all, how many are told right, and those that are not. */
function told(all: readonly Judged[]) {
  const wrong = all.filter(
    ({ answered, subject, pages }) => fittingOf(subject, pages).answers.some(Boolean) !== answered,
  );
  return {
    share: 1 - wrong.length / all.length,
    wrong: wrong.map(({ answered, subject }) => `${answered}: ${subject}`),
  };
}

test('whether pages answer a subject is told as a reader would', () => {
  const all = [...judged('english'), ...judged('german')];
  expect(all.length).toBeGreaterThanOrEqual(60);
  expect(all.filter(({ answered }) => answered).length).toBeGreaterThan(all.length * 0.4);
  const { share, wrong } = told(all);
  expect(share, wrong.join('\n')).toBeGreaterThan(0.95);
  // None that speaks of the thing alone is taken for an answer.
  expect(wrong.filter((one) => one.startsWith('false'))).toEqual([]);
});

test('also of subjects it was not fitted to', () => {
  const { share, wrong } = told(judged('kept'));
  expect(share, wrong.join('\n')).toBeGreaterThan(0.9);
});

test('a word is held in its forms, and in a compound that has letters enough before it', () => {
  const held = (stem: string, word: string, language: string) => holds(new Set([stem]), word, language);
  expect(held('kraut', 'kraut', 'en')).toBe(true);
  // Three letters before it are a word, two are not.
  expect(held('ziekraut', 'kraut', 'en')).toBe(true);
  expect(held('abkraut', 'kraut', 'en')).toBe(false);
  // A word of four letters is no part of another but in languages that write compounds as one.
  expect(held('goldring', 'ring', 'en')).toBe(false);
  expect(held('kraut', 'sauerkraut', 'de')).toBe(true);
  expect(held('kraut', 'sauerkraut', 'en')).toBe(false);
  expect(held('krautkopf', 'kraut', 'de')).toBe(true);
  expect(held('rau', 'grau', 'de')).toBe(false);
});
