import { visibleText } from '@grivo/core';
import { Parser } from 'htmlparser2';

const MOST_LETTERS = 200_000;

/** Elements after which a reader sees the next words apart. */
const APART = new Set('p br li h1 h2 h3 h4 h5 h6 div blockquote td th tr dd dt section article pre'.split(' '));
const NO_TEXT = new Set(['script', 'style', 'template', 'noscript']);
const PART = 16_384;

/** Text of a piece of HTML, or of a text that was escaped twice; in one pass, whatever it is. */
export function plain(html: string): string {
  if (!/[<&]/.test(html)) return visibleText(html).replace(/\s+/g, ' ').trim();
  let text = '';
  let without = 0;
  const parser = new Parser(
    {
      onopentagname(name) {
        if (NO_TEXT.has(name)) without++;
        else if (APART.has(name)) text += ' ';
      },
      ontext(said) {
        if (without === 0) text += said;
      },
      onclosetag(name) {
        if (NO_TEXT.has(name)) without = Math.max(0, without - 1);
        else if (APART.has(name)) text += ' ';
      },
    },
    { decodeEntities: true },
  );
  const given = html.slice(0, MOST_LETTERS);
  for (let at = 0; at < given.length; at += PART) parser.write(given.slice(at, at + PART));
  parser.end();
  return visibleText(text).replace(/\s+/g, ' ').trim();
}
