import { CleanedPaste, FiguresLookedUp, KeywordPaste, WidenedPhrases, WidenSeed } from '@grivo/contract';
import { type Failure, wordsOf } from '@grivo/core';
import { isThere } from '../ground/store/there.ts';
import { lookUpFigures, widen } from '../nouns/sources/figures.ts';
import { type Added, addKeywords, cleanedOf, heldPhrases, MOST_TOLD, type Phrases } from '../nouns/sources/keywords.ts';
import { phrasesOf, sourceWhole } from '../nouns/sources/repository.ts';
import { notFound, problem } from './problem.ts';
import type { Product } from './product.ts';
import { type Route, route } from './route.ts';

/** Failures that pass; nobody but the person who asked tries again. */
const PASSING: ReadonlySet<string> = new Set([
  'service-broken',
  'service-busy',
  'service-unreachable',
  'reply-unusable',
] satisfies Failure['code'][]);

/** What the routes share. */
function helpers(product: Product) {
  const { ground, bell, tools } = product;
  const { db } = ground;
  const whole = async (id: string) => {
    const source = await sourceWhole(db, id);
    if (!source) throw notFound('source');
    return source;
  };
  const must = async (id: string) => {
    if (!(await isThere(db, 'source', id))) throw notFound('source');
    return id;
  };
  const keywordList = async (id: string) => {
    const source = await whole(id);
    if (source.settings.kind === 'keywords') return { ...source, settings: source.settings };
    throw problem(422, 'No keyword list', 'Only keyword lists hold phrases.', 'Choose a keyword list.');
  };
  const serviceName = (id: string) => tools.services.get(id)?.name ?? id;
  const somePhrases = ({ paste, phrases }: KeywordPaste): Phrases => {
    if (phrases) return { phrases };
    if (paste.trim() === '')
      throw problem(
        422,
        'Nothing there',
        'Nothing that was pasted is a keyword.',
        'Paste phrases, one a line or separated by commas.',
      );
    return { paste };
  };
  return { bell, tools, db, whole, must, keywordList, serviceName, somePhrases };
}

type Helpers = ReturnType<typeof helpers>;

/** Phrases of keyword lists: added, measured, widened. */
export function phraseRoutes(product: Product): Route[] {
  const shared = helpers(product);
  return [...adding(shared), ...figures(shared)];
}

/** Phrases: cleaned and added. */
function adding({ bell, tools, db, whole, must, somePhrases }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/sources/{id}/keywords',
      says: 'Cleans a paste and adds what stays',
      role: 'editor',
      body: KeywordPaste,
      answer: CleanedPaste,
      handle: async ({ params, body }) => {
        const source = await must(params['id']!);
        const done = await addKeywords(tools, source, somePhrases(body), body.asIs);
        if (!done.ok) throw notCleaned(done.problem);
        bell.ring({ kind: 'event' });
        return cleaned(done.added);
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
        const { id, settings } = await whole(params['id']!);
        const read = await cleanedOf(tools.reader, somePhrases(body), await heldPhrases(db, id), settings, body.asIs);
        if (!read.ok) throw notCleaned(read.problem);
        return cleaned({ ...read.cleaned, measured: 0 });
      },
    }),
  ];
}

/** What is known of phrases. */
function figures({ bell, tools, db, keywordList, serviceName }: Helpers) {
  return [
    route({
      method: 'post',
      path: '/sources/{id}/figures',
      says: 'Looks up how often the phrases of a list are searched for, how hard each is, and what a search gives',
      role: 'editor',
      answer: FiguresLookedUp,
      status: 200,
      handle: async ({ params }) => {
        const { id, name, settings } = await keywordList(params['id']!);
        const { failure, ...looked } = await lookUpFigures(tools, id, settings.country, AbortSignal.timeout(110_000));
        bell.ring({ kind: 'event' });
        const words = failure && wordsOf(failure, (noun) => (noun === id ? name : serviceName(noun)));
        const passing = failure !== null && PASSING.has(failure.code);
        const mend = passing ? 'Look them up again in a while; what was learnt stays.' : (words?.mend ?? null);
        return { ...looked, trouble: words?.sentence ?? null, mend };
      },
    }),
    route({
      method: 'post',
      path: '/sources/{id}/widen',
      says: 'Phrases and questions around a phrase that a list does not hold yet; adds none',
      role: 'editor',
      body: WidenSeed,
      answer: WidenedPhrases,
      status: 200,
      handle: async ({ params, body }) => {
        const { id, settings } = await keywordList(params['id']!);
        const { failure, ...wider } = await widen(
          tools,
          body.phrase,
          await phrasesOf(db, id),
          settings.country,
          AbortSignal.timeout(30_000),
        );
        return { ...wider, trouble: failure && wordsOf(failure, serviceName).sentence };
      },
    }),
  ];
}

const notCleaned = (why: string) =>
  problem(422, 'Could not be read', `The phrases: ${why}.`, 'Try again, or paste fewer at once.');

function cleaned({ kept, dropped, leftOut, evened, measured }: Added) {
  return {
    added: kept.length,
    evened,
    measured,
    leftOut,
    dropped: dropped
      .slice(0, MOST_TOLD)
      .map(({ raw, reason, of }) => ({ phrase: raw.slice(0, 300), reason, of: of ?? null })),
  };
}
