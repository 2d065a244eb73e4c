import { describe, expect, it } from 'vitest';
import { recognised, SentenceMemory, type Statement, sayIn, statements, understood } from './phrasings.ts';

const all = statements().filter(({ ways }) => ways > 0);
const runsOf = (text: string) => {
  const words = text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  return words.slice(0, -4).map((_, i) => words.slice(i, i + 5).join(' '));
};
const known = (text: string) => all.find((statement) => statement.text === text)!;
const SALT = 'Salt works by drawing water out of the cells.';

describe('what can be said in other words', () => {
  it('is whole sentences, however it is put together', () => {
    for (const statement of all)
      for (let n = 0; n < Math.min(statement.ways, 12); n++) {
        const text = sayIn(statement, n);
        expect(text, statement.text).toMatch(/^[\p{Lu}\p{N}“„].*[.!?:]$/u);
        expect(text, statement.text).not.toMatch(/[{}|]| {2}|,,|\.\.| [.,;]/);
      }
  });

  it('shares hardly a run of five words with what it says', () => {
    let runs = 0;
    let shared = 0;
    for (const statement of all) {
      const own = new Set(runsOf(statement.text));
      for (const run of runsOf(sayIn(statement, 0))) {
        runs++;
        if (own.has(run)) shared++;
      }
    }
    expect(shared / runs).toBeLessThan(0.05);
  });

  it('keeps its digits', () => {
    const digits = (text: string) =>
      (text.match(/\d+(?:[.,]\d+)*/g) ?? []).map((one) => one.replace(/[.,]$/, '')).sort();
    const lost: string[] = [];
    for (const statement of all)
      for (let n = 0; n < Math.min(statement.ways, 6); n++) {
        const said = new Set(digits(sayIn(statement, n)));
        const own = new Set(digits(statement.text));
        for (const one of said) if (!own.has(one)) lost.push(`${one}: ${statement.text}`);
      }
    // Two may be written out as a word in the one and not in the other.
    expect(lost.filter((one) => !/^(?:2|10): /.test(one))).toEqual([]);
  });

  it('comes up in every way before one comes again', () => {
    const statement = known(SALT);
    const ways = new Set(Array.from({ length: statement.ways }, (_, n) => sayIn(statement, n)));
    expect(ways.size).toBe(statement.ways);
  });
});

describe('reading', () => {
  it('tells a statement by its words, whatever its marks, and leaves what is unknown as it is', () => {
    const read = recognised(`Pegs slip in winter. ${SALT.toLowerCase().replace('.', '')} and then some chalk`);
    expect(read).toHaveLength(3);
    expect(read[0]).toBe('Pegs slip in winter.');
    expect((read[1] as Statement).text).toBe(SALT);
    expect(read[2]).toBe('and then some chalk');
  });

  it('knows what it wrote itself by what it says, also where two were joined', () => {
    const [a, b] = [known(SALT), known('Blue garlic tastes the same as white.')];
    expect(understood(sayIn(a, 3))).toEqual([a]);
    expect(understood(`${sayIn(a, 1).slice(0, -1)}; ${sayIn(b, 0)}`)).toEqual([a, b]);
    expect(understood('Pegs slip in winter, and chalk helps them.')).toEqual([]);
  });

  it('knows nearly all of what it can say', () => {
    const missed = all.filter((statement) => !understood(sayIn(statement, 0)).includes(statement));
    expect(missed.length / all.length).toBeLessThan(0.05);
  });
});

describe('the memory of sentences', () => {
  const none = new Set<string>();
  const statement = known(SALT);

  it('says a thing otherwise to each who asks, until every way was taken', () => {
    const memory = new SentenceMemory();
    const said = Array.from({ length: statement.ways }, (_, i) => memory.say(statement, `request ${i}`, none));
    expect(new Set(said).size).toBe(statement.ways);
    expect(said).toContain(memory.say(statement, 'one more', none));
  });

  it('answers the same request the same way again', () => {
    const memory = new SentenceMemory();
    const first = memory.say(statement, 'a', none);
    memory.say(statement, 'b', none);
    expect(memory.say(statement, 'a', none)).toBe(first);
  });

  it('takes a way that holds a wanted word, where there is one', () => {
    const memory = new SentenceMemory();
    const wanted = new Set(['act']);
    expect(memory.say(statement, 'a', wanted)).toContain('acts');
    expect(memory.say(statement, 'b', new Set(['violin']))).not.toBe('');
  });
});
