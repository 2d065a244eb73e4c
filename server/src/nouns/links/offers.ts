import type { LinkTarget } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import { addressesFor, outsideIndex } from './addresses.ts';
import { linkIndexOf } from './indexes.ts';
import { pagesShown } from './pages.ts';

/** Somewhere words could lead. */
export interface Offer {
  to: LinkTarget;
  title: string;
  /** Where that is, as people read it. */
  at: string;
}

const MOST = 8;
const MOST_NEAR = 4;

/**
 * Where words of an article could lead: pages of its blog and kept addresses that are about them, then pages whose titles hold
 * them.
 * @param self the article itself, which leads nowhere to itself
 */
export async function offersFor(
  ground: Ground,
  { blog, language, words, self }: { blog: string; language: string; words: string; self: string },
): Promise<Offer[]> {
  const own = await linkIndexOf(ground, blog, language);
  const kept = await addressesFor(ground.db, blog);
  const fits = [...own.fits(words), ...outsideIndex(kept, [], language).fits(words)];
  const about = fits
    .filter(({ page }) => page.article !== self)
    .map(({ page }) => ({
      to: targetOf(page.address, page.article ?? null),
      title: page.title,
      at: page.address,
    }));
  const { pages } = await pagesShown(ground.db, blog, { find: words, after: '', most: MOST });
  const named = pages
    .filter(({ article, isBarred }) => article !== self && !isBarred)
    .map(({ title, address, article }) => ({ to: targetOf(address, article), title, at: address }));
  const once = new Map<string, Offer>();
  for (const offer of [...about, ...named]) if (!once.has(offer.at)) once.set(offer.at, offer);
  return [...once.values()].slice(0, MOST);
}

/** Pages of its blog that are about what a text of an article says, where no words of it lead there. */
export async function nearTo(
  ground: Ground,
  { blog, language, words, self }: { blog: string; language: string; words: string; self: string },
): Promise<Offer[]> {
  const own = await linkIndexOf(ground, blog, language);
  return own
    .near(words)
    .filter(({ page }) => page.article !== self)
    .slice(0, MOST_NEAR)
    .map(({ page }) => ({ to: targetOf(page.address, page.article ?? null), title: page.title, at: page.address }));
}

/** Links to our own articles keep the article: its address may change. */
const targetOf = (address: string, article: string | null): LinkTarget =>
  article === null ? { to: 'address', address } : { to: 'article', article };
