import {
  ClearedPipeline,
  ClearPipeline,
  Estimate,
  EstimateRequest,
  Made,
  MadeByPipeline,
  MadePipeline,
  MoreTrial,
  NewPipeline,
  NewTrial,
  Offered,
  OfferedRequest,
  Past,
  PipelineChange,
  Pipelines,
  PipelineWhole,
  TakeItems,
  Taken,
  Versions,
  VersionWhole,
} from '@grivo/contract';
import {
  checkProcedure,
  type Problem,
  ProcedureDocument,
  type ServiceRole,
  stepWith,
  toldProcedure,
} from '@grivo/core';
import { blogNames } from '../blogs/repository.ts';
import { olderBriefs } from '../briefs/matching.ts';
import { Procedures } from '../engine/briefState.ts';
import { estimateOf } from '../money/estimate.ts';
import { clearPipeline, madeBy } from '../pipelines/clear.ts';
import { pipelinesNow } from '../pipelines/overview.ts';
import { pastOf } from '../pipelines/past.ts';
import { changePipeline, createPipeline, switchPipeline, versionOf, versionsOf } from '../pipelines/repository.ts';
import { goOnWithTrial, startTrial } from '../pipelines/trial.ts';
import type { Product } from '../product.ts';
import { formOf, listRoutines } from '../routines/repository.ts';
import { outsideSources } from '../schedules/fire.ts';
import { takeAllNew, takeChosen } from '../sources/look.ts';
import { contentNamed, offeredTo } from '../sources/offered.ts';
import { bringing, sourceNames } from '../sources/repository.ts';
import { inputsOf } from '../sources/units.ts';
import { notFound, problem } from './problem.ts';
import { readableOnly } from './readable.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom, tag } from './tags.ts';

