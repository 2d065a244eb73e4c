import { Document, isMap, isNode, isScalar, isSeq, LineCounter, type Node, parseDocument } from 'yaml';
import type { core } from 'zod';
import { ProcedureDocument, readProcedure } from './document.ts';
import { type StepKindName, stepKinds } from './registry.ts';
import { type Names, sentenceText } from './sentence.ts';

/** What is wrong in a procedure file, with its place and what would mend it. Lines and columns count from 1. */
export interface YamlProblem {
  line: number;
  column: number;
  /** The way to it: steps.3.words. */
  place: string;
  problem: string;
  mend: string;
}

export type ReadYaml = { ok: true; document: ProcedureDocument } | { ok: false; problems: YamlProblem[] };

const LONGEST = 1_000_000;
const DEEPEST = 60;

/** A procedure as a YAML file; each step's sentence stands above it as a comment. */
export function procedureYaml(document: ProcedureDocument, names: Names): string {
  const file = new Document(document);
  const sentences = new Map(
    readProcedure(document, names).map(({ step, sentence }) => [step.id, sentenceText(sentence)]),
  );
  const comment = (node: unknown): void => {
    if (isSeq(node)) for (const item of node.items) comment(item);
    if (!isMap(node)) return;
    const id = node.get('id');
    const says = typeof id === 'string' && node.has('kind') ? sentences.get(id) : undefined;
    if (says !== undefined) node.commentBefore = ` ${says.replace(/\s+/g, ' ')}`;
    for (const { value } of node.items) comment(value);
  };
  comment(file.contents);
  return file.toString({ lineWidth: 110 });
}

/** Reads a procedure file. Nothing is taken over unless all of it is well; every problem has its line. */
export function readProcedureYaml(text: string): ReadYaml {
  const whole = (problem: string, mend: string): ReadYaml => ({
    ok: false,
    problems: [{ line: 1, column: 1, place: '', problem, mend }],
  });
  if (text.length > LONGEST)
    return whole(
      `the file has ${text.length.toLocaleString('en-GB')} letters, more than ${LONGEST.toLocaleString('en-GB')}`,
      'Take out what is not part of a procedure.',
    );
  const deep = tooDeep(text);
  if (deep !== null)
    return {
      ok: false,
      problems: [
        {
          line: deep,
          column: 1,
          place: '',
          problem: `it is nested more than ${DEEPEST} deep`,
          mend: 'Send it with fewer levels.',
        },
      ],
    };
  const lines = new LineCounter();
  const file = parseDocument(text, { lineCounter: lines, uniqueKeys: true, maxAliasCount: 0 } as object);
  if (file.errors.length > 0)
    return {
      ok: false,
      problems: file.errors.slice(0, 20).map((error) => {
        const { line, col } = lines.linePos(error.pos[0]);
        return {
          line,
          column: col,
          place: '',
          problem: error.message.split('\n')[0]!.replace(/ at line \d+, column \d+:?$/, ''),
          mend: 'Mend the YAML there: indentation, colons and quotes.',
        };
      }),
    };
  let value: unknown;
  try {
    value = file.toJS({ maxAliasCount: 0 });
  } catch (error) {
    if (!(error instanceof ReferenceError)) throw error;
    return whole('it uses aliases', 'Write the repeated part out.');
  }
  const read = ProcedureDocument.safeParse(value);
  if (read.success) return { ok: true, document: read.data };
  return {
    ok: false,
    problems: read.error.issues
      .flatMap((issue) => flat(issue))
      .slice(0, 50)
      .map(({ issue, path }) => {
        const { line, col } = lines.linePos(placeOf(file.contents, path));
        return { line, column: col, place: path.join('.'), ...words(issue, value, path) };
      }),
  };
}

/** The line at which brackets or indentation go too deep, null when they nowhere do. */
function tooDeep(text: string): number | null {
  let depth = 0;
  let line = 1;
  let indent = 0;
  let atStart = true;
  for (const letter of text) {
    if (letter === '\n') {
      line++;
      indent = 0;
      atStart = true;
      continue;
    }
    if (atStart && (letter === ' ' || letter === '-')) indent++;
    else atStart = false;
    if (letter === '[' || letter === '{') depth++;
    if (letter === ']' || letter === '}') depth = Math.max(0, depth - 1);
    if (depth > DEEPEST || indent > DEEPEST * 4) return line;
  }
  return null;
}

interface Placed {
  issue: core.$ZodIssue;
  path: (string | number)[];
}

/** An issue with those of the alternative that comes nearest, when it stands for several. */
function flat(issue: core.$ZodIssue, before: readonly (string | number)[] = []): Placed[] {
  const path = [...before, ...issue.path.map((part) => (typeof part === 'symbol' ? String(part) : part))];
  if (issue.code === 'invalid_union' && issue.errors.length > 0) {
    const nearest = [...issue.errors].sort((a, b) => a.length - b.length)[0]!;
    return nearest.flatMap((inner) => flat(inner, path));
  }
  return [{ issue, path }];
}

/** Where a path begins in the file: at its node, or at the nearest one around it that is there. */
function placeOf(root: Node | null, path: readonly (string | number)[]): number {
  let node: unknown = root;
  let place = startOf(root);
  for (const part of path) {
    if (isMap(node)) {
      const pair = node.items.find((item) => isScalar(item.key) && String(item.key.value) === String(part));
      if (!pair) break;
      place = startOf(pair.key) || place;
      node = pair.value;
    } else if (isSeq(node)) {
      node = node.items[Number(part)];
      place = startOf(node) || place;
    } else break;
  }
  return place;
}

function startOf(node: unknown): number {
  return isNode(node) ? (node.range?.[0] ?? 0) : 0;
}

function words(
  issue: core.$ZodIssue,
  value: unknown,
  path: readonly (string | number)[],
): { problem: string; mend: string } {
  const name = path.at(-1);
  const around = path
    .slice(0, -1)
    .reduce<unknown>((at, part) => (at as Record<string, unknown> | undefined)?.[part], value);
  const here = name === undefined ? value : (around as Record<string, unknown> | undefined)?.[name];
  switch (issue.code) {
    case 'invalid_union':
      return {
        problem: `there is no kind of step ‘${String((here as { kind?: unknown })?.kind ?? here ?? '')}’`,
        mend: `Choose one of ${Object.keys(stepKinds).join(', ')}.`,
      };
    case 'unrecognized_keys': {
      const kind = (here as { kind?: string } | undefined)?.kind;
      const known = kind && kind in stepKinds ? Object.keys(stepKinds[kind as StepKindName].fresh('s1')) : [];
      return {
        problem: `${issue.keys.map((key) => `‘${key}’`).join(', ')} means nothing here`,
        mend: known.length > 0 ? `A step ‘${kind}’ has ${known.join(', ')}.` : 'Take it out.',
      };
    }
    case 'invalid_type':
      return here === undefined
        ? { problem: `‘${String(name)}’ is missing`, mend: `Give it, as a ${issue.expected}.` }
        : { problem: `‘${String(name)}’ is not a ${issue.expected}`, mend: `Write a ${issue.expected}.` };
    case 'invalid_value':
      return {
        problem: `‘${String(here)}’ is none of what ‘${String(name)}’ may be`,
        mend: `Choose one of ${issue.values.map(String).join(', ')}.`,
      };
    default:
      return { problem: issue.message, mend: 'Change it to what is asked for.' };
  }
}
