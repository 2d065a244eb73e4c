import { CleanedPaste, Items, KeywordPaste, Made, NewSource, Sources } from '@grivo/contract';
import { cleanKeywords } from '@grivo/core';
import type { Product } from '../product.ts';
import { addKeywords } from '../sources/keywords.ts';
import { createSource, itemsOf, listSources, phrasesOf } from '../sources/repository.ts';
import { notFound, problem } from './problem.ts';
import { type Route, route } from './route.ts';

/** Lists of keywords. */
export function sourceRoutes({ ground, bell }: Product): Route[] {
  const { db } = ground;
  const must = async (id: string) => {
    if ((await db.rows('SELECT 1 FROM source WHERE id = ?', [id])).length === 0) throw notFound('source');
    return id;
  };
  const someText = (paste: string) => {
    if (paste.trim() === '')
      throw problem(
        422,
        'Nothing there',
        'The paste holds no keyword.',
        'Paste phrases, one a line or parted by commas.',
      );
    return paste;
  };
  return [
    route({
      method: 'get',
      path: '/sources',
      says: 'All sources, with how much they hold and how much of it was taken',
      role: 'proofreader',
      answer: Sources,
      handle: async () => ({ sources: await listSources(db) }),
    }),
    route({
      method: 'post',
      path: '/sources',
      says: 'Makes an empty keyword list',
      role: 'editor',
      body: NewSource,
      answer: Made,
      status: 201,
      handle: async ({ body }) => {
        const id = await createSource(ground, 'keywords', body.name);
        bell.ring({ kind: 'event' });
        return { id };
      },
    }),
    route({
      method: 'get',
      path: '/sources/{id}/items',
      says: 'What a source holds, with the briefs made of it',
      role: 'proofreader',
      answer: Items,
      handle: async ({ params }) => ({ items: await itemsOf(db, await must(params['id']!)) }),
    }),
    route({
      method: 'post',
      path: '/sources/{id}/keywords',
      says: 'Cleans a paste and adds what stays',
      role: 'editor',
      body: KeywordPaste,
      answer: CleanedPaste,
      handle: async ({ params, body }) => {
        const source = await must(params['id']!);
        const { kept, dropped, evened } = await addKeywords(ground, source, someText(body.paste));
        bell.ring({ kind: 'event' });
        return cleaned(kept.length, evened, dropped);
      },
    }),
    route({
      method: 'post',
      path: '/sources/{id}/keywords/look',
      says: 'Says what would become of a paste, and changes nothing',
      role: 'editor',
      body: KeywordPaste,
      answer: CleanedPaste,
      handle: async ({ params, body }) => {
        const held = await phrasesOf(db, await must(params['id']!));
        const { kept, dropped, evened } = cleanKeywords(someText(body.paste), held);
        return cleaned(kept.length, evened, dropped);
      },
    }),
  ];
}

function cleaned(added: number, evened: number, dropped: ReturnType<typeof cleanKeywords>['dropped']) {
  return {
    added,
    evened,
    dropped: dropped
      .slice(0, 2_000)
      .map(({ raw, reason, of }) => ({ phrase: raw.slice(0, 300), reason, of: of ?? null })),
  };
}
