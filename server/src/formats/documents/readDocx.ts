import mammoth from 'mammoth';
import { packedProblem } from './packed.ts';
import { readHtml } from './readHtml.ts';
import type { DocumentText, Unread } from './text.ts';

/** What a document may grow to when it is unpacked, in bytes. */
const MOST_UNPACKED = 200_000_000;

/** The text of a DOCX file, by what its parts are: headings, paragraphs, lists, cells. */
export async function readDocx(bytes: Uint8Array): Promise<DocumentText | Unread> {
  const problem = packedProblem(bytes, MOST_UNPACKED);
  if (problem !== null) return { problem };
  let html: string;
  try {
    ({ value: html } = await mammoth.convertToHtml(
      { buffer: Buffer.from(bytes) },
      {
        convertImage: mammoth.images.imgElement(async () => ({ src: '' })),
        includeDefaultStyleMap: true,
        styleMap: ["p[style-name='Title'] => h1:fresh"],
      },
    ));
  } catch (error) {
    return { problem: `it is a broken DOCX (${error instanceof Error ? error.message : String(error)})` };
  }
  return readHtml(html, { whole: true });
}
