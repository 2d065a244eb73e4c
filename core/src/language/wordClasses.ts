/** Classes of words, as far as the borders of a noun phrase need them; English and German. */

const list = (words: string): ReadonlySet<string> => new Set(words.split(/\s+/));

/** What a noun phrase begins behind: articles, possessives, words of number. */
export const DETERMINERS: Readonly<Record<string, ReadonlySet<string>>> = {
  en: list(
    'a an the my your his her its our their this that these those each every some any no all both half either neither another which what whose many few several most more much enough such other one two three four five six seven eight nine ten eleven twelve',
  ),
  de: list(
    'der die das den dem des ein eine einen einem einer eines mein meine meinen meinem meiner dein deine sein seine seinen seinem seiner ihr ihre ihren ihrem ihrer unser unsere unseren unserem unserer euer eure dieser diese dieses diesen diesem jener jene jenes jeder jede jedes jeden jedem alle allen manche viele vielen einige wenige mehr beide beiden kein keine keinen keinem keiner zwei drei vier fünf sechs sieben acht neun zehn zum zur im am vom beim ins ans',
  ),
};

/** What joins two noun phrases into one: 'salt for sauerkraut', 'Ausgeizen der Tomaten'. */
export const JOINS: Readonly<Record<string, ReadonlySet<string>>> = {
  en: list('of for in on with without from to by at against under'),
  de: list('der des von vom im in am an auf für mit ohne aus gegen unter zum zur bei'),
};

/** Behind these the next word of content is a verb. */
export const SUBJECTS: ReadonlySet<string> = list('i we you he she it they who nobody somebody everybody anybody');
export const BEFORE_VERBS: ReadonlySet<string> = list(
  "to not do does did don't doesn't didn't can cannot can't could will won't would should must may might shall let let's",
);
/** Behind these a participle stands; behind those of being the form in '-ing' too. */
export const AUXILIARIES: ReadonlySet<string> = list('is are was were be been being has have had am');
/** Behind these one word alone is what something is, not what it is called. */
export const OF_BEING: ReadonlySet<string> = list(
  'is are was were be been being am seem seems seemed become becomes became get gets got',
);
export const OF_HAVING: ReadonlySet<string> = list('has have had');

/** Common verbs of English that are seldom nouns; their forms are reckoned. */
const VERBS = list(
  'aim bake beat blow brush burn calculate call change check chill combine control correct crush dig fill fire fix force form grind handle happen heat hit keep label leak load mark mix pack paint pinch plan press print rub scrub seal season shape shift shred sift sign simmer soften spray sprinkle squeeze stain store strain strengthen strip swirl tighten tip top toss trim twist weld work wrap accept add admit advise afford agree allow appear apply arrange arrive ask assume attach avoid be become begin belong bind blend boil borrow bring build buy carry cause cease choose chop clean climb close coat collect come compare complain consider contain continue cook cool count cover crack create cross dare decide depend describe destroy die differ dip disappear disappoint discover dissolve divide do double draw drain dress drift drink drive drop dry eat empty encourage enjoy ensure enter escape evaporate exceed expect explain explode extend fall feed feel fetch find finish fit float flow fold follow forget freeze gain gather get give glue go grate grow guess hang happen harden hear help hide hold hurt improve include increase inspect invite join keep knead know lack last lay lead learn leave lend let lie lift like listen live look lose love lower make manage matter mean measure meet melt mend mind mop move need notice nominate obtain occur offer open order overflow own pass pay peel perform permit persuade pick place point pour prefer prepare prevent produce promise protect prove provide pull push put quit raise reach read realise receive reckon recommend reduce refuse remain remember remove repeat replace require rinse rise roughen run save say scrape see seem sell send separate serve set settle shake shine shrink sink sit skim slice smell soak sort sour speak spend spill spoil spread stand start stay steal stick stir stop stretch stroke struggle suffer suggest suit survive swear sweep swell take taste teach tear tell tend think throw tie touch trust try turn understand undo unite use vary visit wait wake walk want warm wash waste watch wear weigh welcome win wipe wish wonder worry write',
);
const IRREGULAR: ReadonlySet<string> = list(
  'became began begun bought brought built came chose chosen did done drew drawn drank drove ate fell fallen fed felt found forgot forgotten froze gave given got gone went grew grown hung heard held hid kept knew known laid led learnt left lent lay lost made meant met paid ran read rose risen said sat saw seen sold sent shook shown sank spent spoke spread stood stole stuck sworn swept swore took taken taught told thought threw thrown understood woke wore won wrote written struck shut hit cut put set let cost broken torn worn frozen hidden driven ridden bitten beaten spoken stolen swollen',
);

/** Words that are nouns as well as verbs: only what stands round them tells. */
const BOTH = list(
  'aim beat blow brush burn call change check control fire fix force form handle heat hit label leak load mark mix pack paint pinch plan press print seal season shape shift shred sign spray stain store strain strip tip top trim twist work wrap boil cause clean close coat cook cool count cover crack cross cut dip double draw drain dress drift drink drive drop dry fall feed feel find finish fit float flow fold freeze guess help hold hurt increase lack last lead lift like look love matter measure mind move need notice offer open order own pass peel pick place point pour produce promise pull push put raise reach read repeat rinse rise run save set shake shine sink skim slice smell soak sort sour spill spread stand start stay steal stick stir stop stretch stroke sweep swell taste tear tend throw tie touch trust try turn use visit wait walk want warm wash waste watch wear welcome win wipe wish wonder worry',
);

