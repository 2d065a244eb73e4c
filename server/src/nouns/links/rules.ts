import { compileRules, type LinkRule, type RuleSet } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';

/** A rule as it is kept: of one blog, or of all. */
export interface KeptRule extends LinkRule {
  blog: string | null;
  rev: number;
}

interface RuleRow {
  id: string;
  blog: string | null;
  words: string;
  address: string;
  most: number;
  placing: LinkRule['placing'];
  after_words: number;
  forms: number;
  any_case: number;
  sponsored: number;
  rev: number;
}

const COLUMNS = 'id, blog, words, address, most, placing, after_words, forms, any_case, sponsored, rev';

const read = ({ after_words: after, any_case: anyCase, forms, sponsored, ...row }: RuleRow): KeptRule => ({
  ...row,
  after,
  anyCase: anyCase !== 0,
  forms: forms !== 0,
  sponsored: sponsored !== 0,
});

/** Every rule that holds for a blog: its own, and those of all blogs. */
export async function rulesFor(sql: Sql, blog: string): Promise<KeptRule[]> {
  const rows = await sql.rows<RuleRow>(
    `SELECT ${COLUMNS} FROM link_rule WHERE blog = ? UNION ALL SELECT ${COLUMNS} FROM link_rule WHERE blog IS NULL`,
    [blog],
  );
  return rows.map(read);
}

/** Rules of a blog by their words, those that hold some text. */
export async function rulesShown(
  sql: Sql,
  blog: string,
  { find, from, most }: { find: string; from: number; most: number },
): Promise<{ rules: KeptRule[]; total: number; found: number }> {
  const all = (await rulesFor(sql, blog)).sort((a, b) => (a.words < b.words ? -1 : a.words > b.words ? 1 : 0));
  const sought = find.trim().toLowerCase();
  const found =
    sought === '' ? all : all.filter(({ words, address }) => `${words} ${address}`.toLowerCase().includes(sought));
  return { rules: found.slice(from, from + most), total: all.length, found: found.length };
}

/** The same ready for articles of a language: what a blog says of its own counts before what is said of all. */
export async function ruleSetFor(sql: Sql, blog: string, language: string): Promise<RuleSet> {
  const rules = await rulesFor(sql, blog);
  const own = new Set(rules.flatMap((rule) => (rule.blog === null ? [] : [rule.words.toLowerCase()])));
  return compileRules(
    rules.filter((rule) => rule.blog !== null || !own.has(rule.words.toLowerCase())),
    language,
  );
}

export async function getRule(sql: Sql, id: string): Promise<KeptRule | null> {
  const [row] = await sql.rows<RuleRow>(`SELECT ${COLUMNS} FROM link_rule WHERE id = ?`, [id]);
  return row ? read(row) : null;
}

export type NewRule = Omit<KeptRule, 'id' | 'rev'>;

const valuesOf = (id: string, rule: NewRule) => [
  id,
  rule.blog,
  rule.words,
  rule.address,
  rule.most,
  rule.placing,
  rule.after,
  Number(rule.forms),
  Number(rule.anyCase),
  Number(rule.sponsored),
];

/** Rules are added in portions: a file of them has thousands. */
const PORTION = 500;

/** Adds rules at once, all or none. @returns their ids */
export async function addRules(ground: Ground, rules: readonly NewRule[]): Promise<string[]> {
  const ids = rules.map(() => ground.ids());
  await ground.db.transaction(async (sql) => {
    for (let at = 0; at < rules.length; at += PORTION)
      await sql.run(
        'INSERT INTO link_rule (id, blog, words, address, most, placing, after_words, forms, any_case, sponsored) VALUES ?',
        [rules.slice(at, at + PORTION).map((rule, i) => valuesOf(ids[at + i]!, rule))],
      );
  });
  return ids;
}

/** @returns whether it was as it had been read */
export async function changeRule(sql: Sql, id: string, rev: number, rule: NewRule): Promise<boolean> {
  const [, ...values] = valuesOf(id, rule);
  return (
    (await sql.run(
      'UPDATE link_rule SET blog = ?, words = ?, address = ?, most = ?, placing = ?, after_words = ?, forms = ?, any_case = ?, sponsored = ?, rev = rev + 1 WHERE id = ? AND rev = ?',
      [...values, id, rev],
    )) > 0
  );
}

export async function removeRules(sql: Sql, ids: readonly string[]): Promise<number> {
  return ids.length === 0 ? 0 : sql.run('DELETE FROM link_rule WHERE id IN (?)', [ids]);
}

/** In how many places of live articles each address is linked. */
export async function placedBy(sql: Sql, blog: string, digests: readonly string[]): Promise<Map<string, number>> {
  if (digests.length === 0) return new Map();
  const rows = await sql.rows<{ address_digest: string; n: number }>(
    'SELECT address_digest, COUNT(*) AS n FROM link_use WHERE blog = ? AND address_digest IN (?) GROUP BY address_digest',
    [blog, digests],
  );
  return new Map(rows.map((row) => [row.address_digest, Number(row.n)]));
}
