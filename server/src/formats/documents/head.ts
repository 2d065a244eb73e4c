import { Parser } from 'htmlparser2';

/** What a page says of itself and where it leads, as far as programs use it. */
export interface PageHead {
  title: string;
  /** Its first heading of the first level. */
  heading: string;
  language: string;
  /** Where its addresses lie beside, as it says itself; null where it does not. */
  base: string | null;
  /** Links with a relation, in order: `link` elements, and `a` elements that name one. */
  links: { rel: string[]; type: string; href: string }[];
}

const MOST_LINKS = 500;
const LONGEST = 2_000;
const PART = 65_536;

/** Reads the head of a page, and its links with a relation, in one pass. */
export function readHead(html: string): PageHead {
  const head: PageHead = { title: '', heading: '', language: '', base: null, links: [] };
  let into: 'title' | 'heading' | null = null;
  const met = new Set<string>();
  const parser = new Parser({
    onopentag(name, attributes) {
      const { rel = '', href = '', type = '', lang = '' } = attributes;
      if (name === 'html' && head.language === '') head.language = lang.slice(0, 20);
      else if (name === 'base' && head.base === null && href !== '') head.base = href.slice(0, LONGEST);
      else if (name === 'title' || name === 'h1') {
        const wanted = name === 'title' ? 'title' : 'heading';
        if (!met.has(wanted)) into = wanted;
        met.add(wanted);
      } else if ((name === 'link' || name === 'a') && rel !== '' && href !== '' && head.links.length < MOST_LINKS)
        head.links.push({
          rel: rel.slice(0, 200).toLowerCase().split(/\s+/),
          type: type.slice(0, 200).toLowerCase(),
          href: href.slice(0, LONGEST),
        });
    },
    ontext(text) {
      if (into !== null && head[into].length < LONGEST) head[into] += text;
    },
    onclosetag(name) {
      if (name === 'title' || name === 'h1') into = null;
    },
  });
  for (let at = 0; at < html.length; at += PART) parser.write(html.slice(at, at + PART));
  parser.end();
  head.title = head.title.replace(/\s+/g, ' ').trim().slice(0, 500);
  head.heading = head.heading.replace(/\s+/g, ' ').trim().slice(0, 500);
  return head;
}
