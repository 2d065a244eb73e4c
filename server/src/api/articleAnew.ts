import { AnewPiece, AnewPrice, TitleAnew, TitlesAnew, TitlesPiece, WriteAnew, WrittenAnew } from '@grivo/contract';
import { articleDoubts, pressedWords } from '@grivo/core';
import type { z } from 'zod';
import { passagesGiven } from '../nouns/articles/list.ts';
import { madeBy } from '../nouns/articles/revisions.ts';
import { namer } from '../nouns/incidents/words.ts';
import { styleOfBrief } from '../nouns/styles/meant.ts';
import { titlePrice, titleRequest, writeTitles } from '../steps/titleAnew.ts';
import { anewPrice, anewRequest, writeAnew } from '../steps/writing/anew.ts';
import { must } from './articleEdits.ts';
import { problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';
import { standardWriter } from './writer.ts';

/** The longest a writer is waited for. */
const LONGEST_MS = 120_000;

/** Parts and titles of articles written anew, as somebody wants them. */
export function articleAnewRoutes(product: Product): Route[] {
  return [...anew(product), ...titlesAnew(product)];
}

/** Parts written anew with a note, beside what they are now: nothing of the article is changed by it. */
function anew(product: Product): Route[] {
  const { db, ids } = product.ground;
  const asked = async (id: string, body: z.infer<typeof WriteAnew>) => {
    const article = await must(product, id);
    const passages = await passagesGiven(db, article.brief);
    const style = (await styleOfBrief(db, article.brief))?.document ?? null;
    const made = anewRequest({
      document: body.document,
      ids: body.blocks,
      letters: body.letters,
      note: body.note,
      passages,
      style,
    });
    if (!made.ok) throw problem(422, 'Cannot be written anew', `${made.problem}.`, 'Pick a paragraph or a list.');
    return { article, passages, service: standardWriter(product.tools), request: made.request };
  };
  return [
    route({
      method: 'post',
      path: '/articles/{id}/anew/price',
      says: 'About what it costs to have a part of an article written anew',
      role: 'proofreader',
      body: WriteAnew,
      answer: AnewPrice,
      status: 200,
      secret: 'again',
      handle: async ({ params, body }) => {
        const { service, request } = await asked(params['id']!, body);
        return { micros: anewPrice(service, request) };
      },
    }),
    route({
      method: 'post',
      path: '/articles/{id}/anew',
      says: 'Has a part of an article written anew with a note; the article stays as it is until that is kept',
      role: 'editor',
      body: WriteAnew,
      answer: WrittenAnew,
      piece: AnewPiece,
      status: 200,
      handle: async ({ params, body, tell }) => {
        const { article, passages, service, request } = await asked(params['id']!, body);
        const written = await writeAnew(product.tools, service, request, {
          stepRun: (await madeBy(db, article.id)) ?? ids(),
          draw: body.again,
          signal: AbortSignal.timeout(LONGEST_MS),
          mark: ids().slice(-6),
          heard: (text) => tell({ text }),
        });
        if (!written.ok) throw await notWritten(product, written.failure);
        const { blocks, micros } = written.value;
        const doubts = articleDoubts({ body: blocks, language: body.document.language }, passages);
        return { blocks, doubts, micros };
      },
    }),
  ];
}

/** Other titles, as somebody wants them: nothing of the article is changed by it. */
function titlesAnew(product: Product): Route[] {
  const { db, ids } = product.ground;
  const asked = async (id: string, { document, note }: z.infer<typeof TitleAnew>) => {
    const article = await must(product, id);
    const style = (await styleOfBrief(db, article.brief))?.document ?? null;
    return { article, service: standardWriter(product.tools), request: titleRequest(document, note, style) };
  };
  return [
    route({
      method: 'post',
      path: '/articles/{id}/anew/title/price',
      says: 'About what it costs to have other titles written for an article',
      role: 'proofreader',
      body: TitleAnew,
      answer: AnewPrice,
      status: 200,
      secret: 'again',
      handle: async ({ params, body }) => {
        const { service, request } = await asked(params['id']!, body);
        return { micros: titlePrice(service, request) };
      },
    }),
    route({
      method: 'post',
      path: '/articles/{id}/anew/title',
      says: 'Has other titles written for an article with a note; it keeps the one it has until another is taken',
      role: 'editor',
      body: TitleAnew,
      answer: TitlesAnew,
      piece: TitlesPiece,
      status: 200,
      handle: async ({ params, body, tell }) => {
        const { article, service, request } = await asked(params['id']!, body);
        const written = await writeTitles(product.tools, service, request, {
          stepRun: (await madeBy(db, article.id)) ?? ids(),
          draw: body.again,
          signal: AbortSignal.timeout(LONGEST_MS),
          heard: (titles) => tell({ titles }),
        });
        if (!written.ok) throw await notWritten(product, written.failure);
        return written.value;
      },
    }),
  ];
}

/** Why the writer wrote nothing, in words. */
async function notWritten({ ground }: Product, failure: Parameters<typeof pressedWords>[0]) {
  const { sentence, mend } = pressedWords(failure, await namer(ground.db));
  return problem(502, 'Not written', sentence, mend);
}
