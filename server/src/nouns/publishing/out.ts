import { type ArticleDocument, articleText, type OutAs } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import { changeWrite } from '../../ground/store/event.ts';
import type { Write } from '../../ground/store/write.ts';
import type { Placed } from '../../ports/blogs/blog.ts';
import { outWrite } from '../articles/facts.ts';
import { pageWrite, termsOfArticle } from '../links/pages.ts';
import { dueWrites } from '../pings/due.ts';
import { articleWrites } from '../sketches/nearRepeats.ts';
import { outAsWrite, updatedWrite, withdrawnWrite } from './editions.ts';
import type { Carried, PublicationRow } from './publications.ts';

/** The page others of the blog can be linked to, and what near repeats are told by. */
function pageWrites({ article, blog }: PublicationRow, address: string, document: ArticleDocument): Write[] {
  const { title, language } = document;
  if (title === '') return [];
  const text = articleText(document);
  return [
    pageWrite(blog, { address, title, article, language, terms: termsOfArticle(document, text) }),
    ...articleWrites(article, { title, text, language }),
  ];
}

/** What is true of an article once it is out, as it was asked for. */
export function outWrites(
  ground: Ground,
  publication: PublicationRow,
  {
    at,
    as,
    desk,
    document,
    categories = null,
    author = null,
    carried = null,
  }: {
    at: Placed;
    as: OutAs;
    desk: number;
    document: ArticleDocument | null;
    categories?: readonly string[] | null;
    author?: string | null;
    carried?: Carried | null;
  },
): Write[] {
  return [
    outAsWrite(publication, as, { at, desk, categories, author, carried }),
    outWrite(publication.article, publication.blog),
    changeWrite(ground.ids, 'article', publication.article),
    ...(as === 'live' && document ? pageWrites(publication, at.address, document) : []),
    ...(as === 'live' ? dueWrites(publication, at.address) : []),
  ];
}

/** What is true once the blog shows another revision. */
export function updatedWrites(
  ground: Ground,
  publication: PublicationRow,
  at: Placed,
  document: ArticleDocument,
): Write[] {
  return [
    updatedWrite(publication, at),
    changeWrite(ground.ids, 'article', publication.article),
    ...(isForAll(publication)
      ? [...pageWrites(publication, at.address, document), ...dueWrites(publication, at.address)]
      : []),
  ];
}

/** What is true once a post is taken from a blog: nothing links to it any more. */
export function withdrawnWrites(ground: Ground, publication: PublicationRow): Write[] {
  const { article, blog } = publication;
  return [
    withdrawnWrite(publication),
    outWrite(article, blog),
    { text: 'DELETE FROM link_page WHERE blog = ? AND article = ?', parameters: [blog, article] },
    ...(isForAll(publication) ? dueWrites(publication, publication.address) : []),
    changeWrite(ground.ids, 'article', article),
  ];
}

/** Whether all readers of the blog find it. */
const isForAll = ({ state, as_ }: PublicationRow): boolean => state === 'live' && as_ !== 'private';
