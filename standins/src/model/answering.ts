import { stemsOf } from '../words/language.ts';
import { type FencedPassage, type ReadRequest, rarity, relevance, type Sentence } from './request.ts';

/** What tells that a sentence answers what is asked, by how it is asked. English and German. */
const ANSWERS: readonly (readonly [RegExp, RegExp])[] = [
  [
    /\bhow (?:much|many)\b|\bbrine strength\b|\bwie viel\b|\babwiegen\b/i,
    /\d[^.]*\b(?:per cent|grams?|kilos?|litres?|Prozent|Gramm|Liter)\b/i,
  ],
  [
    /\bhow long\b|\bstoring\b|\bkeeping\b|\bwie lange\b/i,
    /(?:\d|\b(?:one|two|three|four|six|a|ein|zwei|drei|vier)\b)[^.]*\b(?:days?|weeks?|months?|year|Tagen?|Wochen?|Monate)\b/i,
  ],
  [/\btemperature\b|\bTemperatur\b|\bwie warm\b/i, /\d[^.]*\b(?:degrees|Grad)\b/i],
  [/\bwhy\b|\bcauses?\b|\bwarum\b/i, /\b(?:because|since|reasons?|turns?|makes?|comes? from|weil|denn|macht|heißt)\b/i],
  [/\bsafe\b|\bsicher\b/i, /\b(?:safe|record|danger|dangerous|ill|germs?|sicher|Keime)\b/i],
  [/\bhow (?:full|thin|thick|big|deep)\b/i, /\d|\b(?:thirds?|fifths?|half|finger|widths?|thin|full)\b/i],
  [/\bhow to\b/i, /^(?:\w+ly )?(?:\w+ )?(?:wash|clean|rinse|boil|scrub|put|take|use|fill|wipe|soak|open)\b/i],
  [/\bwhen\b|\bwann\b/i, /\b(?:days?|weeks?|once|after|until|before|Tag|Woche)\b/i],
  [/\bbest\b|\bwhich\b|\bwelche[rs]?\b/i, /\b(?:best|any|same|suits?|choose|take|like|beste[rns]?)\b/i],
  [/\b(?:not covering|too \w+|soft|cloudy|blue)\b/i, /\b(?:too|because|since|if|once|add|press|rinse|reasons?)\b/i],
];

/** What everything here is about tells nothing. */
const OF_ALL = new Set(stemsOf('fermenting fermentation fermented vegetables'));
const LITTLE = 0.3;

/** Shares of what speaks for a sentence: the page it stands on, its place there, and that it says what is asked. */
const OF_PAGE = 3;
const FIRST = 1;
const ANSWERING = 1.5;

/** How far each sentence of a request answers its subject, as far as can be told by words. */
export function answering(request: ReadRequest): (sentence: Sentence) => number {
  const rare = rarity(request.passages);
  const weight = (stem: string) => rare(stem) * (OF_ALL.has(stem) ? LITTLE : 1);
  const target = new Set(stemsOf(`${request.subject} ${request.says}`));
  const asked = ANSWERS.filter(([asks]) => asks.test(request.subject));
  const byNumber = new Map(request.passages.map((passage) => [passage.n, passage]));
  const places = placesOnPages(request.passages);
  return (sentence) => {
    const passage = byNumber.get(sentence.passage)!;
    const about = relevance(sentence.stems, target, weight);
    // What is told of another thing answers nothing.
    const answers = about > 0 && asked.some(([, says]) => says.test(sentence.text)) ? ANSWERING : 0;
    // A page that only shares a word with the subject is no page on it.
    const share = titleShare(passage, target, weight);
    const ofPage = share * (OF_PAGE * share + FIRST / (1 + places.get(passage.n)!));
    return about + ofPage + answers;
  };
}

/** How much of what a page is called is what is asked about, and the other way round; words that stand everywhere weigh less. */
function titleShare({ from }: FencedPassage, target: ReadonlySet<string>, weight: (stem: string) => number): number {
  const title = new Set(stemsOf(from));
  const sum = (stems: Iterable<string>) => [...stems].reduce((all, stem) => all + weight(stem), 0);
  const both = sum([...title].filter((stem) => target.has(stem)));
  return both === 0 ? 0 : (2 * both) / (sum(title) + sum(target));
}

/** The how-manieth of its page each passage is, from 0. */
function placesOnPages(passages: readonly FencedPassage[]): Map<number, number> {
  const seen = new Map<string, number>();
  return new Map(
    [...passages]
      .sort((a, b) => a.n - b.n)
      .map(({ n, from }) => {
        const place = seen.get(from) ?? 0;
        seen.set(from, place + 1);
        return [n, place];
      }),
  );
}
