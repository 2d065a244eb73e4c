import { expect, test } from 'vitest';
import { doubtsOf, readSources } from './honesty.ts';

const kinds = (source: string, said: string, language = 'en') =>
  doubtsOf(said, readSources([source], language), language).map(({ kind }) => kind);

/** Each with what follows from it, and the same as a slip of the pen would have it. */
test.each([
  // What lies between.
  [
    'Her sourdough rests for 18 hours, her rye for 26.',
    'The rye rests 8 hours longer.',
    'The rye rests 9 hours longer.',
  ],
  [
    'He needed 8 hours and 40 minutes, the next year twelve minutes less.',
    'The next year it was 8 hours 28 minutes.',
    'The next year it was 8 hours 52 minutes.',
  ],
  [
    'The work cost 74 million crowns, 19 million more than planned.',
    'Planned were 55 million crowns.',
    'Planned were 65 million crowns.',
  ],
  ['Rehearsals go from 19:00 to 21:00.', 'A rehearsal takes two hours.', 'A rehearsal takes three hours.'],
  ['The shop opened in 1994.', 'In 2024 it was thirty years old.', 'In 2024 it was twenty years old.'],
  [
    'In 2018 she found a letter of 1743.',
    'The letter was 275 years old when it was found.',
    'The letter was 375 years old when it was found.',
  ],
  [
    'It opens from 10 am to 5 pm, and until 8 pm on Thursdays.',
    'On Thursdays it is open three hours longer.',
    'On Thursdays it is open five hours longer.',
  ],
  ['Fees were cut by £60 to £180 a term.', 'A term used to cost £240.', 'A term used to cost £220.'],
  [
    'The climb takes 70 minutes.',
    'The climb takes an hour and ten minutes.',
    'The climb takes two hours and ten minutes.',
  ],
  ['It is best at 28 to 32 degrees.', 'Thirty degrees are ideal.', 'Fifty degrees are ideal.'],
  ['Keep it between 4 and 8 °C.', 'Keep it between 39 and 46 °F.', 'Keep it between 4 and 8 °F.'],
  // What is left.
  [
    'Of those asked 68 per cent wanted a bus, 21 per cent did not, and the rest had no opinion.',
    'Eleven per cent had no opinion.',
    'A quarter had no opinion.',
  ],
  [
    'It employs nine people, five of them part-time.',
    'Four people work there full-time.',
    'Six people work there full-time.',
  ],
  [
    'Of 12,600 cards two thirds show the town, the rest the country.',
    '4,200 cards show the country.',
    '5,200 cards show the country.',
  ],
  ['A tenth of the vehicles are lorries.', 'Nine in ten are not lorries.', 'Eight in ten are not lorries.'],
  [
    'Symptoms fell by 38 per cent with the drops and by 12 per cent without.',
    'With the drops they fell about three times as much.',
    'With the drops they fell about five times as much.',
  ],
  [
    'It sold 8,400 hectolitres, a tenth less than the year before.',
    'It sold 840,000 litres.',
    'It sold 84,000 litres.',
  ],
  // Ages.
  ['It is free for children under twelve.', 'A child of ten gets in free.', 'A child of fourteen gets in free.'],
  [
    'Babies under twelve months must not eat honey.',
    'A six-month-old baby must not eat honey.',
    'A three-year-old must not eat honey.',
  ],
  // So much for more than one.
  ['A gram sells for eight euros.', 'A kilo brings 8,000 euros.', 'A kilo brings 800 euros.'],
  ['The track is 250 metres long.', 'Four laps make a kilometre.', 'Five laps make a kilometre.'],
  ['Copies cost 3 euros each.', 'Five copies cost 15 euros.', 'Five copies cost 25 euros.'],
  ['A car costs £28 one way.', 'There and back a car costs £56.', 'There and back a car costs £65.'],
  [
    'A bag costs £14 and is enough for three square metres.',
    'For nine square metres it costs £42.',
    'For nine square metres it costs £52.',
  ],
  ['It is open on Mondays, Wednesdays and Fridays.', 'It is open three days a week.', 'It is open four days a week.'],
  // Parts and multiples.
  [
    'There are four crossings a day in winter, eleven in summer.',
    'Summer has nearly three times as many crossings.',
    'Summer has five times as many crossings.',
  ],
  ['A layer of 15 centimetres shrinks to 10.', 'It loses a third of its height.', 'It loses half of its height.'],
  ['A crossing costs 4 euros, half of it for children.', 'Children pay 2 euros.', 'Children pay 3 euros.'],
  [
    'Loans have doubled to 1,900 a year.',
    'There were about 950 loans a year before.',
    'There were about 700 loans a year before.',
  ],
  ['It gave half as much again as the year before.', 'The yield rose by half.', 'The yield rose by a third.'],
  ['Two thirds of the singers are women.', 'A third are men.', 'A quarter are men.'],
  // So much for so much.
  ['One litre takes 90 grams of oats.', 'Two litres take 180 grams.', 'Two litres take 160 grams.'],
  ['A collar sells for 900 euros.', 'Two collars bring 1,800 euros.', 'Two collars bring 1,200 euros.'],
  [
    'They sell 12,000 bottles a month.',
    'They sell about 2,800 bottles a week.',
    'They sell about 3,800 bottles a week.',
  ],
  ['A ferry leaves every 20 minutes.', 'It leaves three times an hour.', 'It leaves four times an hour.'],
  ['There are 12 benches and 20 chairs.', 'Together that is 32 seats.', 'Together that is 42 seats.'],
  ['The oldest voice is 83.', 'The oldest voice is 83 years old.', 'The oldest voice is 38 years old.'],
])('%s → %s, but not: %s', (source, follows, slip) => {
  expect(kinds(source, follows)).toEqual([]);
  expect(kinds(source, slip)).toContain('figure');
});

