import { contentStems } from '../sentence/sentence.ts';
import { type Phrase, phrasesOf } from './phrases.ts';
import { EVERYDAY } from './wordClasses.ts';

/** A page articles may link to. */
export interface LinkPage {
  address: string;
  title: string;
  /** Set when the page is an article of ours: the link then keeps the article, not the address. */
  article?: string;
  /** Of its text; a page that does not say is taken for one in the language asked for. */
  language?: string | null;
  /** What it is about by its own words: stems, with how much of it each is. */
  terms?: ReadonlyMap<string, number>;
}

/** A page that fits a paragraph, and the words it may stand on. */
export interface Fit {
  page: LinkPage;
  anchor: string;
  /** Where the anchor begins in the paragraph. */
  at: number;
  /** 0 to 1. */
  score: number;
}

/** Words titles are made with that say little of their subject. */
const COMMON = new Set(
  contentStems(
    'guide beginners beginner step steps explained compared basics tips home use used needed need choosing choose kinds words best way ways making make things right wrong complete simple easy Anleitung Tipps einfach richtig machen',
  ),
);
/** What such a word weighs beside others. */
const COMMON_WEIGHS = 0.3;

/** Where a title has said its subject: what stands behind tells more of it. */
const TAIL = /[:?–—]|,? (?:and|und) (?:how|what|when|where|why|wie|was|wann|wo|warum) /u;
const TAIL_WEIGHS = 0.5;

/** Most stems a page is known by. */
const MOST_TERMS = 80;
const TITLE_WEIGHS = 4;
const HEADING_WEIGHS = 2;
/** How soon more of the same word says no more (k1 of BM25). */
const SATURATION = 1.2;

/**
 * What a page is about: its stems, those of its title and headings weighing more, by how often they stand there; as in BM25
 * over several fields (Robertson, Zaragoza and Taylor 2004), without the length, of which a page of a blog has enough.
 */
export function termsOfPage(
  page: { title: string; headings: readonly string[]; text: string },
  language: string,
): Map<string, number> {
  const often = new Map<string, number>();
  const add = (text: string, weight: number) => {
    for (const stem of contentStems(text, language)) often.set(stem, (often.get(stem) ?? 0) + weight);
  };
  add(page.title, TITLE_WEIGHS);
  for (const heading of page.headings) add(heading, HEADING_WEIGHS);
  add(page.text, 1);
  return new Map(
    [...often]
      .sort(([a, m], [b, n]) => n - m || (a < b ? -1 : 1))
      .slice(0, MOST_TERMS)
      .map(([stem, n]) => [stem, n / (n + SATURATION)]),
  );
}

interface Known {
  page: LinkPage;
  /** Stems of its title, each with its weight; they sum up to `weight`. */
  title: ReadonlyMap<string, number>;
  weight: number;
}

/** A page fits when it scores this. */
const LEAST = 0.4;
/** How much what stands round the anchor counts. */
const ROUND_WEIGHS = 0.35;
/** A stem in more than this share of the titles finds no page by itself. */
const TOO_COMMON = 0.1;

/**
 * The pages of a blog by the words of their titles and texts, ready to be asked for what fits a paragraph. Made once for many
 * articles.
 */
export class LinkIndex {
  private readonly known: Known[];
  private readonly byTitle = new Map<string, number[]>();
  private readonly often = new Map<string, number>();
  private readonly everyday: ReadonlySet<string>;

  /** @param language of pages that do not say theirs, and of what is asked */
  constructor(
    readonly pages: readonly LinkPage[],
    private readonly language: string,
  ) {
    const tongue = tongueOf(language);
    this.everyday = new Set(contentStems([...(EVERYDAY[tongue] ?? [])].join(' '), language));
    const there = pages.filter((page) => !page.language || tongueOf(page.language) === tongue);
    const titles = there.map((page) => [...new Set(contentStems(page.title, language))]);
    const mains = there.map((page) => new Set(contentStems(page.title.split(TAIL, 1)[0]!, language)));
    const inTitles = new Map<string, number>();
    for (const [i, page] of there.entries()) {
      for (const stem of titles[i]!) inTitles.set(stem, (inTitles.get(stem) ?? 0) + 1);
      for (const stem of new Set([...titles[i]!, ...(page.terms?.keys() ?? [])]))
        this.often.set(stem, (this.often.get(stem) ?? 0) + 1);
    }
    this.known = there.map((page, i) => {
      const title = new Map<string, number>();
      let weight = 0;
      for (const stem of titles[i]!) {
        const weighs =
          Math.log(1 + there.length / inTitles.get(stem)!) *
          (COMMON.has(stem) ? COMMON_WEIGHS : mains[i]!.has(stem) ? 1 : TAIL_WEIGHS);
        title.set(stem, weighs);
        weight += weighs;
        const at = this.byTitle.get(stem);
        if (at) at.push(i);
        else this.byTitle.set(stem, [i]);
      }
      return { page, title, weight };
    });
  }

