/** A page of a document: a heading, then paragraphs. */
export interface DocumentPart {
  heading: string;
  paragraphs: string[];
}

const WIDTH = 595;
const HEIGHT = 842;
const LEFT = 70;
const TOP = 780;
const LETTERS_A_LINE = 84;

/** Text in the encoding the standard fonts have (PDF 1.4, annex D), what is not in it left out. */
function encoded(text: string): string {
  const bytes = [...text].map((letter) => {
    const code = { '–': 0x96, '—': 0x97, '’': 0x92, '“': 0x93, '”': 0x94, '€': 0x80 }[letter] ?? letter.codePointAt(0)!;
    return code < 256 ? String.fromCharCode(code) : '?';
  });
  return bytes.join('').replace(/[\\()]/g, (mark) => `\\${mark}`);
}

function linesOf(paragraph: string): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of paragraph.split(' ')) {
    if (line !== '' && line.length + word.length >= LETTERS_A_LINE) {
      lines.push(line);
      line = '';
    }
    line = line === '' ? word : `${line} ${word}`;
  }
  return line === '' ? lines : [...lines, line];
}

/** A document as PDF 1.4: a part a page with its heading, a running head and the page's number. */
export function pdfOf(title: string, parts: readonly DocumentPart[]): Buffer {
  const pages = parts.map(({ heading, paragraphs }, n) => {
    const out = [`BT /F1 9 Tf ${LEFT} 810 Td (${encoded(title)}) Tj ET`];
    let y = TOP;
    const put = (text: string, size: number, step: number) => {
      out.push(`BT /F${size > 12 ? 2 : 1} ${size} Tf ${LEFT} ${y} Td (${encoded(text)}) Tj ET`);
      y -= step;
    };
    if (n === 0) put(title, 22, 40);
    put(heading, 15, 26);
    for (const paragraph of paragraphs) {
      for (const line of linesOf(paragraph)) put(line, 11, 14);
      y -= 10;
    }
    out.push(`BT /F1 9 Tf 290 40 Td (${n + 1}) Tj ET`);
    return out.join('\n');
  });
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    `<< /Type /Pages /Count ${pages.length} /Kids [${pages.map((_, n) => `${6 + n * 2} 0 R`).join(' ')}] >>`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>',
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica-Bold /Encoding /WinAnsiEncoding >>',
    `<< /Title (${encoded(title)}) >>`,
    ...pages.flatMap((content, n) => [
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${WIDTH} ${HEIGHT}] /Resources << /Font << /F1 3 0 R /F2 4 0 R >> >> /Contents ${7 + n * 2} 0 R >>`,
      `<< /Length ${Buffer.byteLength(content, 'latin1')} >>\nstream\n${content}\nendstream`,
    ]),
  ];
  let file = '%PDF-1.4\n';
  const places = objects.map((object, n) => {
    const at = Buffer.byteLength(file, 'latin1');
    file += `${n + 1} 0 obj\n${object}\nendobj\n`;
    return at;
  });
  const start = Buffer.byteLength(file, 'latin1');
  file += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${places.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('')}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R /Info 5 0 R >>\nstartxref\n${start}\n%%EOF\n`;
  return Buffer.from(file, 'latin1');
}
