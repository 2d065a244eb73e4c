import { placeLinks, type StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import { linkPages } from '../nouns/links/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { styleFor } from './inStyle.ts';
import { ownArticle } from './ownArticle.ts';

const WITHOUT_STYLE = { most: null, aParagraph: 1, inOpening: true };

/** Links the article to pages of the blog, older posts and what Grivo published there. */
export function performLink(tools: Tools): Performer<StepOf<'link'>> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const pages = await linkPages(tools.ground.db, step.blog);
    const links = (await styleFor(tools, context, step))?.document.links ?? WITHOUT_STYLE;
    const { article: linked, placed } = placeLinks(
      article.document,
      pages,
      {
        own: Math.min(step.own, links.most ?? step.own),
        perParagraph: links.aParagraph,
        inOpening: links.inOpening,
      },
      new Set([article.id]),
    );
    const { article: changed, writes } = await article.change(linked);
    return {
      kind: 'done',
      fields: {
        article: changed,
        links: placed.map(({ page, anchor, block }) => ({ address: page.address, title: page.title, anchor, block })),
      },
      writes,
    };
  };
}