  /** Inverse document frequency of a stem over whole pages (Spärck Jones 1972). */
  private rarity(stem: string): number {
    return Math.log(1 + this.known.length / (this.often.get(stem) ?? 1));
  }

  /**
   * What fits a paragraph, best first; each page once, on the words that say most of it.
   * @param round text it stands in, the heading over it before all; counts less than its own words
   */
  fits(text: string, round = ''): Fit[] {
    const phrases = phrasesOf(text, this.language);
    if (phrases.length === 0) return [];
    const said = new Set([...contentStems(text, this.language), ...contentStems(round, this.language)]);
    const best = new Map<number, Fit & { of: Phrase }>();
    for (const phrase of phrases)
      for (const [i, cover] of this.covered(phrase)) {
        const known = this.known[i]!;
        const score = this.score(phrase, known, cover, said);
        const before = best.get(i);
        if (score < LEAST || (before && before.score >= score)) continue;
        best.set(i, { page: known.page, anchor: text.slice(phrase.at, phrase.end), at: phrase.at, score, of: phrase });
      }
    return [...best.values()]
      .sort((a, b) => b.score - a.score || (a.page.address < b.page.address ? -1 : 1))
      .map(({ of: _, ...fit }) => fit);
  }

  /** Pages whose titles hold what a phrase is about, with the share of the title it says. */
  private covered(phrase: Phrase): Map<number, number> {
    const out = new Map<number, number>();
    const asked = new Set(phrase.stems);
    const few = Math.max(8, this.known.length * TOO_COMMON);
    for (const stem of asked) {
      const pages = this.byTitle.get(stem);
      if (!pages || pages.length > few) continue;
      for (const i of pages) {
        if (out.has(i)) continue;
        const { title, weight } = this.known[i]!;
        if (!phrase.heads.some((head) => title.has(head))) continue;
        let met = 0;
        for (const one of asked) met += title.get(one) ?? 0;
        out.set(i, met / weight);
      }
    }
    return out;
  }

  private score(phrase: Phrase, { page, title }: Known, cover: number, said: ReadonlySet<string>): number {
    const asked = new Set(phrase.stems);
    let own = 0;
    for (const stem of asked) if (title.has(stem)) own++;
    // Words of the anchor the page does not know say something else.
    const strange = [...asked].filter((stem) => !title.has(stem) && !page.terms?.has(stem)).length;
    const pure = (asked.size - strange) / asked.size;
    let met = 0;
    let all = 0;
    for (const stem of said) {
      if (asked.has(stem)) continue;
      const weighs = this.rarity(stem);
      all += weighs;
      if (title.has(stem)) met += weighs * 1.5;
      else if (page.terms?.has(stem)) met += weighs * (page.terms.get(stem) ?? 0);
    }
    const round = all === 0 ? 0 : Math.min(1, (2 * met) / all);
    let alone = inOrder(phrase.stems, title) ? 1 : 0.85;
    if (own === 1) {
      const only = [...asked].find((stem) => title.has(stem))!;
      if (this.everyday.has(only)) return 0;
      // A word no other title has tells its page by itself.
      alone = this.byTitle.get(only)!.length === 1 ? 0.88 : 0.75;
    }
    return Math.min(1, cover * pure * alone + ROUND_WEIGHS * round);
  }
}

/** Whether the words of a title a phrase has follow each other in both. */
function inOrder(stems: readonly string[], title: ReadonlyMap<string, number>): boolean {
  const places = [...title.keys()];
  let last = -1;
  for (const stem of stems) {
    const at = places.indexOf(stem);
    if (at < 0) continue;
    if (at < last) return false;
    last = at;
  }
  return true;
}

const tongueOf = (language: string): string => language.slice(0, 2).toLowerCase();
