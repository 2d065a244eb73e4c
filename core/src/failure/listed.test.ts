import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { backoffMs, causeOf, classOf, type Failure, lasting } from './failure.ts';
import { MISTAKES } from './mistakes.ts';
import { pressedWords, wordsOf } from './words.ts';

const [service, said] = ['s1', 'the account is closed'];

/** Every failure, in the forms it comes in. */
const FAILURES: Failure[] = [
  { code: 'service-busy', service, retryAfterMs: null },
  { code: 'service-busy', service, retryAfterMs: 90_000 },
  { code: 'service-unreachable', service, detail: 'no answer within 30 s' },
  { code: 'service-broken', service, status: 502 },
  { code: 'reply-unusable', service, problem: 'it is no JSON' },
  { code: 'outcome-unknown', service, action: 'publish' },
  { code: 'overtaken', service, action: 'update' },
  { code: 'key-refused', service, status: 401 },
  { code: 'key-refused', service, status: 403, said },
  { code: 'credit-used-up', service },
  { code: 'credit-used-up', service, said },
  ...(['the model', 'the shape', 'the request'] as const).map(
    (because): Failure => ({ code: 'service-refuses', service, status: 400, because, said }),
  ),
  { code: 'service-down', service, detail: 'no answer within 30 s', tries: 5 },
  { code: 'replies-unusable', service, problem: 'it is no JSON', tries: 3 },
  { code: 'address-refused', address: 'http://10.0.0.1', reason: 'it leads into the own network' },
  { code: 'blog-refuses', service, status: 422, said },
  { code: 'outcome-unfindable', service, action: 'publish' },
  { code: 'changed-outside', service },
  ...['drafts', 'update', 'withdraw', 'find', 'media', 'categories', 'list categories', 'something'].map(
    (what): Failure => ({ code: 'blog-cannot', service, what }),
  ),
  { code: 'no-such-blog', by: 'name', said: 'Journal' },
  { code: 'no-such-blog', by: 'language', said: 'de' },
  ...(
    ['writer', 'illustrator', 'look-up', 'video host', 'keyword service', 'transcriber', 'picture library'] as const
  ).map((role): Failure => ({ code: 'no-service', role })),
  { code: 'limit-reached', scope: 'day', start: '2026-03-01', capMicros: 5_000_000, neededMicros: 1_234_567 },
  { code: 'limit-reached', scope: 'article', start: '2026-03', capMicros: 0, neededMicros: 1 },
  { code: 'no-slots', blog: 'b1' },
  { code: 'nothing-found', subject: 'gifts' },
  { code: 'nothing-found', subject: 'gifts', pages: 1, fitting: 0, lacking: ['gifts'] },
  { code: 'nothing-found', subject: 'gifts', pages: 1, fitting: 1 },
  { code: 'nothing-found', subject: 'gifts', pages: 6, fitting: 1, unanswered: ['price'] },
  { code: 'nothing-found', subject: 'gifts', pages: 6, fitting: 6, lacking: ['a', 'b', 'c', 'd', 'e', 'f'] },
  { code: 'nothing-found', subject: 'gifts', pages: 6, fitting: 2, unanswered: ['buying', 'keeping', 'no such'] },
  { code: 'ours-already', subject: 'salt', title: null },
  { code: 'ours-already', subject: 'salt', title: 'All about salt' },
  { code: 'field-missing', field: 'passages' },
  { code: 'too-little-material', words: 1, wanted: 600 },
  { code: 'too-little-material', words: 240, wanted: 600 },
  { code: 'no-figure', said: 'about as much as you like' },
  { code: 'declined', service, said },
  { code: 'cannot-work-out', problem: 'round wants a figure' },
  { code: 'cannot-copy', form: 'Word', problem: 'a picture is missing' },
  { code: 'page-unreadable', address: 'https://a.example', reason: 'it is no page' },
  { code: 'source-unreadable', source: 'List', reason: 'it is gone', mend: 'Give it another address.' },
  { code: 'nothing-said', recording: 'talk.mp3', reason: 'it is silent' },
  { code: 'no-column', address: 'https://a.example', column: 'Price', there: [] },
  { code: 'no-column', address: 'https://a.example', column: 'Price', there: ['Name', 'Size'] },
  { code: 'no-captions', address: 'https://a.example', language: 'de', there: [] },
  { code: 'no-captions', address: 'https://a.example', language: 'de', there: ['en', 'fr'] },
  { code: 'not-taken', to: 'd1', said },
  { code: 'language-unknown', language: 'xx' },
  { code: 'translation-incomplete', language: 'de', problem: 'two texts are missing' },
  { code: 'routine-missing', routine: 'r1' },
  { code: 'stopped-by-hand', person: 'Ines Marlow' },
  { code: 'took-too-long', minutes: 1 },
  { code: 'took-too-long', minutes: 30 },
  { code: 'not-set-up', what: 'GRIVO_MAIL' },
  { code: 'defect', message: 'x is undefined', stack: 'at y' },
];

const nameOf = (id: string) => `‘${id}’`;

test('every failure in words, and what is done about it', async () => {
  const all = FAILURES.flatMap((failure) => {
    const { problem, sentence, mend } = wordsOf(failure, nameOf);
    const waits = [1, 2, 5, 20].map((tries) => backoffMs(failure, tries, () => 0.5));
    return [
      `= ${failure.code}: ${classOf(failure)}; ${JSON.stringify(causeOf(failure))}; waits ${waits.join(' ')}; at last ${[2, 3, 5, 50].map((tries) => lasting(failure, tries)?.code ?? 'goes on').join(' ')}`,
      `  ${problem} | ${sentence} | ${mend} | ${pressedWords(failure).mend}`,
    ];
  });
  const mistakes = (Object.keys(MISTAKES) as (keyof typeof MISTAKES)[]).map((mistake) => {
    const known = wordsOf({ code: 'key-refused', service, status: 401, said, mistake }, nameOf);
    const unsaid = wordsOf({ code: 'service-broken', service, status: 500, mistake });
    return `${mistake}: ${known.sentence} ${known.mend} | ${unsaid.sentence}`;
  });
  await expect(lines([...all, ...mistakes])).toMatchFileSnapshot('listed/failures.txt');
});

test('every code of a failure is among them', () => {
  const codes = new Set(FAILURES.map(({ code }) => code));
  const classed: Record<Failure['code'], true> = Object.fromEntries([...codes].map((code) => [code, true])) as never;
  expect(Object.keys(classed)).toHaveLength(codes.size);
  expect(codes.size).toBe(41);
});
