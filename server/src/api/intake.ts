import { KeywordPaste, NewPipeline, NewSource, TakeItems } from '@grivo/contract';
import { CadenceRule, cadenceSentence, checkProcedure, ProcedureDocument, sentenceOf, sentenceText } from '@grivo/core';
import { Router } from 'express';
import { listBlogs } from '../blogs/repository.ts';
import { Procedures } from '../engine/briefState.ts';
import { createPipeline, switchPipeline } from '../pipelines/repository.ts';
import type { Product } from '../product.ts';
import { addKeywords } from '../sources/keywords.ts';
import { lookAndTake, takeChosen } from '../sources/look.ts';
import { createSource, listSources } from '../sources/repository.ts';
import { personFrom, signedIn } from './access.ts';
import { bodyOf, notFound, problem } from './problem.ts';

/** Sources and the pipelines they feed. */
export function intakeRoutes({ ground, bell }: Product): Router {
  const router = Router();
  const { db } = ground;
  const procedures = new Procedures();
  const editor = signedIn(ground, 'editor');
  const must = async (table: 'source' | 'pipeline', id: string) => {
    if ((await db.rows(`SELECT 1 FROM ${table} WHERE id = ?`, [id])).length === 0) throw notFound(table);
  };
  router.get('/sources', async (_request, response) => void response.json({ sources: await listSources(db) }));
  router.post('/sources', editor, async (request, response) => {
    const id = await createSource(ground, 'keywords', bodyOf(request, NewSource).name);
    response.status(201).json({ id });
  });
  router.post('/sources/:id/keywords', editor, async (request, response) => {
    const source = String(request.params['id']);
    await must('source', source);
    const { paste } = bodyOf(request, KeywordPaste);
    if (paste.trim() === '')
      throw problem(
        422,
        'Nothing there',
        'The paste holds no keyword.',
        'Paste phrases, one a line or parted by commas.',
      );
    const { kept, dropped, evened } = await addKeywords(ground, source, paste);
    response.json({ added: kept.length, evened, dropped });
  });
  router.get('/pipelines', async (_request, response) => {
    const rows = await db.rows<{ document: unknown }>(
      'SELECT p.id, p.name, p.is_on AS isOn, p.version, v.document FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version ORDER BY p.id',
    );
    const names = await namesNow();
    response.json({
      pipelines: rows.map(({ document, ...row }) => ({
        ...row,
        sentences: ProcedureDocument.parse(document).steps.map((step) => sentenceText(sentenceOf(step, names))),
      })),
    });
  });
  router.post('/pipelines', editor, async (request, response) => {
    const { name, document, openLimit } = bodyOf(request, NewPipeline);
    const [blogs, sources] = await Promise.all([listBlogs(db), listSources(db)]);
    const problems = checkProcedure(document, {
      names: await namesNow(),
      hasBlog: (id) => blogs.some((blog) => blog.id === id),
      hasSource: (id) => sources.some((source) => source.id === id),
    });
    const errors = problems.filter((found) => found.grade === 'error');
    if (errors.length > 0)
      throw problem(
        422,
        'Will not run',
        errors[0]!.sentence,
        errors[0]!.mend,
        errors.map((e) => ({ place: e.step, problem: `${e.sentence} ${e.mend}` })),
      );
    response.status(201).json({
      id: await createPipeline(ground, { name, document, openLimit, person: personFrom(response).id }),
      problems,
    });
  });
  router.post('/pipelines/:id/take', editor, async (request, response) => {
    const pipeline = String(request.params['id']);
    await must('pipeline', pipeline);
    const { items } = bodyOf(request, TakeItems);
    const taken = await db.transaction((sql) =>
      items ? takeChosen(sql, ground, pipeline, items) : lookAndTake(sql, ground, procedures, pipeline),
    );
    bell.ring({ kind: 'admit' });
    response.status(202).json(taken);
  });
  for (const [word, on] of [
    ['on', true],
    ['off', false],
  ] as const) {
    router.post(`/pipelines/:id/${word}`, editor, async (request, response) => {
      await must('pipeline', String(request.params['id']));
      await switchPipeline(ground, String(request.params['id']), on);
      response.status(204).end();
    });
  }
  async function namesNow() {
    const [blogs, sources] = await Promise.all([listBlogs(db), listSources(db)]);
    const find = (rows: readonly { id: string; name: string }[]) => (id: string) =>
      rows.find((row) => row.id === id)?.name ?? id;
    return { blog: find(blogs), source: find(sources) };
  }
  router.get('/blogs', async (_request, response) => {
    response.json({
      blogs: (await listBlogs(db)).map(({ id, name, address, language, cadence }) => ({
        id,
        name,
        address,
        language,
        cadence: cadenceSentence(CadenceRule.parse(cadence)),
      })),
    });
  });
  return router;
}
