import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { countedAddress, isCounted, plainAddress } from './counted.ts';

const DOOR = 'https://grivo.example/in/';
const BY = '01hzx5r2q8v3n7k4t6w9';
const MARK = 'abcdefghijklmnopqrst-_';
const counted = (address: string) => countedAddress(DOOR, { by: BY, mark: MARK }, address);

describe('an address that is counted', () => {
  test('says the real one, whatever is in it', () => {
    expect(counted('https://jars.example/a?b=1&c=ü#d')).toBe(
      `https://grivo.example/in/go/${BY}/${MARK}?to=https%3A%2F%2Fjars.example%2Fa%3Fb%3D1%26c%3D%C3%BC%23d`,
    );
    fc.assert(
      fc.property(fc.webUrl({ withQueryParameters: true, withFragments: true }), (address) => {
        expect(plainAddress(counted(address))).toBe(address);
      }),
    );
  });

  test('that was made at another door is read too; any other stays as it is', () => {
    for (const address of [
      'https://jars.example/go/p1/m?to=https%3A%2F%2Fa.example',
      `https://jars.example/go/${BY}/${MARK}?to=`,
      'https://grivo.example/read/x',
      'mailto:a@b.example',
      'https://grivo.example/in/go/p1/m',
      '',
    ])
      expect(plainAddress(address)).toBe(address);
    const elsewhere = countedAddress('https://old.example', { by: BY, mark: MARK }, 'https://a.example/?q=1&r=2');
    expect(plainAddress(elsewhere)).toBe('https://a.example/?q=1&r=2');
  });
});

describe('which addresses are counted', () => {
  const own = ['https://Journal.example/blog/', 'https://other.example'];
  test.each([
    ['https://jars.example/', true],
    ['http://jars.example', true],
    ['https://journal.example/blog/brine', false],
    ['https://journal.example/blog', false],
    ['https://journal.example/blog?page=2', false],
    ['https://journal.example/blogger', true],
    ['https://journal.example/shop', true],
    ['https://other.example.net/', true],
    ['mailto:a@b.example', false],
    ['/brine', false],
    [`https://jars.example/${'a'.repeat(2_000)}`, false],
  ])('%s: %s', (address, is) => {
    expect(isCounted(address, own)).toBe(is);
  });
});
