/** Words as a set, from a text with spaces. */
export const setOf = (words: string): ReadonlySet<string> => new Set(words.split(' '));

/** Words that turn a statement round, by what they are. */
interface Negators {
  /** What is denied stands behind them, or the whole clause. */
  words: ReadonlySet<string>;
  /** Words that say by themselves that something is not so or not to be. */
  lexical: readonly RegExp[];
}

export const NEGATORS: Record<string, Negators> = {
  en: {
    words: setOf(
      "not no never none nobody nothing neither nor without cannot nowhere hardly don’t doesn’t didn’t isn’t aren’t wasn’t weren’t won’t wouldn’t can’t couldn’t shouldn’t mustn’t hasn’t haven’t hadn’t don't doesn't didn't isn't aren't wasn't weren't won't wouldn't can't couldn't shouldn't mustn't hasn't haven't hadn't",
    ),
    lexical: [
      /^(?:refus(?:e|es|ed|ing)|avoid(?:s|ed|ing)?|lack(?:s|ed|ing)?|declin(?:e|es|ed)|reject(?:s|ed|ing)?|forbid(?:s|den)?|forbade|prohibit(?:s|ed)?|omit(?:s|ted)?|skip(?:s|ped)?|abstain(?:s|ed)?|absent|silent|unable|away|instead|shun(?:s|ned)?|waive(?:s|d)?|impossible|exempt|missing|prevent(?:s|ed)?|lost)$/,
    ],
  },
  de: {
    words: setOf(
      'nicht nie niemals niemand niemanden niemandem nichts nirgends kein keine keinen keinem keiner keines keins ohne weder kaum',
    ),
    lexical: [
      /^(?:verboten|untersagt|(?:ge)?sperr(?:t|en|te|ten)|vermeide[nt]?|vermieden|verzichte[nt]?|verzichtet|lehn(?:t|en|te)|abgelehnt|verweiger\w*|weiger\w*|fehl(?:t|en|te)|unzulässig|unmöglich|gegen|tabu|stumm|verstumm\w*|abgeraten|rät|raten|abraten|spar(?:t|en)|statt|fern|draußen|unterlass\w*|verhinder\w*)$/,
    ],
  },
};

/**
 * Words that say no in their own way: 'goes wrong' for 'never', 'water alone' for 'nothing but water', 'very little' for
 * 'hardly any', 'rather than' for 'not'.
 */
export const SPARING: Record<string, ReadonlySet<string>> = {
  en: setOf(
    'survive survives survived spared untouched intact wrong bad badly worse worst poor poorer poorest poorly fail fails failed stop stops stopped shut shuts rather alone only little less least few fewer barely scarcely slow slows slower dry empty gone instead too past against free closed spare out off leave leaves left stay stays hard another different',
  ),
  de: setOf(
    'überlebt überlebte überlebten überstand überstanden verschont heil falsch schlecht schlechter nur bloß allein wenig weniger selten leer anders schwer statt gegen hält aus weg bleibt bleiben frei zu voll',
  ),
};

/** Prefixes and endings that deny the word they are put to. */
export const DENYING: Record<string, readonly RegExp[]> = {
  en: [/^un(?=[a-z]{4})/, /^non-?(?=[a-z]{4})/, /less$/, /-free$/],
  de: [/^un(?=[a-zäöü]{4})/, /los(?:e[nrms]?)?$/, /(?<=\p{L}{3})frei(?:e[nrms]?)?$/u],
};

/** How much and of which sort, not what. */
export const MEASURING = setOf(
  'high long wide big thick deep heavy large tall higher longer older larger heavier small good bad old new young whole full simple hoch lang groß dick schwer breit tief ganz gut schlecht',
);

/** What tells two things apart that are called alike: the old house and the new, the way up and the way down. */
const SIDES: Record<string, [string, string][]> = {
  en: [
    ['men', 'women'],
    ['male', 'female'],
    ['boys', 'girls'],
    ['old', 'new'],
    ['old', 'young'],
    ['small', 'large'],
    ['small', 'big'],
    ['summer', 'winter'],
    ['spring', 'autumn'],
    ['morning', 'evening'],
    ['day', 'night'],
    ['up', 'down'],
    ['north', 'south'],
    ['east', 'west'],
    ['left', 'right'],
    ['inside', 'outside'],
    ['top', 'bottom'],
    ['upper', 'lower'],
    ['raw', 'cooked'],
    ['fresh', 'dried'],
    ['first', 'second'],
    ['first', 'last'],
    ['weekdays', 'sundays'],
    ['weekdays', 'saturdays'],
    ['weekdays', 'weekends'],
    ['saturdays', 'sundays'],
    ['adults', 'children'],
    ['adults', 'juniors'],
  ],
  de: [
    ['männer', 'frauen'],
    ['männchen', 'weibchen'],
    ['jungen', 'mädchen'],
    ['alt', 'neu'],
    ['alte', 'neue'],
    ['alten', 'neuen'],
    ['alt', 'jung'],
    ['klein', 'groß'],
    ['kleine', 'große'],
    ['kleinen', 'großen'],
    ['sommer', 'winter'],
    ['frühjahr', 'herbst'],
    ['morgen', 'abend'],
    ['tag', 'nacht'],
    ['hinauf', 'hinunter'],
    ['norden', 'süden'],
    ['osten', 'westen'],
    ['links', 'rechts'],
    ['innen', 'außen'],
    ['oben', 'unten'],
    ['roh', 'gekocht'],
    ['frisch', 'getrocknet'],
    ['erste', 'zweite'],
    ['erste', 'letzte'],
    ['werktags', 'sonntags'],
    ['werktags', 'samstags'],
    ['samstags', 'sonntags'],
    ['erwachsene', 'kinder'],
  ],
};

