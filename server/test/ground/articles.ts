import type { Article } from '@grivo/contract';
import type { Ask } from './http.ts';

/** The article that has a title, as the list shows it. */
export async function articleTitled(ask: Ask, title: string): Promise<Article> {
  const { articles } = (await ask<{ articles: Article[] }>('GET', '/articles?limit=500')).body;
  const found = articles.find((one) => one.title === title);
  if (!found) throw new Error(`no article is called ${title}`);
  return found;
}
