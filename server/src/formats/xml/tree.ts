import { Parser } from 'htmlparser2';

/** An element: its local name in small letters, its attributes, the text directly in it, its children in order. */
export interface Element {
  name: string;
  /** The prefix it was written with, as `media`; empty for none. */
  prefix: string;
  attributes: Record<string, string>;
  text: string;
  children: Element[];
}

export type ReadXml = { ok: true; root: Element } | { ok: false; problem: string };

const MOST_DEEP = 100;
const MOST_ELEMENTS = 400_000;
/** Letters handed over at once, so that what is refused is refused early. */
const PART = 65_536;

/**
 * A document of XML as a tree, forgiving what feeds get wrong: names that are not closed, bare ampersands, letters before
 * the first element. Entities a document defines are refused, since they can grow without end (Billion laughs), and so is
 * what lies too deep or holds too much.
 */
export function readXml(text: string): ReadXml {
  if (/<!ENTITY/i.test(text)) return { ok: false, problem: 'it defines entities of its own, which are not read' };
  const top: Element = { name: '', prefix: '', attributes: {}, text: '', children: [] };
  const open: Element[] = [top];
  let count = 0;
  let problem: string | null = null;
  const parser = new Parser(
    {
      onopentag(written, attributes) {
        if (problem !== null) return;
        if (++count > MOST_ELEMENTS) problem = `it holds more than ${MOST_ELEMENTS.toLocaleString('en-GB')} elements`;
        if (open.length > MOST_DEEP) problem = `its elements lie more than ${MOST_DEEP} deep in each other`;
        const colon = written.indexOf(':');
        const element: Element = {
          name: written.slice(colon + 1).toLowerCase(),
          prefix: colon < 0 ? '' : written.slice(0, colon).toLowerCase(),
          attributes,
          text: '',
          children: [],
        };
        open.at(-1)!.children.push(element);
        open.push(element);
      },
      ontext(part) {
        if (problem === null) open.at(-1)!.text += part;
      },
      onclosetag() {
        if (open.length > 1) open.pop();
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  for (let at = 0; at < text.length && problem === null; at += PART) parser.write(text.slice(at, at + PART));
  // Ending would close all that is open, which of what lies too deep is long.
  if (problem === null) parser.end();
  if (problem !== null) return { ok: false, problem };
  const root = top.children[0];
  return root ? { ok: true, root } : { ok: false, problem: 'it is no XML' };
}

/** Children by their local names, of any prefix or of one. */
export function childrenOf(element: Element, name: string, prefix?: string): Element[] {
  return element.children.filter((child) => child.name === name && (prefix === undefined || child.prefix === prefix));
}

export function childOf(element: Element, name: string, prefix?: string): Element | null {
  return childrenOf(element, name, prefix)[0] ?? null;
}

/** All text in an element, in order of its parts. */
export function textIn(element: Element | null): string {
  if (!element) return '';
  return element.children.length === 0
    ? element.text.trim()
    : `${element.text} ${element.children.map(textIn).join(' ')}`.replace(/\s+/g, ' ').trim();
}
