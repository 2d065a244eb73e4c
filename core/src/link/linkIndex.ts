import { EVERYDAY } from '../language/wordClasses.ts';
import { contentStems } from '../sentence/sentence.ts';
import { leadOf, type Phrase, phrasesOf } from './phrases.ts';

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
  page: Pick<LinkPage, 'address' | 'title' | 'article'>;
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
  page: Pick<LinkPage, 'address' | 'title' | 'article'>;
  /** Stems of its title, each with its weight. */
  title: ReadonlyMap<string, number>;
  /** Those of its title up to where the subject is said. */
  main: ReadonlySet<string>;
  /** What it is about before it says of what, where it does. */
  lead: string | null;
  /** Numbers of the stems its text is about, rising, and how much of it each is: fifty thousand pages are held in memory. */
  stems: Int32Array;
  weighs: Float32Array;
}

/** The pages whose titles have a stem, and what it weighs in each. */
interface Titles {
  pages: number[];
  weighs: number[];
}

/** A page fits when it scores this. */
const LEAST = 0.4;
/** How much of a text a page speaks of that is about the same. */
const LEAST_NEAR = 0.5;
/** How much what stands round the anchor counts. */
const ROUND_WEIGHS = 0.35;
/** What a word of the title counts beside one of the text. */
const IN_TITLE = 1.5;
/** Share of a title a phrase says at least. */
const LEAST_COVER = 0.25;
/** The same of a phrase that has only one word of it. */
const LEAST_ALONE = 0.38;
/** A word more titles have than this finds only a page that is called just so. */
const MANY_TITLES = 20;
const ALL_BUT = 0.8;
/** What an anchor is worth that leaves out what its page is about, where nothing round it says that. */
const WITHOUT_LEAD = 0.7;
/** A word on more pages than these, and on more than this share of them, finds none by itself. */
const FEW_PAGES = 5;
const ON_MOST = 0.2;
/** A stem in more than this share of the titles finds no page by itself. */
const TOO_COMMON = 0.1;

/**
 * The pages of a blog by the words of their titles and texts, ready to be asked for what fits a paragraph. Made once for many
 * articles.
 */
export class LinkIndex {
  private readonly known: Known[];
  private readonly byTitle = new Map<string, Titles>();
  private readonly weights: Float64Array;
  /** Every stem of the pages, with its number and the pages that have it. */
  private readonly numbers = new Map<string, number>();
  private readonly often: number[] = [];
  private readonly everyday: ReadonlySet<string>;
  /** Sums for each page while a phrase is held against them; nought in between. */
  private readonly met: Float64Array;
  private readonly times: Uint8Array;

