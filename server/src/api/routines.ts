import { Made, NewRoutine, ProcedureText, ReadProcedure, Routine, Routines } from '@grivo/contract';
import { type ProcedureDocument, procedureYaml, readProcedure, sentenceText } from '@grivo/core';
import { z } from 'zod';
import { errnoOf } from '../ground/store/database.ts';
import { blogNames } from '../nouns/blogs/repository.ts';
import { currentProcedure } from '../nouns/pipelines/repository.ts';
import {
  changeRoutine,
  createRoutine,
  cycleOf,
  listRoutines,
  type RoutineRow,
  usersOf,
} from '../nouns/routines/repository.ts';
import { sourceNames } from '../nouns/sources/repository.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { readableOnly } from './readable.ts';
import { type Route, route } from './route.ts';
import { changedMeanwhile, revFrom, tag } from './tags.ts';

const DUPLICATE = 1062;

/** What the routes share. */
function helpers({ ground, bell, tools }: Product) {
  const { db } = ground;
  const names = async (routines: readonly RoutineRow[]) => {
    const [blogs, sources] = await Promise.all([blogNames(db), sourceNames(db)]);
    const find = (rows: readonly { id: string; name: string }[]) => (id: string) =>
      rows.find((row) => row.id === id)?.name ?? id;
    return { blog: find(blogs), source: find(sources), routine: find(routines) };
  };
  const spoken = async (rows: readonly RoutineRow[], all: readonly RoutineRow[]) => {
    const [called, users] = await Promise.all([names(all), usersOf(db, all)]);
    return rows.map((row) => ({
      ...row,
      sentences: readProcedure(row.document, called).map(({ sentence }) => sentenceText(sentence)),
      usedBy: users.flatMap(({ uses, ...user }) => (uses.includes(row.id) ? [user] : [])),
    }));
  };
  const fit = (routines: readonly RoutineRow[], id: string, document: ProcedureDocument) => {
    readableOnly(document);
    const take = document.steps.find((step) => step.kind === 'take');
    if (take)
      throw problem(
        422,
        'Takes nothing',
        'A routine takes no items: the procedure that uses it does.',
        'Take the step out that takes items.',
        [{ place: take.id, problem: 'a routine has no step that takes' }],
      );
    const cycle = cycleOf(routines, id, document);
    if (cycle)
      throw problem(
        422,
        'Goes round in a circle',
        `Routines would use each other for ever: ${cycle.join(' → ')}.`,
        'Take one of these uses out.',
      );
  };
  const named = async (name: string, work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (error) {
      if (errnoOf(error) !== DUPLICATE) throw error;
      throw problem(409, 'Name taken', `There is a routine ‘${name}’ already.`, 'Choose another name.');
    }
  };
  return { db, names, spoken, fit, named, ground, bell, tools };
}

type Helpers = ReturnType<typeof helpers>;

/** Routines, and procedures as files. */
export function routineRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...listed(shared), ...changed(shared), ...files(shared)];
}

/** Routines: read, made, saved. */
function listed({ db, spoken, fit, named, ground, bell }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/routines',
      shared: true,
      says: 'Routines: steps kept under a name, with inputs and outputs',
      role: 'proofreader',
      answer: Routines,
      handle: async () => {
        const all = await listRoutines(db);
        return { routines: await spoken(all, all) };
      },
    }),
    route({
      method: 'post',
      path: '/routines',
      says: 'Makes a routine',
      role: 'editor',
      body: NewRoutine,
      answer: Made,
      status: 201,
      handle: async ({ body: { name, document }, person }) => {
        const id = ground.ids();
        fit(await listRoutines(db), id, document);
        await named(name, () => createRoutine(ground, { id, name, document, person: person.id }));
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
  ];
}

/** A routine changed. */
function changed({ db, spoken, fit, named, ground, bell }: Helpers) {
  return [
    route({
      method: 'put',
      path: '/routines/{id}',
      says: 'Changes a routine; briefs under way finish on the version they began with',
      role: 'editor',
      body: NewRoutine,
      answer: Routine,
      handle: async ({ params, body: { name, document }, person, request, response }) => {
        const id = params['id']!;
        const before = await listRoutines(db);
        const own = before.find((row) => row.id === id);
        if (!own) throw notFound('routine');
        fit(before, id, document);
        let fresh = false;
        await named(name, async () => {
          fresh = await changeRoutine(ground, id, revFrom(request), { name, document, person: person.id });
        });
        const after = await listRoutines(db);
        const [now] = await spoken(
          after.filter((row) => row.id === id),
          after,
        );
        if (!now) throw notFound('routine');
        if (!fresh) throw changedMeanwhile('routine', now);
        tag(response, now.rev);
        bell.ring({ kind: 'event' });
        return now;
      },
    }),
  ];
}

/** Procedures as files. */
function files({ db, names, tools }: Helpers) {
  return [
    route({
      method: 'get',
      path: '/pipelines/{id}/procedure.yaml',
      says: 'The procedure as a YAML file, its sentences as comments',
      role: 'proofreader',
      mime: 'application/yaml',
      handle: async ({ params, response }) => {
        const row = await currentProcedure(db, params['id']!);
        if (!row) throw notFound('pipeline');
        response.type('application/yaml').send(procedureYaml(row.document, await names(await listRoutines(db))));
      },
    }),
    route({
      method: 'post',
      path: '/procedures/read',
      says: 'Reads a procedure from YAML; every problem is told with its line, and nothing is saved',
      role: 'editor',
      body: ProcedureText,
      answer: ReadProcedure,
      status: 200,
      handle: async ({ body: { yaml } }) => {
        const came = await tools.reader.read('procedure', { yaml });
        if (!came.ok)
          throw problem(422, 'Cannot be read', `The file: ${came.problem}.`, 'Give a procedure as Grivo writes it.');
        const read = came.value;
        if (read.ok) {
          readableOnly(read.document);
          return { document: read.document };
        }
        const first = read.problems[0]!;
        throw problem(
          422,
          'Cannot be read',
          `Line ${first.line}: ${first.problem}.`,
          first.mend,
          read.problems.map(({ line, column, place, problem: what, mend }) => ({
            place: `line ${line}, column ${column}${place === '' ? '' : `, ${place}`}`,
            problem: `${what}. ${mend}`,
          })),
        );
      },
    }),
    route({
      method: 'get',
      path: '/procedure.schema.json',
      says: 'The JSON Schema of procedure documents',
      role: 'proofreader',
      mime: 'application/schema+json',
      handle: async ({ response }) => {
        response
          .type('application/schema+json')
          .send(JSON.stringify(z.toJSONSchema(ReadProcedure.shape.document, { io: 'input', unrepresentable: 'any' })));
      },
    }),
  ];
}
