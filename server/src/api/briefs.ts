import { type Failure, wordsOf } from '@grivo/core';
import { Router } from 'express';
import { openIncidents, releaseBrief, releaseIncident } from '../incidents/repository.ts';
import type { Product } from '../product.ts';
import type { Sql } from '../store/database.ts';
import { signedIn } from './access.ts';
import { notFound } from './problem.ts';

const PAGE = 50;

/** Names of services and blogs, for sentences. */
async function namer(sql: Sql): Promise<(id: string) => string> {
  const rows = await sql.rows<{ id: string; name: string }>(
    'SELECT id, name FROM service UNION ALL SELECT id, name FROM blog',
  );
  const names = new Map(rows.map((row) => [row.id, row.name]));
  return (id) => names.get(id) ?? id;
}

/** Briefs with their steps, what stopped them, and letting them go on. */
export function briefRoutes({ ground, bell }: Product): Router {
  const router = Router();
  const { db } = ground;
  router.get('/briefs', async (request, response) => {
    const before = typeof request.query['before'] === 'string' ? request.query['before'] : 'z';
    const briefs = await db.rows(
      'SELECT id, pipeline, standing, subject, made_desk AS madeDesk, ended_desk AS endedDesk, rev FROM brief WHERE trial = 0 AND id < ? ORDER BY id DESC LIMIT ?',
      [before, PAGE],
    );
    response.json({ briefs });
  });
  router.get('/briefs/:id', async (request, response) => {
    const [brief] = await db.rows('SELECT id, pipeline, standing, subject, fields, rev FROM brief WHERE id = ?', [
      request.params.id,
    ]);
    if (!brief) throw notFound('brief');
    const nameOf = await namer(db);
    const runs = await db.rows<{ failure: Failure | null }>(
      'SELECT r.id, r.path, r.round, r.kind, r.state, r.attempts, r.failure, r.due_desk AS dueDesk, r.started_at AS startedAt, r.ended_at AS endedAt, COALESCE(o.decided, o.proposed) AS gave FROM step_run r LEFT JOIN output o ON o.step_run = r.id WHERE r.brief = ? ORDER BY r.id',
      [request.params.id],
    );
    const [cost] = await db.rows<{ micros: number | null }>(
      'SELECT SUM(micros) AS micros FROM ledger WHERE brief = ?',
      [request.params.id],
    );
    response.json({
      ...brief,
      micros: Number(cost?.micros ?? 0),
      runs: runs.map((run) => ({ ...run, failure: run.failure && wordsOf(run.failure, nameOf) })),
    });
  });
  router.post('/briefs/:id/release', signedIn(ground, 'editor'), async (request, response) => {
    const released = await releaseBrief(ground, String(request.params['id']));
    bell.ring({ kind: 'settings' });
    for (const lane of await lanesNow(db)) bell.ring({ kind: 'lane', lane });
    response.json({ released });
  });
  router.get('/incidents', async (_request, response) => {
    const nameOf = await namer(db);
    response.json({
      incidents: (await openIncidents(db)).map(({ failure, ...incident }) => ({
        ...incident,
        name: nameOf(incident.service),
        ...wordsOf(failure, nameOf),
      })),
    });
  });
  router.post('/incidents/:id/release', signedIn(ground, 'editor'), async (request, response) => {
    const released = await releaseIncident(ground, String(request.params['id']));
    bell.ring({ kind: 'settings' });
    for (const lane of await lanesNow(db)) bell.ring({ kind: 'lane', lane });
    response.json({ released });
  });
  return router;
}

async function lanesNow(sql: Sql): Promise<string[]> {
  return (await sql.rows<{ lane: string }>('SELECT DISTINCT lane FROM step_run WHERE lane IS NOT NULL')).map(
    (row) => row.lane,
  );
}
