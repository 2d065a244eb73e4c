import { Router } from 'express';
import type { Troubles } from '../ground/trouble.ts';
import { docxOf } from './docx.ts';
import { type DocumentPart, pdfOf } from './pdf.ts';

export interface DocumentMaterial {
  slug: string;
  title: string;
  form: 'pdf' | 'docx';
  parts: readonly DocumentPart[];
}

const TYPES = {
  pdf: 'application/pdf',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
};

/** A document's file. */
export function fileOf({ form, title, parts }: DocumentMaterial): Buffer {
  return form === 'pdf' ? pdfOf(title, parts) : docxOf(title, parts);
}

/** Documents at `/documents/slug.pdf`, and a sitemap of them and of every page. */
export function documentHost(
  documents: readonly DocumentMaterial[],
  pages: readonly string[],
  troubles: Troubles,
  origin: () => string,
): Router {
  const router = Router();
  router.get(
    '/documents/:file',
    troubles.around('web', (request) => {
      const found = documents.find(({ slug, form }) => `${slug}.${form}` === request.params['file']);
      return found
        ? { status: 200, type: TYPES[found.form], body: fileOf(found) }
        : { status: 404, type: 'text/plain', body: 'There is no such document.' };
    }),
  );
  const listed = [...pages, ...documents.map(({ slug, form }) => `/documents/${slug}.${form}`)];
  router.get(
    '/sitemap.xml',
    troubles.around('web', () => ({
      status: 200,
      type: 'application/xml',
      body: `<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${listed.map((path) => `<url><loc>${origin()}${path}</loc></url>`).join('')}</urlset>`,
    })),
  );
  return router;
}