test.each([
  ['In Solnau the choir came second.', 'The choir came third in Solnau.', 'figure', 'en'],
  ['In Solnau wurde der Chor Zweiter.', 'In Solnau wurde der Chor Dritter.', 'figure', 'de'],
  ['He used no cement at all.', 'Cement holds the wall together.', 'opposite', 'en'],
  ['Seit Januar nimmt sie keine Kaninchen mehr auf.', 'Kaninchen nimmt sie auf.', 'opposite', 'de'],
  ['Mit Strom kostet ein Stand 14 Euro.', 'Ohne Strom kostet ein Stand 14 Euro.', 'opposite', 'de'],
  ['Her grandfather founded it.', 'Her grandmother founded it.', 'subject', 'en'],
  ['A ticket is £18, and bicycles travel free.', 'Bicycles pay £18.', 'subject', 'en'],
  ['Auf der Alm stehen 23 Kühe und sieben Ziegen.', 'Auf der Alm stehen 23 Ziegen.', 'subject', 'de'],
  ['He has never worn socks in the race.', 'He always wears socks in the race.', 'opposite', 'en'],
])('%s, told as: %s', (source, said, kind, language) => {
  expect(kinds(source, said, language)).toContain(kind);
  expect(kinds(source, source, language)).toEqual([]);
});

test.each([
  ['It was built in 1972.', 'It was built in the early seventies.', 'It was built in the early sixties.', 'en'],
  ['Gebaut wurde es 1972.', 'Es stammt aus den siebziger Jahren.', 'Es stammt aus den sechziger Jahren.', 'de'],
  ['It will be closed from 3 to 17 June.', 'On 10 June it is closed.', 'On 20 June it is closed.', 'en'],
  [
    'Es ist vom 3. bis zum 17. Juni geschlossen.',
    'Am 10. Juni ist es geschlossen.',
    'Am 20. Juni ist es geschlossen.',
    'de',
  ],
  ['Gepflanzt wird von Oktober bis März.', 'Im Januar wird gepflanzt.', 'Im Juni wird gepflanzt.', 'de'],
])('%s: %s, but not: %s', (source, follows, slip, language) => {
  expect(kinds(source, follows, language)).toEqual([]);
  expect(kinds(source, slip, language)).toContain('date');
});

/** Each with a date or a time of day that follows from it, and one that does not. */
test.each([
  [
    'The museum closes at 5 pm. The café closes half an hour before the museum.',
    'The café closes at half past four.',
    'The café closes at half past five.',
  ],
  [
    'The bridge was closed on 2 May 2019. Repairs took fourteen months.',
    'It was open again by the middle of 2020.',
    'It was open again by the end of 2021.',
  ],
  ['The pool is open from 15 May to 10 September.', 'On 1 June the pool is open.', 'On 1 October the pool is open.'],
  ['The boat sails daily between May and September.', 'In July there is a boat.', 'In January there is a boat.'],
  ['The museum opens Tuesday to Sunday.', 'It is closed on Mondays.', 'It is open on Mondays.'],
])('%s → %s, but not: %s', (source, follows, slip) => {
  expect(kinds(source, follows)).toEqual([]);
  expect(kinds(source, slip)).toContain('date');
});
