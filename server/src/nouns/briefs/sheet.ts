import type { BriefStanding, Sheet, SheetRow } from '@grivo/contract';
import { type Failure, linesOf, type ProcedureDocument, stepIdOf, wordsOf } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import { subjectHolds } from './matching.ts';
import { waitsOf } from './waits.ts';

export interface SheetRequest {
  pipeline: string;
  document: ProcedureDocument;
  before: string | null;
  limit: number;
  standing: BriefStanding | null;
  /** Words the subject must hold. */
  find: string;
  nameOf: (service: string) => string;
  /** The newest version of the procedure. */
  version: number;
  /** By the desk clock. */
  now: number;
}

interface RunRow {
  brief: string;
  path: string;
  round: number;
  state: string;
  kind: string;
  failure: Failure | null;
  /** Why it set its brief aside. */
  why: string | null;
}

interface ArticleRow {
  brief: string;
  line: string;
  title: string;
  words: number;
  language: string;
  slot: number | null;
}

/** What a column says when its step was run more than once, as in turns: the state that most wants to be seen. */
const LETTERS: Record<string, string> = {
  stopped: 's',
  held: 'h',
  running: 'b',
  ready: 'b',
  waiting: 'w',
  done: 'd',
  cancelled: 'c',
};
const ORDER = 'shbwdc.';

/** A further article of a brief, with the steps of its own line. */
const siblingOf = (article: ArticleRow, runs: readonly RunRow[], at: ReadonlyMap<string, number>) => ({
  ...lineOf(article),
  line: article.line,
  language: article.language,
  cells: cellsOf(
    runs.filter(({ path }) => path.startsWith(`${article.line}/`)),
    at,
  ),
});

/** Briefs of a pipeline against its steps, newest first: a page of a few statements, however many briefs there are. */
export async function sheetOf(sql: Sql, request: SheetRequest): Promise<Sheet> {
  const { document, limit } = request;
  const columns = linesOf(document)
    .filter(({ step }) => step !== null)
    .map(({ step, depth }, i) => ({ n: i + 1, step: step!, depth }))
    .filter(({ step }) => step.kind !== 'take' && !step.off)
    .map(({ n, step, depth }) => ({ n, step: step.id, kind: step.kind, depth }));
  const briefs = await briefsOf(sql, request);
  const ids = briefs.map(({ id }) => id);
  const more = briefs.length === limit ? ids.at(-1)! : null;
  if (ids.length === 0) return { columns, rows: [], more };
  const [runs, articles, costs, waits] = await Promise.all([
    sql.rows<RunRow>(
      "SELECT brief, path, round, state, kind, IF(state = 'stopped', failure, NULL) AS failure, JSON_VALUE(outcome, '$.why') AS why FROM step_run FORCE INDEX (step_run_path) WHERE brief IN (?)",
      [ids],
    ),
    sql.rows<ArticleRow>(
      `SELECT a.brief, a.line, a.title, a.words, a.language,
         COALESCE((SELECT MIN(p.out_desk) FROM publication p WHERE p.article = a.id), (SELECT MIN(l.due_desk) FROM placement l WHERE l.article = a.id)) AS slot
       FROM article a WHERE a.brief IN (?) AND a.trial = 0 ORDER BY a.id`,
      [ids],
    ),
    sql.rows<{ brief: string; micros: number }>(
      'SELECT brief, SUM(micros) AS micros FROM ledger WHERE brief IN (?) GROUP BY brief',
      [ids],
    ),
    briefs.some(({ standing }) => standing === 'waiting') ? waitsOf(sql, request) : () => null,
  ]);
  const runsOf = grouped(runs);
  const articlesOf = grouped(articles);
  const costOf = new Map(costs.map(({ brief, micros }) => [brief, Number(micros)]));
  const at = new Map(columns.map(({ step }, i) => [step, i]));
  const rows = briefs.map((brief): SheetRow => {
    const own = latest(runsOf.get(brief.id) ?? []);
    const made = articlesOf.get(brief.id) ?? [];
    const main = made.find(({ line }) => line === '') ?? (made.length === 1 ? made[0] : undefined);
    const waiting = brief.standing === 'waiting';
    return {
      ...brief,
      // One that waits begins with the newest.
      version: waiting ? request.version : brief.version,
      begins: waiting ? waits(brief.id) : null,
      madeDesk: Number(brief.madeDesk),
      micros: costOf.get(brief.id) ?? 0,
      says: saysOf(brief.standing, own, request),
      ...lineOf(main),
      cells: cellsOf(own, at),
      siblings: made.filter((article) => article !== main).map((article) => siblingOf(article, own, at)),
    };
  });
  return { columns, rows, more };
}

