import { fold } from '../sentence/sentence.ts';

/**
 * How texts answer what phrases ask: for each way of asking (see `aspects.ts`) the words an answer to it is given in. All of it
 * is folded. An answer is looked for, not understood: what is found here may still answer another question.
 */
const NUMBER = {
  en: '(?:\\d[\\d.,/]*|half|quarter|a|an|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|fifteen|twenty|thirty|forty|fifty|sixty|hundred|few|several|couple)',
  de: '(?:\\d[\\d.,/]*|halbe[nrs]?|viertel|eine?[nmr]?|zwei|drei|vier|funf|sechs|sieben|acht|neun|zehn|elf|zwolf|funfzehn|zwanzig|dreissig|vierzig|funfzig|hundert|wenige[nr]?|einige[nr]?|paar)',
} as const;

/** A number, at most two words between ('two full', 'a quarter of an'), and a unit. */
const measured = (language: keyof typeof NUMBER, units: string): string =>
  `\\b${NUMBER[language]}[ -](?:[a-z]{1,9}[ -]){0,2}(?:${units})\\b`;
const words = (all: string): string => `\\b(?:${all})\\b`;
const any = (...patterns: string[]): string => patterns.join('|');

const ANSWERS: Record<'en' | 'de', Record<string, string>> = {
  en: {
    keeping: any(
      words('stor(?:e[ds]?|ing|age)|ke(?:ep|eps|eping|pt)|fr(?:ee|o)z\\w*|thaw\\w*|lasts?|lasted|spoil\\w*'),
      words('shelf|fridge|cellar|goes off|go off|put away|stays? fresh|stale|rancid'),
    ),
    benefit: any(
      words('benefit\\w*|good for|health\\w*|helps?|saves?|protects?|strengthens?|eases?|improves?'),
      words('kinder|better|rich in|advantages?|vitamins?|worth|spares?|keeps? .{1,30} (?:away|out|down)'),
    ),
    safety: words(
      'safe\\w*|unsafe|harm\\w*|danger\\w*|risk\\w*|poison\\w*|toxic|irritat\\w*|allerg\\w*|burns?|never|avoid|ill|sick',
    ),
    amount: any(
      '\\d\\s?%',
      words('per ?cent|ratio|twice|spoon(?:ful)?s?|handfuls?|pinch|double|equal (?:parts|weight)|own weight'),
      measured(
        'en',
        'grams?|g|kg|kilos?|kilograms?|ml|cl|litres?|liters?|millilitres?|cups?|spoons?|tablespoons?|teaspoons?|ounces?|oz|pounds?|lbs?|drops?|parts?|cans?|watts?|degrees?|times|per cent|metres?|centimetres?|cm|mm|millimetres?|inch(?:es)?|feet|sheets?|pieces?|euros?',
      ),
    ),
    time: any(
      words('overnight|all night|at once|immediately|by the next (?:day|morning)|until'),
      words(
        'january|february|march|april|june|july|august|september|october|november|december|spring|summer|autumn|winter',
      ),
      words('daily|weekly|monthly|yearly|every (?:day|week|month|year|morning|evening|night)'),
      measured('en', 'seconds?|minutes?|mins?|hours?|days?|nights?|weeks?|months?|years?|seasons?|night'),
    ),
    warmth: words('degrees?|warm\\w*|cold\\w*|cool\\w*|heat\\w*|hot|temperature\\w*|chill\\w*|\\d+ ?°? ?[cf]|lukewarm'),
    instead: any(
      words('substitut\\w*|instead|stand(?:s|ing)? in|replac\\w*|alternative\\w*|in (?:place|lieu) of|rather than'),
      words('works? (?:just )?as well|works? just as|swap\\w*|will do|does the same|take the place|make do'),
    ),
    without: words('without|free(?: of| from)?|no|not|none|instead|lacks?|leave out|avoid'),
    cleaning: words(
      'clean\\w*|wash\\w*|wip\\w+|scrub\\w*|rins\\w+|brush\\w*|soap\\w*|steriliz\\w*|sterilis\\w*|boil\\w*|soak\\w*|descal\\w*|polish\\w*|dust\\w*',
    ),
    using: words(
      'us(?:e|es|ed|ing|eful)|turn(?:s|ed)? into|fold|fry|fried|cook\\w*|add(?:ed|s)?|serv\\w+|goes into|go into|stir\\w*|spread|season\\w*|drink|eat|put|mix\\w*|makes?',
    ),
    making: words(
      'make[sr]?|made|making|mix\\w*|stir\\w*|add\\w*|boil\\w*|simmer\\w*|bak\\w+|knead\\w*|cut\\w*|chop\\w*|blend\\w*|pour\\w*|press\\w*|sew\\w*|glu\\w+|first|then|next|begin\\w*|start\\w*|let|leave|left|put|fill\\w*|place|plac\\w+|tie|fold\\w*|roll\\w*|spread|drain\\w*|sow\\w*|plant\\w*|grow\\w*|soak\\w*|salt\\w*|shred\\w*|rub\\w*|tun\\w+|turn\\w*|push\\w*|pull\\w*|cover\\w*|wash\\w*|rins\\w+|dry|dried|heat\\w*|cool|needs?|takes?|use[sd]?|try|choos\\w+|weigh\\w*|stretch\\w*|pack\\w*|practi[sc]\\w+',
    ),
    choosing: any(
      words(
        '[a-z]{3,}er than|quicker|faster|slower|lighter|heavier|cheaper|dearer|stronger|easier|harder|softer|warmer|cooler|louder|steadier|longer|sooner',
      ),
      words(
        'best|better|than|choos\\w*|choice|suits?|suited|rather|compar\\w*|differ\\w*|while|whereas|both|prefer\\w*|ideal|right|instead|enough|needs?|room for|recommend\\w*',
      ),
      words('more|less|most|least|unlike|fits?'),
    ),
    mending: any(
      words(
        'because|since|due to|caus\\w+|owing to|so that|comes? (?:from|of)|leads? to|results?|means|reason\\w*|when|if|makes?|lets?',
      ),
      words(
        'remov\\w*|scrub\\w*|prevent\\w*|avoid\\w*|stop(?:s|ped)?|help\\w*|replac\\w*|tighten\\w*|push|wipe|rub|mend\\w*|repair\\w*|fix\\w*|cur\\w+|rid|off|treat\\w*',
      ),
    ),
    buying: any(
      '[€$£¥]',
      words(
        'pric\\w*|cost\\w*|buy\\w*|bought|sell\\w*|sold|shops?|by post|orders?|ordered|cheap\\w*|euros?|dealers?|stock|for sale|second-?hand',
      ),
    ),
    history: any(
      '\\b1\\d{3}\\b',
      words(
        'centur(?:y|ies)|invent\\w*|patent\\w*|founded|origin\\w*|ago|ancient|began|earliest|middle ages|romans?|greeks?',
      ),
    ),
  },
  de: {
    keeping: any(
      words(
        'aufbewahr\\w*|lager\\w*|haltbar\\w*|halt(?:en|et)?|einfrier\\w*|eingefror\\w*|gefror\\w*|gefrier\\w*|auftau\\w*|aufgetau\\w*|verderb\\w*|verdorben',
      ),
      words('kuhlschrank|keller|vorrat|frisch|schimmel\\w*|ranzig'),
    ),
    benefit: words(
      'gesund\\w*|vorteile?n?|wirk\\w*|hilft|helfen|spart|schutzt|schont|besser\\w*|gut fur|nutzt|vitamine?|reich an|lohnt',
    ),
    safety: words(
      'sicher\\w*|gefahr\\w*|giftig\\w*|schadlich\\w*|schade[nt]\\w*|risik\\w*|unbedenklich\\w*|reizt|allergi\\w*|nie|vermeid\\w*',
    ),
    amount: any(
      '\\d\\s?%',
      words('prozent|verhaltnis|doppelt\\w*|loffel\\w*|prise|handvoll|gleich viel|gleiche[nr]? gewicht'),
      measured(
        'de',
        'gramm|g|kg|kilo|kilogramm|ml|liter|milliliter|tassen?|loffel|essloffel|teeloffel|pfund|tropfen|teile?|kannen?|watt|grad|mal|meter|zentimeter|cm|mm|blatt|stuck|euro',
      ),
    ),
    time: any(
      words(
        'uber nacht|sofort|bis|taglich|wochentlich|monatlich|jahrlich|jede[nrs]? (?:tag|woche|monat|jahr|morgen|abend)',
      ),
      words(
        'januar|februar|marz|april|mai|juni|juli|august|september|oktober|november|dezember|fruhjahr|fruhling|sommer|herbst|winter',
      ),
      measured('de', 'sekunden?|minuten?|stunden?|tage?n?|nachte?|wochen?|monate?n?|jahre?n?|viertelstunde'),
    ),
    warmth: words(
      'grad|warm\\w*|kalt\\w*|kuhl\\w*|heiss\\w*|hei(?:z|s)\\w*|temperatur\\w*|zimmertemperatur|lauwarm\\w*',
    ),
    instead: words(
      'ersatz\\w*|ersetz\\w*|statt|anstatt|anstelle|alternativ\\w*|stattdessen|ebenso gut|genauso gut|geht auch|tut es auch',
    ),
    without: words('ohne|frei|kein\\w*|nicht|statt|verzicht\\w*'),
    cleaning: words(
      'reinig\\w*|saub\\w*|putz\\w*|wasch\\w*|gewaschen|wisch\\w*|burst\\w*|spul\\w*|seife\\w*|shampoo|lauge|schrubb\\w*|auskoch\\w*|entkalk\\w*|sterilisier\\w*',
    ),
    using: words(
      'verwend\\w*|verwert\\w*|nutz\\w*|benutz\\w*|brat\\w*|koch\\w*|gib|geben|kommt in|kommen in|ruhr\\w*|wird zu|werden zu|serv\\w+|iss|essen|passt|passen',
    ),
    making: words(
      'mach\\w*|gemacht|misch\\w*|ruhr\\w*|gib|geben|koch\\w*|gekocht|back\\w*|gebacken|knet\\w*|schneid\\w*|geschnitten|hack\\w*|giess\\w*|press\\w*|nah\\w*|kleb\\w*|zuerst|dann|danach|zuletzt|beginn\\w*|lass\\w*|stell\\w*|leg\\w*|full\\w*|nimm\\w*|nehm\\w*|braucht|salz\\w*|hobel\\w*|saen?|pflanz\\w*|wasch\\w*|gewaschen|trockn\\w*|dreh\\w*|druck\\w*|zieh\\w*|wird|werden|ub\\w+',
    ),
    choosing: words(
      'beste[nrs]?|besser\\w*|als|eignet|eignen|geeignet\\w*|wahl\\w*|vergleich\\w*|unterschied\\w*|wahrend|beide[nrs]?|passt|passen|ideal\\w*|richtig\\w*|lieber|eher|statt|reicht|braucht|mehr|weniger|empfehl\\w*|test',
    ),
    mending: any(
      words(
        'weil|da|denn|wegen|durch|damit|deshalb|daher|ursache\\w*|grund\\w*|liegt an|liegt daran|fuhrt|entsteh\\w*|wenn|kommt von|kommt daher',
      ),
      words('entfern\\w*|verhinder\\w*|vermeid\\w*|hilft|helfen|ersetz\\w*|reparier\\w*|rett\\w*|weg|los'),
    ),
    buying: any(
      '[€$£]',
      words(
        'preis\\w*|kost\\w*|kauf\\w*|gekauft|verkauf\\w*|laden|geschaft\\w*|handler\\w*|bestell\\w*|gunstig\\w*|euro|gebraucht|versand\\w*',
      ),
    ),
    history: any(
      '\\b1\\d{3}\\b',
      words(
        'jahrhundert\\w*|erfind\\w*|erfund\\w*|patent\\w*|gegrundet|ursprung\\w*|ursprunglich|entstand\\w*|mittelalter|romer\\w*|stammt',
      ),
    ),
  },
};

