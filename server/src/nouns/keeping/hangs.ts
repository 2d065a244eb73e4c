import type { Hangs, KeptNoun } from '@grivo/contract';
import { allSteps, ProcedureDocument, routinesUsed } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { stylesUsed } from '../styles/repository.ts';

type Found = Omit<Hangs, 'name'>;

const many = (n: number, one: string, several = `${one}s`) => `${n.toLocaleString('en-GB')} ${n === 1 ? one : several}`;
/** Counts that are not nothing, in words. */
const some = (counts: readonly (readonly [number, string])[]) =>
  counts.flatMap(([n, one]) => (Number(n) > 0 ? [many(Number(n), one)] : []));

/** What hangs on a thing, and what keeps it from being removed. */
export const HANGS: Record<KeptNoun, (sql: Sql, id: string) => Promise<Found>> = {
  async pipelines(sql, id) {
    const [row] = await sql.rows<{ versions: number; trials: number; briefs: number; open: number }>(
      `SELECT (SELECT COUNT(*) FROM procedure_version v JOIN pipeline p ON p.procedure_id = v.procedure_id WHERE p.id = ?) AS versions,
         COALESCE(SUM(trial = 1), 0) AS trials, COALESCE(SUM(trial = 0), 0) AS briefs, COALESCE(SUM(standing NOT IN ('out', 'set aside')), 0) AS open
       FROM brief WHERE pipeline = ?`,
      [id, id],
    );
    const [briefs, open] = [Number(row?.briefs ?? 0), Number(row?.open ?? 0)];
    return {
      with: some([
        [row?.versions ?? 0, 'version'],
        [row?.trials ?? 0, 'trial'],
      ]),
      unless: [
        ...(open > 0 ? [`${many(open, 'brief')} ${open === 1 ? 'has' : 'have'} not ended: set them aside first.`] : []),
        ...(briefs > 0 ? [`It has made ${many(briefs, 'brief')}: delete all it made first, or archive it.`] : []),
      ],
    };
  },
  async sources(sql, id) {
    const [row] = await sql.rows<{ items: number; taken: number }>(
      `SELECT (SELECT COUNT(*) FROM item WHERE source = ?) AS items,
         (SELECT COUNT(*) FROM taken WHERE source = ?) AS taken`,
      [id, id],
    );
    const users = await pipelinesWith(sql, (document) =>
      allSteps(document.steps).some((step) => step.kind === 'take' && step.sources.includes(id)),
    );
    return {
      with: some([[row?.items ?? 0, 'item']]),
      unless: [
        ...users.map((name) => `‘${name}’ takes from it: let it take from another source first.`),
        ...(Number(row?.taken ?? 0) > 0
          ? [
              `${many(Number(row!.taken), 'item')} of it ${Number(row!.taken) === 1 ? 'was' : 'were'} taken, and would come again from another source: archive it instead.`,
            ]
          : []),
      ],
    };
  },
  async blogs(sql, id) {
    const [row] = await sql.rows<{ posts: number; pages: number; placed: number }>(
      `SELECT (SELECT COUNT(*) FROM publication WHERE blog = ?) AS posts, (SELECT COUNT(*) FROM link_page WHERE blog = ?) AS pages,
         (SELECT COUNT(*) FROM placement WHERE blog = ?) AS placed`,
      [id, id, id],
    );
    const users = await pipelinesWith(sql, (document) =>
      allSteps(document.steps).some((step) => 'blog' in step && step.blog === id),
    );
    return {
      with: some([[row?.pages ?? 0, 'page of the link index']]),
      unless: [
        ...users.map((name) => `‘${name}’ publishes or links to it: choose another blog there first.`),
        ...(Number(row?.posts ?? 0) > 0
          ? [`${many(Number(row!.posts), 'article')} went there through Grivo: archive it instead.`]
          : []),
      ],
    };
  },
  async services(sql, id) {
    const [row] = await sql.rows<{ calls: number; open: number; role: string; others: number }>(
      `SELECT (SELECT COUNT(*) FROM ledger WHERE service = ?) AS calls, (SELECT COUNT(*) FROM incident WHERE service = ? AND open = 1) AS open,
         s.role, (SELECT COUNT(*) FROM service o WHERE o.role = s.role AND o.id <> s.id) AS others FROM service s WHERE s.id = ?`,
      [id, id, id],
    );
    return {
      with: [
        ...some([[row?.calls ?? 0, 'paid call']]).map((calls) => `the name at ${calls} in the books`),
        ...(Number(row?.others ?? 0) === 0
          ? [`the only ${row?.role ?? 'service'}: steps that need one will stop`]
          : []),
      ],
      unless: (
        await pipelinesWith(
          sql,
          (document) =>
            Object.values(document.services ?? {}).includes(id) ||
            allSteps(document.steps).some((step) => step.service === id),
        )
      ).map((name) => `‘${name}’ names it: choose another there first.`),
    };
  },
  async routines(sql, id) {
    const users = await pipelinesWith(sql, (document) => routinesUsed(document).includes(id));
    const routines = await sql.rows<{ id: string; name: string; document: unknown }>(
      'SELECT r.id, r.name, v.document FROM routine r JOIN procedure_version v ON v.procedure_id = r.procedure_id AND v.n = r.version WHERE r.id <> ?',
      [id],
    );
    const others = routines.filter(({ document }) => routinesUsed(ProcedureDocument.parse(document)).includes(id));
    const [open] = await sql.rows<{ n: number }>(
      `SELECT COUNT(*) AS n FROM brief b JOIN brief_pin p ON p.brief = b.id AND p.main = 0 JOIN routine r ON r.procedure_id = p.procedure_id
       WHERE r.id = ? AND b.standing NOT IN ('out', 'set aside')`,
      [id],
    );
    return {
      with: [],
      unless: [
        ...[...users, ...others.map(({ name }) => name)].map((name) => `‘${name}’ uses it: take it out there first.`),
        ...(Number(open?.n ?? 0) > 0 ? [`${many(Number(open!.n), 'brief')} that use it have not ended.`] : []),
      ],
    };
  },
  async labels(sql, id) {
    const rows = await sql.rows<{ noun: string; n: number }>(
      'SELECT noun, COUNT(*) AS n FROM labelled WHERE label = ? GROUP BY noun',
      [id],
    );
    return { with: rows.map(({ noun, n }) => `it on ${many(Number(n), noun)}`), unless: [] };
  },
  async destinations(sql, id) {
    const users = await pipelinesWith(sql, (document) =>
      allSteps(document.steps).some((step) => step.kind === 'tell' && step.destination === id),
    );
    return { with: [], unless: users.map((name) => `‘${name}’ tells it: let it tell another first.`) };
  },
  async styles(sql, id) {
    const [row] = await sql.rows<{ versions: number; texts: number }>(
      `SELECT (SELECT COUNT(*) FROM house_style_version WHERE style = ?) AS versions,
         (SELECT COUNT(*) FROM house_style_text WHERE style = ?) AS texts`,
      [id, id],
    );
    const users = (await stylesUsed(sql)).filter(({ style }) => style === id);
    return {
      with: some([
        [row?.versions ?? 0, 'version'],
        [row?.texts ?? 0, 'sample text'],
      ]),
      unless: users.map(({ noun, name }) => `The ${noun} ‘${name}’ keeps to it: choose another there first.`),
    };
  },
};