type BriefRow = Pick<SheetRow, 'id' | 'subject' | 'standing' | 'madeDesk' | 'version'>;

/** A page of briefs, newest first; those that wait in the order they begin. */
async function briefsOf(
  sql: Sql,
  {
    pipeline,
    before,
    limit,
    standing,
    find,
  }: Pick<SheetRequest, 'pipeline' | 'before' | 'limit' | 'standing' | 'find'>,
): Promise<BriefRow[]> {
  const { where, parameters } = subjectHolds(find);
  const queue = standing === 'waiting';
  const after = queue
    ? ' AND (b.priority, b.id) > (SELECT l.priority, l.id FROM brief l WHERE l.id = ?)'
    : ' AND b.id < ?';
  return sql.rows<BriefRow>(
    `SELECT b.id, b.subject, b.standing, b.made_desk AS madeDesk, p.version
     FROM brief b FORCE INDEX (${queue ? 'brief_standing' : 'brief_of_pipeline'}) JOIN brief_pin p ON p.brief = b.id AND p.main = 1
     WHERE b.pipeline = ? AND b.trial = 0${before === null ? '' : after}${standing ? ' AND b.standing = ?' : ''}${where}
     ORDER BY ${queue ? 'b.priority, b.id' : 'b.id DESC'} LIMIT ?`,
    [pipeline, ...(before === null ? [] : [before]), ...(standing ? [standing] : []), ...parameters, limit],
  );
}

function lineOf(article: ArticleRow | undefined) {
  return {
    title: article?.title ?? '',
    words: article && article.words > 0 ? article.words : null,
    slot: article?.slot === null || article?.slot === undefined ? null : Number(article.slot),
  };
}

/** The run that counts at each path: that of its latest round. */
function latest(runs: readonly RunRow[]): RunRow[] {
  const byPath = new Map<string, RunRow>();
  for (const run of runs) {
    const known = byPath.get(run.path);
    if (!known || run.round > known.round) byPath.set(run.path, run);
  }
  return [...byPath.values()];
}

function cellsOf(runs: readonly RunRow[], at: ReadonlyMap<string, number>): string {
  const cells = Array.from({ length: at.size }, () => '.');
  for (const { path, state } of runs) {
    const column = at.get(stepIdOf(path));
    const letter = LETTERS[state] ?? '.';
    if (column !== undefined && ORDER.indexOf(letter) < ORDER.indexOf(cells[column]!)) cells[column] = letter;
  }
  return cells.join('');
}

function saysOf(standing: BriefStanding, runs: readonly RunRow[], { nameOf }: SheetRequest): string {
  const stopped = runs.find(({ state, failure }) => state === 'stopped' && failure);
  if (standing === 'stopped' && stopped) return wordsOf(stopped.failure!, nameOf).problem;
  const aside = runs.findLast(({ state, why }) => state === 'done' && why !== null);
  if (standing === 'set aside' && aside) return `set aside: ${aside.why}`;
  if (standing === 'held') return `held at ${runs.find(({ state }) => state === 'held')?.kind ?? 'a step'}`;
  if (standing === 'in work') return runs.find(({ state }) => state === 'running')?.kind ?? 'in work';
  return standing;
}

function grouped<T extends { brief: string }>(rows: readonly T[]): Map<string, T[]> {
  const out = new Map<string, T[]>();
  for (const row of rows) {
    const group = out.get(row.brief);
    if (group) group.push(row);
    else out.set(row.brief, [row]);
  }
  return out;
}