  /** @param language of pages that do not say theirs, and of what is asked */
  constructor(
    pages: readonly LinkPage[],
    private readonly language: string,
  ) {
    const tongue = tongueOf(language);
    this.everyday = new Set(contentStems([...(EVERYDAY[tongue] ?? [])].join(' '), language));
    const there = pages.filter((page) => !page.language || tongueOf(page.language) === tongue);
    this.weights = new Float64Array(there.length);
    this.met = new Float64Array(there.length);
    this.times = new Uint8Array(there.length);
    const titles = there.map((page) => [...new Set(contentStems(page.title, language))]);
    const mains = there.map((page) => new Set(contentStems(page.title.split(TAIL, 1)[0]!, language)));
    const inTitles = new Map<string, number>();
    for (const [i, page] of there.entries()) {
      for (const stem of titles[i]!) inTitles.set(stem, (inTitles.get(stem) ?? 0) + 1);
      for (const stem of titles[i]!) if (!page.terms?.has(stem)) this.note(stem);
      for (const stem of page.terms?.keys() ?? []) this.note(stem);
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
        if (at) {
          at.pages.push(i);
          at.weighs.push(weighs);
        } else this.byTitle.set(stem, { pages: [i], weighs: [weighs] });
      }
      this.weights[i] = weight;
      const terms = [...(page.terms ?? [])].map(([stem, weighs]) => [this.numbers.get(stem)!, weighs] as const);
      terms.sort(([a], [b]) => a - b);
      const { address, title: name, article } = page;
      return {
        page: { address, title: name, ...(article === undefined ? {} : { article }) },
        title,
        main: mains[i]!,
        lead: leadOf(page.title.split(TAIL, 1)[0]!, language),
        stems: Int32Array.from(terms, ([stem]) => stem),
        weighs: Float32Array.from(terms, ([, weighs]) => weighs),
      };
    });
  }

  get isEmpty(): boolean {
    return this.known.length === 0;
  }

  /** Counts one page more that has a stem. */
  private note(stem: string): void {
    const number = this.numbers.get(stem);
    if (number === undefined) {
      this.numbers.set(stem, this.often.length);
      this.often.push(1);
    } else this.often[number]!++;
  }

  /** Inverse document frequency of a stem over whole pages (Spärck Jones 1972). */
  private rarity(stem: string): number {
    return Math.log(1 + this.known.length / (this.often[this.numbers.get(stem) ?? -1] ?? 1));
  }

  /**
   * What fits a paragraph, best first; each page once, on the words that say most of it.
   * @param round text it stands in, the heading over it before all; counts less than its own words
   */
  fits(text: string, round = ''): Fit[] {
    const phrases = phrasesOf(text, this.language);
    if (phrases.length === 0) return [];
    const around = new Around(
      [...new Set([...contentStems(text, this.language), ...contentStems(round, this.language)])],
      (stem) => ({ rarity: this.rarity(stem), number: this.numbers.get(stem) ?? -1 }),
    );
    const best = new Map<number, Fit>();
    const seen = new Set<string>();
    for (const phrase of phrases) {
      const key = phrase.stems.join(' ');
      if (seen.has(key)) continue;
      seen.add(key);
      for (const [i, cover] of this.covered(phrase)) {
        const known = this.known[i]!;
        const score = this.score(phrase, i, cover, around);
        const before = best.get(i);
        if (score < LEAST || (before && before.score >= score)) continue;
        best.set(i, { page: known.page, anchor: text.slice(phrase.at, phrase.end), at: phrase.at, score });
      }
    }
    return [...best.values()].sort((a, b) => b.score - a.score || (a.page.address < b.page.address ? -1 : 1));
  }

  /**
   * What a text is about, whatever words it has for it: pages that speak of most of it, best first. A sentence leads there
   * where none of its own words can.
   */
  near(text: string): { page: Fit['page']; score: number }[] {
    const stems = [...new Set(contentStems(text, this.language))];
    const around = new Around(stems, (stem) => ({
      rarity: this.rarity(stem),
      number: this.numbers.get(stem) ?? -1,
    }));
    const touched = new Set<number>();
    for (const stem of stems) for (const i of this.byTitle.get(stem)?.pages ?? []) touched.add(i);
    const nothing: ReadonlySet<string> = new Set();
    return [...touched]
      .map((i) => ({ page: this.known[i]!.page, score: around.share(i, this.known[i]!, nothing) }))
      .filter(({ score }) => score >= LEAST_NEAR)
      .sort((a, b) => b.score - a.score || (a.page.address < b.page.address ? -1 : 1));
  }

  /** Pages whose titles hold what a phrase is about, with the share of the title it says. */
  private covered(phrase: Phrase): [page: number, cover: number][] {
    const { met, times } = this;
    const touched: number[] = [];
    const few = Math.max(8, this.known.length * TOO_COMMON);
    const common: string[] = [];
    let fewest = Number.POSITIVE_INFINITY;
    for (const stem of new Set(phrase.stems)) {
      const titles = this.byTitle.get(stem);
      if (!titles) continue;
      const { pages, weighs } = titles;
      fewest = Math.min(fewest, pages.length);
      if (pages.length > few) {
        common.push(stem);
        continue;
      }
      for (let k = 0; k < pages.length; k++) {
        const i = pages[k]!;
        if (times[i] === 0) touched.push(i);
        times[i]!++;
        met[i]! += weighs[k]!;
      }
    }
    const alone = fewest > MANY_TITLES ? ALL_BUT : LEAST_ALONE;
    const out: [number, number][] = [];
    for (const i of touched) {
      let said = met[i]!;
      let words = times[i]!;
      met[i] = 0;
      times[i] = 0;
      for (const stem of common) {
        const weighs = this.known[i]!.title.get(stem);
        if (weighs === undefined) continue;
        said += weighs;
        words++;
      }
      const cover = said / this.weights[i]!;
      if (cover < (words === 1 ? alone : LEAST_COVER)) continue;
      const { main } = this.known[i]!;
      // Every part of an anchor is about what the page is about.
      if (phrase.heads.every((head) => main.has(head))) out.push([i, cover]);
    }
    return out;
  }

  /** Whether so many pages say a word that by itself it tells none of them. */
  private isOnMost(stem: string): boolean {
    const often = this.often[this.numbers.get(stem) ?? -1] ?? 0;
    return often > FEW_PAGES && often > this.known.length * ON_MOST;
  }

  private score(phrase: Phrase, i: number, cover: number, around: Around): number {
    const known = this.known[i]!;
    const { title } = known;
    const asked = new Set(phrase.stems);
    let own = 0;
    let strange = 0;
    for (const stem of asked) {
      if (title.has(stem)) own++;
      // Words of the anchor the page does not know say something else.
      else if (weightOf(known, this.numbers.get(stem) ?? -1) === 0) strange++;
    }
    const pure = (asked.size - strange) / asked.size;
    let alone = inOrder(phrase.stems, title) ? 1 : 0.85;
    if (own === 1) {
      const only = phrase.stems.find((stem) => title.has(stem))!;
      if (this.everyday.has(only) || (known.main.size > 1 && this.isOnMost(only))) return 0;
      // A word no other title has tells its page by itself.
      alone = this.byTitle.get(only)!.pages.length === 1 ? 0.88 : 0.75;
    }
    // 'fermented vegetables' by themselves say nothing of their temperature.
    const short =
      known.lead !== null && !COMMON.has(known.lead) && !asked.has(known.lead) && !around.says(known.lead)
        ? WITHOUT_LEAD
        : 1;
    const said = cover * pure * alone;
    if ((said + ROUND_WEIGHS) * short < LEAST) return 0;
    return short * Math.min(1, said + ROUND_WEIGHS * around.share(i, known, asked));
  }
}

