import type { BriefStanding, Pipeline } from '@grivo/contract';
import type { Names } from '@grivo/core';
import { allSteps, ProcedureDocument, readProcedure, sentenceText } from '@grivo/core';
import type { Ground } from '../ground/ground.ts';
import { monthOf } from '../money/limits.ts';

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

/** Pipelines with how their briefs stand, when they look next, and what they brought this month. */
export async function pipelinesNow(
  ground: Ground,
  names: Names,
  only?: string,
): Promise<(Pipeline & { document: ProcedureDocument })[]> {
  const { db, desk } = ground;
  const month = Date.parse(`${monthOf(desk.now())}-01T00:00:00Z`);
  const [rows, counts, lasts, months] = await Promise.all([
    db.rows<Row>(
      `SELECT p.id, p.name, p.is_on AS isOn, p.procedure_id AS procedureId, p.version, p.open_limit AS openLimit, p.note, p.archived, p.rev, v.document, s.due_desk AS nextLook
       FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version LEFT JOIN schedule s ON s.kind = 'look' AND s.ref = p.id
       WHERE ${only ? 'p.id = ?' : '1 = 1'} ORDER BY p.id`,
      only ? [only] : [],
    ),
    db.rows<{ pipeline: string; standing: BriefStanding; n: number }>(
      `SELECT pipeline, standing, COUNT(*) AS n FROM brief WHERE trial = 0${only ? ' AND pipeline = ?' : ''} GROUP BY pipeline, standing`,
      only ? [only] : [],
    ),
    db.rows<{ pipeline: string; article: string; title: string; at: number }>(
      `SELECT b.pipeline, a.id AS article, a.title, p.out_desk AS at FROM publication p JOIN article a ON a.id = p.article JOIN brief b ON b.id = a.brief
       WHERE (b.pipeline, p.out_desk) IN (SELECT b2.pipeline, MAX(p2.out_desk) FROM publication p2 JOIN article a2 ON a2.id = p2.article JOIN brief b2 ON b2.id = a2.brief WHERE p2.state = 'live'${only ? ' AND b2.pipeline = ?' : ''} GROUP BY b2.pipeline)`,
      only ? [only] : [],
    ),
    db.rows<{ pipeline: string; n: number; micros: number }>(
      `SELECT made.pipeline, SUM(made.n) AS n, SUM((SELECT COALESCE(SUM(g.micros), 0) FROM ledger g WHERE g.brief = made.brief)) AS micros
       FROM (SELECT b.pipeline, b.id AS brief, COUNT(DISTINCT a.id) AS n FROM publication p JOIN article a ON a.id = p.article JOIN brief b ON b.id = a.brief
         WHERE p.state = 'live' AND p.out_desk >= ?${only ? ' AND b.pipeline = ?' : ''} GROUP BY b.pipeline, b.id) made GROUP BY made.pipeline`,
      [month, ...(only ? [only] : [])],
    ),
  ]);
  return rows.map(({ document: stored, isOn, nextLook, ...row }) => {
    const document = read(row.procedureId, row.version, stored);
    const last = lasts.find(({ pipeline }) => pipeline === row.id);
    const mean = months.find(({ pipeline }) => pipeline === row.id);
    return {
      ...row,
      archived: row.archived === 1,
      isOn: isOn === 1,
      nextLook: nextLook === null ? null : Number(nextLook),
      counts: {
        ...NONE,
        ...Object.fromEntries(
          counts.filter(({ pipeline }) => pipeline === row.id).map(({ standing, n }) => [standing, Number(n)]),
        ),
      },
      lastOut: last ? { article: last.article, title: last.title, at: Number(last.at) } : null,
      outThisMonth: Number(mean?.n ?? 0),
      microsEach: mean && Number(mean.n) > 0 ? Math.round(Number(mean.micros) / Number(mean.n)) : null,
      kinds: allSteps(document.steps)
        .filter((step) => !step.off)
        .map((step) => step.kind),
      sources: document.steps.flatMap((step) => (step.kind === 'take' ? step.sources : [])),
      sentences: readProcedure(document, names).map(({ sentence }) => sentenceText(sentence)),
      document,
    };
  });
}