const compiled = (of: Record<string, string>): Record<string, RegExp> =>
  Object.fromEntries(Object.entries(of).map(([aspect, pattern]) => [aspect, new RegExp(pattern)]));
const SAYS = { en: compiled(ANSWERS.en), de: compiled(ANSWERS.de) };

/** Ways of asking by a word of their own, which an answer has in one of its forms; each is a narrower one of those above. */
const BY_NAME: Record<'en' | 'de', Record<string, { asks: RegExp; answers: RegExp }>> = {
  en: { freezing: { asks: /\bfr(?:eez|oz)\w*/, answers: /\b(?:fr(?:eez|oz)\w*|thaw\w*)/ } },
  de: {
    freezing: {
      asks: /\b(?:ein|tief)?(?:ge)?fr(?:ier|or)\w*/,
      answers: /\b(?:ein|tief|auf)?(?:ge)?(?:fr(?:ier|or)|tau)\w*/,
    },
  },
};

const tongue = (language: string): 'en' | 'de' => (language === 'de' ? 'de' : 'en');

/** A text as {@link says} reads it. */
export type Folded = string & { readonly folded: unique symbol };
export const foldedText = (text: string): Folded => fold(text).replaceAll('ß', 'ss') as Folded;

/** Ways of asking a phrase has a word of its own for ('can it be frozen'). */
export function askedByName(phrase: string, language = 'en'): string[] {
  const asked = foldedText(phrase);
  return Object.entries(BY_NAME[tongue(language)]).flatMap(([name, { asks }]) => (asks.test(asked) ? name : []));
}

/** Whether a text holds words an answer to a way of asking is given in. Of ways nothing is known of, it does. */
export function says(text: Folded, aspect: string, language = 'en'): boolean {
  const own = tongue(language);
  return (BY_NAME[own][aspect]?.answers ?? SAYS[own][aspect])?.test(text) ?? true;
}
