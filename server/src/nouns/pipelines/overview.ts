import type { BriefStanding, Pipeline } from '@grivo/contract';
import type { Names } from '@grivo/core';
import { allSteps, ProcedureDocument, readProcedure, sentenceText } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import { countEach } from '../../ground/store/counted.ts';
import type { Sql } from '../../ground/store/database.ts';
import { monthOf } from '../../ports/money/limits.ts';
import { labelsOf } from '../labels/repository.ts';

interface Row {
  id: string;
  procedureId: string;
  name: string;
  isOn: number;
  version: number;
  openLimit: number;
  note: string;
  archived: number;
  rev: number;
  document: unknown;
  nextLook: number | null;
}

/** Documents read at once; versions never change, so what was read stays read. */
const MOST_READ = 500;
const documents = new Map<string, ProcedureDocument>();

function read(procedure: string, version: number, stored: unknown): ProcedureDocument {
  const key = `${procedure}/${version}`;
  const known = documents.get(key);
  if (known) return known;
  const document = ProcedureDocument.parse(stored);
  if (documents.size >= MOST_READ) documents.clear();
  documents.set(key, document);
  return document;
}

const NONE: Pipeline['counts'] = { waiting: 0, 'in work': 0, held: 0, stopped: 0, ready: 0, out: 0, 'set aside': 0 };

/** How many briefs of each pipeline stand how. */
async function countsOf(sql: Sql, ids: readonly string[]): Promise<(id: string) => Pipeline['counts']> {
  const standings = Object.keys(NONE) as BriefStanding[];
  const counts = await countEach(
    sql,
    ids.flatMap((id) =>
      standings.map((standing) => ({
        key: `${id} ${standing}`,
        from: 'brief WHERE pipeline = ? AND trial = 0 AND standing = ?',
        parameters: [id, standing],
      })),
    ),
  );
  return (id) => {
    const pairs = standings.map((standing) => [standing, counts.get(`${id} ${standing}`) ?? 0]);
    return Object.fromEntries(pairs) as Pipeline['counts'];
  };
}

/** Pipelines with how their briefs stand, when they look next, and what they brought this month. */
export async function pipelinesNow(
  ground: Ground,
  names: Names,
  only?: string,
): Promise<(Pipeline & { document: ProcedureDocument })[]> {
  const { db, desk } = ground;
  const month = Date.parse(`${monthOf(desk.now())}-01T00:00:00Z`);
  const [labels, rows, lasts, months] = await Promise.all([
    labelsOf(db, 'pipeline'),
    db.rows<Row>(
      `SELECT p.id, p.name, p.is_on AS isOn, p.procedure_id AS procedureId, p.version, p.open_limit AS openLimit, p.note, p.archived, p.rev, v.document, s.due_desk AS nextLook
       FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version LEFT JOIN schedule s ON s.kind = 'look' AND s.ref = p.id
       WHERE ${only ? 'p.id = ?' : '1 = 1'} ORDER BY p.id`,
      only ? [only] : [],
    ),
    db.rows<{ pipeline: string; article: string; title: string; at: number }>(
      `SELECT l.id AS pipeline, a.id AS article, a.title, p.out_desk AS at FROM pipeline l
       JOIN publication p ON p.id = (SELECT q.id FROM publication q WHERE q.pipeline = l.id AND q.state = 'live' ORDER BY q.out_desk DESC LIMIT 1)
       JOIN article a ON a.id = p.article${only ? ' WHERE l.id = ?' : ''}`,
      only ? [only] : [],
    ),
    db.rows<{ pipeline: string; n: number; micros: number }>(
      `SELECT made.pipeline, SUM(made.n) AS n, SUM((SELECT COALESCE(SUM(g.micros), 0) FROM ledger g WHERE g.brief = made.brief)) AS micros
       FROM (SELECT p.pipeline, a.brief, COUNT(DISTINCT a.id) AS n FROM publication p JOIN article a ON a.id = p.article
         WHERE p.state = 'live' AND p.out_desk >= ?${only ? ' AND p.pipeline = ?' : ''} GROUP BY p.pipeline, a.brief) made GROUP BY made.pipeline`,
      [month, ...(only ? [only] : [])],
    ),
  ]);
  const counts = await countsOf(
    db,
    rows.map(({ id }) => id),
  );
  return rows.map(({ document: stored, isOn, nextLook, ...row }) => {
    const document = read(row.procedureId, row.version, stored);
    const lines = readProcedure(document, names).map(({ step, sentence }) => ({ step, says: sentenceText(sentence) }));
    const last = lasts.find(({ pipeline }) => pipeline === row.id);
    const mean = months.find(({ pipeline }) => pipeline === row.id);
    return {
      ...row,
      archived: row.archived === 1,
      labels: labels(row.id),
      isOn: isOn === 1,
      nextLook: nextLook === null ? null : Number(nextLook),
      counts: counts(row.id),
      lastOut: last ? { article: last.article, title: last.title, at: Number(last.at) } : null,
      outThisMonth: Number(mean?.n ?? 0),
      microsEach: mean && Number(mean.n) > 0 ? Math.round(Number(mean.micros) / Number(mean.n)) : null,
      kinds: allSteps(document.steps)
        .filter((step) => !step.off)
        .map((step) => step.kind),
      sources: document.steps.flatMap((step) => (step.kind === 'take' ? step.sources : [])),
      publishes: lines.flatMap(({ step, says }) =>
        step.kind === 'publish' && !step.off ? [{ blog: step.blog, says }] : [],
      ),
      sentences: lines.map(({ says }) => says),
      document,
    };
  });
}
