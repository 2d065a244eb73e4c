import { describe, expect, it } from 'vitest';
import { expressionProblem } from './evaluate.ts';
import { FUNCTIONS } from './functions.ts';
import { isEmpty, numberOf, testHolds, textOf, valueAt } from './test.ts';

describe('what is empty', () => {
  it.each([
    [undefined, true],
    [null, true],
    ['', true],
    [' \n', true],
    ['a', false],
    [[], true],
    [[''], false],
    [{}, true],
    [{ a: null }, false],
    [0, false],
    [false, false],
  ])('%j: %s', (value, empty) => expect(isEmpty(value)).toBe(empty));
});

describe('a value as text', () => {
  it.each([
    [undefined, ''],
    [null, ''],
    ['salt', 'salt'],
    [12.5, '12.5'],
    [false, 'false'],
    [['salt', 2, ['a', 'b']], 'salt, 2, a, b'],
    [{ a: 1 }, '{"a":1}'],
  ])('%j is ‘%s’', (value, text) => expect(textOf(value)).toBe(text));
});

describe('a figure as people write it', () => {
  it.each([
    ['1,200', 1_200],
    ['12.5', 12.5],
    ['-3', -3],
    [' 7 ', 7],
    [4, 4],
    ['', null],
    ['salt', null],
    ['12 jars', null],
    [null, null],
    [[1], null],
    [Number.NaN, null],
  ])('%j is %s', (value, figure) => expect(numberOf(value)).toBe(figure));
});

describe('a test', () => {
  const fields = {
    score: 6,
    kind: 'Guide',
    tags: ['Salt', 'Brine'],
    body: 'Salt in brine',
    none: '',
    part: { of: '7' },
  };
  const holds = (field: string, is: Parameters<typeof testHolds>[0]['is'], value = '') =>
    testHolds({ field, is, value }, fields);

  it.each([
    ['score', 'above', '5', true],
    ['score', 'above', '6', false],
    ['score', 'below', '6', false],
    ['score', 'below', '7', true],
    ['score', 'above', 'much', false],
    ['score', 'below', 'much', false],
    ['score', 'equal to', '6.0', true],
    ['score', 'other than', '6.0', false],
    ['kind', 'equal to', ' guide ', true],
    ['kind', 'other than', 'guide', false],
    ['kind', 'other than', 'recipe', true],
    ['tags', 'holding', 'salt', true],
    ['tags', 'holding', 'sal', false],
    ['body', 'holding', 'in br', true],
    ['body', 'holding', '', false],
    ['body', 'not holding', 'vinegar', true],
    ['body', 'not holding', 'SALT', false],
    ['part.of', 'above', '6', true],
    ['part.of', 'filled', '', true],
    ['none', 'filled', '', false],
    ['none', 'empty', '', true],
    ['gone', 'empty', '', true],
    ['gone', 'holding', 'a', false],
  ] as const)('%s %s ‘%s’: %s', (field, is, value, expected) => expect(holds(field, is, value)).toBe(expected));

  it('no name leads to what a record only inherits', () => {
    expect(valueAt({ a: {} }, 'a.constructor')).toBeUndefined();
    expect(valueAt({ a: [1, 2] }, 'a.1')).toBe(2);
  });
});

describe('functions', () => {
  const problem = (name: string, n: number) =>
    expressionProblem(`${name}(${Array.from({ length: n }, () => "'a'").join(', ')})`);

  it.each(Object.entries(FUNCTIONS))('%s takes as many values as it says, no fewer and no more', (name, of) => {
    const said = /\((.*)\)/.exec(of.call)![1]!.split(', ');
    expect(of.most).toBe(said.length);
    for (let n = of.least; n <= of.most; n++) expect(problem(name, n)).toBeNull();
    for (const n of [of.least - 1, of.most + 1]) if (n >= 0) expect(problem(name, n)).toMatch(/is called as/);
  });
});