/** People of one kin that are told apart: who is the one is not the other. */
const KIN: Record<string, [string, string][]> = {
  en: [
    ['grandfather', 'grandmother'],
    ['father', 'mother'],
    ['brother', 'sister'],
    ['son', 'daughter'],
    ['uncle', 'aunt'],
    ['nephew', 'niece'],
    ['husband', 'wife'],
    ['king', 'queen'],
    ['widower', 'widow'],
    ['brothers', 'sisters'],
    ['sons', 'daughters'],
    ['monks', 'nuns'],
    ['teacher', 'pupil'],
    ['buyer', 'seller'],
    ['tenant', 'landlord'],
  ],
  de: [
    ['großvater', 'großmutter'],
    ['vater', 'mutter'],
    ['bruder', 'schwester'],
    ['sohn', 'tochter'],
    ['onkel', 'tante'],
    ['neffe', 'nichte'],
    ['ehemann', 'ehefrau'],
    ['könig', 'königin'],
    ['witwer', 'witwe'],
    ['brüder', 'schwestern'],
    ['söhne', 'töchter'],
    ['mieter', 'vermieter'],
    ['käufer', 'verkäufer'],
    ['lehrer', 'schüler'],
  ],
};

export const kinOf = (language: string): [string, string][] => KIN[language] ?? KIN['en']!;

export const sidesOf = (language: string): [string, string][] => SIDES[language] ?? SIDES['en']!;

/** Words that join, point and ask: they say nothing of what a sentence is about. */
export const EMPTY: Record<string, ReadonlySet<string>> = {
  en: setOf(
    'a an the and or but as at by for from in into is it its of off on onto out over than that this these those to too under up with was were be been being are am has have had do does did done will would can could may might must shall should he she they them his her their him we us our you your i me my one ones who whom whose which what when where while how there here then thus also just only even still again more most less least much many few some any all both each every other another such so very about around nearly almost not no nor if because since until before after between through during per according once ever anything something everything said says say tells told calls called make makes made take takes took get gets got go goes went come comes came put puts give gives gave need needs keep keeps use uses used begin begins began lot way well back own same now today already above below used using',
  ),
  de: setOf(
    'findet finden fand fanden statt der die das den dem des ein eine einen einem einer eines und oder aber als am an auf aus bei bis durch für gegen im in ist sind war waren wird werden wurde wurden worden hat haben hatte hatten habe sein seine seinen seinem seiner ihr ihre ihren ihrem ihrer er sie es wir uns man ich du mit nach nicht noch nur ob so sehr sich um unter über vom von vor was wenn wer wie wo zu zum zur zwischen dass da dann denn doch dort hier schon auch mehr weniger viel viele etwa rund gut fast je pro seit während weil ihn ihm ihnen kann können darf dürfen soll sollen muss müssen will wollen mag sagt sagte sagen heißt erklärt meint macht machen machte gibt geben gab nimmt kommt kommen kam geht gehen ging lässt lassen braucht brauchen heute jetzt wieder davon dafür darin daran dessen deren diese dieser dieses diesem diesen jeder jede jedes alle allen aller eben selbst eigen brauchte brauchten oberhalb unterhalb davor bleibt bleiben blieb blieben',
  ),
};

/** Verbs that say little themselves: a clause that has one has a verb of its own. */
export const VERBS: Record<string, ReadonlySet<string>> = {
  en: setOf(
    'is are was were has have had does do did will would can could may might must shall should needs need gets get takes take makes make gives give goes go comes come keeps keep uses use says say',
  ),
  de: setOf(
    'ist sind war waren wird werden wurde wurden hat haben hatte hatten kann können darf dürfen soll sollen muss müssen will wollen mag braucht brauchen brauchte gibt geben gab macht machen kommt kommen kam geht gehen ging lässt lassen heißt nimmt',
  ),
};

/** What was so at a time before. */
export const EARLIER = setOf('before previous earlier davor vorher zuvor früher vorigen');
