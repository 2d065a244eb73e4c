import { describe, expect, test } from 'vitest';
import { SHIPPED } from './shipped.ts';
import { procedureYaml, readProcedureYaml } from './yaml.ts';

const names = { blog: (id: string) => `Blog ${id}`, source: (id: string) => `List ${id}` };

test.each(SHIPPED.map((one) => [one.key, one] as const))('‘%s’ comes back from its file as it was', (_key, one) => {
  const document = one.make({ source: 'k1', blog: 'b1', language: 'en' });
  const text = procedureYaml(document, names);
  expect(text).toContain('# Take ');
  const read = readProcedureYaml(text);
  expect(read.ok && JSON.parse(JSON.stringify(read.document))).toEqual(JSON.parse(JSON.stringify(document)));
});

const problems = (text: string) => {
  const read = readProcedureYaml(text);
  return read.ok ? [] : read.problems.map(({ line, problem, mend }) => `${line}: ${problem}. ${mend}`);
};

const HEAD = 'grivo: 1\nlanguage: en\nsteps:\n';

describe('what is wrong is told with its line and what mends it', () => {
  test('a kind nobody knows', () => {
    expect(problems(`${HEAD}  - id: s1\n    kind: dance\n`)).toEqual([
      expect.stringMatching(
        /^[45]: there is no kind of step ‘dance’\. Choose one of take, read, hear, look up, gist, judge/,
      ) as string,
    ]);
  });

  test('a word that means nothing, a value that is none of those, a missing one', () => {
    const step = (line: string) => `${HEAD}  - id: s1\n    kind: wait\n    minutes: 5\n  - id: s2\n${line}`;
    expect(problems(step('    kind: wait\n    minutes: 5\n    hours: 2\n'))[0]).toMatch(
      /^7: ‘hours’ means nothing here\. A step ‘wait’ has id, kind, off, minutes\.$/,
    );
    expect(problems(step('    kind: wait\n'))[0]).toMatch(/^7: ‘minutes’ is missing/);
    expect(problems(step('    kind: wait\n    minutes: soon\n'))).toEqual([
      '9: ‘minutes’ is not a number. Write a number.',
    ]);
    expect(problems(step('    kind: publish\n    blog: b\n    when: at once\n    as: loud\n'))).toEqual([
      '11: ‘loud’ is none of what ‘as’ may be. Choose one of live, draft, review, private.',
    ]);
  });

  test('inside a block, at its own line', () => {
    const text = `${HEAD}  - id: s1\n    kind: when\n    join: all\n    tests:\n      - { field: subject, is: filled }\n    holds:\n      - id: s2\n        kind: wait\n        minutes: 0\n    otherwise: []\n`;
    expect(problems(text)).toEqual([expect.stringMatching(/^12: /) as string]);
  });

  test('broken YAML, doubled keys, aliases, too deep, too long', () => {
    expect(problems('grivo: [1')[0]).toMatch(/^1: .* Mend the YAML there/);
    expect(problems('grivo: 1\ngrivo: 2\n')[0]).toMatch(/^2: Map keys must be unique/);
    expect(problems('grivo: &a 1\nlanguage: *a\n')[0]).toMatch(/alias/i);
    expect(problems(`grivo: ${'['.repeat(100_000)}`)).toEqual([
      '1: it is nested more than 60 deep. Send it with fewer levels.',
    ]);
    const brackets = (n: number) => problems(`grivo: ${'['.repeat(n)}${']'.repeat(n)}`).join();
    expect(brackets(60)).not.toMatch(/nested/);
    expect(brackets(61)).toMatch(/nested/);
    expect(problems(`grivo: 1\n${' '.repeat(400)}x: 1`)).toEqual([
      '2: it is nested more than 60 deep. Send it with fewer levels.',
    ]);
    expect(problems('x'.repeat(2_000_000))[0]).toMatch(/^1: the file has 2,000,000 letters, more than 1,000,000/);
    expect(problems('')[0]).toMatch(/^1: /);
    expect(problems('just words')[0]).toMatch(/^1: /);
  });

  test('blocks too deep in one another, ids used twice', () => {
    let steps = '[]';
    for (let i = 12; i > 0; i--)
      steps = `[{ id: m${i}, kind: meanwhile, name: b, ifStopped: wait for it, steps: ${steps} }]`;
    expect(problems(`grivo: 1\nlanguage: en\nsteps: ${steps}`).join()).toMatch(/at most 8 deep/);
    expect(problems(`${HEAD}  - { id: s1, kind: wait, minutes: 1 }\n  - { id: s1, kind: wait, minutes: 1 }\n`)).toEqual(
      [expect.stringMatching(/^5: the id s1 is used twice/) as string],
    );
  });
});
