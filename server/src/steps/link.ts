import { type ArticleDocument, applyRules, placeLinks, type StepOf } from '@grivo/core';
import type { Performer } from '../engine/performer.ts';
import { missing } from '../nouns/articles/fields.ts';
import { passagesGiven } from '../nouns/articles/list.ts';
import { addressesFor, outsideIndex } from '../nouns/links/addresses.ts';
import { linkIndexOf } from '../nouns/links/indexes.ts';
import { ruleSetFor } from '../nouns/links/rules.ts';
import type { Tools } from '../ports/tools.ts';
import { styleFor } from './inStyle.ts';
import { ownArticle } from './ownArticle.ts';
import { blogFollowed } from './whichBlog.ts';

const WITHOUT_STYLE = { most: null, aParagraph: 1, inOpening: true };

/** One link that was made, as later steps and people see it. */
interface Made {
  address: string;
  title: string;
  anchor: string;
  block: string;
  by: 'page' | 'trusted page' | 'rule';
}

/** Links the article to pages of the blog and trusted ones outside, and the words that have a rule. */
export function performLink(tools: Tools): Performer<StepOf<'link'>> {
  return async (step, context) => {
    const article = await ownArticle(tools, context);
    if (!article) return missing('article');
    const links = (await styleFor(tools, context, step))?.document.links ?? WITHOUT_STYLE;
    const limits = { perParagraph: links.aParagraph, inOpening: links.inOpening };
    const made: Made[] = [];
    let { document } = article;
    const place = (index: Parameters<typeof placeLinks>[1], most: number, by: Made['by']) => {
      const linked = placeLinks(document, index, { ...limits, own: most }, new Set([article.id]));
      document = linked.article;
      made.push(
        ...linked.placed.map(({ page, anchor, block }) => ({
          address: page.address,
          title: page.title,
          anchor,
          block,
          by,
        })),
      );
    };
    const blog = await blogFollowed(tools, step.blog, context, document.language);
    if (step.rules) document = await byRules(tools, blog, document, made);
    const own = await linkIndexOf(tools.ground, blog, document.language);
    place(own, Math.min(step.own, links.most ?? step.own), 'page');
    if (step.outside > 0) {
      const kept = await addressesFor(tools.ground.db, blog);
      const rests = (await passagesGiven(tools.ground.db, context.brief.id)).map(({ locator }) => locator);
      const sources = rests.map(({ address, title }) => ({ address, title, language: null }));
      const once = [...new Map(sources.map((one) => [one.address, one])).values()];
      place(outsideIndex(kept, once, document.language), step.outside, 'trusted page');
    }
    const { article: changed, writes } = await article.change(document);
    return { kind: 'done', fields: { article: changed, links: made }, writes };
  };
}

async function byRules(tools: Tools, blog: string, before: ArticleDocument, made: Made[]): Promise<ArticleDocument> {
  const set = await ruleSetFor(tools.ground.db, blog, before.language);
  const { article, placed } = applyRules(before, set);
  const addresses = new Map(set.rules.map((rule) => [rule.id, rule.address]));
  for (const { rule, block, words } of placed)
    made.push({ address: addresses.get(rule)!, title: '', anchor: words, block, by: 'rule' });
  return article;
}
