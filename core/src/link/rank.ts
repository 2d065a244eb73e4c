import { contentStems } from '../sentence/sentence.ts';
import type { LinkPage } from './linkIndex.ts';

export interface RankedPage {
  page: LinkPage;
  stems: Set<string>;
  /** How much of the page's title the article speaks of, weighted by how rare the words are among the pages, 0 to 1. */
  score: number;
}

/**
 * Pages by how well their titles fit an article. Words weigh log(1 + N/n), the inverse document frequency over the
 * titles (Spärck Jones 1972), so words that every title holds decide nothing.
 */
export function rankPages(text: string, pages: readonly LinkPage[], language = 'en'): RankedPage[] {
  const stemmed = pages.map((page) => ({ page, stems: new Set(contentStems(page.title, language)) }));
  const frequency = new Map<string, number>();
  for (const { stems } of stemmed) for (const s of stems) frequency.set(s, (frequency.get(s) ?? 0) + 1);
  const weight = (s: string) => Math.log(1 + pages.length / (frequency.get(s) ?? 1));
  const said = new Set(contentStems(text, language));
  return stemmed
    .map(({ page, stems }) => {
      let all = 0;
      let met = 0;
      for (const s of stems) {
        all += weight(s);
        if (said.has(s)) met += weight(s);
      }
      return { page, stems, score: all === 0 ? 0 : met / all };
    })
    .filter((ranked) => ranked.score > 0.34)
    .sort((a, b) => b.score - a.score || (a.page.address < b.page.address ? -1 : 1));
}
