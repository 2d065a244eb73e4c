// The text of a DOCX file, by what its parts are: headings, paragraphs, lists, cells.
import mammoth from 'mammoth';
import { packedProblem } from './packed.mjs';
import { readHtml } from './readHtml.mjs';

/** What a document may grow to when it is unpacked, in bytes. */
const MOST_UNPACKED = 200_000_000;

/** @param {Uint8Array} bytes */
export async function readDocx(bytes) {
  const problem = packedProblem(bytes, MOST_UNPACKED);
  if (problem !== null) return { problem };
  let html;
  try {
    ({ value: html } = await mammoth.convertToHtml(
      { buffer: Buffer.from(bytes) },
      { convertImage: mammoth.images.imgElement(async () => ({ src: '' })), includeDefaultStyleMap: true },
    ));
  } catch (error) {
    return { problem: `it is a broken DOCX (${error instanceof Error ? error.message : error})` };
  }
  return readHtml(html, { whole: true });
}
