import { type Response, Router } from 'express';
import { isListed, type Listed, listedAt } from '../nouns/pings/repository.ts';
import { notFound } from './problem.ts';
import type { Product } from './product.ts';
import { found } from './publicLimits.ts';
import { escaped } from './publicPage.ts';

/** The list of our articles on a blog, for other sites to show: as JSON Feed and as a piece of HTML. */
export function listedRoutes({ ground }: Product): Router {
  const router = Router();
  const doors = found((token) => isListed(ground.db, token), {
    title: 'No such list',
    says: 'Nothing is read at this address, or not any more.',
    mend: 'Ask whoever gave it to you for a new one.',
  });
  const read = async (token: unknown): Promise<Listed> => {
    const listed = await listedAt(ground.db, String(token));
    if (!listed) throw notFound('address');
    return listed;
  };
  router.get('/listed/:token.json', ...doors, async (request, response) => {
    const listed = await read(request.params['token']);
    open(response)
      .type('application/feed+json')
      .send(JSON.stringify(jsonFeed(listed, ground.desk.now())));
  });
  router.get('/listed/:token.html', ...doors, async (request, response) => {
    const listed = await read(request.params['token']);
    open(response).type('html').send(htmlList(listed));
  });
  return router;
}

/** Read by programs of any site; a browser that opens it runs nothing of it. */
const open = (response: Response): Response =>
  response
    .setHeader('access-control-allow-origin', '*')
    .setHeader('cross-origin-resource-policy', 'cross-origin')
    .setHeader('cache-control', 'public, max-age=300')
    .setHeader('content-security-policy', "sandbox; default-src 'none'; base-uri 'none'; form-action 'none'");

/** JSON Feed 1.1 (jsonfeed.org): what readers would find in a list, each article by its address. */
function jsonFeed({ blog, articles }: Listed, now: number) {
  return {
    version: 'https://jsonfeed.org/version/1.1',
    title: blog.name,
    home_page_url: blog.address,
    language: blog.language,
    items: articles
      .filter(({ at }) => at <= now)
      .map(({ address, title, language, description, at }) => ({
        id: address,
        url: address,
        title,
        summary: description,
        // An item must hold a text (section ‘Items’).
        content_text: description === '' ? title : description,
        language,
        date_published: new Date(at).toISOString(),
      })),
  };
}

/** A list to be put into a page as it is; how it looks is for the page to say. */
function htmlList({ blog, articles }: Listed): string {
  const items = articles.map(
    ({ address, title, language, at }) =>
      `<li><a href="${escaped(address)}"${language === blog.language ? '' : ` hreflang="${escaped(language)}" lang="${escaped(language)}"`}>${escaped(title)}</a> <time datetime="${new Date(at).toISOString()}">${new Date(at).toISOString().slice(0, 10)}</time></li>`,
  );
  return `<ul class="articles" lang="${escaped(blog.language)}">\n${items.join('\n')}\n</ul>\n`;
}
