// The readable text of an HTML page or document. Nothing in it is run, and what it says is only ever data.
import { Readability } from '@mozilla/readability';
import { Parser } from 'htmlparser2';
import { parseHTML } from 'linkedom';

/** What nobody sees is not read: it may say things to machines that people are not told. */
const UNSEEN =
  '[hidden],[aria-hidden="true"],script,style,noscript,template,[style*="display:none"],[style*="display: none"],[style*="visibility:hidden"],[style*="visibility: hidden"],[style*="font-size:0"],[style*="font-size: 0"]';
const TEXTS = 'h1,h2,h3,h4,p,li,td,th,blockquote,pre,figcaption,dd,dt';
const LEAST_WORDS = 6;
/** A page of more elements than this is no text for people. */
const MOST_ELEMENTS = 200_000;

const wordsIn = (text) => text.split(' ').length;
const evened = (text) => (text ?? '').replace(/\s+/g, ' ').trim();

/** Paragraphs below an element, each with the heading it stands under; what repeats is read once. */
function paragraphsOf(root, least) {
  const out = [];
  const seen = new Set();
  let heading = '';
  for (const node of root.querySelectorAll(TEXTS)) {
    const text = evened(node.textContent);
    if (text === '') continue;
    if (/^H[1-4]$/.test(node.tagName)) {
      heading = text.slice(0, 200);
      continue;
    }
    // A cell or a quote that holds paragraphs is read by them.
    if (node.querySelector('p,li')) continue;
    if (wordsIn(text) < least || seen.has(text)) continue;
    seen.add(text);
    out.push({ text, heading });
  }
  return out;
}

const MOST_DEEP = 400;
const PART = 65_536;

/**
 * What keeps a page from being read at all: elements too deep in each other, in which readers of a document lose
 * themselves, or too many. Found before a document is made of it, which of such pages takes long.
 */
function tangled(html) {
  let count = 0;
  let depth = 0;
  let problem = null;
  const parser = new Parser({
    onopentagname() {
      count++;
      if (++depth > MOST_DEEP) problem = `its elements lie more than ${MOST_DEEP} deep in each other`;
      else if (count > MOST_ELEMENTS) problem = `it has more than ${MOST_ELEMENTS.toLocaleString('en-GB')} elements`;
    },
    onclosetag() {
      depth--;
    },
  });
  for (let at = 0; at < html.length && problem === null; at += PART) parser.write(html.slice(at, at + PART));
  return problem;
}

/**
 * @param {string} html
 * @param {{ whole: boolean }} how whole: a document people gave, of which everything is text; else a page with things around its text
 * @returns {{ title: string, language: string | null, published: string | null, paragraphs: { text: string, heading: string }[] } | { problem: string }}
 */
export function readHtml(html, { whole }) {
  const problem = tangled(html);
  if (problem !== null) return { problem };
  const { document } = parseHTML(/<html[\s>]/i.test(html) ? html : `<html><body>${html}</body></html>`);
  for (const node of document.querySelectorAll(UNSEEN)) node.remove();
  const title = evened(document.querySelector('h1')?.textContent) || evened(document.title);
  const language = document.documentElement?.getAttribute('lang')?.slice(0, 2).toLowerCase() ?? '';
  const published =
    document.querySelector('meta[property="article:published_time"]')?.getAttribute('content') ??
    document.querySelector('time[datetime]')?.getAttribute('datetime') ??
    null;
  const about = { title: title.slice(0, 500), language: /^[a-z]{2}$/.test(language) ? language : null, published };
  if (whole) return { ...about, paragraphs: document.body ? paragraphsOf(document.body, 3) : [] };
  const article = new Readability(document, { charThreshold: 200, maxElemsToParse: MOST_ELEMENTS }).parse();
  if (!article?.content) return { ...about, paragraphs: [] };
  const { document: body } = parseHTML(`<html><body>${article.content}</body></html>`);
  return { ...about, paragraphs: paragraphsOf(body.body, LEAST_WORDS) };
}
