import {
  ClearedPipeline,
  ClearPipeline,
  Estimate,
  EstimateRequest,
  Made,
  MadeByPipeline,
  MoreTrial,
  NewTrial,
  Offered,
  OfferedRequest,
  TakeItems,
  Taken,
} from '@grivo/contract';
import { clearPipeline, madeBy } from '../nouns/pipelines/clear.ts';
import { switchPipeline } from '../nouns/pipelines/repository.ts';
import { goOnWithTrial, startTrial } from '../nouns/pipelines/trial.ts';
import { outsideSources } from '../nouns/schedules/fire.ts';
import { takeAllNew, takeChosen } from '../nouns/sources/look.ts';
import { contentNamed, offeredTo } from '../nouns/sources/offered.ts';
import { inputsOf } from '../nouns/sources/units.ts';
import { estimateOf } from '../ports/money/estimate.ts';
import type { PipelineHelpers } from './pipelineHelpers.ts';
import { notFound, problem } from './problem.ts';
import { route } from './route.ts';

/** Taking items, and clearing what was made of them. */
export function taking({ ground, bell, db, procedures, must, whole, willNotRun, notAsked, product }: PipelineHelpers) {
  return [
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
        const refusal = notCleared(made, body.articles);
        if (refusal) throw refusal;
        const cleared = await clearPipeline(product.tools, id);
        bell.ring({ kind: 'event' });
        return cleared;
      },
    }),
  ];
}

/** Switching on and off, and what would be taken or paid. */
export function running({ ground, bell, db, must, whole, willNotRun, product }: PipelineHelpers) {
  return [
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
  ];
}

/** Trials of a procedure that is being changed. */
export function trials({ ground, db, procedures, must, ringLanes, product }: PipelineHelpers) {
  return [
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

/** Why nothing is deleted, of what a pipeline has made; null where it may be. */
function notCleared(made: Awaited<ReturnType<typeof madeBy>>, articles: number) {
  if (made.articles !== articles)
    return problem(
      409,
      'Not that many',
      `It has made ${made.articles} articles, not ${articles}.`,
      'Look at the number again before deleting.',
    );
  return made.open > 0
    ? problem(
        409,
        'Still at work',
        `${made.open} of its briefs have not ended.`,
        'Switch it off and set them aside first.',
      )
    : null;
}
