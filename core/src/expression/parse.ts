/** The expressions of 'work out': a small language of values, fields, calls and operators, without loops. */

export type Expression =
  | { type: 'value'; value: string | number | boolean | null }
  | { type: 'list'; items: Expression[] }
  | { type: 'field'; path: string[]; at: number }
  | { type: 'call'; name: string; given: Expression[]; at: number }
  | { type: 'not' | 'minus'; of: Expression }
  | { type: 'operator'; sign: string; left: Expression; right: Expression };

export type Parsed = { ok: true; expression: Expression } | { ok: false; at: number; problem: string };

/** Deeper nesting than any person writes. */
const DEEPEST = 40;
const LONGEST = 4_000;

const LEVELS: readonly (readonly string[])[] = [
  ['or'],
  ['and'],
  ['=', '!=', '<=', '>=', '<', '>'],
  ['&'],
  ['+', '-'],
  ['*', '/', '%'],
];

interface Token {
  type: 'number' | 'text' | 'name' | 'sign' | 'end';
  text: string;
  at: number;
}

class Wrong extends Error {
  constructor(
    readonly at: number,
    readonly problem: string,
  ) {
    super(problem);
  }
}

/** Reads an expression. What is wrong is told with its place, counted in characters from 0. */
export function parseExpression(text: string): Parsed {
  try {
    if (text.length > LONGEST)
      throw new Wrong(LONGEST, `it is longer than ${LONGEST.toLocaleString('en-GB')} characters`);
    return { ok: true, expression: new Parser(tokensOf(text)).whole() };
  } catch (error) {
    if (!(error instanceof Wrong)) throw error;
    return { ok: false, at: error.at, problem: error.problem };
  }
}

function tokensOf(text: string): Token[] {
  const out: Token[] = [];
  const pattern =
    /\s+|(\d+(?:\.\d+)?)|"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)'|([A-Za-z][A-Za-z0-9_]*(?:\.[A-Za-z0-9_]+)*)|(<=|>=|!=|[-+*/%=<>&(),[\]])/y;
  while (pattern.lastIndex < text.length) {
    const at = pattern.lastIndex;
    const match = pattern.exec(text);
    if (!match) {
      const open = /^["']/.test(text.slice(at));
      throw new Wrong(at, open ? 'this text is not closed' : `‘${text.slice(at, at + 1)}’ means nothing here`);
    }
    const [, figure, double, single, name, sign] = match;
    const quoted = double ?? single;
    if (figure !== undefined) out.push({ type: 'number', text: figure, at });
    else if (quoted !== undefined)
      out.push({
        type: 'text',
        text: quoted.replace(/\\(.)/g, (_, c: string) => (c === 'n' ? '\n' : c === 't' ? '\t' : c)),
        at,
      });
    else if (name !== undefined) out.push({ type: 'name', text: name, at });
    else if (sign !== undefined) out.push({ type: 'sign', text: sign, at });
  }
  out.push({ type: 'end', text: '', at: text.length });
  return out;
}

class Parser {
  private n = 0;
  private depth = 0;

  constructor(private readonly tokens: readonly Token[]) {}

  whole(): Expression {
    if (this.now().type === 'end') throw new Wrong(0, 'there is nothing to work out');
    const expression = this.level(0);
    if (this.now().type !== 'end') throw new Wrong(this.now().at, `‘${this.now().text}’ is not expected here`);
    return expression;
  }

  private now(): Token {
    return this.tokens[this.n]!;
  }

  private level(at: number): Expression {
    const signs = LEVELS[at];
    if (!signs) return this.single();
    let left = this.level(at + 1);
    while ((this.now().type === 'sign' || this.now().type === 'name') && signs.includes(this.now().text)) {
      const sign = this.now().text;
      this.n++;
      left = { type: 'operator', sign, left, right: this.level(at + 1) };
    }
    return left;
  }

  private single(): Expression {
    if (++this.depth > DEEPEST) throw new Wrong(this.now().at, 'it is nested too deep');
    try {
      const token = this.now();
      this.n++;
      if (token.type === 'number') return { type: 'value', value: Number(token.text) };
      if (token.type === 'text') return { type: 'value', value: token.text };
      if (token.type === 'sign' && token.text === '-') return { type: 'minus', of: this.single() };
      if (token.type === 'sign' && token.text === '(') {
        const inner = this.level(0);
        this.close(')', token);
        return inner;
      }
      if (token.type === 'sign' && token.text === '[') return { type: 'list', items: this.items(']', token) };
      if (token.type === 'name') return this.named(token);
      throw new Wrong(token.at, token.type === 'end' ? 'it ends too early' : `‘${token.text}’ has nothing before it`);
    } finally {
      this.depth--;
    }
  }

  private named(token: Token): Expression {
    if (token.text === 'not') return { type: 'not', of: this.single() };
    if (token.text === 'true' || token.text === 'false') return { type: 'value', value: token.text === 'true' };
    if (token.text === 'nothing') return { type: 'value', value: null };
    if (this.now().type === 'sign' && this.now().text === '(') {
      const open = this.now();
      this.n++;
      return { type: 'call', name: token.text, given: this.items(')', open), at: token.at };
    }
    return { type: 'field', path: token.text.split('.'), at: token.at };
  }

  private items(end: string, open: Token): Expression[] {
    const out: Expression[] = [];
    if (this.now().type === 'sign' && this.now().text === end) {
      this.n++;
      return out;
    }
    for (;;) {
      out.push(this.level(0));
      if (this.now().type === 'sign' && this.now().text === ',') this.n++;
      else {
        this.close(end, open);
        return out;
      }
    }
  }

  private close(sign: string, open: Token): void {
    if (this.now().type !== 'sign' || this.now().text !== sign)
      throw new Wrong(this.now().at, `the ‘${open.text}’ at ${open.at + 1} wants its ‘${sign}’ here`);
    this.n++;
  }
}

/** Every field an expression speaks of, as its path. */
export function fieldsIn(expression: Expression): { path: string; at: number }[] {
  switch (expression.type) {
    case 'value':
      return [];
    case 'field':
      return [{ path: expression.path.join('.'), at: expression.at }];
    case 'list':
      return expression.items.flatMap(fieldsIn);
    case 'call':
      return expression.given.flatMap(fieldsIn);
    case 'not':
    case 'minus':
      return fieldsIn(expression.of);
    case 'operator':
      return [...fieldsIn(expression.left), ...fieldsIn(expression.right)];
  }
}
