import { createHash } from 'node:crypto';
import type { PageText } from '@grivo/core';
import { Readability } from '@mozilla/readability';
import { parseHTML } from 'linkedom';
import type { Network } from '../network/network.ts';

export type ReadPage = { ok: true; page: PageText; digest: string } | { ok: false; reason: string };

/** Reads a page of the web as plain paragraphs, without what stands around them. */
export async function readPage(
  network: Network,
  address: string,
  language: string,
  signal: AbortSignal,
): Promise<ReadPage> {
  const outcome = await network.call({
    method: 'GET',
    address,
    timeLimitMs: 15_000,
    maxBytes: 5_000_000,
    headers: { accept: 'text/html' },
    signal,
  });
  if (outcome.kind !== 'reply')
    return { ok: false, reason: outcome.kind === 'refused' ? outcome.reason : outcome.detail };
  if (outcome.reply.status !== 200) return { ok: false, reason: `it answers ${outcome.reply.status}` };
  if (!/html/i.test(outcome.reply.headers['content-type'] ?? 'text/html'))
    return { ok: false, reason: 'it is no HTML page' };
  const page = pageText(outcome.reply.body.toString('utf8'), outcome.reply.address, language);
  if (page.paragraphs.length === 0) return { ok: false, reason: 'there is no text on it' };
  const digest = createHash('sha256')
    .update(JSON.stringify([page.address, page.paragraphs]))
    .digest('hex');
  return { ok: true, page, digest };
}

/** The readable text of an HTML page. Nothing in it is run, and what it says is only ever data. */
export function pageText(html: string, address: string, language: string): PageText {
  const { document } = parseHTML(html);
  const title = document.querySelector('h1')?.textContent?.trim() || document.title?.trim() || address;
  const lang = document.documentElement?.getAttribute('lang')?.slice(0, 2).toLowerCase() ?? '';
  const article = new Readability(document as never, { charThreshold: 200 }).parse();
  const paragraphs: string[] = [];
  if (article?.content) {
    const { document: body } = parseHTML(`<html><body>${article.content}</body></html>`);
    for (const node of body.querySelectorAll('p, li, td, blockquote')) {
      const text = (node.textContent ?? '').replace(/\s+/g, ' ').trim();
      if (text.split(' ').length >= 6 && !paragraphs.includes(text)) paragraphs.push(text);
    }
  }
  return { address, title: title.slice(0, 500), language: /^[a-z]{2}$/.test(lang) ? lang : language, paragraphs };
}
