import { Parser } from 'htmlparser2';

/** A page of more elements than this is no text for people. */
export const MOST_ELEMENTS = 200_000;
const MOST_DEEP = 400;
const MOST_ATTRIBUTES = 400_000;
const PART = 65_536;

/**
 * What keeps a page from being read at all: elements too deep in each other, in which readers of a document lose
 * themselves, or too many. Found before a document is made of it, which of such pages takes long.
 */
export function tangled(html: string): string | null {
  let count = 0;
  let attributes = 0;
  let depth = 0;
  let problem: string | null = null;
  const parser = new Parser({
    onopentagname() {
      count++;
      if (++depth > MOST_DEEP) problem = `its elements lie more than ${MOST_DEEP} deep in each other`;
      else if (count > MOST_ELEMENTS) problem = `it has more than ${MOST_ELEMENTS.toLocaleString('en-GB')} elements`;
    },
    onattribute() {
      if (++attributes > MOST_ATTRIBUTES) problem = 'its elements have more attributes than any page needs';
    },
    onclosetag() {
      depth--;
    },
  });
  for (let at = 0; at < html.length && problem === null; at += PART) parser.write(html.slice(at, at + PART));
  return problem;
}
