import type { Need } from '@grivo/contract';
import { type Failure, wordsOf } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import { countEach } from '../../ground/store/counted.ts';
import type { Sql } from '../../ground/store/database.ts';
import { monthUse } from '../../ports/money/limits.ts';
import { heldRuns } from '../briefs/holds.ts';
import { incidentsInWords, namer } from '../incidents/words.ts';
import { labelsOf } from '../labels/repository.ts';

type NeedOf<K extends Need['kind']> = Extract<Need, { kind: K }>;

/** Briefs one entry acts on at most; of more, the rest is shown once these are settled. */
const MOST_TOGETHER = 500;
/** How long a brief is tried again before anybody is told. */
const TRIED_FOR_S = 120;
/** Newest briefs looked through for those that were set aside. */
const MOST_ASIDE = 500;

/**
 * Everything that wants a person: one entry for each cause, however many briefs it concerns.
 * @param label only of pipelines and sources that carry it, and what concerns everybody
 */
export async function needsNow(ground: Ground, label?: string): Promise<Need[]> {
  const all = await allNeeds(ground);
  if (label === undefined) return all;
  const [pipelines, sources] = await Promise.all([labelsOf(ground.db, 'pipeline'), labelsOf(ground.db, 'source')]);
  return all.filter((need) => {
    // What stops everybody concerns everybody.
    if (need.kind === 'incident' || need.kind === 'limit' || need.kind === 'outside') return true;
    return 'pipeline' in need ? pipelines(need.pipeline).includes(label) : sources(need.id).includes(label);
  });
}

async function allNeeds(ground: Ground): Promise<Need[]> {
  const { db } = ground;
  const nameOf = await namer(db);
  const [incidents, limit, unread, again, held, toConfirm, stopped, aside, outside] = await Promise.all([
    incidentsInWords(db),
    limitNeed(ground),
    unreadSources(db, nameOf),
    triedAgain(db, nameOf),
    heldTogether(db),
    waitingForYes(db),
    stoppedTogether(db, nameOf),
    setAside(db),
    changedOutside(db),
  ]);
  return [
    ...incidents.map((incident) => ({ kind: 'incident' as const, ...incident })),
    ...limit,
    ...unread,
    ...again,
    ...held,
    ...toConfirm,
    ...stopped,
    ...aside,
    ...outside,
  ];
}

async function limitNeed(ground: Ground): Promise<NeedOf<'limit'>[]> {
  const use = await monthUse(ground);
  return use && use.spent + use.reserved > use.cap * 0.9
    ? [{ kind: 'limit', capMicros: use.cap, spentMicros: use.spent }]
    : [];
}

async function unreadSources(sql: Sql, nameOf: (id: string) => string): Promise<NeedOf<'source'>[]> {
  const rows = await sql.rows<{ id: string; name: string; failure: Failure; looked_desk: number | null }>(
    'SELECT id, name, failure, looked_desk FROM source WHERE failure IS NOT NULL AND archived = 0 ORDER BY id LIMIT 50',
  );
  return rows.map(({ id, name, failure, looked_desk }) => {
    const { sentence, mend } = wordsOf(failure, (one) => (one === id ? name : nameOf(one)));
    return { kind: 'source', id, name, sentence, mend, lookedDesk: looked_desk === null ? null : Number(looked_desk) };
  });
}

interface AtStep {
  brief: string;
  subject: string;
  pipeline: string;
  pipelineName: string;
  step: string;
}

const AT_STEP = 'b.id AS brief, b.subject, b.pipeline, p.name AS pipelineName, r.kind AS step';

/** Rows of one cause together, in the order of their first. */
function together<R extends AtStep>(rows: readonly R[], cause: (row: R) => string): R[][] {
  const groups = new Map<string, R[]>();
  for (const row of rows) {
    const key = [row.pipeline, row.step, cause(row)].join('\n');
    const group = groups.get(key);
    if (group) group.push(row);
    else groups.set(key, [row]);
  }
  return [...groups.values()];
}

function asOne(group: readonly AtStep[]) {
  const [{ brief, subject, pipeline, pipelineName, step }] = group as [AtStep];
  return { id: brief, subject, pipeline, pipelineName, step, briefs: group.map((row) => row.brief) };
}

