import { fold } from '../sentence/sentence.ts';

/** What a reader who types a phrase is after: to learn about something, to make it, to choose one, to find where it is had. */
export const WANTS = ['learn', 'make', 'choose', 'find'] as const;
export type Want = (typeof WANTS)[number];

/** Ways of asking, from the most telling on; a word counts for the first that holds it. */
const ASPECTS: Record<string, Record<string, RegExp>> = {
  en: {
    keeping:
      /\b(?:stor(?:e[ds]?|ing|age)|shelf life|freez(?:e|ing)|spoil\w*|go(?:es)? (?:bad|off)|lasts?|keep in|good for in|still good|expir\w*)\b/g,
    benefit: /\b(?:(?:health )?benefits?|good for you|health|healthy)\b/g,
    safety: /\b(?:safe(?:ty|ly)?|danger(?:ous)?|risks?|poison\w*|harmful)\b/g,
    amount:
      /\b(?:how much|how many (?:grams|litres|cups|spoons)|ratios?|percent(?:age)?|per cent|quantity|amount|strength|proportions?|grams|per (?:kilo|pound|litre|head|cup))\b/g,
    time: /\b(?:how long|how often|how many (?:days|weeks|hours|months)|times?|when is|ready|days?|weeks?|hours?|done|duration|take)\b/g,
    warmth: /\b(?:temperatures?|warm|cold|degrees|heat|cool)\b/g,
    instead: /\b(?:substitutes?|instead(?: of)?|alternatives?(?: to)?|replacement|what to use as|can i use)\b/g,
    without: /\b(?:without|free|no)\b/g,
    cleaning: /\b(?:clean(?:ing)?|wash(?:ing)?|sterili[sz]e|saniti[sz]e|disinfect)\b/g,
    using: /\b(?:what to (?:do|cook|make) with|uses? (?:for|of)|uses$|using(?: up)?|use up)\b/g,
    making:
      /\b(?:how to (?:make|grow|start)|recipes?|home ?made|mak(?:e|ing)|easy|quick|traditional|beginners?|step by step|from scratch|at home|brewing|how to|diy)\b/g,
    choosing: /\b(?:best|which|or|vs|versus|what size|choos(?:e|ing)|ideal|better|do (?:i|you) need)\b/g,
    mending: /\b(?:why|causes?|prevent(?:ing)?|get rid of|fix|remove|turn(?:ed|ing)?|went)\b/g,
    buying: /\b(?:buy(?:ing)?|price|cheap|cost|shops?|near me|where to (?:buy|get)|for sale|order)\b/g,
    history: /\b(?:history|origins?|invented|inventor|who made|comes? from)\b/g,
  },
  de: {
    keeping: /\b(?:aufbewahr\w*|lager\w*|haltbar\w*|einfrier\w*|verderb\w*|schlecht werden)\b/g,
    benefit: /\b(?:gesund\w*|vorteile?|wirkung)\b/g,
    safety: /\b(?:sicher|gefahrlich|giftig|schadlich|risiko)\b/g,
    amount: /\b(?:wie viel|wieviel|menge|verhaltnis|prozent|gramm|pro (?:kilo|liter))\b/g,
    time: /\b(?:wie lange|wie oft|dauer|zeit|wann|fertig|tage?|wochen?|stunden?)\b/g,
    warmth: /\b(?:temperatur\w*|warm|kalt|grad|kuhl)\b/g,
    instead: /\b(?:ersatz|statt|anstatt|alternativen?)\b/g,
    without: /\b(?:ohne|frei)\b/g,
    cleaning: /\b(?:reinig\w*|saubern|putzen|sterilisier\w*|waschen)\b/g,
    using: /\b(?:was tun mit|verwend\w*|verwert\w*)\b/g,
    making: /\b(?:rezepte?|selber machen|selbst machen|herstell\w*|machen|einfach|schnell|anfanger|ansetzen)\b/g,
    choosing: /\b(?:beste[rs]?|welche[rs]?|oder|vergleich|test)\b/g,
    mending: /\b(?:warum|wieso|entfernen|loswerden|vermeid\w*|verhinder\w*|retten)\b/g,
    buying: /\b(?:kaufen|preis|gunstig|koste[nt]|bestellen|laden)\b/g,
    history: /\b(?:geschichte|herkunft|ursprung|erfinder|erfunden|woher|stammen)\b/g,
  },
};

/** How a phrase asks, by the names of the table, and what is left of it: what it asks about. */
export function aspectsOf(phrase: string, language = 'en'): { aspects: string[]; rest: string } {
  let rest = fold(phrase);
  const aspects: string[] = [];
  for (const [name, pattern] of Object.entries(ASPECTS[language] ?? ASPECTS['en']!)) {
    const without = rest.replace(pattern, ' ');
    if (without === rest) continue;
    aspects.push(name);
    rest = without;
  }
  return { aspects, rest };
}

/** What a way of asking wants to be told. */
const WANTS_TOLD: Record<string, string> = {
  keeping: 'how it is kept',
  freezing: 'whether it can be frozen',
  benefit: 'what it is good for',
  safety: 'whether it is safe',
  amount: 'how much',
  time: 'how long or when',
  warmth: 'how warm or cold',
  instead: 'what can stand in for it',
  without: 'how to do without',
  cleaning: 'how it is cleaned',
  using: 'what it is used for',
  making: 'how it is done',
  choosing: 'which to choose',
  mending: 'why, or what helps',
  buying: 'where it is sold or what it costs',
  history: 'where it comes from',
};

/** What a way of asking, by its name in {@link aspectsOf}, wants to be told: 'how long or when'. */
export const askedAs = (aspect: string): string | null => WANTS_TOLD[aspect] ?? null;

const BY_ASPECT: readonly (readonly [Want, readonly string[]])[] = [
  ['find', ['buying']],
  ['make', ['making', 'cleaning', 'using']],
  ['choose', ['choosing', 'instead']],
];

/**
 * What the reader wants, by how the phrase asks; what asks in none of the ways of finding, making and choosing wants to
 * learn.
 */
export function wantOf(phrase: string, language = 'en'): Want {
  const { aspects } = aspectsOf(phrase, language);
  return BY_ASPECT.find(([, names]) => names.some((name) => aspects.includes(name)))?.[0] ?? 'learn';
}