/** Forms of the past that as often say how something is: 'a broken lid'. */
export const AS_ADJECTIVES = list(
  'broken torn worn frozen hidden driven bitten beaten spoken stolen swollen chosen written hung lost left cut known grown',
);

export type VerbForm = 'base' | 'third' | 'past' | 'ing' | null;

/** The form of a verb a word is, lower-cased; null for what no common verb is. */
export function verbForm(word: string): VerbForm {
  if (IRREGULAR.has(word) && !VERBS.has(word)) return 'past';
  if (VERBS.has(word)) return 'base';
  if (word.endsWith('ing') && word.length > 5) return 'ing';
  if (word.endsWith('ed') && word.length > 4) return 'past';
  for (const end of ['ies', 'es', 's'])
    if (word.endsWith(end)) {
      const base = word.slice(0, -end.length) + (end === 'ies' ? 'y' : '');
      if (VERBS.has(base)) return 'third';
    }
  return null;
}

/** Whether a verb's base form is as often a noun. */
export function isNounToo(word: string): boolean {
  return BOTH.has(word) || BOTH.has(word.replace(/(?:es|s)$/, '')) || BOTH.has(word.replace(/s$/, ''));
}

/** Words of content that begin no anchor unless the target says them. */
export const SLIGHT: Readonly<Record<string, ReadonlySet<string>>> = {
  en: list(
    'good better best bad first second third last next whole own old new young small little large big great long short own same different certain real proper right wrong clear simple easy early late full main usual single fine lovely wet nice extra other thorough wrong honest dear',
  ),
  de: list(
    'gut gute guten gutes guter erste ersten erstes letzte letzten nächste nächsten ganze ganzen neue neuen neuer alte alten alter kleine kleinen kleiner große großen großer lange kurze richtige richtigen einfache eigene eigenen junge jungen',
  ),
};

/** Nouns of everyday speech: by themselves they say nothing of a page that is about one of them. */
export const EVERYDAY: Readonly<Record<string, ReadonlySet<string>>> = {
  en: list(
    'hot warm wet dry soft hard thin thick heavy bright dark clean cheap empty fresh age air amount answer area arm art autumn back bag batch bed bit boat body book bottle bottom bowl box boy break brother building bus business car care case cause cellar centre chair chance change child children church city class clock cloth coat cold colour company condition corner cost country course cup customer customers date daughter day days deal degree desk difference dinner dish doctor door drink ear earth edge effect end energy evening example eye eyes face fact family father feet field film finger fire floor flower food foot form friend friends front fruit game garden gate girl glass gram ground group guest guests hair half hall hand hands head heat height hill history hole home hour hours house idea inch inside kilo kilogram kind kitchen ladder land language law layer length letter level life light line list litre loss love machine market material matter meal mean measure metre middle mind minute minutes moment money month months morning mother mouth name nature neighbour neighbours news night noise note nothing number oil office oven page pain pair pan paper parent part parts party past people person picture piece pieces place plan plant plate point police pot pound power pressure price problem problems process product quality question questions radio rain rate reason recipe record result rest rim river road roof room root row rule rules salt sand scale school screw sea season seat second sense service set shade shape shelf shop side sign sister size sizes skin sky smell snow soil son sort sound space spoon spot spring stage star start station step stone story street student style sugar summer sun surface system table taste tea teacher temperature test thickness thing things thumb ticket time times tip tool tools top town train tree trip trouble truth turn type uncle use valley value village visit voice walk wall war warmth washing water way ways weather week weekend weekends weeks weight wind window winter wire woman wood word words work worker workshop world year years',
  ),
  de: list(
    'abend alter anfang antwort arbeit arm art auge augen auto bad bahn baum beispiel berg bett bild blatt blätter boden brief bruder buch büro dach dank dorf eimer ende erde erfolg ergebnis essen fall familie farbe fehler feld fenster feuer finger firma fläche flasche form frage fragen frau freund freunde frühling frühstück fuß garten gast gäste gebiet geld geruch gesicht gewicht glas grad gramm grund größe gruppe haar hand hände haus herbst herz hilfe himmel hitze hof höhe holz idee jahr jahre jahren junge kälte kind kinder kirche kopf kosten kraft küche land leben lehrer lehrerin leute licht liter löffel loch luft mal mann markt meer meinung mensch menschen meter mitte monat monate morgen musik mutter nachbar nachbarin nacht name nase natur nutzen ofen ort paar papier person pflanze pflanzen platz preis problem punkt rand raum regel regen reihe rest ruhe sache sachen salz samstag sand schaden schatten schule schwester see seite seiten sinn sohn sommer sonne sonntag spiel stadt stein stelle stück stunde stunden tag tage tante teil teile tier tisch tochter topf typ uhr urlaub vater wald wand wärme wasser weg weise welt wetter wiese wind winter woche wochen wohnung wort worte wunsch zahl zaun zeit zeiten zeitung ziel zimmer zucker',
  ),
};

/** Whether a word is a past form of a verb that says nothing of how something is. */
export const isPlainPast = (word: string): boolean => IRREGULAR.has(word) && !AS_ADJECTIVES.has(word);
