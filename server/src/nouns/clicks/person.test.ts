import { expect, test } from 'vitest';
import { isPerson } from './person.ts';

const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36';

test.each([
  ['GET', { 'user-agent': BROWSER }, true],
  ['HEAD', { 'user-agent': BROWSER }, false],
  ['GET', {}, false],
  ['GET', { 'user-agent': 'curl/8.5.0' }, false],
  ['GET', { 'user-agent': 'Mozilla/5.0 (compatible; SomeBot/2.1; +https://bot.example)' }, false],
  ['GET', { 'user-agent': `${BROWSER.replace('Chrome', 'HeadlessChrome')}` }, false],
  ['GET', { 'user-agent': BROWSER, 'sec-purpose': 'prefetch;prerender' }, false],
  ['GET', { 'user-agent': BROWSER, purpose: 'prefetch' }, false],
])('%s with %j: %s', (method, headers, is) => {
  expect(isPerson(method, headers)).toBe(is);
});
