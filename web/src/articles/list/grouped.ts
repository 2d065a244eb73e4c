import type { Article } from '@grivo/contract';
import { dayLong } from '../../words/time.ts';

/** A line of the list: a heading with how many stand under it, as far as that is known, or an article. */
export type Line = { kind: 'head'; says: string; n: number | null } | { kind: 'article'; article: Article };

const sectionOf = (article: Article): string => {
  switch (article.standing) {
    case 'draft':
      return 'Drafts on blogs, which no reader sees';
    case 'out':
    case 'withdrawn':
      return article.outDesk === null ? 'Out' : `Out, week of ${weekOf(article.outDesk)}`;
    case 'set aside':
      return 'Set aside';
    default:
      return 'Coming';
  }
};

/**
 * Articles in the order they came, under the heading of their section; what is out week by week.
 * @param whole whether these are all there are: of the last heading it is not known else how many there will be
 * @param sections whether the order is one of sections; what fits words best is one list
 */
export function grouped(articles: readonly Article[], whole: boolean, sections: boolean): Line[] {
  const lines: Line[] = [];
  if (!sections) return articles.map((article) => ({ kind: 'article', article }));
  const heads: Extract<Line, { kind: 'head' }>[] = [];
  for (const article of articles) {
    const says = sectionOf(article);
    let head = heads.at(-1);
    if (head?.says !== says) {
      head = { kind: 'head', says, n: 0 };
      heads.push(head);
      lines.push(head);
    }
    head.n! += 1;
    lines.push({ kind: 'article', article });
  }
  const last = heads.at(-1);
  if (last && !whole) last.n = null;
  return lines;
}

function weekOf(ms: number): string {
  const date = new Date(ms);
  date.setHours(0, 0, 0, 0);
  date.setDate(date.getDate() - ((date.getDay() + 6) % 7));
  return dayLong(date.getTime()).split(' ').slice(1).join(' ');
}
