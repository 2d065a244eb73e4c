import { expect, test } from 'vitest';
import { languageOf } from './detect.ts';

test.each([
  ['The bow is drawn over the string, and the string answers it.', 'en'],
  ['Der Bogen wird über die Saite gestrichen, und die Saite klingt.', 'de'],
  ['Le violon est dans la salle et les cordes sont en boyau.', 'fr'],
  ['El violín está en la sala y las cuerdas son de tripa.', 'es'],
  // A word that other languages have too tells nothing by itself.
  ['Metal does no harm during a rinse.', null],
  ['Strings die young here, players say.', null],
  ['Con brio, molto vivace, poco lento', null],
  ['Too short', null],
  ['', null],
])('%j is told for %s', (text, language) => {
  expect(languageOf(text)).toBe(language);
});
