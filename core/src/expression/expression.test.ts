import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { expressionFields, expressionProblem, workOut } from './evaluate.ts';
import { type FindPattern, FUNCTIONS } from './functions.ts';

const find: FindPattern = (pattern, text, all) => ({
  ok: true,
  matches: [...text.matchAll(new RegExp(pattern, 'gu'))].slice(0, all ? undefined : 1).map((match) => [...match]),
});
const fields = {
  subject: 'salt for sauerkraut',
  n: 12,
  tags: ['salt', 'crock'],
  row: { price: '1,250.50', link: 'https://go.example/?u=https%3A%2F%2Fshop.example%2Fcrock%3Fa%3D1&x=2' },
  day: '2024-02-28',
};
const value = (text: string) => {
  const done = workOut(text, fields, find);
  return done.ok ? done.value : `! ${done.problem}`;
};

describe('expressions', () => {
  test.each<[string, unknown]>([
    ['1 + 2 * 3', 7],
    ['(1 + 2) * 3', 9],
    ['-n + 2', -10],
    ['7 % 4', 3],
    ['n > 10 and not (n = 13)', true],
    ['"a" & n & "b"', 'a12b'],
    ['row.price * 2', 2501],
    ['unwrap(row.link)', 'https://shop.example/crock?a=1'],
    ['unwrap("https://shop.example/x")', 'https://shop.example/x'],
    ['split("a; b;;c", ";")', ['a', 'b', 'c']],
    ['join(tags, " + ")', 'salt + crock'],
    ['before("Salt: how much", ":")', 'Salt'],
    ['after("Salt: how much", ":")', 'how much'],
    ['after("Salt", ":")', 'Salt'],
    ['find("2.5 per cent", "([0-9.]+) per", 1)', '2.5'],
    ['find("none", "[0-9]+")', null],
    ['findAll("a1 b22", "[0-9]+")', ['1', '22']],
    ['replace("a-b-c", "-", " ")', 'a b c'],
    ['number("about 1,250 g")', 1250],
    ['number("no figure")', null],
    ['shiftDay(day, 2)', '2024-03-01'],
    ['shiftDay("2026-01-01T10:00", -1)', '2025-12-31T10:00'],
    ['pick(row, "price")', '1,250.50'],
    ['pick(tags, 2)', 'crock'],
    ['pick(tags, 9)', null],
    ['length(tags)', 2],
    ['words("two-litre jar, please")', 3],
    ['upper("é")', 'É'],
    ['lower("É")', 'é'],
    ['sentence("salt first")', 'Salt first'],
    ['cut("salt and water", 9)', 'salt and'],
    ['round(2.345, 1)', 2.3],
    ['if(n > 10, "many", "few")', 'many'],
    ['orElse(missing, "nothing there")', 'nothing there'],
    ["'it\\'s'", "it's"],
    ['[1, "two", n]', [1, 'two', 12]],
    ['true and nothing', false],
  ])('%s', (text, wanted) => {
    expect(value(text)).toEqual(wanted);
  });

  test('every function is tried here, and refuses to be called with too little', () => {
    const tried = new Set(['sentence']);
    for (const name of Object.keys(FUNCTIONS)) {
      expect(FUNCTIONS[name]!.call.startsWith(`${name}(`), name).toBe(true);
      expect(expressionProblem(`${name}()`), name).toMatch(/is called as/);
      tried.add(name);
    }
    expect(tried.size).toBe(Object.keys(FUNCTIONS).length);
  });

  test.each([
    ['', /nothing to work out/],
    ['1 +', /character 4: it ends too early/],
    ['(1 + 2', /the ‘\(’ at 1 wants its ‘\)’ here/],
    ['"open', /character 1: this text is not closed/],
    ['a $ b', /character 3: ‘\$’ means nothing here/],
    ['1 2', /is not expected here/],
    ['dance(1)', /there is no function ‘dance’; there are unwrap,/],
    ['if(1, 2)', /called as if\(test, then, otherwise\)/],
    [`${'('.repeat(60)}1${')'.repeat(60)}`, /nested too deep/],
    ['1'.repeat(5_000), /longer than 4,000/],
    ['constructor(1)', /there is no function/],
  ])('%s is refused before it is run', (text, why) => {
    expect(expressionProblem(text)).toMatch(why);
  });

  test.each([
    ['"a" + 1', /texts are joined by ‘&’/],
    ['1 / 0', /divides by zero/],
    ['shiftDay("soon", 1)', /wants a day/],
    ['round("x")', /wants a figure/],
  ])('%s says what it cannot do', (text, why) => {
    expect(String(value(text))).toMatch(why);
  });

  test('a text that doubles itself again and again is stopped', () => {
    const doubled = Array.from({ length: 22 }).reduce<string>((inner) => `replace(${inner}, "a", "aa")`, '"aaaa"');
    expect(String(value(doubled))).toMatch(/grows beyond a million|nested too deep/);
  });

  test('says which fields it speaks of, and nothing of the fields leaks from their prototypes', () => {
    expect(expressionFields('if(row.price > 3, subject, pick(tags, n))')).toEqual([
      'row.price',
      'subject',
      'tags',
      'n',
    ]);
    expect(value('toString')).toBeNull();
    expect(value('row.constructor')).toBeNull();
  });

  test('whatever is typed ends in a value or a sentence', () => {
    const bits = fc.constantFrom(...'()[],"\'+-*/%=<>&.\\ 1a', 'split', 'find(', 'row.price', ' and ', 'not ');
    fc.assert(
      fc.property(fc.array(bits, { maxLength: 20 }), (parts) => {
        const done = workOut(parts.join(''), fields, () => ({ ok: true, matches: [] }));
        expect(done.ok || done.problem.length > 3).toBe(true);
      }),
      { numRuns: 3_000 },
    );
  });
});
