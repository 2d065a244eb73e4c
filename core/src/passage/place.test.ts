import { expect, test } from 'vitest';
import { addressOfPlace, placeOf } from './place.ts';

const at = (
  locator: { address: string; seconds?: number; place?: string },
  text = 'Rosin is made from the resin of pines, and much-used.',
) => ({
  text,
  locator: { title: 'On rosin', paragraph: 4, ...locator },
});

test('a place is said and led to, for each kind of source', () => {
  const cases: [ReturnType<typeof at>, string, string][] = [
    [
      at({ address: 'https://a.example/v', seconds: 108, place: '01:48, Rosin' }),
      '01:48, Rosin',
      'https://a.example/v#t=108',
    ],
    [
      at({ address: 'https://a.example/b.pdf', place: 'page 3, Rosin' }),
      'page 3, Rosin',
      'https://a.example/b.pdf#page=3',
    ],
    [at({ address: 'https://a.example/s.csv', place: 'row 44, Notes' }), 'row 44, Notes', 'https://a.example/s.csv'],
    [
      at({ address: 'https://a.example/p' }),
      'paragraph 4',
      'https://a.example/p#:~:text=Rosin%20is%20made%20from%20the%20resin%20of%20pines%2C%20and%20much%2Dused.',
    ],
    [
      at({ address: 'https://a.example/p' }, 'one two three four five six seven eight nine ten eleven twelve thirteen'),
      'paragraph 4',
      'https://a.example/p#:~:text=one%20two%20three%20four%20five%20six,eight%20nine%20ten%20eleven%20twelve%20thirteen',
    ],
    [at({ address: 'https://a.example/p#salt' }), 'paragraph 4', 'https://a.example/p#salt'],
    [at({ address: 'notes of a person' }), 'paragraph 4', ''],
  ];
  for (const [passage, says, leads] of cases)
    expect([placeOf(passage.locator), addressOfPlace(passage)]).toEqual([says, leads]);
});
