import { strToU8, zipSync } from 'fflate';
import { escaped } from '../web/pages.ts';
import type { DocumentPart } from './pdf.ts';

const run = (text: string): string => `<w:r><w:t xml:space="preserve">${escaped(text)}</w:t></w:r>`;
const styled = (style: string, text: string): string =>
  `<w:p><w:pPr><w:pStyle w:val="${style}"/></w:pPr>${run(text)}</w:p>`;

/** A document as DOCX (Office Open XML, ECMA-376): title, headings and paragraphs. */
export function docxOf(title: string, parts: readonly DocumentPart[]): Buffer {
  const body = [
    styled('Title', title),
    ...parts.flatMap(({ heading, paragraphs }) => [
      styled('Heading1', heading),
      ...paragraphs.map((text) => `<w:p>${run(text)}</w:p>`),
    ]),
  ].join('');
  const xml = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
  const word = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';
  const packages = 'http://schemas.openxmlformats.org/package/2006';
  const style = (id: string, name: string) =>
    `<w:style w:type="paragraph" w:styleId="${id}"><w:name w:val="${name}"/></w:style>`;
  return Buffer.from(
    zipSync({
      '[Content_Types].xml': strToU8(
        `${xml}<Types xmlns="${packages}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/><Override PartName="/word/styles.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.styles+xml"/></Types>`,
      ),
      '_rels/.rels': strToU8(
        `${xml}<Relationships xmlns="${packages}/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>`,
      ),
      'word/_rels/document.xml.rels': strToU8(
        `${xml}<Relationships xmlns="${packages}/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/styles" Target="styles.xml"/></Relationships>`,
      ),
      'word/styles.xml': strToU8(
        `${xml}<w:styles xmlns:w="${word}">${style('Title', 'Title')}${style('Heading1', 'heading 1')}</w:styles>`,
      ),
      'word/document.xml': strToU8(`${xml}<w:document xmlns:w="${word}"><w:body>${body}</w:body></w:document>`),
    }),
  );
}
