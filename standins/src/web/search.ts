import { stemsOf } from '../words/language.ts';

/** What can be searched: a title, and texts. */
export interface Searchable {
  slug: string;
  title: string;
  paragraphs: readonly string[];
}

export interface SearchHit<Page> {
  page: Page;
  score: number;
}

/** BM25 (Robertson and Zaragoza 2009) over titles and texts, the title counted three times; the best first. */
export function searchIndex<Page extends Searchable>(pages: readonly Page[]): (query: string) => SearchHit<Page>[] {
  const documents = pages.map((page) => {
    const title = stemsOf(page.title);
    const stems = [...title, ...title, ...title, ...page.paragraphs.flatMap((p) => stemsOf(p))];
    const counts = new Map<string, number>();
    for (const s of stems) counts.set(s, (counts.get(s) ?? 0) + 1);
    return { page, counts, length: stems.length };
  });
  const average = documents.reduce((sum, d) => sum + d.length, 0) / Math.max(1, documents.length);
  const holding = new Map<string, number>();
  for (const { counts } of documents) for (const s of counts.keys()) holding.set(s, (holding.get(s) ?? 0) + 1);
  const weight = (s: string) => {
    const n = holding.get(s) ?? 0;
    return Math.log(1 + (documents.length - n + 0.5) / (n + 0.5));
  };
  return (query) => {
    const stems = [...new Set(stemsOf(query))];
    return documents
      .map(({ page, counts, length }) => {
        let score = 0;
        for (const s of stems) {
          const f = counts.get(s) ?? 0;
          score += (weight(s) * f * 2.2) / (f + 1.2 * (0.25 + (0.75 * length) / average));
        }
        return { page, score };
      })
      .filter(({ score }) => score > 0)
      .sort((a, b) => b.score - a.score || (a.page.slug < b.page.slug ? -1 : 1));
  };
}

/** The hits with at least so much of the best one's score; what has less speaks of something else. */
export function nearBest<Page>(hits: readonly SearchHit<Page>[], share: number): SearchHit<Page>[] {
  return hits.filter(({ score }) => score >= hits[0]!.score * share);
}
