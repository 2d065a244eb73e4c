import { Readability } from '@mozilla/readability';
import { parseHTML } from 'linkedom';
import type { DomDocument, DomElement } from './dom.ts';
import { MOST_ELEMENTS, tangled } from './tangled.ts';
import type { DocumentText, Unread } from './text.ts';
import { withoutUnseen } from './unseen.ts';

const TEXTS = 'h1,h2,h3,h4,p,li,tr,td,th,blockquote,pre,figcaption,dd,dt';
/** Words of a cell above which its table only lays a page out: what stands in it is read as it would be elsewhere. */
const MOST_CELL_WORDS = 60;
const LEAST_WORDS = 6;

const wordsIn = (text: string): number => text.split(' ').length;
const evened = (text: string | null | undefined): string => (text ?? '').replace(/\s+/g, ' ').trim();

/** Paragraphs below an element, each with the heading it stands under; what repeats is read once. */
function paragraphsOf(root: DomElement, least: number): DocumentText['paragraphs'] {
  const out: DocumentText['paragraphs'] = [];
  const seen = new Set<string>();
  const rows = new Set<DomElement>();
  let heading = '';
  for (const node of root.querySelectorAll(TEXTS)) {
    const row = node.tagName === 'TR' ? rowText(node) : null;
    if (row !== null) rows.add(node);
    else if (node.tagName === 'TR') continue;
    // What stands in a row was read with it.
    const around = row === null ? node.closest('tr') : null;
    if (around && rows.has(around)) continue;
    const text = row ?? evened(node.textContent);
    if (text === '') continue;
    if (/^H[1-4]$/.test(node.tagName)) {
      heading = text.slice(0, 200);
      continue;
    }
    // A cell or a quote that holds paragraphs is read by them.
    if (row === null && node.querySelector('p,li')) continue;
    if (wordsIn(text) < (row === null ? least : 2) || seen.has(text)) continue;
    seen.add(text);
    out.push({ text, heading });
  }
  return out;
}

/** A row of a table of facts as one text, its cells side by side; null of one that only lays a page out. */
function rowText(row: DomElement): string | null {
  if (row.querySelector('tr')) return null;
  const cells = [...row.querySelectorAll('td,th')].map((cell) => evened(cell.textContent));
  const filled = cells.filter((cell) => cell !== '');
  if (filled.length < 2 || filled.some((cell) => wordsIn(cell) > MOST_CELL_WORDS)) return null;
  return filled.join(' | ');
}

/**
 * The readable text of an HTML page or document. Nothing in it is run, what nobody sees is not read, and what it says is
 * only ever data.
 * @param whole a document people gave, of which everything is text; else a page with things around its text
 */
export function readHtml(html: string, { whole }: { whole: boolean }): DocumentText | Unread {
  const problem = tangled(html);
  if (problem !== null) return { problem };
  const { document } = parseHTML(/<html[\s>]/i.test(html) ? html : `<html><body>${html}</body></html>`) as unknown as {
    document: DomDocument;
  };
  withoutUnseen(document);
  const title = evened(document.querySelector('h1')?.textContent) || evened(document.title);
  const language = document.documentElement?.getAttribute('lang')?.slice(0, 2).toLowerCase() ?? '';
  const published =
    document.querySelector('meta[property="article:published_time"]')?.getAttribute('content') ??
    document.querySelector('time[datetime]')?.getAttribute('datetime') ??
    null;
  const about = {
    title: title.slice(0, 500),
    language: /^[a-z]{2}$/.test(language) ? language : null,
    published: published?.slice(0, 100) ?? null,
  };
  if (whole) return { ...about, paragraphs: document.body ? paragraphsOf(document.body, 1) : [] };
  const article = new Readability(document as never, { charThreshold: 200, maxElemsToParse: MOST_ELEMENTS }).parse();
  if (!article?.content) return { ...about, paragraphs: [] };
  const { document: body } = parseHTML(`<html><body>${article.content}</body></html>`) as unknown as {
    document: DomDocument;
  };
  return { ...about, paragraphs: body.body ? paragraphsOf(body.body, LEAST_WORDS) : [] };
}
