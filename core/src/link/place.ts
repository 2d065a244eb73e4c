import type { ArticleDocument, Block, Inline, LinkTarget } from '../article/block.ts';
import { inlineText } from '../article/inline.ts';
import { linksOf } from '../article/text.ts';
import type { Fit, LinkIndex } from './linkIndex.ts';

export interface PlacedLink {
  page: Fit['page'];
  block: string;
  anchor: string;
}

export interface LinkLimits {
  /** Most links in the article. */
  own: number;
  /** Most links in one paragraph. */
  perParagraph: number;
  /** Whether paragraphs above the first heading may have any; they may where it is not said. */
  inOpening?: boolean;
}

/** What a link more in the same section is worth less: links are spread over the text. */
const CROWDED = 0.12;

interface Candidate extends Fit {
  block: string;
  section: number;
}

/**
 * Links an article to pages that fit its paragraphs: best first, on whole noun phrases that stand there and say what the page
 * is about, spread over its sections. Never to itself, never twice to one page, never inside a link, a heading or a list.
 * @param self addresses and ids that are this article
 */
export function placeLinks(
  article: ArticleDocument,
  index: LinkIndex,
  limits: LinkLimits,
  self: ReadonlySet<string> = new Set(),
): { article: ArticleDocument; placed: PlacedLink[] } {
  if (limits.own === 0 || index.isEmpty) return { article, placed: [] };
  const used = new Set(linkedAlready(article.body));
  const open = candidatesIn(article.body, index, limits).filter(
    ({ page }) => !self.has(page.address) && !(page.article !== undefined && self.has(page.article)),
  );
  const perBlock = new Map<string, number>();
  const perSection = new Map<number, number>();
  const placed: PlacedLink[] = [];
  let { body } = article;
  const worth = ({ score, section }: Candidate) => score - CROWDED * (perSection.get(section) ?? 0);
  while (placed.length < limits.own) {
    let best: Candidate | null = null;
    for (const one of open) {
      if (used.has(targetKey(one.page)) || (perBlock.get(one.block) ?? 0) >= limits.perParagraph) continue;
      if (!best || worth(one) > worth(best) + 1e-9) best = one;
    }
    if (!best) break;
    const found = best;
    const linked = body.map((block) =>
      block.id === found.block && block.type === 'paragraph'
        ? { ...block, content: withLink(block.content, found.at, found.anchor, targetOf(found.page)) }
        : block,
    );
    const changed = linked.some((block, i) => block !== body[i] && linksOf(block).length > linksOf(body[i]!).length);
    if (!changed) {
      // Those words are linked already.
      open.splice(open.indexOf(found), 1);
      continue;
    }
    used.add(targetKey(found.page));
    perBlock.set(found.block, (perBlock.get(found.block) ?? 0) + 1);
    perSection.set(found.section, (perSection.get(found.section) ?? 0) + 1);
    body = linked;
    placed.push({ page: found.page, block: found.block, anchor: found.anchor });
  }
  return { article: { ...article, body }, placed };
}

/** What fits each paragraph, in the order of the text. */
function candidatesIn(body: readonly Block[], index: LinkIndex, limits: LinkLimits): Candidate[] {
  const opening = new Set(limits.inOpening === false ? openingOf(body) : []);
  const out: Candidate[] = [];
  let section = 0;
  let heading = '';
  for (const block of body) {
    if (block.type === 'heading') {
      section++;
      heading = block.text;
    }
    if (block.type !== 'paragraph' || opening.has(block.id)) continue;
    for (const fit of index.fits(inlineText(block.content), heading)) out.push({ ...fit, block: block.id, section });
  }
  return out;
}

/** Ids of the blocks above the first heading. */
function openingOf(body: readonly Block[]): string[] {
  const first = body.findIndex(({ type }) => type === 'heading');
  return body.slice(0, first < 0 ? 1 : first).map(({ id }) => id);
}

function targetOf(page: Fit['page']): LinkTarget {
  return page.article === undefined
    ? { to: 'address', address: page.address }
    : { to: 'article', article: page.article };
}

function targetKey(page: Fit['page']): string {
  return page.article ?? page.address;
}

function linkedAlready(body: readonly Block[]): string[] {
  return body.flatMap(linksOf).map((link) => (link.to === 'article' ? link.article : link.address));
}

/**
 * A paragraph's content with the words at a place of its text linked; as it was where those words are linked already, or go
 * over what is marked differently.
 */
export function withLink(content: readonly Inline[], at: number, anchor: string, link: LinkTarget): Inline[] {
  let from = 0;
  const out: Inline[] = [];
  for (const part of content) {
    const begin = at - from;
    from += part.text.length;
    if (part.link || begin < 0 || begin + anchor.length > part.text.length) {
      out.push(part);
      continue;
    }
    if (part.marks?.includes('code') || part.text.slice(begin, begin + anchor.length) !== anchor) return [...content];
    const pieces: Inline[] = [
      { ...part, text: part.text.slice(0, begin) },
      { ...part, text: anchor, link },
      { ...part, text: part.text.slice(begin + anchor.length) },
    ];
    out.push(...pieces.filter((piece) => piece.text !== ''));
  }
  return out;
}
