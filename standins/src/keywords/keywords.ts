import { createHash } from 'node:crypto';
import { type Request, Router } from 'express';
import type { Answer, Troubles } from '../ground/trouble.ts';
import type { WebPage } from '../web/pages.ts';
import { nearBest, searchIndex } from '../web/search.ts';
import { stemsOf } from '../words/language.ts';

/** A page on another site, as far as a search knows it. */
export interface FoundElsewhere {
  host: string;
  slug: string;
  title: string;
  paragraphs: readonly string[];
}

/** What people search for, by subject, in groups of the same meaning. */
export type Searches = Readonly<Record<string, readonly (readonly string[])[]>>;

/** Results have at least this share of the best one's score. */
const LEAST_SHARE = 0.5;
const MOST_RESULTS = 10;
const MOST_PHRASES = 200;
const MOST_RELATED = 60;

interface Measured {
  phrase: string;
  /** Searches a month; null where too few are made to say. */
  volume: number | null;
  difficulty: number | null;
}

/**
 * Figures of phrases, as a keyword service gives them: how often each is searched for, how hard it is to be found for it,
 * which pages a search gives, which other phrases there are, and which a site is found for. Figures are drawn from the
 * phrase itself, so that they stay the same; results are a search over the pages this world has.
 */
export function keywordService(
  pages: readonly WebPage[],
  elsewhere: readonly FoundElsewhere[],
  searches: Searches,
  troubles: Troubles,
  origin: () => string,
): Router {
  const router = Router();
  const search = searchIndex([
    ...pages.map((page) => ({
      ...page,
      host: page.site,
      address: () => `${origin()}/pages/${page.site}/${page.slug}`,
    })),
    ...elsewhere.map((page) => ({ ...page, address: () => `https://${page.host}/${page.slug}` })),
  ]);
  const found = (phrase: string) => nearBest(search(phrase), LEAST_SHARE).slice(0, MOST_RESULTS);
  const measured = (phrase: string) => measuredAs(phrase, found(phrase)[0]?.page.slug ?? phrase);
  const bank = [...new Set(Object.values(searches).flat(2))];
  let sites: Map<string, string[]> | null = null;
  /** Phrases each site stands among the first three for. */
  const bySite = () => {
    sites ??= sitesOf(bank, (phrase) => found(phrase).slice(0, 3));
    return sites;
  };
  router.post(
    '/keywords/phrases',
    troubles.around('keywords', (request): Answer => {
      const phrases: unknown = (request.body as { phrases?: unknown } | undefined)?.phrases;
      if (!Array.isArray(phrases) || phrases.length > MOST_PHRASES)
        return { status: 400, body: { error: `a list of at most ${MOST_PHRASES} phrases is wanted` } };
      return {
        status: 200,
        body: {
          phrases: phrases.map((phrase) => ({
            ...measured(String(phrase)),
            results: found(String(phrase)).map(({ page }) => page.address()),
          })),
        },
      };
    }),
  );
  router.get(
    '/keywords/related',
    troubles.around('keywords', (request): Answer => {
      const seed = String(request.query['phrase'] ?? '');
      return { status: 200, body: { phrases: related(seed, bank, found).map(measured) } };
    }),
  );
  router.get(
    '/keywords/site',
    troubles.around('keywords', (request: Request): Answer => {
      const given = String(request.query['address'] ?? '');
      const host = URL.canParse(given) ? new URL(given).host : given;
      return { status: 200, body: { phrases: (bySite().get(host) ?? []).map(measured) } };
    }),
  );
  return router;
}

/** Phrases that share a word with the seed, or pages; the nearest first. */
function related(
  seed: string,
  bank: readonly string[],
  found: (phrase: string) => { page: { slug: string } }[],
): string[] {
  const stems = new Set(stemsOf(seed));
  const pages = new Set(found(seed).map(({ page }) => page.slug));
  return bank
    .map((phrase) => {
      const own = stemsOf(phrase);
      const shared = own.filter((stem) => stems.has(stem)).length / Math.max(1, stems.size);
      const same = found(phrase)
        .slice(0, 3)
        .filter(({ page }) => pages.has(page.slug)).length;
      return { phrase, near: shared + same / 3 };
    })
    .filter(({ phrase, near }) => near >= 0.6 && phrase !== seed)
    .sort((a, b) => b.near - a.near || (a.phrase < b.phrase ? -1 : 1))
    .slice(0, MOST_RELATED)
    .map(({ phrase }) => phrase);
}

/** Two figures from 0 to 1, the same for the same text each time. */
function chances(text: string): [number, number] {
  const digest = createHash('sha256').update(text.toLowerCase()).digest();
  return [digest[0]! / 255, digest[1]! / 255];
}

/** Some subjects are searched for more and are harder than others; longer phrases are searched for less, and are easier. */
function measuredAs(phrase: string, subject: string): Measured {
  const [one, other] = chances(phrase);
  const [sought, hard] = chances(subject);
  const words = phrase.trim().split(/\s+/).length;
  const volume = Math.round(10 ** (3.6 - 0.2 * words - 0.8 * one + 1.1 * (sought - 0.5)) / 10) * 10;
  return {
    phrase,
    volume: volume < 10 ? null : volume,
    difficulty: Math.max(1, Math.min(96, Math.round(62 - 4 * words + 12 * (other - 0.5) + 56 * (hard - 0.5)))),
  };
}

/** Phrases by the sites that are found for them. */
function sitesOf(phrases: readonly string[], found: (phrase: string) => { page: { host: string } }[]) {
  const sites = new Map<string, string[]>();
  for (const phrase of phrases)
    for (const host of new Set(found(phrase).map(({ page }) => page.host)))
      sites.set(host, [...(sites.get(host) ?? []), phrase]);
  return sites;
}
