import { placeLinks, type StepOf } from '@grivo/core';
import { addRevision, readRevision } from '../articles/repository.ts';
import type { Performer } from '../engine/performer.ts';
import { linkPages } from '../links/repository.ts';
import { ArticleField, field, missing } from './fields.ts';
import type { Tools } from './tools.ts';

const A_PARAGRAPH = 1;

/** Links the article to pages of the blog, older posts and what Grivo published there. */
export function performLink(tools: Tools): Performer<StepOf<'link'>> {
  return async (step, context) => {
    const article = field(context.fields, 'article', ArticleField);
    if (!article) return missing('article');
    const document = await readRevision(tools.ground.db, article.revision);
    const pages = await linkPages(tools.ground.db, step.blog);
    const { article: linked, placed } = placeLinks(
      document,
      pages,
      { own: step.own, perParagraph: A_PARAGRAPH },
      new Set([article.id]),
    );
    const { revision, words, writes } = await addRevision(
      tools.ground,
      article.id,
      article.revision,
      context.run.id,
      linked,
    );
    return {
      kind: 'done',
      fields: {
        article: { id: article.id, revision, words },
        links: placed.map(({ page, anchor, block }) => ({ address: page.address, title: page.title, anchor, block })),
      },
      writes,
    };
  };
}
