import { expect, test } from 'vitest';
import { type Chance, chanceFrom } from '../chance/chance.ts';
import { allSaid, chooseVariant, countVariants, variantProblem } from './variant.ts';

test('lists inside lists are counted and chosen from, fields are left alone', () => {
  const text = '{Plain|{Fine|Coarse} sea} salt for {{ subject }}';
  expect(countVariants([text])).toBe(3);
  expect(countVariants([text, 'One more'])).toBe(4);
  const seen = new Set(Array.from({ length: 60 }, (_, i) => chooseVariant([text], `seed ${i}`)));
  expect([...seen].sort()).toEqual([
    'Coarse sea salt for {{ subject }}',
    'Fine sea salt for {{ subject }}',
    'Plain salt for {{ subject }}',
  ]);
  expect(chooseVariant([text], 'one')).toBe(chooseVariant([text], 'one'));
  expect(chooseVariant([], 'one')).toBe('');
});

test('empty alternatives count, plain text is itself, open lists are told with their place', () => {
  expect(countVariants(['a{|b}'])).toBe(2);
  expect(chooseVariant(['No braces | here'], 's')).toBe('No braces | here');
  expect(variantProblem('a {b|c')).toBe('The list at character 3 is not closed.');
  expect(variantProblem('{ '.repeat(30))).toMatch(/nested too deep/);
  expect(variantProblem('{% if x %}a{% endif %}')).toBeNull();
  expect(countVariants(['{a|b}'.repeat(80)])).toBe(Number.MAX_SAFE_INTEGER);
});

/** A text with lists in it, and every way to choose from it, one after the other. */
interface Tree {
  text: string;
  ways: string[];
}

function tree(chance: Chance, depth: number): Tree {
  const parts = 1 + Math.floor(chance() * 3);
  let out: Tree = { text: '', ways: [''] };
  for (let i = 0; i < parts && out.ways.length < 400; i++) {
    const part = depth > 0 && chance() < 0.5 ? list(chance, depth - 1) : plain(chance);
    out = { text: out.text + part.text, ways: out.ways.flatMap((before) => part.ways.map((way) => before + way)) };
  }
  return out;
}

function list(chance: Chance, depth: number): Tree {
  const alternatives = Array.from({ length: 2 + Math.floor(chance() * 2) }, () => tree(chance, depth));
  return {
    text: `{${alternatives.map(({ text }) => text).join('|')}}`,
    ways: alternatives.flatMap(({ ways }) => ways),
  };
}

const plain = (chance: Chance): Tree => {
  const text = ['salt ', 'fine ', '{{ subject }} ', '', 'a, b; c ', 'é漢 '][Math.floor(chance() * 6)]!;
  return { text, ways: [text] };
};

test('the count is that of all ways, one by one, and only those are chosen (200 trees drawn)', () => {
  for (let n = 0; n < 200; n++) {
    const chance = chanceFrom(`tree ${n}`);
    const { text, ways } = tree(chance, 3);
    expect(countVariants([text]), text).toBe(ways.length);
    expect(variantProblem(text)).toBeNull();
    const known = new Set(ways);
    for (let i = 0; i < 5; i++) expect(known.has(chooseVariant([text], `${n} ${i}`)), text).toBe(true);
  }
});

test('ten lists within one another are read, and a megabyte of them; where one is not closed, the place is told', () => {
  const deep = `${'{a|'.repeat(10)}b${'}'.repeat(10)}`;
  expect(countVariants([deep])).toBe(11);
  const long = '{one|two {three|four}} '.repeat(45_000);
  expect(long.length).toBeGreaterThan(1_000_000);
  expect(countVariants([long])).toBe(Number.MAX_SAFE_INTEGER);
  expect(chooseVariant([long], 'seed')).toMatch(/^(?:one|two three|two four) /);
  expect(variantProblem(`${long}{open`)).toBe(`The list at character ${long.length + 1} is not closed.`);
  for (const odd of ['{'.repeat(500_000), '}'.repeat(500_000), '|'.repeat(500_000), '{|'.repeat(300_000)])
    expect(countVariants([odd])).toBeGreaterThanOrEqual(1);
});

test('two braces are a field where one closes, else a list that begins with a list', () => {
  expect(countVariants(['{{a|b}|c} and {{ subject }}'])).toBe(3);
  expect(countVariants(['{{ subject | upcase }} and {x|{{ subject }}}'])).toBe(2);
  expect(chooseVariant(['{{{ subject }}|{{ subject }}}'], 's')).toBe('{{ subject }}');
  expect(allSaid('{{a|b}|c} of {{ subject }}')).toBe('a b c of {{ subject }}');
  expect(variantProblem('{{ subject')).toBe('The list at character 2 is not closed.');
});
