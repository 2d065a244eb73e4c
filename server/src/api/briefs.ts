import {
  Again,
  type BriefStanding,
  Briefs,
  BriefsQuery,
  BriefWhole,
  DoneToBriefs,
  Filled,
  FillRequest,
  Incidents,
  ManyBriefs,
  Released,
  RunWhole,
  Sheet,
  SheetQuery,
  type StepRun,
} from '@grivo/contract';
import { type Failure, ProcedureDocument, wordsOf } from '@grivo/core';
import { matchingBriefs } from '../briefs/matching.ts';
import {
  beginNow,
  bringBack,
  bringToNewest,
  goOn,
  leaveAside,
  letWaitAgain,
  putAhead,
  setAside,
  stopBrief,
} from '../briefs/rounds.ts';
import { filledFor, runWhole } from '../briefs/run.ts';
import { sheetOf } from '../briefs/sheet.ts';
import { Procedures } from '../engine/briefState.ts';
import { releaseBrief, releaseIncident } from '../engine/incidents.ts';
import { incidentsInWords, namer } from '../incidents/words.ts';
import type { Product } from '../product.ts';
import { notFound, problem } from './problem.ts';
import { type Route, route } from './route.ts';

const LIST = 'SELECT id, pipeline, standing, subject, made_desk AS madeDesk, ended_desk AS endedDesk, rev FROM brief';

const RUNS = `SELECT r.id, r.brief, r.path, r.round, r.kind, r.state, r.attempts, r.failure, r.incident, r.due_desk AS dueDesk,
    COALESCE(r.started_at, IF(r.attempts > 0, r.made_at, NULL)) AS startedAt, r.ended_at AS endedAt, COALESCE(o.decided, o.proposed) AS gave,
    COALESCE((SELECT SUM(l.micros) FROM ledger l WHERE l.step_run = r.id), 0) AS micros
  FROM step_run r LEFT JOIN output o ON o.step_run = r.id`;

interface BriefRow {
  id: string;
  pipeline: string;
  standing: BriefStanding;
  subject: string;
  madeDesk: number;
  endedDesk: number | null;
  rev: number;
}

