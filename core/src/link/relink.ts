import type { ArticleDocument, Block, Inline, LinkTarget } from '../article/block.ts';
import { linksOf, withTexts } from '../article/text.ts';
import { plainAddress } from './counted.ts';

/** A link as it stands in an article. */
export interface LinkUse {
  block: string;
  target: LinkTarget;
  /** The words it stands on; empty where a picture or a button leads there. */
  anchor: string;
}

/** Every link of an article, in the order of the text. */
export function linkUses({ body }: Pick<ArticleDocument, 'body'>): LinkUse[] {
  return body.flatMap((block): LinkUse[] => {
    const inText: LinkUse[] = [];
    const take = (content: readonly Inline[]) => {
      for (const { text, link } of content) if (link) inText.push({ block: block.id, target: link, anchor: text });
      return [...content];
    };
    withTexts(block, { rich: take, credit: take });
    const others = linksOf(block).slice(inText.length);
    return [...inText, ...others.map((target) => ({ block: block.id, target, anchor: '' }))];
  });
}

/**
 * An article whose links to an address lead to another one, or are taken off; their words stay. A button needs somewhere to
 * lead, so that one is left as it is when nothing takes its place.
 * @param to null takes the links off
 * @returns the same article when nothing in it leads there
 */
export function relinked(article: ArticleDocument, from: string, to: string | null): ArticleDocument {
  const leads = (link: LinkTarget | undefined): boolean => link?.to === 'address' && link.address === from;
  const inline = (content: readonly Inline[]): Inline[] =>
    content.map((part) => {
      if (!part.link || !leads(part.link)) return part;
      if (to !== null) return { ...part, link: { ...part.link, to: 'address', address: to } as LinkTarget };
      const { link: _, ...plain } = part;
      return plain;
    });
  let changed = false;
  const body = article.body.map((block): Block => {
    if (!linksOf(block).some(leads)) return block;
    let next = withTexts(block, { rich: inline, credit: inline });
    if ('link' in next && leads(next.link)) {
      if (to !== null) next = { ...next, link: { to: 'address', address: to } } as Block;
      else if (next.type === 'figure') {
        const { link: _, ...plain } = next;
        next = plain;
      }
    }
    changed = true;
    return next;
  });
  return changed ? { ...article, body } : article;
}

/** A block whose links that are counted lead straight to where readers end. */
export function withPlainLinks<B extends Block>(block: B): B {
  const plain = (link: LinkTarget): LinkTarget =>
    link.to === 'address' ? { ...link, address: plainAddress(link.address) } : link;
  const inline = (content: readonly Inline[]): Inline[] =>
    content.map((part) => (part.link ? { ...part, link: plain(part.link) } : part));
  const next = withTexts(block, { rich: inline, credit: inline });
  return 'link' in next && next.link ? { ...next, link: plain(next.link) } : next;
}
