import { setOf } from '../honesty/lexicon.ts';

/** What finding series in a language rests on. */
export interface SeriesWords {
  joining: ReadonlySet<string>;
  months: ReadonlySet<string>;
  weekdays: ReadonlySet<string>;
  seasons: ReadonlySet<string>;
  ordinals: ReadonlySet<string>;
  /** 'week 1', 'Tag 2'. */
  numbered: ReadonlySet<string>;
  /** What is known by its number: 'page 14' measures nothing. */
  named: ReadonlySet<string>;
  /** What stands before a figure that says at what something else was measured. */
  measuredAt: ReadonlySet<string>;
  /** What stands before a figure that only says when. */
  when: ReadonlySet<string>;
  between: ReadonlySet<string>;
  /** Ways to measure one thing: they are no things that could be compared. */
  sides: ReadonlySet<string>;
  /** Words that name nothing. */
  empty: ReadonlySet<string>;
}

const EN: SeriesWords = {
  joining: setOf('and but while whereas then'),
  months: setOf('january february march april may june july august september october november december'),
  weekdays: setOf('monday tuesday wednesday thursday friday saturday sunday'),
  seasons: setOf('spring summer autumn winter'),
  ordinals: setOf('first second third fourth fifth sixth seventh eighth ninth tenth'),
  numbered: setOf('week day month year hour round test batch'),
  named: setOf(
    'page pages chapter chapters plate plates room rooms figure figures step steps number no line part section',
  ),
  measuredAt: setOf('at with after of below above'),
  when: setOf('after before until within every'),
  between: setOf('to'),
  sides: setOf('wide long high deep thick tall broad across'),
  empty: setOf(
    'a an the of in on at by for from to with as is are was were had has have it its there only about around nearly some still another one ones',
  ),
};
const DE: SeriesWords = {
  joining: setOf('und aber während dann'),
  months: setOf('januar februar märz april mai juni juli august september oktober november dezember'),
  weekdays: setOf('montag dienstag mittwoch donnerstag freitag samstag sonntag'),
  seasons: setOf('frühling frühjahr sommer herbst winter'),
  ordinals: setOf(
    'erste ersten erster zweite zweiten zweiter dritte dritten dritter vierte vierten fünfte fünften sechste sechsten',
  ),
  numbered: setOf('woche tag monat jahr stunde runde charge'),
  named: setOf('seite seiten kapitel tafel tafeln raum räume zimmer abbildung schritt nummer nr zeile teil abschnitt'),
  measuredAt: setOf('bei mit nach von unter über'),
  when: setOf('nach vor bis alle'),
  between: setOf('bis'),
  sides: setOf('breit lang hoch tief dick'),
  empty: setOf(
    'der die das den dem des ein eine einen einem einer eines im in am an auf aus bei von mit zu nur noch etwa rund es waren war ist sind wurden wurde',
  ),
};

export const wordsFor = (language: string): SeriesWords => (language === 'de' ? DE : EN);