/** Briefs with their steps, what stopped them, and letting them go on. */
export function briefRoutes(product: Product): Route[] {
  const { ground, bell } = product;
  const { db } = ground;
  const procedures = new Procedures();
  const must = async (id: string): Promise<BriefRow & { trial: number; fields: Record<string, unknown> }> => {
    const [brief] = await db.rows<BriefRow & { trial: number; fields: Record<string, unknown> }>(
      `${LIST.replace(' FROM', ', trial, fields FROM')} WHERE id = ?`,
      [id],
    );
    if (!brief) throw notFound('brief');
    return brief;
  };
  const doTo = async (act: ManyBriefs['do'], id: string, person: string): Promise<boolean> => {
    switch (act) {
      case 'set aside':
        return setAside(ground, id);
      case 'leave aside':
        return leaveAside(ground, id);
      case 'bring back':
        return (await bringBack(ground, procedures, id, product.serviceFor)) !== null;
      case 'put ahead':
        return putAhead(ground, id);
      case 'begin now':
        return beginNow(ground, id);
      case 'bring to the newest':
        return (await bringToNewest(ground, procedures, id, product.serviceFor)) !== null;
      case 'stop':
        return stopBrief(ground, id, person);
      case 'go on':
        return (await letWaitAgain(ground, id)) || (await releaseBrief(ground, id)) > 0;
    }
  };
  return [
    route({
      method: 'get',
      path: '/briefs',
      says: 'Briefs, newest first',
      role: 'proofreader',
      query: BriefsQuery,
      answer: Briefs,
      handle: async ({ query: { before, limit, pipeline, standing } }) => ({
        briefs: await db.rows<BriefRow>(
          `${LIST} WHERE trial = 0 AND id < ?${pipeline ? ' AND pipeline = ?' : ''}${standing ? ' AND standing = ?' : ''} ORDER BY id DESC LIMIT ?`,
          [before ?? 'z', ...(pipeline ? [pipeline] : []), ...(standing ? [standing] : []), limit],
        ),
      }),
    }),
    route({
      method: 'get',
      path: '/briefs/{id}',
      says: 'A brief with every step run, what it gave, what it cost, and why it stopped',
      role: 'proofreader',
      answer: BriefWhole,
      handle: async ({ params }) => {
        const { trial, ...brief } = await must(params['id']!);
        const [nameOf, runs, [pin], articles, items] = await Promise.all([
          namer(db),
          db.rows<Omit<StepRun, 'failure'> & { failure: Failure | null }>(`${RUNS} WHERE r.brief = ? ORDER BY r.id`, [
            brief.id,
          ]),
          db.rows<{ version: number }>('SELECT version FROM brief_pin WHERE brief = ? AND main = 1', [brief.id]),
          db.rows<{ id: string; title: string; standing: string }>(
            'SELECT id, title, standing FROM article WHERE brief = ? ORDER BY id',
            [brief.id],
          ),
          db.rows<{ item: string }>('SELECT item FROM brief_item WHERE brief = ? ORDER BY item', [brief.id]),
        ]);
        return {
          ...brief,
          trial: trial === 1,
          items: items.map(({ item }) => item),
          version: pin?.version ?? 0,
          micros: runs.reduce((sum, run) => sum + Number(run.micros), 0),
          runs: runs.map((run) => ({
            ...run,
            micros: Number(run.micros),
            failure: run.failure && wordsOf(run.failure, nameOf),
          })),
          articles,
        };
      },
    }),
    route({
      method: 'get',
      path: '/pipelines/{id}/sheet',
      says: 'Briefs of a pipeline against its steps, newest first',
      role: 'proofreader',
      query: SheetQuery,
      answer: Sheet,
      handle: async ({ params, query: { before, limit, standing, find } }) => {
        const [row] = await db.rows<{ document: unknown; version: number }>(
          'SELECT v.document, p.version FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version WHERE p.id = ?',
          [params['id']],
        );
        if (!row) throw notFound('pipeline');
        return sheetOf(db, {
          pipeline: params['id']!,
          document: ProcedureDocument.parse(row.document),
          before: before ?? null,
          limit,
          standing: standing ?? null,
          find: find ?? '',
          nameOf: await namer(db),
          version: row.version,
          now: ground.desk.now(),
        });
      },
    }),
    route({
      method: 'get',
      path: '/runs/{id}',
      says: 'One step run: what it read and gave, its rounds and attempts',
      role: 'proofreader',
      answer: RunWhole,
      handle: async ({ params }) => {
        const [run] = await db.rows<Parameters<typeof runWhole>[2]>(`${RUNS} WHERE r.id = ?`, [params['id']]);
        const whole = run
          ? await runWhole(db, procedures, { ...run, micros: Number(run.micros) }, await namer(db))
          : null;
        if (!whole) throw notFound('step run');
        return whole;
      },
    }),
    route({
      method: 'post',
      path: '/briefs/{id}/fill',
      says: 'A text with the fields a step of a brief sees put in, as the step would say it',
      role: 'proofreader',
      body: FillRequest,
      answer: Filled,
      status: 200,
      handle: async ({ params, body }) => {
        const filled = await filledFor(db, procedures, params['id']!, body.step, body.text);
        if (!filled) throw notFound('brief');
        return filled;
      },
    }),
    route({
      method: 'post',
      path: '/briefs/many',
      says: 'Does one thing to many briefs; those it does not fit are left as they are',
      role: 'editor',
      body: ManyBriefs,
      answer: DoneToBriefs,
      status: 200,
      handle: async ({ body: { do: act, briefs, matching }, person }) => {
        const { ids, more } = briefs ? { ids: briefs, more: 0 } : await matchingBriefs(db, act, matching!);
        let done = 0;
        for (const id of ids) if (await doTo(act, id, person.name)) done++;
        bell.ring({ kind: 'admit' });
        await product.ringAll();
        return { done, left: ids.length - done, more };
      },
    }),
    route({
      method: 'post',
      path: '/briefs/{id}/bring-back',
      says: 'Brings back a brief that was set aside; it goes on where it was ended',
      role: 'editor',
      handle: async ({ params, person }) => {
        await must(params['id']!);
        if (!(await doTo('bring back', params['id']!, person.name)))
          throw problem(409, 'Not set aside', 'This brief is not set aside.', 'Look at it again.');
        bell.ring({ kind: 'admit' });
        await product.ringAll();
      },
    }),
    route({
      method: 'post',
      path: '/briefs/{id}/stop',
      says: 'Stops a brief where it stands, until it is let go',
      role: 'editor',
      handle: async ({ params, person }) => {
        await must(params['id']!);
        if (!(await doTo('stop', params['id']!, person.name)))
          throw problem(409, 'Nothing runs', 'No step of this brief runs or waits to run.', 'Look at it again.');
        bell.ring({ kind: 'admit' });
        bell.ring({ kind: 'event' });
      },
    }),
    route({
      method: 'post',
      path: '/briefs/{id}/release',
      says: 'Lets a stopped brief go on from the step it stopped at',
      role: 'editor',
      answer: Released,
      handle: async ({ params }) => {
        await must(params['id']!);
        const released = await releaseBrief(ground, params['id']!);
        await product.ringAll();
        return { released };
      },
    }),
    route({
      method: 'post',
      path: '/briefs/{id}/set-aside',
      says: 'Ends a brief on purpose; what is published stays',
      role: 'editor',
      handle: async ({ params }) => {
        await must(params['id']!);
        if (!(await setAside(ground, params['id']!)))
          throw problem(409, 'Has ended', 'This brief has ended already.', 'Look at it again.');
        bell.ring({ kind: 'admit' });
        bell.ring({ kind: 'event' });
      },
    }),
    route({
      method: 'post',
      path: '/briefs/{id}/ahead',
      says: 'Puts a brief ahead of all others',
      role: 'editor',
      handle: async ({ params }) => {
        await must(params['id']!);
        if (!(await putAhead(ground, params['id']!)))
          throw problem(409, 'Has ended', 'This brief has ended already.', 'Look at it again.');
        await product.ringAll();
      },
    }),
    route({
      method: 'post',
      path: '/briefs/{id}/again',
      says: 'Runs a brief again from a step; what comes after is made anew',
      role: 'editor',
      body: Again,
      handle: async ({ params, body }) => {
        const { standing, runs } = await must(params['id']!).then(async (brief) => ({
          ...brief,
          runs: await db.rows<{ path: string }>('SELECT path FROM step_run WHERE brief = ? AND path = ?', [
            brief.id,
            body.step,
          ]),
        }));
        if (standing === 'out')
          throw problem(409, 'Is out', 'What is published is not made again.', 'Take the subject again instead.');
        if (runs.length === 0)
          throw problem(422, 'Not run yet', `The step ‘${body.step}’ has not been run.`, 'Choose a step that has.');
        const lanes = await db.transaction((sql) =>
          goOn(sql, ground, procedures, params['id']!, product.serviceFor, body.step),
        );
        for (const lane of lanes) bell.ring({ kind: 'lane', lane });
        bell.ring({ kind: 'event' });
      },
    }),
    route({
      method: 'get',
      path: '/incidents',
      says: 'Open incidents: one for each cause, however many briefs it stopped',
      role: 'proofreader',
      answer: Incidents,
      handle: async () => ({ incidents: await incidentsInWords(db) }),
    }),
    route({
      method: 'post',
      path: '/incidents/{id}/release',
      says: 'Closes an incident and lets everything it stopped go on',
      role: 'editor',
      answer: Released,
      handle: async ({ params }) => {
        const released = await releaseIncident(ground, params['id']!);
        await product.ringAll();
        return { released };
      },
    }),
  ];
}
