import { createBlog } from '../../server/src/nouns/blogs/create.ts';
import { addKeywords } from '../../server/src/nouns/sources/keywords.ts';
import { createSource } from '../../server/src/nouns/sources/repository.ts';
import { everyDay } from '../cadence.mjs';

/** A slow blog connected, and a list of phrases. @returns the ids of both */
export async function connected({ ground, tools }, { address }, phrases) {
  const { id } = await createBlog(tools, {
    name: 'Slow',
    address,
    endpoint: `${address}/micropub`,
    secret: 'a-secret',
    language: 'en',
    cadence: everyDay(5),
    timeLimitMs: 20_000,
  });
  const source = await createSource(ground, { kind: 'keywords' }, 'Bench');
  await addKeywords(tools, source, { paste: phrases.join('\n') });
  return { id, source };
}
