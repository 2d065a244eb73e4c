import { describe, expect, it } from 'vitest';
import { linksOf } from './linkHeader.ts';

const BASE = 'https://site.example/feed/';
const links = (header: string) => Object.fromEntries(linksOf(header, BASE));

describe('links of a header', () => {
  it.each([
    ['<https://hub.example/>; rel="hub"', { hub: 'https://hub.example/' }],
    [
      '<https://hub.example/>; rel=hub, </self>; rel="self"',
      { hub: 'https://hub.example/', self: 'https://site.example/self' },
    ],
    ['<a>; rel="Hub Self"', { hub: 'https://site.example/feed/a', self: 'https://site.example/feed/a' }],
    // A comma within the address, and words with a semicolon in quotes.
    ['<https://hub.example/?a=1,2>; title="a; b, c"; rel="hub"', { hub: 'https://hub.example/?a=1,2' }],
    // The first of a relation counts.
    ['<a>; rel=hub, <b>; rel=hub', { hub: 'https://site.example/feed/a' }],
  ])('%s', (header, expected) => expect(links(header)).toEqual(expected));

  it.each(['', 'no link', '<https://hub.example/', '<javascript:alert(1)>; rel=hub', `<a>; rel=${'x'.repeat(20_000)}`])(
    'what cannot be read or followed names none: %s',
    (header) => expect(links(header)).toEqual({}),
  );

  it.each(['<', '<a>;', ',', '"', ' ', '<a>; rel="', '<a>'])('of ‘%s’ again and again none leads to a hub', (one) => {
    expect(links(one.repeat(Math.floor(16_384 / one.length)))).not.toHaveProperty('hub');
  });
});
