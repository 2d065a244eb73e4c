import { placeLinks, type StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import { linkPages } from '../nouns/links/repository.ts';
import type { Tools } from '../ports/tools.ts';
import { ownArticle } from './ownArticle.ts';

const A_PARAGRAPH = 1;

/** Links the article to pages of the blog, older posts and what Grivo published there. */
export function performLink(tools: Tools): Performer<StepOf<'link'>> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const pages = await linkPages(tools.ground.db, step.blog);
    const { article: linked, placed } = placeLinks(
      article.document,
      pages,
      { own: step.own, perParagraph: A_PARAGRAPH },
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
