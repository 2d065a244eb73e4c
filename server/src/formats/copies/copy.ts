import {
  type ArticleDocument,
  articleFile,
  articleFlow,
  articleHtml,
  articlePage,
  articleText,
  type Resolve,
} from '@grivo/core';
import { knownBytes } from '../media/known.ts';
import { type PrintedPicture, printedPicture } from './picture.ts';

/** The forms an article is copied out in. */
export const COPIES = {
  Markdown: { ending: 'md', mime: 'text/markdown; charset=utf-8' },
  'HTML page': { ending: 'html', mime: 'text/html; charset=utf-8' },
  HTML: { ending: 'html', mime: 'text/html; charset=utf-8' },
  'plain text': { ending: 'txt', mime: 'text/plain; charset=utf-8' },
  Word: { ending: 'docx', mime: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document' },
  PDF: { ending: 'pdf', mime: 'application/pdf' },
} as const;
export type CopyForm = keyof typeof COPIES;

export type Copied = { ok: true; body: Buffer } | { ok: false; problem: string };

/**
 * An article in one of the forms. A PDF can fail for letters its face does not have.
 * @param bytesOf the bytes of a file by its digest; null when it is gone, and its picture is left out
 */
export async function copyOf(
  form: CopyForm,
  document: ArticleDocument,
  resolve: Resolve,
  bytesOf: (digest: string) => Promise<Buffer | null>,
): Promise<Copied> {
  const text = (body: string): Copied => ({ ok: true, body: Buffer.from(body) });
  switch (form) {
    case 'Markdown':
      return text(articleFile(document, resolve));
    case 'HTML':
      return text(articleHtml(document, resolve));
    case 'HTML page':
      return text(articlePage(document, await withinPage(document, resolve, bytesOf)));
    case 'plain text':
      return text(`${document.title}\n\n${articleText(document)}\n`);
    default: {
      const parts = articleFlow(document, resolve);
      const pictures = new Map<string, PrintedPicture>();
      for (const part of parts) {
        if (part.type !== 'picture') continue;
        const bytes = await bytesOf(part.file);
        const picture = bytes && (await printedPicture(bytes));
        if (picture) pictures.set(part.file, picture);
      }
      // Read when they are first needed: together they take as long to load as all of the rest.
      if (form === 'Word')
        return { ok: true, body: await (await import('./word.ts')).wordOf(document, parts, pictures) };
      return (await import('./pdf.ts')).pdfOf(document, parts, pictures);
    }
  }
}

/** A page that is one file holds its pictures itself (data addresses, RFC 2397). */
async function withinPage(
  { body }: ArticleDocument,
  resolve: Resolve,
  bytesOf: (digest: string) => Promise<Buffer | null>,
): Promise<Resolve> {
  const held = new Map<string, string>();
  const files = body.flatMap((block) => [
    ...(block.type === 'figure' ? [block.file] : []),
    ...(block.type === 'video' && block.picture ? [block.picture.file] : []),
    ...(block.type === 'chart' ? [resolve.chart?.(block.id)?.file ?? ''] : []),
  ]);
  for (const file of new Set(files)) {
    const bytes = file === '' ? null : await bytesOf(file);
    const known = bytes && knownBytes(bytes);
    if (known?.shown) held.set(file, `data:${known.mime};base64,${bytes!.toString('base64')}`);
  }
  return { ...resolve, file: (digest) => held.get(digest) ?? resolve.file(digest) };
}
