import type { Need, Today } from '@grivo/contract';
import { type Failure, wordsOf } from '@grivo/core';
import { heldRuns } from '../briefs/holds.ts';
import type { Ground } from '../engine/outside.ts';
import { incidentsInWords, namer } from '../incidents/words.ts';
import { limitStanding } from '../money/limits.ts';

const DAY = 86_400_000;

/** What went out, what wants a person, and what articles cost. */
export async function todayNow(ground: Ground): Promise<Omit<Today, 'role'>> {
  const { db, desk } = ground;
  const now = desk.now();
  const since = now - (now % DAY) - DAY;
  const [wentOut, costs, needs, [begun]] = await Promise.all([
    outSince(ground, since),
    db.rows<{ article: string; title: string; at: number; micros: number }>(
      `SELECT a.id AS article, a.title, p.out_desk AS at, COALESCE((SELECT SUM(g.micros) FROM ledger g WHERE g.brief = a.brief), 0) AS micros
       FROM publication p JOIN article a ON a.id = p.article WHERE p.state = 'live' AND p.out_desk >= ? ORDER BY p.out_desk LIMIT 500`,
      [now - 28 * DAY],
    ),
    needsNow(ground),
    db.rows<Record<'blogs' | 'writers' | 'illustrators' | 'sources' | 'pipelines' | 'out', number>>(
      `SELECT (SELECT COUNT(*) FROM blog) AS blogs, (SELECT COUNT(*) FROM service WHERE role = 'writer') AS writers, (SELECT COUNT(*) FROM service WHERE role = 'illustrator') AS illustrators,
         (SELECT COUNT(*) FROM source) AS sources, (SELECT COUNT(*) FROM pipeline) AS pipelines, (SELECT COUNT(*) FROM publication WHERE state = 'live') AS \`out\``,
    ),
  ]);
  const count = (name: 'blogs' | 'writers' | 'illustrators' | 'sources' | 'pipelines' | 'out') =>
    Number(begun?.[name] ?? 0);
  return {
    now,
    since,
    needs,
    wentOut,
    costs: costs.map((row) => ({ ...row, at: Number(row.at), micros: Number(row.micros) })),
    begun: {
      blogs: count('blogs'),
      writers: count('writers'),
      illustrators: count('illustrators'),
      sources: count('sources'),
      pipelines: count('pipelines'),
      out: count('out'),
    },
  };
}

async function outSince({ db }: Ground, since: number): Promise<Today['wentOut']> {
  const rows = await db.rows<Today['wentOut'][number]>(
    `SELECT a.id AS article, a.title, b.id AS blog, b.name AS blogName, p.out_desk AS at, a.words, p.address,
       COALESCE((SELECT SUM(g.micros) FROM ledger g WHERE g.brief = a.brief), 0) AS micros
     FROM publication p JOIN article a ON a.id = p.article JOIN blog b ON b.id = p.blog WHERE p.state = 'live' AND p.out_desk >= ? ORDER BY p.out_desk DESC LIMIT 50`,
    [since],
  );
  return rows.map((row) => ({ ...row, at: Number(row.at), micros: Number(row.micros) }));
}

async function needsNow(ground: Ground): Promise<Need[]> {
  const { db } = ground;
  const [incidents, nameOf, stopped, limit, held, unread] = await Promise.all([
    incidentsInWords(db),
    namer(db),
    db.rows<{ id: string; subject: string; pipeline: string; pipelineName: string; step: string; failure: Failure }>(
      `SELECT b.id, b.subject, b.pipeline, p.name AS pipelineName, r.kind AS step, r.failure
       FROM brief b JOIN pipeline p ON p.id = b.pipeline JOIN step_run r ON r.brief = b.id AND r.state = 'stopped' AND r.incident IS NULL
       WHERE b.trial = 0 AND b.standing = 'stopped' ORDER BY b.id LIMIT 100`,
    ),
    limitStanding(ground),
    heldRuns(db),
    db.rows<{ id: string; name: string; failure: Failure; looked_desk: number | null }>(
      'SELECT id, name, failure, looked_desk FROM source WHERE failure IS NOT NULL ORDER BY id LIMIT 50',
    ),
  ]);
  const near = limit.capMicros !== null && limit.spentMicros + limit.reservedMicros > limit.capMicros * 0.9;
  return [
    ...incidents.map((incident) => ({ kind: 'incident' as const, ...incident })),
    ...(near && limit.capMicros !== null
      ? [{ kind: 'limit' as const, capMicros: limit.capMicros, spentMicros: limit.spentMicros }]
      : []),
    ...unread.map(({ id, name, failure, looked_desk }) => {
      const { sentence, mend } = wordsOf(failure, (one) => (one === id ? name : nameOf(one)));
      return {
        kind: 'source' as const,
        id,
        name,
        sentence,
        mend,
        lookedDesk: looked_desk === null ? null : Number(looked_desk),
      };
    }),
    ...held.map(({ run, brief, subject, pipeline, pipelineName, kind, heldAt }) => ({
      kind: 'hold' as const,
      id: run,
      brief,
      subject,
      pipeline,
      pipelineName,
      step: kind,
      since: heldAt,
    })),
    ...stopped.map(({ failure, ...brief }) => ({ kind: 'brief' as const, ...brief, ...wordsOf(failure, nameOf) })),
  ];
}