/** What fails for a reason that may pass, and has for a while: those that wait for a time stand together in their index. */
async function triedAgain(sql: Sql, nameOf: (id: string) => string): Promise<NeedOf<'again'>[]> {
  const rows = await sql.rows<AtStep & { failure: Failure; since: Date }>(
    `SELECT ${AT_STEP}, r.failure, COALESCE(r.started_at, r.made_at) AS since
     FROM step_run r FORCE INDEX (step_run_place) JOIN brief b ON b.id = r.brief JOIN pipeline p ON p.id = b.pipeline
     WHERE r.place >= 'T' AND r.place < 'U' AND r.state = 'waiting' AND r.tries > 0 AND r.failure IS NOT NULL AND r.due_desk IS NULL AND b.trial = 0
       AND COALESCE(r.started_at, r.made_at) < UTC_TIMESTAMP(3) - INTERVAL ${TRIED_FOR_S} SECOND
     ORDER BY since LIMIT ${MOST_TOGETHER}`,
  );
  return together(rows, ({ failure }) => JSON.stringify(failure)).map((group) => ({
    kind: 'again',
    ...asOne(group),
    since: group[0]!.since,
    ...wordsOf(group[0]!.failure, nameOf),
  }));
}

async function heldTogether(sql: Sql): Promise<NeedOf<'hold'>[]> {
  const rows = (await heldRuns(sql)).map((row) => ({ ...row, step: row.kind }));
  return together(rows, () => '').map((group) => ({
    kind: 'hold',
    ...asOne(group),
    since: group[0]!.heldAt,
  }));
}

/** What programs handed in, and nobody has said yes to. */
async function waitingForYes(sql: Sql): Promise<NeedOf<'confirm'>[]> {
  const sources = await sql.rows<{ id: string; name: string }>(
    "SELECT id, name FROM source WHERE kind = 'hook' AND archived = 0 ORDER BY id LIMIT 50",
  );
  const from = "item WHERE source = ? AND left_out = 'to confirm'";
  const counts = await countEach(
    sql,
    sources.map(({ id }) => ({ key: id, from, parameters: [id] })),
  );
  const waiting = sources.filter(({ id }) => (counts.get(id) ?? 0) > 0);
  return Promise.all(
    waiting.map(async ({ id, name }) => {
      const [first] = await sql.rows<{ subject: string }>(`SELECT subject FROM ${from} ORDER BY id LIMIT 1`, [id]);
      return { kind: 'confirm' as const, id, name, items: counts.get(id)!, subject: first?.subject ?? '' };
    }),
  );
}

async function stoppedTogether(sql: Sql, nameOf: (id: string) => string): Promise<NeedOf<'brief'>[]> {
  const rows = await sql.rows<AtStep & { failure: Failure }>(
    `SELECT ${AT_STEP}, r.failure
     FROM brief b JOIN pipeline p ON p.id = b.pipeline JOIN step_run r ON r.brief = b.id AND r.state = 'stopped' AND r.incident IS NULL
     WHERE b.trial = 0 AND b.standing = 'stopped' ORDER BY b.id LIMIT ${MOST_TOGETHER}`,
  );
  return together(rows, ({ failure }) => failure.code).map((group) => ({
    kind: 'brief',
    ...asOne(group),
    ...wordsOf(group[0]!.failure, nameOf),
  }));
}

/** Posts somebody changed on their blogs, the longest known first. */
async function changedOutside(sql: Sql): Promise<NeedOf<'outside'>[]> {
  const rows = await sql.rows<Omit<NeedOf<'outside'>, 'kind'>>(
    `SELECT p.id, p.article, a.title, b.name AS blogName, JSON_VALUE(p.outside, '$.kind') AS what, p.outside_at AS at
     FROM publication p JOIN article a ON a.id = p.article JOIN blog b ON b.id = p.blog
     WHERE p.outside_at IS NOT NULL ORDER BY p.outside_at LIMIT 20`,
  );
  return rows.map((row) => ({ kind: 'outside', ...row }));
}

/** Briefs that a step set aside, and nobody has looked at since. */
async function setAside(sql: Sql): Promise<NeedOf<'aside'>[]> {
  const rows = await sql.rows<AtStep & { why: string; code: string }>(
    `SELECT ${AT_STEP}, COALESCE(JSON_VALUE(r.outcome, '$.why'), '') AS why, COALESCE(JSON_VALUE(r.outcome, '$.code'), '') AS code
     FROM (SELECT id, subject, pipeline, seen FROM brief WHERE standing = 'set aside' AND trial = 0 ORDER BY id DESC LIMIT ${MOST_ASIDE}) b
     JOIN pipeline p ON p.id = b.pipeline JOIN step_run r ON r.brief = b.id AND r.state = 'done'
     WHERE b.seen = 0 AND JSON_VALUE(r.outcome, '$.kind') = 'set aside' ORDER BY b.id LIMIT ${MOST_TOGETHER}`,
  );
  return together(rows, ({ code }) => code).map((group) => ({ kind: 'aside', ...asOne(group), why: group[0]!.why }));
}
