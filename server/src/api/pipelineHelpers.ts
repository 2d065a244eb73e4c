import { checkProcedure, type Problem, type ProcedureDocument, type ServiceRole } from '@grivo/core';
import { Procedures } from '../engine/briefState.ts';
import { isThere } from '../ground/store/there.ts';
import { listBlogs, targetOf } from '../nouns/blogs/repository.ts';
import { olderBriefs } from '../nouns/briefs/matching.ts';
import { listDestinations } from '../nouns/destinations/repository.ts';
import { pipelinesNow } from '../nouns/pipelines/overview.ts';
import { formOf, listRoutines } from '../nouns/routines/repository.ts';
import { bringing, sourceNames } from '../nouns/sources/repository.ts';
import { styleNames } from '../nouns/styles/repository.ts';
import { lacksOf } from '../ports/blogs/ways/carries.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';

/** What procedures are checked against: what there is, and what it is called. */
async function contextOf({ ground: { db }, tools }: Product) {
  const { services } = tools;
  const [blogs, sources, routines, destinations, styles] = await Promise.all([
    listBlogs(db),
    sourceNames(db),
    listRoutines(db),
    listDestinations(db),
    styleNames(db),
  ]);
  const find = (rows: readonly { id: string; name: string }[]) => (id: string) =>
    rows.find((row) => row.id === id)?.name ?? id;
  return {
    names: {
      blog: find(blogs),
      blogLacks: lacksOf(blogs.map(targetOf), tools.blogs),
      source: find(sources),
      routine: find(routines),
      destination: find(destinations),
      service: (id: string) => services.get(id)?.name ?? id,
      style: find(styles),
      hasStyles: styles.length > 0,
      cards: [...new Set(styles.flatMap(({ cards }) => cards))],
      choosable: (role: ServiceRole) => services.filling(role).length > 1,
    },
    hasService: (id: string, role: ServiceRole) => services.get(id)?.role === role,
    hasBlog: (id: string) => blogs.some((blog) => blog.id === id),
    hasStyle: (id: string) => styles.some((style) => style.id === id),
    hasSource: (id: string) => sources.some((source) => source.id === id),
    hasDestination: (id: string) => destinations.some((one) => one.id === id),
    brings: bringing(sources),
    routine: formOf(routines),
  };
}

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

/** What the routes of pipelines share: what procedures are checked against, and what keeps them from being run. */
export function pipelineHelpers(product: Product) {
  const { ground, bell } = product;
  const { db } = ground;
  const procedures = new Procedures();
  const must = async (id: string) => {
    if (!(await isThere(db, 'pipeline', id))) throw notFound('pipeline');
    return id;
  };
  const context = () => contextOf(product);
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
  return { ground, bell, db, procedures, must, context, checked, whole, ringLanes, willNotRun, notAsked, product };
}

export type PipelineHelpers = ReturnType<typeof pipelineHelpers>;
