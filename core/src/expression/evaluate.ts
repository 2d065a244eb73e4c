import { CannotDo, type FindPattern, FUNCTIONS, GROWS, isTrue, LONGEST_TEXT } from './functions.ts';
import { type Expression, fieldsIn, parseExpression } from './parse.ts';
import { numberOf, textOf, valueAt } from './test.ts';

export type WorkedOut = { ok: true; value: unknown } | { ok: false; problem: string };

/**
 * Works out an expression over fields. It has no loops, so it ends; what it makes is bounded, and patterns are searched
 * for by the caller, who can cut a search off.
 */
export function workOut(text: string, fields: Readonly<Record<string, unknown>>, find: FindPattern): WorkedOut {
  return prepared(text)(fields, find);
}

/** An expression read once, to be worked out over many fields. */
export function prepared(text: string): (fields: Readonly<Record<string, unknown>>, find: FindPattern) => WorkedOut {
  const parsed = parseExpression(text);
  if (!parsed.ok) return () => ({ ok: false, problem: `at character ${parsed.at + 1}: ${parsed.problem}` });
  return (fields, find) => {
    try {
      return { ok: true, value: resultOf(parsed.expression, fields, find) };
    } catch (error) {
      if (error instanceof CannotDo) return { ok: false, problem: error.message };
      // The platform's own bounds: a text longer than any can be, values that lie too deep in each other.
      if (error instanceof RangeError) return { ok: false, problem: GROWS };
      throw error;
    }
  };
}

/** What is wrong with an expression before it is run: its form, unknown functions, calls with too little or too much. */
export function expressionProblem(text: string): string | null {
  const parsed = parseExpression(text);
  if (!parsed.ok) return `at character ${parsed.at + 1}: ${parsed.problem}`;
  return callProblem(parsed.expression);
}

export function expressionFields(text: string): string[] {
  const parsed = parseExpression(text);
  return parsed.ok ? fieldsIn(parsed.expression).map(({ path }) => path) : [];
}

function callProblem(e: Expression): string | null {
  const first = (all: readonly Expression[]) =>
    all.reduce<string | null>((found, one) => found ?? callProblem(one), null);
  switch (e.type) {
    case 'value':
    case 'field':
      return null;
    case 'list':
      return first(e.items);
    case 'not':
    case 'minus':
      return callProblem(e.of);
    case 'operator':
      return first([e.left, e.right]);
    case 'call': {
      const known = Object.hasOwn(FUNCTIONS, e.name) ? FUNCTIONS[e.name] : undefined;
      if (!known) return `there is no function ‘${e.name}’; there are ${Object.keys(FUNCTIONS).join(', ')}`;
      if (e.given.length < known.least || e.given.length > known.most) return `‘${e.name}’ is called as ${known.call}`;
      return first(e.given);
    }
  }
}

function resultOf(e: Expression, fields: Readonly<Record<string, unknown>>, find: FindPattern): unknown {
  switch (e.type) {
    case 'value':
      return e.value;
    case 'list':
      return e.items.map((item) => resultOf(item, fields, find));
    case 'field':
      return valueAt(fields, e.path.join('.')) ?? null;
    case 'not':
      return !isTrue(resultOf(e.of, fields, find));
    case 'minus':
      return -mustBeFigure(resultOf(e.of, fields, find), '-');
    case 'operator':
      return operate(e.sign, resultOf(e.left, fields, find), () => resultOf(e.right, fields, find));
    case 'call': {
      const known = Object.hasOwn(FUNCTIONS, e.name) ? FUNCTIONS[e.name] : undefined;
      if (!known) throw new CannotDo(`there is no function ‘${e.name}’`);
      if (e.given.length < known.least || e.given.length > known.most)
        throw new CannotDo(`‘${e.name}’ is called as ${known.call}`);
      return bounded(
        known.work(
          e.given.map((one) => resultOf(one, fields, find)),
          find,
        ),
      );
    }
  }
}

function operate(sign: string, left: unknown, rightOf: () => unknown): unknown {
  if (sign === 'and') return isTrue(left) ? isTrue(rightOf()) : false;
  if (sign === 'or') return isTrue(left) ? true : isTrue(rightOf());
  const right = rightOf();
  if (sign === '&') return bounded(textOf(left) + textOf(right));
  const figures = [numberOf(left), numberOf(right)] as const;
  const both = figures[0] !== null && figures[1] !== null;
  if (sign === '=') return both ? figures[0] === figures[1] : textOf(left) === textOf(right);
  if (sign === '!=') return both ? figures[0] !== figures[1] : textOf(left) !== textOf(right);
  const a = mustBeFigure(left, sign);
  const b = mustBeFigure(right, sign);
  if ((sign === '/' || sign === '%') && b === 0) throw new CannotDo('it divides by zero');
  switch (sign) {
    case '+':
      return a + b;
    case '-':
      return a - b;
    case '*':
      return a * b;
    case '/':
      return a / b;
    case '%':
      return a % b;
    case '<':
      return a < b;
    case '>':
      return a > b;
    case '<=':
      return a <= b;
    default:
      return a >= b;
  }
}

function mustBeFigure(value: unknown, sign: string): number {
  const found = numberOf(value);
  if (found === null)
    throw new CannotDo(
      `‘${sign}’ needs numbers on both sides, not ‘${textOf(value).slice(0, 60)}’; texts are joined by ‘&’`,
    );
  return found;
}

function bounded(value: unknown): unknown {
  const size = typeof value === 'string' ? value.length : Array.isArray(value) ? textOf(value).length : 0;
  if (size > LONGEST_TEXT) throw new CannotDo(GROWS);
  return value;
}