/** Pipelines: their procedures and versions, taking items, and trials. */
export function pipelineRoutes(product: Product): Route[] {
  const { ground, bell } = product;
  const { db } = ground;
  const { services } = product.tools;
  const procedures = new Procedures();
  const must = async (id: string) => {
    if ((await db.rows('SELECT 1 FROM pipeline WHERE id = ?', [id])).length === 0) throw notFound('pipeline');
    return id;
  };
  const context = async () => {
    const [blogs, sources, routines] = await Promise.all([blogNames(db), sourceNames(db), listRoutines(db)]);
    const find = (rows: readonly { id: string; name: string }[]) => (id: string) =>
      rows.find((row) => row.id === id)?.name ?? id;
    return {
      names: {
        blog: find(blogs),
        source: find(sources),
        routine: find(routines),
        service: (id: string) => services.get(id)?.name ?? id,
        choosable: (role: ServiceRole) => services.filling(role).length > 1,
      },
      hasService: (id: string, role: ServiceRole) => services.get(id)?.role === role,
      hasBlog: (id: string) => blogs.some((blog) => blog.id === id),
      hasSource: (id: string) => sources.some((source) => source.id === id),
      brings: bringing(sources),
      routine: formOf(routines),
    };
  };
  /** What the checks find; errors are refused when the pipeline is to run by itself. */
  const checked = async (document: ProcedureDocument): Promise<Problem[]> => checkProcedure(document, await context());
  const whole = async (id: string) => {
    const { names, ...has } = await context();
    const [pipeline] = await pipelinesNow(ground, names, id);
    if (!pipeline) throw notFound('pipeline');
    return {
      ...pipeline,
      problems: checkProcedure(pipeline.document, { names, ...has }),
      older: await olderBriefs(db, id),
    };
  };
  const ringLanes = (lanes: Iterable<string>) => {
    for (const lane of lanes) bell.ring({ kind: 'lane', lane });
    bell.ring({ kind: 'event' });
  };
  const willNotRun = (problems: readonly Problem[]) => {
    const errors = problems.filter((found) => found.grade === 'error');
    return errors.length === 0
      ? null
      : problem(
          422,
          'Will not run',
          errors[0]!.sentence,
          errors[0]!.mend,
          errors.map((e) => ({ place: e.step, problem: `${e.sentence} ${e.mend}` })),
        );
  };
  /** Inputs that must be given and are not, or are given and not known. */
  const notAsked = (document: ProcedureDocument, inputs: Record<string, string>) => {
    const asked = document.inputs ?? [];
    const missing = asked.filter(({ name, otherwise }) => otherwise === null && !inputs[name]?.trim());
    const strange = Object.keys(inputs).filter((name) => !asked.some((input) => input.name === name));
    if (missing.length + strange.length === 0) return null;
    return problem(
      422,
      'Inputs',
      missing.length > 0
        ? `The procedure asks for ${missing.map(({ asks }) => `‘${asks}’`).join(', ')}.`
        : `The procedure asks for no ${strange.map((name) => `‘${name}’`).join(', ')}.`,
      missing.length > 0 ? 'Give it and take again.' : 'Leave it out.',
      [...missing.map(({ name }) => name), ...strange].map((name) => ({
        place: `inputs.${name}`,
        problem: 'see above',
      })),
    );
  };
  return [
    route({
      method: 'get',
      path: '/pipelines',
      says: 'All pipelines, with how their briefs stand',
      role: 'proofreader',
      answer: Pipelines,
      handle: async () => ({
        pipelines: (await pipelinesNow(ground, (await context()).names)).map(
          ({ document: _, ...pipeline }) => pipeline,
        ),
      }),
    }),
    route({
      method: 'post',
      path: '/pipelines',
      says: 'Makes a pipeline, off at first',
      role: 'editor',
      body: NewPipeline,
      answer: MadePipeline,
      status: 201,
      handle: async ({ body, person }) => {
        readableOnly(body.document);
        const problems = await checked(body.document);
        const id = await createPipeline(ground, { ...body, person: person.id });
        bell.ring({ kind: 'event' });
        return { id, problems };
      },
    }),
    route({
      method: 'get',
      path: '/pipelines/{id}',
      says: 'A pipeline with its procedure and what the checks find',
      role: 'proofreader',
      answer: PipelineWhole,
      handle: async ({ params, response }) => {
        const pipeline = await whole(params['id']!);
        tag(response, pipeline.rev);
        return pipeline;
      },
    }),
    route({
      method: 'put',
      path: '/pipelines/{id}',
      says: 'Changes name, procedure or open limit; a changed procedure is a new version',
      role: 'editor',
      body: PipelineChange,
      answer: PipelineWhole,
      handle: async ({ params, body, person, request, response }) => {
        const id = await must(params['id']!);
        if (body.document) readableOnly(body.document);
        if ((await changePipeline(ground, id, revFrom(request), body, person.id)) === null)
          throw changedMeanwhile('pipeline', await whole(id));
        bell.ring({ kind: 'event' });
        bell.ring({ kind: 'admit' });
        const pipeline = await whole(id);
        tag(response, pipeline.rev);
        return pipeline;
      },
    }),
    route({
      method: 'get',
      path: '/pipelines/{id}/versions',
      says: 'The versions of a procedure, newest first, as sentences',
      role: 'proofreader',
      answer: Versions,
      handle: async ({ params }) => {
        const { names } = await context();
        return {
          versions: (await versionsOf(db, await must(params['id']!))).map(({ document, ...version }) => ({
            ...version,
            lines: toldProcedure(ProcedureDocument.parse(document), names),
          })),
        };
      },
    }),
    route({
      method: 'get',
      path: '/pipelines/{id}/versions/{n}',
      says: 'The procedure as it was in one of its versions',
      role: 'proofreader',
      answer: VersionWhole,
      handle: async ({ params }) => {
        const n = Number(params['n']);
        const document = Number.isInteger(n) ? await versionOf(db, await must(params['id']!), n) : null;
        if (document === null) throw notFound('version');
        return { n, document: ProcedureDocument.parse(document) };
      },
    }),
    route({
      method: 'get',
      path: '/pipelines/{id}/past/{step}',
      says: 'What the last runs of a step gave, to see what another value of its words would have done',
      role: 'proofreader',
      answer: Past,
      handle: async ({ params }) => {
        const { id, document } = await whole(params['id']!);
        const step = stepWith(document, params['step']!);
        return step ? pastOf(db, id, step) : { past: {}, seen: [] };
      },
    }),
    route({
      method: 'post',
      path: '/pipelines/{id}/take',
      says: 'Takes items now: the ones named, or what is new',
      role: 'editor',
      body: TakeItems,
      answer: Taken,
      status: 202,
      handle: async ({ params, body: { items, groups, ...words } }) => {
        const { id, problems, document } = await whole(params['id']!);
        const refusal = willNotRun(problems) ?? notAsked(document, words.inputs);
        if (refusal) throw refusal;
        const chosen = groups ?? items?.map((item) => [item]);
        if (!chosen) for (const source of await outsideSources(db, procedures, id)) await product.look(source);
        const taken = chosen
          ? await db.transaction((sql) => takeChosen(sql, ground, procedures, id, chosen, words))
          : await takeAllNew(product.tools, procedures, id, words);
        bell.ring({ kind: 'admit' });
        bell.ring({ kind: 'event' });
        return taken;
      },
    }),
    route({
      method: 'get',
      path: '/pipelines/{id}/made',
      says: 'How much a pipeline has made, to be looked at before it is deleted',
      role: 'editor',
      answer: MadeByPipeline,
      handle: async ({ params }) => madeBy(db, await must(params['id']!)),
    }),
    route({
      method: 'post',
      path: '/pipelines/{id}/clear',
      says: 'Deletes everything a pipeline made, its posts on blogs too; takes the number of articles said before',
      role: 'owner',
      body: ClearPipeline,
      answer: ClearedPipeline,
      status: 200,
      handle: async ({ params, body }) => {
        const id = await must(params['id']!);
        const made = await madeBy(db, id);
        if (made.articles !== body.articles)
          throw problem(
            409,
            'Not that many',
            `It has made ${made.articles} articles, not ${body.articles}.`,
            'Look at the number again before deleting.',
          );
        if (made.open > 0)
          throw problem(
            409,
            'Still at work',
            `${made.open} of its briefs have not ended.`,
            'Switch it off and set them aside first.',
          );
        const cleared = await clearPipeline(ground, product.tools.micropub, id);
        bell.ring({ kind: 'event' });
        return cleared;
      },
    }),
    route({
      method: 'post',
      path: '/procedures/estimate',
      says: 'About what one brief of a procedure would cost, before anything is paid',
      role: 'proofreader',
      body: EstimateRequest,
      answer: Estimate,
      status: 200,
      handle: async ({ body }) => estimateOf(db, product.tools.services, body.document),
    }),
    ...(['on', 'off'] as const).map((word) =>
      route({
        method: 'post',
        path: `/pipelines/{id}/${word}`,
        says: word === 'on' ? 'Switches a pipeline on: it looks by itself' : 'Switches a pipeline off',
        role: 'editor',
        handle: async ({ params }) => {
          const { id, problems } = await whole(params['id']!);
          const refusal = word === 'on' ? willNotRun(problems) : null;
          if (refusal) throw refusal;
          await switchPipeline(ground, id, word === 'on');
          bell.ring({ kind: 'event' });
        },
      }),
    ),
    route({
      method: 'post',
      path: '/pipelines/{id}/offered',
      says: 'What a run by a procedure would make briefs of next, to choose what a trial is made on',
      role: 'editor',
      body: OfferedRequest,
      answer: Offered,
      status: 200,
      handle: async ({ params, body }) => offeredTo(product.tools, await must(params['id']!), body.document),
    }),
    route({
      method: 'post',
      path: '/pipelines/{id}/trials',
      says: 'Begins a trial: it publishes nothing',
      role: 'editor',
      body: NewTrial,
      answer: Made,
      status: 201,
      handle: async ({ params, body }) => {
        const pipeline = await must(params['id']!);
        const content = body.units ? await contentNamed(db, body.units) : null;
        if (body.units && !content) throw notFound('item');
        const { brief, lanes } = await startTrial(
          ground,
          procedures,
          {
            pipeline,
            document: body.document,
            subject: content?.subject ?? body.subject!,
            fields: { ...content?.fields, ...inputsOf(body.document, body.inputs) },
            items: content?.items.map(({ id }) => id) ?? [],
            until: body.until ?? null,
          },
          product.serviceFor,
        );
        ringLanes(lanes);
        return { id: brief };
      },
    }),
    route({
      method: 'put',
      path: '/trials/{id}',
      says: 'Goes on with a trial by a changed procedure; what stands above the change is kept',
      role: 'editor',
      body: MoreTrial,
      handle: async ({ params, body }) => {
        const lanes = await goOnWithTrial(
          ground,
          procedures,
          params['id']!,
          body.document,
          { until: body.until ?? null, from: body.from ?? null },
          product.serviceFor,
        );
        if (!lanes) throw notFound('trial');
        ringLanes(lanes);
      },
    }),
  ];
}