interface RoundStem {
  rarity: number;
  /** Its number among those of the pages; -1 where no page has it. */
  number: number;
}

/** What stands round an anchor, and how much of it each page speaks of. */
class Around {
  private readonly all: number;
  private readonly met = new Map<number, number>();
  private readonly stems: ReadonlyMap<string, RoundStem>;

  constructor(stems: readonly string[], of: (stem: string) => RoundStem) {
    this.stems = new Map(stems.map((stem) => [stem, of(stem)]));
    this.all = [...this.stems.values()].reduce((sum, { rarity }) => sum + rarity, 0);
  }

  says(stem: string): boolean {
    return this.stems.has(stem);
  }

  /** Share of it the page knows, twice over, without the words of the anchor itself; 0 to 1. */
  share(i: number, known: Known, asked: ReadonlySet<string>): number {
    let met = this.met.get(i);
    if (met === undefined) {
      met = 0;
      for (const [stem, one] of this.stems) met += one.rarity * speaksOf(known, stem, one);
      this.met.set(i, met);
    }
    let { all } = this;
    for (const stem of asked) {
      const one = this.stems.get(stem);
      if (one === undefined) continue;
      all -= one.rarity;
      met -= one.rarity * speaksOf(known, stem, one);
    }
    return all <= 0 ? 0 : Math.min(1, (2 * met) / all);
  }
}

/** How much a page speaks of a stem: its title says it loudest. */
const speaksOf = (known: Known, stem: string, { number }: RoundStem): number =>
  known.title.has(stem) ? IN_TITLE : weightOf(known, number);

/** How much of a page's text a stem is; found by halving. */
function weightOf({ stems, weighs }: Known, number: number): number {
  let from = 0;
  let to = stems.length;
  while (from < to) {
    const middle = (from + to) >> 1;
    if (stems[middle]! < number) from = middle + 1;
    else to = middle;
  }
  return stems[from] === number ? weighs[from]! : 0;
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
