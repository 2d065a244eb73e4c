import {
  ByLabel,
  MadePipeline,
  NewPipeline,
  Past,
  PipelineChange,
  Pipelines,
  PipelineWhole,
  Versions,
  VersionWhole,
} from '@grivo/contract';
import { ProcedureDocument, stepWith, toldProcedure } from '@grivo/core';
import { carrying } from '../nouns/labels/repository.ts';
import { pipelinesNow } from '../nouns/pipelines/overview.ts';
import { pastOf } from '../nouns/pipelines/past.ts';
import { changePipeline, createPipeline, versionOf, versionsOf } from '../nouns/pipelines/repository.ts';
import { type PipelineHelpers, pipelineHelpers } from './pipelineHelpers.ts';
import { running, taking, trials } from './pipelineRuns.ts';
import { notFound } from './problem.ts';
import type { Product } from './product.ts';
import { readableOnly } from './readable.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom, tag } from './tags.ts';

/** Pipelines: their procedures and versions, taking items, and trials. */
export function pipelineRoutes(product: Product): Route[] {
  const shared = pipelineHelpers(product);
  return [
    ...listed(shared),
    ...changed(shared),
    ...versions(shared),
    ...taking(shared),
    ...running(shared),
    ...trials(shared),
  ];
}

/** Pipelines and their versions: read, made, saved. */
function listed({ ground, bell, context, checked }: PipelineHelpers) {
  return [
    route({
      method: 'get',
      path: '/pipelines',
      shared: true,
      says: 'All pipelines, with how their briefs stand',
      role: 'proofreader',
      answer: Pipelines,
      query: ByLabel,
      handle: async ({ query: { label } }) => ({
        pipelines: carrying(await pipelinesNow(ground, (await context()).names), label).map(
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
  ];
}

/** A pipeline changed. */
function changed({ ground, bell, must, whole }: PipelineHelpers) {
  return [
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
  ];
}

/** What a procedure was before, and what its steps gave. */
function versions({ db, must, context, whole }: PipelineHelpers) {
  return [
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
  ];
}
