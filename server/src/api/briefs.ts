import {
  Again,
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
} from '@grivo/contract';
import { ProcedureDocument } from '@grivo/core';
import { Procedures } from '../engine/briefState.ts';
import { releaseBrief, releaseIncident } from '../engine/incidents.ts';
import { briefsPage, briefWhole, getBrief, getRun, hasRun } from '../nouns/briefs/list.ts';
import { matchingBriefs } from '../nouns/briefs/matching.ts';
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
} from '../nouns/briefs/rounds.ts';
import { filledFor, runWhole } from '../nouns/briefs/run.ts';
import { sheetOf } from '../nouns/briefs/sheet.ts';
import { incidentsInWords, namer } from '../nouns/incidents/words.ts';
import { currentProcedure } from '../nouns/pipelines/repository.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** What the routes share. */
function helpers(product: Product) {
  const { ground, bell } = product;
  const { db } = ground;
  const procedures = new Procedures();
  const must = async (id: string) => {
    const brief = await getBrief(db, id);
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
  return { ground, bell, db, procedures, must, doTo, product };
}

type Helpers = ReturnType<typeof helpers>;

/** Briefs with their steps, what stopped them, and letting them go on. */
export function briefRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [
    ...listed(shared),
    ...runs(shared),
    ...onMany(shared),
    ...onOne(shared),
    ...again(shared),
    ...incidents(shared),
  ];
}

/** Briefs, their runs and the sheet of all of them. */
function listed({ ground, db, must }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/briefs',
      shared: true,
      says: 'Briefs, newest first',
      role: 'proofreader',
      query: BriefsQuery,
      answer: Briefs,
      handle: async ({ query: { before, limit, ...wanted } }) => ({
        briefs: await briefsPage(db, wanted, before, limit),
      }),
    }),
    route({
      method: 'get',
      path: '/briefs/{id}',
      says: 'A brief with every step run, what it gave, what it cost, and why it stopped',
      role: 'proofreader',
      answer: BriefWhole,
      handle: async ({ params }) => {
        return briefWhole(db, await must(params['id']!), await namer(db));
      },
    }),
    route({
      method: 'get',
      path: '/pipelines/{id}/sheet',
      shared: true,
      says: 'Briefs of a pipeline against its steps, newest first',
      role: 'proofreader',
      query: SheetQuery,
      answer: Sheet,
      handle: async ({ params, query: { before, limit, standing, find } }) => {
        const row = await currentProcedure(db, params['id']!);
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
  ];
}

/** One run, and filling a brief in. */
function runs({ db, procedures }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/runs/{id}',
      says: 'One step run: what it read and gave, its rounds and attempts',
      role: 'proofreader',
      answer: RunWhole,
      handle: async ({ params }) => {
        const run = await getRun(db, params['id']!);
        const whole = run ? await runWhole(db, procedures, run, await namer(db)) : null;
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
  ];
}

/** What is done to many at once, and to one that ended. */
function onMany({ bell, db, must, doTo, product }: Helpers) {
  return [
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
  ];
}

/** What is done to one brief. */
function onOne({ ground, bell, must, product }: Helpers) {
  return [
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
  ];
}

/** One run again. */
function again({ ground, bell, db, procedures, must, product }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/briefs/{id}/again',
      says: 'Runs a brief again from a step; what comes after is made anew',
      role: 'editor',
      body: Again,
      handle: async ({ params, body }) => {
        const { standing } = await must(params['id']!);
        if (standing === 'out')
          throw problem(409, 'Is out', 'What is published is not made again.', 'Take the subject again instead.');
        if (!(await hasRun(db, params['id']!, body.step)))
          throw problem(422, 'Not run yet', `The step ‘${body.step}’ has not been run.`, 'Choose a step that has.');
        const lanes = await db.transaction((sql) =>
          goOn(sql, ground, procedures, params['id']!, product.serviceFor, body.step),
        );
        for (const lane of lanes) bell.ring({ kind: 'lane', lane });
        bell.ring({ kind: 'event' });
      },
    }),
  ];
}

/** Incidents, and letting go on what they stopped. */
function incidents({ ground, db, product }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/incidents',
      shared: true,
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
