const list = (words: string): ReadonlySet<string> => new Set(words.split(' '));

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

/** Words of the closed classes, by which hands differ whatever they write of. */
export const closedWords = (tongue: string): ReadonlySet<string> | null => CLOSED[tongue] ?? null;
