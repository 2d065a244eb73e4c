// What the articles of the demonstration are like as texts, or those of pages and phrases of one's own.
import { existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { articleFile, SHIPPED, stepKinds } from '@grivo/core';
import { client } from '../client.mjs';
import { live, setUp } from '../crockhaven.mjs';
import { startAll } from '../processes.mjs';
import { measured } from './text/measures.mjs';

/** Pages of a folder: Markdown with front matter of plain `name: value` lines. */
function pagesOf(folder) {
  return readdirSync(folder)
    .filter((name) => name.endsWith('.md'))
    .map((name) => {
      const [, head = '', body = ''] =
        /^---\n([\s\S]*?)\n---\n([\s\S]*)$/.exec(readFileSync(join(folder, name), 'utf8')) ?? [];
      const about = Object.fromEntries(
        head
          .split('\n')
          .map((line) => [line.slice(0, line.indexOf(':')).trim(), line.slice(line.indexOf(':') + 1).trim()]),
      );
      if (!about.title || !about.address) throw new Error(`${name} has no front matter with a title and an address.`);
      return {
        slug: name.replace(/\.md$/, ''),
        ...about,
        paragraphs: body.split(/\n\s*\n/).filter((text) => text.trim() !== '' && !/^#/.test(text.trim())),
      };
    });
}

/** The pages on a web of their own, with a look-up of them by their words. */
async function webOf(pages) {
  const words = (text) => new Set(text.toLowerCase().match(/\p{L}{3,}/gu) ?? []);
  const escaped = (text) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
  const server = createServer((request, response) => {
    const { pathname, searchParams } = new URL(request.url, origin());
    if (pathname === '/look-up') {
      const asked = words(searchParams.get('q') ?? searchParams.get('subject') ?? '');
      const found = pages
        .map((page) => ({
          page,
          hits: [...words(`${page.title} ${page.paragraphs.join(' ')}`)].filter((word) => asked.has(word)).length,
        }))
        .filter(({ hits }) => hits > 0)
        .sort((a, b) => b.hits - a.hits)
        .slice(0, Number(searchParams.get('limit') ?? 6));
      response.setHeader('content-type', 'application/json');
      response.end(
        JSON.stringify({
          pages: found.map(({ page }) => ({
            title: page.title,
            address: `${origin()}/${page.slug}`,
            about: page.paragraphs[0].slice(0, 160),
          })),
        }),
      );
      return;
    }
    const page = pages.find(({ slug }) => pathname === `/${slug}`);
    response.writeHead(page ? 200 : 404, { 'content-type': 'text/html; charset=utf-8' });
    response.end(
      page
        ? `<!doctype html><html lang="${page.language ?? 'en'}"><head><title>${escaped(page.title)}</title></head><body><main><h1>${escaped(page.title)}</h1>${page.paragraphs.map((text) => `<p>${escaped(text)}</p>`).join('')}</main></body></html>`
        : 'gone',
    );
  });
  const origin = () => `http://127.0.0.1:${server.address().port}`;
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { origin: origin(), close: () => server.close() };
}

/** Writes an article for each phrase from these pages, with the shipped procedure for guides. */
async function fromMaterial(call, origin, phrases, tell) {
  const { id: service } = await call('POST', '/services', {
    role: 'look-up',
    name: 'The pages given',
    address: `${origin}/look-up`,
    price: { microsPerThousandIn: 0, microsPerThousandOut: 0, microsPerPicture: 0 },
  });
  const { blogs } = await call('GET', '/blogs');
  const { id: source } = await call('POST', '/sources', { name: 'Phrases given' });
  await call('POST', `/sources/${source}/keywords`, { paste: phrases.join('\n') });
  const made = SHIPPED.find(({ key }) => key === 'guides').make({
    source,
    blog: blogs[0].id,
    language: 'en',
    columns: [],
  });
  const steps = made.steps.map((step) =>
    step.kind === 'take'
      ? { ...step, most: null }
      : step.kind === 'look up'
        ? { ...step, service }
        : step.kind === 'check'
          ? { ...step, words: { from: 1, to: 20_000 } }
          : step.kind === 'publish'
            ? { ...stepKinds.publish.fresh(step.id), blog: blogs[0].id, when: 'at once' }
            : step,
  );
  const { id } = await call('POST', '/pipelines', { name: 'From the pages given', document: { ...made, steps } });
  const { briefs } = await call('POST', `/pipelines/${id}/take`, {});
  for (let waited = 0; waited < 300_000; waited += 1_000) {
    const { counts } = await call('GET', `/pipelines/${id}`);
    if (counts.waiting + counts['in work'] === 0) {
      tell(
        `${briefs.length} briefs: ${Object.entries(counts)
          .filter(([, n]) => n > 0)
          .map(([name, n]) => `${n} ${name}`)
          .join(', ')}`,
      );
      break;
    }
    await new Promise((resolve) => setTimeout(resolve, 1_000));
  }
  return new Set(briefs);
}

/** Writes articles as files, to be read whole. */
function written(folder, articles) {
  mkdirSync(folder, { recursive: true });
  const resolve = { file: (digest) => digest, article: (id) => `#${id}` };
  for (const [n, { document, subject, passages }] of articles.entries()) {
    const rests = passages.map(({ text }) => `> ${text}`).join('\n>\n');
    const name = `${String(n + 1).padStart(2, '0')}-${subject
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .slice(0, 50)}.md`;
    writeFileSync(join(folder, name), `${articleFile(document, resolve)}\n\n---\n\n${rests}\n`);
  }
}

/**
 * @param {{ material?: string, out?: string }} options a folder with pages and phrases.txt, and one the articles are
 *   written into, each with the passages it rests on
 */
export async function text(tell, { material, out }) {
  const phrasesFile = material && join(material, 'phrases.txt');
  if (material && !existsSync(phrasesFile)) throw new Error(`${phrasesFile} is not there: a phrase a line.`);
  const web = material ? await webOf(pagesOf(material)) : null;
  const folder = mkdtempSync(join(tmpdir(), 'grivo-text-'));
  const all = await startAll(folder, { durable: false, ...(web ? { allow: [web.origin] } : {}) });
  try {
    const call = await client(all.address, all.owner);
    const parts = await setUp(call, all.standIns);
    let briefs = null;
    if (web) {
      const phrases = readFileSync(phrasesFile, 'utf8')
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean);
      briefs = await fromMaterial(call, web.origin, phrases, tell);
    } else await live(call, parts, 4, Date.now(), () => undefined);
    const { articles } = await call('GET', '/articles?limit=500');
    const whole = [];
    for (const { id, brief } of articles) {
      if (briefs !== null && !briefs.has(brief)) continue;
      const { document, passages } = await call('GET', `/articles/${id}`);
      if (document.body.length === 0) continue;
      whole.push({ document, passages, brief, subject: (await call('GET', `/briefs/${brief}`)).subject });
    }
    if (out) written(out, whole);
    const { figures, examples } = measured(whole);
    for (const { kind, why, briefs: of } of (await call('GET', '/today')).needs)
      if (kind === 'aside') tell(`  set aside (${of.length}): ${why}`);
    for (const heading of examples.unfit.slice(0, 12)) tell(`  unfit heading: ${heading}`);
    for (const one of examples.doubted.slice(0, 40)) tell(`  marked: ${one.slice(0, 1_200)}`);
    for (const sentence of examples.broken.slice(0, 12)) tell(`  broken: ${sentence}`);
    return figures;
  } finally {
    await all.stop();
    web?.close();
    rmSync(folder, { recursive: true, force: true });
  }
}
