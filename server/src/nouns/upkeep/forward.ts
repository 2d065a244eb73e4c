import { inlineText, type LinkIndex, type LinkPage, linkUses } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import { readRevision } from '../articles/repository.ts';
import { linkIndexOf } from '../links/indexes.ts';
import { linkPages } from '../links/pages.ts';

/** An older article that could lead to a newer one, on words it has already. */
export interface Forward {
  article: string;
  title: string;
  block: string;
  anchor: string;
  /** The sentence the words stand in. */
  sentence: string;
}

/** A newer article with the older ones that could lead to it. */
export interface ForwardTo {
  article: string;
  title: string;
  from: Forward[];
}

const MOST_NEW = 3;
const MOST_OLD = 60;
const MOST_SHOWN = 4;

/**
 * What went out last on a blog, and which older articles there say what it is about without leading to it. Older ones are
 * chosen by the words they share with its title, and read whole only then.
 */
export async function forwardLinks(ground: Ground, blog: string, language: string): Promise<ForwardTo[]> {
  const { db } = ground;
  const newest = await db.rows<{ article: string; title: string; revision: string }>(
    `SELECT p.article, a.title, p.revision FROM publication p FORCE INDEX (publication_of_blog) JOIN article a ON a.id = p.article
     WHERE p.blog = ? AND p.state = 'live' AND p.out_desk IS NOT NULL ORDER BY p.out_desk DESC, p.id DESC LIMIT ${MOST_NEW}`,
    [blog],
  );
  const pages = (await linkPages(db, blog)).filter(({ article }) => article !== undefined);
  const index = await linkIndexOf(ground, blog, language);
  const out: ForwardTo[] = [];
  for (const { article, title } of newest) {
    const page = pages.find((one) => one.article === article);
    if (!page) continue;
    const old = nearest(page, pages).slice(0, MOST_OLD);
    const from = await saying(ground, blog, page, old, index);
    if (from.length > 0) out.push({ article, title, from });
  }
  return out;
}

/** Other articles of the blog, those first that share most of the words of a page. */
function nearest(page: LinkPage, pages: readonly LinkPage[]): LinkPage[] {
  const terms = page.terms ?? new Map<string, number>();
  return pages
    .filter(({ article }) => article !== page.article)
    .map((one) => {
      let shared = 0;
      for (const [stem, weighs] of terms) shared += Math.min(weighs, one.terms?.get(stem) ?? 0);
      return { one, shared };
    })
    .filter(({ shared }) => shared > 0)
    .sort((a, b) => b.shared - a.shared)
    .map(({ one }) => one);
}

async function saying(
  ground: Ground,
  blog: string,
  page: LinkPage,
  old: readonly LinkPage[],
  index: LinkIndex,
): Promise<Forward[]> {
  const ids = old.flatMap(({ article }) => article ?? []);
  if (ids.length === 0) return [];
  const rows = await ground.db.rows<{ article: string; title: string; current: string }>(
    `SELECT a.id AS article, a.title, a.current FROM article a JOIN publication p ON p.article = a.id AND p.blog = ?
     WHERE a.id IN (?) AND p.state = 'live' AND a.current IS NOT NULL`,
    [blog, ids],
  );
  const found: (Forward & { score: number })[] = [];
  for (const { article, title, current } of rows) {
    const document = await readRevision(ground.db, current);
    const leads = linkUses(document).some(({ target }) =>
      target.to === 'article' ? target.article === page.article : target.address === page.address,
    );
    if (leads) continue;
    let best: (Forward & { score: number }) | null = null;
    for (const block of document.body) {
      if (block.type !== 'paragraph') continue;
      const text = inlineText(block.content);
      for (const { anchor, at, score, page: found } of index.fits(text)) {
        if (found.article !== page.article) continue;
        const isFree = block.content.some(({ text: part, link }) => !link && part.includes(anchor));
        if (isFree && score > (best?.score ?? 0.5))
          best = { article, title, block: block.id, anchor, sentence: sentenceAt(text, at, anchor), score };
      }
    }
    if (best) found.push(best);
  }
  return found
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST_SHOWN)
    .map(({ score: _, ...one }) => one);
}

const LONGEST_SENTENCE = 220;

/** The sentence words stand in, shortened about them where it is long. */
function sentenceAt(text: string, at: number, anchor: string): string {
  const before = text.slice(0, at);
  const from = Math.max(before.lastIndexOf('. '), before.lastIndexOf('? '), before.lastIndexOf('! ')) + 1;
  const ends = /[.!?](?= |$)/g;
  ends.lastIndex = at + anchor.length;
  const to = (ends.exec(text)?.index ?? text.length - 1) + 1;
  const whole = text.slice(from, to).trim();
  if (whole.length <= LONGEST_SENTENCE) return whole;
  const middle = whole.indexOf(anchor);
  const begin = Math.max(0, middle - 80);
  return `${begin > 0 ? '… ' : ''}${whole.slice(begin, begin + LONGEST_SENTENCE).trim()} …`;
}
