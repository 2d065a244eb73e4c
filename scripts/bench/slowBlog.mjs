// A blog by Micropub (W3C) in memory that takes its time for every answer, and counts what it is asked.
import { createServer } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';
import { parentPort, Worker, workerData } from 'node:worker_threads';

const PAGE = 100;

const inThread = workerData?.slowBlog === true;

/**
 * A blog in a thread of its own, so that it answers when it should however busy who asks it is.
 * @param {number} answersMs how long it takes for each answer, in milliseconds
 */
export async function slowBlog(answersMs) {
  const thread = new Worker(new URL(import.meta.url), { workerData: { slowBlog: true }, execArgv: [] });
  const told = () => new Promise((resolve) => thread.once('message', resolve));
  const address = await told();
  const ask = (what) => {
    const answer = told();
    thread.postMessage(what);
    return answer;
  };
  await ask({ answersMs });
  return {
    address,
    /** What it was asked: how many calls, and the most at the same time. */
    seen: () => ask({}),
    answersIn: (ms) => ask({ answersMs: ms }),
    /** So many posts more, like the one there is. */
    fill: (many) => ask({ many }),
    /** So many pages others wrote, in its sitemap. */
    write: (pages) => ask({ pages }),
    close: () => thread.terminate(),
  };
}

if (inThread) {
  const blog = await serve();
  parentPort.postMessage(blog.address);
  parentPort.on('message', ({ answersMs, many = 0, pages = 0 }) => {
    if (answersMs) blog.seen.answersMs = answersMs;
    const [[first, post] = []] = blog.posts;
    for (let n = 1; n <= many; n++) blog.posts.set(`${first}-${n}`, { ...post, url: [`${first}-${n}`] });
    for (let n = 0; n < pages; n++) blog.pages.push(`${blog.address}/page-${n}-of-many`);
    parentPort.postMessage({ ...blog.seen });
  });
}

async function serve() {
  const seen = { calls: 0, now: 0, most: 0, answersMs: 0 };
  /** What its posts say, by address. */
  const posts = new Map();
  /** Addresses of pages others wrote, as its sitemap lists them. */
  const pages = [];
  const server = createServer((request, response) => {
    const parts = [];
    request.on('data', (part) => parts.push(part));
    request.on('end', async () => {
      seen.calls++;
      seen.most = Math.max(seen.most, ++seen.now);
      await pause(seen.answersMs);
      seen.now--;
      const { status = 200, headers = {}, body = {}, text } = answer(request, Buffer.concat(parts).toString());
      response.writeHead(status, {
        'content-type': text ? 'text/html; charset=utf-8' : 'application/json',
        ...headers,
      });
      response.end(text ?? JSON.stringify(body));
    });
  });
  await new Promise((ready) => server.listen(0, '127.0.0.1', ready));
  const address = `http://127.0.0.1:${server.address().port}`;

  function answer(request, text) {
    const at = new URL(request.url, address);
    if (at.pathname !== '/micropub') return page(at);
    if (request.method === 'POST') return act(JSON.parse(text));
    const of = at.searchParams.get('url');
    if (of) return posts.has(of) ? { body: { properties: posts.get(of) } } : { status: 404 };
    if (at.searchParams.get('q') === 'source') return listed(Number(at.searchParams.get('after') ?? 0));
    return { body: at.searchParams.get('q') === 'config' ? {} : { categories: [] } };
  }

  function act(said) {
    if (said.action) {
      Object.assign(posts.get(said.url) ?? {}, said.replace);
      return {};
    }
    const made = `${address}/posts/${said.properties['mp-slug'][0]}`;
    posts.set(made, { ...said.properties, url: [made] });
    return { status: 201, headers: { location: made } };
  }

  function listed(from) {
    const items = [...posts.keys()].slice(from, from + PAGE).map((url) => ({ properties: { url: [url] } }));
    const more = from + PAGE < posts.size;
    return { body: { items, paging: more ? { after: String(from + PAGE) } : {} } };
  }

  function page({ pathname }) {
    if (pathname === '/sitemap.xml') {
      const urls = pages.map((one) => `<url><loc>${one}</loc></url>`).join('');
      return {
        headers: { 'content-type': 'application/xml' },
        text: `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${urls}</urlset>`,
      };
    }
    const name = pathname.slice(1).replace(/[^a-z0-9]+/g, ' ');
    const says = `<p>What there is to know of ${name}: it is combed wet, and dries for a day before it is used.</p>`;
    return {
      text: `<!doctype html><html lang="en"><title>${name}</title><main><h1>${name}</h1>${says.repeat(12)}</main>`,
    };
  }

  return { seen, posts, pages, address };
}
