import { expect, test } from 'vitest';
import { lines } from '../testing/corpus.ts';
import { expressionFields, expressionProblem, workOut } from './evaluate.ts';
import type { FindPattern } from './functions.ts';

const FIELDS = {
  name: 'a jar of glass',
  empty: '',
  price: '12.50',
  many: '1,200',
  n: 7,
  zero: 0,
  yes: true,
  no: false,
  tags: ['salt', 'brine', 'jar'],
  day: '2026-02-27',
  steps: [
    { name: 'Wash', minutes: 5 },
    { name: 'Cut', minutes: 12 },
  ],
  part: { of: { whole: 'x' } },
};

const VALUES = ['name', 'empty', 'price', 'many', 'n', 'zero', 'yes', 'tags', 'day', 'missing', "'7'", '-2'];
const OPERATORS = ['+', '-', '*', '/', '%', '<', '<=', '>', '>=', '==', '!=', 'and', 'or'];
const CALLS = [
  "unwrap('{{a}}')",
  'split(name)',
  "split(name, ' ')",
  "split('', ',')",
  "split('a,,b', ',')",
  "join(tags, ' and ')",
  'join(tags)',
  "join(name, '-')",
  "join(tags, '')",
  "before(name, ' of')",
  "before(name, 'zz')",
  "before(name, '')",
  "after(name, 'of ')",
  "after(name, 'zz')",
  "after('a-b-c', '-')",
  "before('a-b-c', '-')",
  "find('[a-z]+r', name)",
  "find(name, '[a-z]+r')",
  "findAll(name, 'a')",
  "findAll(name, '[aeiou]')",
  "find(name, '(')",
  "replace(name, 'a', 'o')",
  "replace(name, '[aeiou]', '')",
  "replace(name, 'zz', 'o')",
  'number(many)',
  "number('12 jars')",
  "number('1.200,50')",
  'number(empty)',
  "number('12,5 kg')",
  "number('-3,75')",
  "number('1,2,3')",
  "number('a1.200.300,5b')",
  "number('1,2345')",
  "number('7,')",
  "number('1.200')",
  "number('12,345,678.9')",
  'number(yes)',
  'shiftDay(day, 2)',
  'shiftDay(day, -58)',
  "shiftDay('2024-02-28', 1)",
  "shiftDay('salt', 1)",
  'shiftDay(day, 0.5)',
  'pick(tags, 1)',
  'pick(tags, 0)',
  'pick(tags, -1)',
  'pick(tags, 9)',
  'pick(name, 2)',
  'length(tags)',
  'length(name)',
  'length(empty)',
  'length(n)',
  'words(name)',
  'words(empty)',
  "words('one  two three')",
  'upper(name)',
  'lower(upper(name))',
  'sentence(name)',
  "sentence('  éclair')",
  "sentence('')",
  'cut(name, 5)',
  'cut(name, 6)',
  'cut(name, 10)',
  'cut(name, 0)',
  'cut(name, -1)',
  'cut(name, 99)',
  "cut('abcdefghij klm', 11)",
  'round(price)',
  'round(2.5)',
  'round(price, 1)',
  'round(1.005, 2)',
  'round(price, 20)',
  'round(price, -3)',
  "round('salt')",
  "if(yes, 'a', 'b')",
  "if(no, 'a', 'b')",
  "if(empty, 'a', 'b')",
  "if(zero, 'a', 'b')",
  "if('false', 'a', 'b')",
  "if('no', 'a', 'b')",
  "if(tags, 'a', 'b')",
  "if(missing, 'a', 'b')",
  "if(part, 'a', 'b')",
  "orElse(empty, 'b')",
  "orElse(name, 'b')",
  'orElse(missing, name)',
  "orElse('  ', 'b')",
  'orElse(zero, 3)',
  'part.of.whole',
  'steps.0.name',
  'pick(steps, 1).name',
  'steps.name',
  'part.none.whole',
  'not yes',
  'not empty',
  '-n',
  '--n',
  '(n + 1) * 2',
  'n + 1 * 2',
  'n - 1 - 2',
  '12 / 4 / 3',
  '2 * 3 % 4',
  'yes or no and no',
  'not yes or yes',
  '1 < 2 == true',
  "'a' + 'b' + 1",
  "'it''s'",
  '"x"',
  '1e3',
  '.5',
  '5.',
  '',
  '(',
  ')',
  '1 +',
  '+ 1',
  'a b',
  'upper()',
  'upper(name, 1)',
  'none(name)',
  "'open",
  'name.',
  '.name',
  '1..2',
  'n == 7 == true',
  '((((((((n))))))))',
  '__proto__',
  'constructor',
  'name.length',
  'name.constructor',
];

const find: FindPattern = (pattern, text, all) => {
  try {
    const matches = [...text.matchAll(new RegExp(pattern, 'gu'))].map((found) => [...found]);
    return { ok: true, matches: all ? matches : matches.slice(0, 1) };
  } catch {
    return { ok: false, problem: `‘${pattern}’ is no pattern` };
  }
};
const told = (text: string): string => {
  try {
    return JSON.stringify(workOut(text, FIELDS, find));
  } catch (error) {
    return `throws ${String(error).slice(0, 120)}`;
  }
};

test('every operator with values of every sort', async () => {
  const all = OPERATORS.flatMap((operator) =>
    VALUES.map(
      (left) => `${left} ${operator} …: ${VALUES.map((right) => told(`${left} ${operator} ${right}`)).join(' ')}`,
    ),
  );
  await expect(lines(all)).toMatchFileSnapshot('listed/operators.txt');
});

test('every call, what is wrong with it, and which fields it reads', async () => {
  const all = CALLS.map(
    (text) =>
      `${text}: ${told(text)} | ${expressionProblem(text) ?? 'well'} | ${safely(() => expressionFields(text).join(' '))}`,
  );
  await expect(lines(all)).toMatchFileSnapshot('listed/calls.txt');
});

function safely(work: () => string): string {
  try {
    return work();
  } catch (error) {
    return String(error);
  }
}