/** Names of the pipelines whose procedure, as it is now, is such a one. */
async function pipelinesWith(sql: Sql, is: (document: ProcedureDocument) => boolean): Promise<string[]> {
  const rows = await sql.rows<{ name: string; document: unknown }>(
    'SELECT p.name, v.document FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version WHERE p.archived = 0 ORDER BY p.id',
  );
  return rows.filter(({ document }) => is(ProcedureDocument.parse(document))).map(({ name }) => name);
}

/** What goes when a thing is removed. */
export const REMOVES: Record<KeptNoun, readonly string[]> = {
  styles: [
    'DELETE FROM house_style_text WHERE style = ?',
    'DELETE FROM house_style_version WHERE style = ?',
    "DELETE FROM labelled WHERE noun = 'style' AND of = ?",
    'DELETE FROM house_style WHERE id = ?',
  ],
  pipelines: [
    "DELETE FROM schedule WHERE kind = 'look' AND ref = ?",
    'DELETE FROM look WHERE pipeline = ?',
    'DELETE FROM taken WHERE pipeline = ?',
    'DELETE v FROM procedure_version v JOIN pipeline p ON p.procedure_id = v.procedure_id WHERE p.id = ?',
    "DELETE FROM labelled WHERE noun = 'pipeline' AND of = ?",
    'DELETE FROM pipeline WHERE id = ?',
  ],
  sources: [
    'DELETE FROM subscription WHERE source = ?',
    'DELETE FROM hook_call WHERE source = ?',
    'DELETE FROM hook WHERE source = ?',
    'DELETE FROM look WHERE source = ?',
    'DELETE FROM item WHERE source = ?',
    "DELETE FROM labelled WHERE noun = 'source' AND of = ?",
    'DELETE FROM source WHERE id = ?',
  ],
  blogs: [
    'DELETE FROM ping WHERE blog = ?',
    'DELETE FROM blog_pings WHERE blog = ?',
    'DELETE FROM placement WHERE blog = ?',
    'DELETE FROM link_page WHERE blog = ?',
    'DELETE FROM link_use WHERE blog = ?',
    'DELETE FROM link_rule WHERE blog = ?',
    'DELETE FROM kept_address WHERE blog = ?',
    "DELETE FROM labelled WHERE noun = 'blog' AND of = ?",
    'DELETE FROM blog WHERE id = ?',
  ],
  services: [
    'DELETE FROM permit WHERE service = ?',
    'DELETE FROM service_turn WHERE service = ?',
    'UPDATE incident SET open = NULL, closed_at = UTC_TIMESTAMP(3) WHERE service = ? AND open = 1',
    'DELETE FROM service WHERE id = ?',
  ],
  labels: ['DELETE FROM labelled WHERE label = ?', 'DELETE FROM label WHERE id = ?'],
  destinations: ['DELETE FROM destination WHERE id = ?'],
  routines: [
    'DELETE v FROM procedure_version v JOIN routine r ON r.procedure_id = v.procedure_id WHERE r.id = ?',
    'DELETE FROM routine WHERE id = ?',
  ],
};
