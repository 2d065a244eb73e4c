import { describe, expect, test } from 'vitest';
import { backoffMs, causeOf, classOf, type Failure, lasting } from './failure.ts';
import { nothingFound, pressedWords, wordsOf } from './words.ts';

const samples: Failure[] = [
  { code: 'service-busy', service: 's', retryAfterMs: 2_000 },
  { code: 'service-unreachable', service: 's', detail: 'connection refused' },
  { code: 'service-broken', service: 's', status: 500 },
  { code: 'reply-unusable', service: 's', problem: 'no JSON' },
  { code: 'outcome-unknown', service: 's', action: 'create' },
  { code: 'key-refused', service: 's', status: 401 },
  { code: 'credit-used-up', service: 's' },
  { code: 'credit-used-up', service: 's', said: 'You exceeded your quota.' },
  { code: 'service-refuses', service: 's', status: 404, because: 'the model', said: 'no such model' },
  { code: 'service-refuses', service: 's', status: 400, because: 'the shape', said: '' },
  { code: 'service-refuses', service: 's', status: 400, because: 'the request', said: 'too long' },
  { code: 'declined', service: 's', said: 'I cannot help with that.' },
  { code: 'service-down', service: 's', detail: 'x', tries: 5 },
  { code: 'replies-unusable', service: 's', problem: 'x', tries: 3 },
  { code: 'address-refused', address: 'http://10.0.0.1', reason: 'private network' },
  { code: 'blog-refuses', service: 's', status: 403, said: 'insufficient scope' },
  { code: 'outcome-unfindable', service: 's', action: 'create' },
  { code: 'blog-cannot', service: 's', what: 'drafts' },
  { code: 'no-such-blog', by: 'language', said: 'Swedish' },
  { code: 'changed-outside', service: 's' },
  { code: 'overtaken', service: 's', action: 'update' },
  { code: 'no-service', role: 'writer' },
  { code: 'limit-reached', scope: 'month', start: '2026-11', capMicros: 1_000_000, neededMicros: 20_000 },
  { code: 'no-slots', blog: 'b' },
  { code: 'nothing-found', subject: 'x' },
  { code: 'field-missing', field: 'outline' },
  { code: 'too-little-material', words: 120, wanted: 900 },
  { code: 'defect', message: 'x', stack: '' },
];

describe('failures', () => {
  test('each says what happened and what mends it, in whole sentences', () => {
    for (const failure of samples) {
      const words = wordsOf(failure, (id) => (id === 's' ? 'The writer' : id));
      expect(words.problem.length, failure.code).toBeGreaterThan(3);
      expect(words.sentence, failure.code).toMatch(/\.$/);
      expect(words.mend, failure.code).toMatch(/\.$/);
    }
  });

  test('a passing failure becomes a lasting one that needs mending, never before its last try', () => {
    for (const failure of samples.filter((f) => classOf(f) === 'transient')) {
      expect(lasting(failure, 1)).toBeNull();
      const last = lasting(failure, 99);
      expect(last && classOf(last), failure.code).toBe('mend');
    }
    expect(lasting({ code: 'key-refused', service: 's', status: 401 }, 99)).toBeNull();
  });

  test('waiting grows, is spread, is bounded, and obeys a service that names the time', () => {
    const broken: Failure = { code: 'service-broken', service: 's', status: 500 };
    expect(backoffMs(broken, 1, () => 0)).toBe(125);
    expect(backoffMs(broken, 4, () => 0.5)).toBe(2_000);
    expect(backoffMs(broken, 40, () => 0.999)).toBeLessThan(450_000);
    expect(backoffMs({ code: 'service-busy', service: 's', retryAfterMs: 7_000 }, 9, () => 0)).toBe(7_000);
  });

  test('one cause at one service is one incident; content and unfindable outcomes concern one brief', () => {
    expect(causeOf({ code: 'key-refused', service: 'w1', status: 401 })).toEqual({
      service: 'w1',
      cause: 'key-refused',
    });
    expect(causeOf({ code: 'nothing-found', subject: 'x' })).toBeNull();
    expect(causeOf({ code: 'outcome-unfindable', service: 'b', action: 'create' })).toBeNull();
  });
});

test('what somebody pressed is not said to be tried again by itself; what is looked after is said as it is', () => {
  const unreachable: Failure = { code: 'service-unreachable', service: 's', detail: 'nothing listens there' };
  expect(wordsOf(unreachable).mend).toMatch(/automatically/);
  expect(pressedWords(unreachable)).toEqual({ ...wordsOf(unreachable), mend: 'Try again in a moment.' });
  const unknown: Failure = { code: 'outcome-unknown', service: 's', action: 'publish' };
  expect(pressedWords(unknown)).toEqual(wordsOf(unknown));
});

test.each([
  [{ pages: 0 }, 'No page was found on ‘x’.'],
  [{ pages: 1 }, 'Nothing found that answers ‘x’: the one page found says nothing of it.'],
  [
    { pages: 6, fitting: 2, unanswered: ['time', 'freezing'] },
    'Nothing found that answers ‘x’: of 6 pages found, only 2 speak of it. None says how long or when, nor whether it can be frozen.',
  ],
  [
    { pages: 3, fitting: 3, lacking: ['salt'] },
    'Nothing found that answers ‘x’: of 3 pages found, all 3 speak of it. Nothing is said of ‘salt’.',
  ],
  [
    { pages: 1, fitting: 1 },
    'Nothing found that answers ‘x’: the one page found speaks of it, but does not answer it.',
  ],
])('what was found too little of: %j', (found, sentence) => {
  expect(nothingFound({ subject: 'x', ...found })).toBe(sentence);
});
