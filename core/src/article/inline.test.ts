import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Inline } from './block.ts';
import {
  emphasised,
  inlineText,
  joined,
  linkAddress,
  plainInline,
  sliceInline,
  spansOf,
  trimInline,
} from './inline.ts';

const bold = (text: string): Inline => ({ text, marks: ['strong'] });
const NOWHERE = { file: (digest: string) => digest, article: () => null };
const content = fc.array(
  fc.record(
    { text: fc.string({ maxLength: 8 }), marks: fc.constant(['strong'] as ['strong']) },
    { requiredKeys: ['text'] },
  ),
  { maxLength: 6 },
) as fc.Arbitrary<Inline[]>;

describe('words with marks', () => {
  test('are cut at letters, marks with them, and a cut in two loses nothing', () => {
    expect(sliceInline([{ text: 'Weigh ' }, bold('the salt'), { text: '.' }], 4, 9)).toEqual([
      { text: 'h ' },
      bold('the'),
    ]);
    fc.assert(
      fc.property(content, fc.nat(40), (words, at) => {
        const [left, right] = [sliceInline(words, 0, at), sliceInline(words, at)];
        expect(inlineText(left) + inlineText(right)).toBe(inlineText(words));
        expect(inlineText(left)).toBe(inlineText(words).slice(0, at));
      }),
    );
  });

  test('are trimmed at their ends and in between, and only what has no letter falls away', () => {
    expect(trimInline([{ text: ' \n Weigh\t\t' }, bold('it  now '), { text: '  ' }])).toEqual([
      { text: 'Weigh ' },
      bold('it now '),
    ]);
    fc.assert(
      fc.property(content, (words) => {
        const text = inlineText(trimInline(words));
        expect(text.replace(/\s/g, '')).toBe(
          inlineText(words)
            .replace(/[\u0000-\u0008\u000b-\u001f\u007f]/g, '')
            .replace(/\s/g, ''),
        );
      }),
    );
  });

  test('are emphasised once, and joined only where both are there', () => {
    expect(emphasised([{ text: 'a', marks: ['emphasis', 'strong'] }, { text: 'b' }])).toEqual([
      { text: 'a', marks: ['emphasis', 'strong'] },
      { text: 'b', marks: ['emphasis'] },
    ]);
    expect(inlineText(joined(' · ', plainInline('a'), undefined, [], plainInline('b')))).toBe('a · b');
    expect(joined(' · ', undefined, [])).toEqual([]);
    expect(plainInline('')).toEqual([]);
  });

  test('lead only to the web, to a place of the same site or to a mail address', () => {
    const to = (address: string) => linkAddress({ to: 'address', address }, NOWHERE);
    for (const address of [
      'https://a.example/x',
      'http://a.example',
      '/here',
      'mailto:a@b.example',
      'HTTPS://A.example',
    ])
      expect(to(address)).toBe(address);
    for (const address of ['javascript:alert(1)', '//evil.example', 'data:text/html,x', 'ftp://x', '', 'x'])
      expect(to(address), address).toBeNull();
    expect(linkAddress({ to: 'article', article: 'x' }, NOWHERE)).toBeNull();
    expect(linkAddress({ to: 'article', article: 'x' }, { ...NOWHERE, article: () => 'javascript:x' })).toBeNull();
  });

  test('as spans of a page on paper keep their looks, and links only where they lead somewhere', () => {
    const words: Inline[] = [
      { text: 'a', marks: ['strong', 'code'], link: { to: 'address', address: 'https://a.example/' } },
      { text: 'b', marks: ['emphasis'], link: { to: 'article', article: 'x' } },
    ];
    expect(spansOf(words, NOWHERE)).toEqual([
      { text: 'a', strong: true, code: true, href: 'https://a.example/' },
      { text: 'b', emphasis: true },
    ]);
  });
});
