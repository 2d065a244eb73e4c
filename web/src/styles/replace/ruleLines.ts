import { MOST_PATTERNS, MOST_RULES, type ReplacementRule } from '@grivo/core';

/** Between what is found and what is said instead. */
const TURNS = '=>';

const MORE: readonly (readonly [
  string,
  (rule: ReplacementRule) => boolean,
  (rule: ReplacementRule) => ReplacementRule,
])[] = [
  ['same case', ({ cased }) => cased, (rule) => ({ ...rule, cased: true })],
  ['not in headings', ({ where }) => !where.includes('headings'), (rule) => without(rule, 'headings')],
  ['not in links', ({ where }) => !where.includes('links'), (rule) => without(rule, 'links')],
  [
    'in quotations',
    ({ where }) => where.includes('quotations'),
    (rule) => ({ ...rule, where: [...rule.where, 'quotations'] }),
  ],
];

const without = (rule: ReplacementRule, place: ReplacementRule['where'][number]): ReplacementRule => ({
  ...rule,
  where: rule.where.filter((one) => one !== place),
});

/** A rule that is new: also in headings and links, never in what somebody said. */
export const plainRule = (find: string, say: string): ReplacementRule => ({
  find,
  pattern: false,
  say,
  cased: false,
  where: ['headings', 'links'],
});

/** A rule as people type it: `utilise => use`, a pattern between strokes, what else holds in brackets. */
export function writtenRule(rule: ReplacementRule): string {
  const more = MORE.filter(([, holds]) => holds(rule)).map(([says]) => says);
  return `${rule.pattern ? `/${rule.find}/` : rule.find} ${TURNS} ${rule.say}${more.length > 0 ? ` [${more.join(', ')}]` : ''}`.trim();
}

export type ReadRules = { ok: true; rules: ReplacementRule[] } | { ok: false; problem: string };

/** Rules as people type or paste them, a line each. */
export function readRules(text: string): ReadRules {
  const rules: ReplacementRule[] = [];
  for (const [i, raw] of text.split('\n').entries()) {
    const line = raw.trim();
    if (line === '') continue;
    const rule = readRule(line);
    if (typeof rule === 'string') return { ok: false, problem: `Line ${i + 1}: ${rule}` };
    rules.push(rule);
  }
  if (rules.length > MOST_RULES)
    return { ok: false, problem: `${rules.length} lines; ${MOST_RULES.toLocaleString('en-GB')} are the most.` };
  const patterns = rules.filter(({ pattern }) => pattern).length;
  return patterns > MOST_PATTERNS
    ? { ok: false, problem: `${patterns} patterns; ${MOST_PATTERNS} are the most.` }
    : { ok: true, rules };
}

function readRule(line: string): ReplacementRule | string {
  const at = line.indexOf(TURNS);
  if (at < 0) return `what is found, ${TURNS}, then what is said instead, as “utilise ${TURNS} use”.`;
  const found = line.slice(0, at).trim();
  let say = line.slice(at + TURNS.length).trim();
  const pattern = found.length > 2 && found.startsWith('/') && found.endsWith('/');
  const find = pattern ? found.slice(1, -1) : found;
  if (find === '') return `nothing stands before ${TURNS}.`;
  const bracket = /\[([^[\]]*)\]$/.exec(say);
  const asked = bracket ? bracket[1]!.split(',').map((one) => one.trim()) : [];
  const known = asked.every((one) => MORE.some(([says]) => says === one));
  let rule = { ...plainRule(find, ''), pattern };
  if (bracket && known) {
    say = say.slice(0, bracket.index).trimEnd();
    for (const one of asked) rule = MORE.find(([says]) => says === one)![2](rule);
  }
  if (find.length > 300 || say.length > 300) return 'a rule has at most 300 letters on each side.';
  return { ...rule, say };
}
