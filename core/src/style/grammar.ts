/** How a sentence begins. */
export type Opening = 'an order' | 'a figure' | 'a question' | 'other';

const list = (words: string): ReadonlySet<string> => new Set(words.split(' '));

/** Words that say who speaks to whom, by language. */
export const PERSON_WORDS: Readonly<Record<string, Record<'I' | 'we' | 'you', ReadonlySet<string>>>> = {
  en: {
    I: list('i me my mine myself'),
    we: list('we us our ours ourselves'),
    you: list('you your yours yourself yourselves'),
  },
  de: {
    I: list('ich mich mir mein meine meinen meinem meiner meines'),
    we: list('wir uns unser unsere unseren unserem unserer unseres'),
    you: list('du dich dir dein deine deinen deinem deiner deines ihr euch euer eure euren eurem'),
  },
};

/**
 * Words a sentence begins with that are no order. Closed classes of English and German: articles, pronouns, prepositions,
 * conjunctions, auxiliaries and the adverbs sentences begin with.
 */
const CLOSED: Readonly<Record<string, ReadonlySet<string>>> = {
  en: list(
    'a about above after all almost also although an and another any are as at be because been before below between both but by can could did do does during each either enough even every few for from had has have he her here his how however i if in instead into is it its just last later less many may might more most much must my neither next no nobody none nor not nothing now of often on once one only or other our out over perhaps same several she should since so some sometimes soon still such than that the their them then there these they this those though through thus to too two under until up usually very was we well were what when where whether which while who whose why will with within without would yet you your',
  ),
  de: list(
    'ab aber all alle allerdings als also am an auch auf aus außerdem bei beim bevor bis da dabei dadurch dafür damit danach dann daran darauf darin darum das dass dem den denn der deren deshalb dessen die dies diese diesem diesen dieser dieses doch dort du durch ein eine einem einen einer eines einige er erst es etwa falls für gegen hier hinter ich ihr im in indem ins ist ja jede jeden jeder jedes jetzt kann kein keine man manche mehr mein mit nach nachdem neben nicht nichts noch nun nur ob obwohl oder oft ohne schon sein seine seit sie sind so sobald solange sonst statt über um und unser unter viele vielleicht vom von vor wann war was weil welche wenn wer wie wir wird wo während zu zuerst zum zur zwar zwischen',
  ),
};

/** What follows the verb of an order: what is done to, or how. */
const AFTER: Readonly<Record<string, ReadonlySet<string>>> = {
  en: list(
    'a an the it them this that these those your its their all each every any some both one two three four five six more only first up down off out in on over with for into about at from to until by well again not and or',
  ),
  de: list(
    'sie den die das dem der ein eine einen einem es ihn ihnen alle jede jeden dich dir ihre deine deinen ihren etwas nicht nur zuerst auch mit in auf für über und oder nie immer',
  ),
};
const ORDERS: Readonly<Record<string, RegExp>> = {
  en: /^(?:do not|don['’]t|never|always|let['’]s|please)\s+\p{Ll}/iu,
  de: /^(?:bitte|niemals|nie)\s+\p{Ll}/iu,
};

/**
 * How a sentence begins. That it is an order is reckoned from form alone: a word of no closed class, followed by what an
 * order is followed by ("Press the leaves", "Drücken Sie"). A plural noun before "and" may be taken for one.
 */
export function openingOf(sentence: string, words: readonly string[], tongue: string): Opening {
  if (/[?？؟]["”’'»)\]]{0,3}$/.test(sentence)) return 'a question';
  if (/^\W*\d/.test(sentence)) return 'a figure';
  const [first = '', second = ''] = words.slice(0, 2).map((word) => word.toLowerCase().split(/['’]/, 1)[0]!);
  if (ORDERS[tongue]?.test(sentence)) return 'an order';
  const closed = CLOSED[tongue];
  if (!closed || closed.has(first) || first === '') return 'other';
  return AFTER[tongue]!.has(second) ? 'an order' : 'other';
}

/** Words of the closed classes, by which hands differ whatever they write of. */
export const closedWords = (tongue: string): ReadonlySet<string> | null => CLOSED[tongue] ?? null;
