import { expect, test } from 'vitest';
import { lines, textsIn } from '../testing/corpus.ts';
import { textDigest } from './chance.ts';

test('digests are what they were: what is kept by them is found again', async () => {
  const texts = ['', 'a', 'b', 'ab', 'ä', '🧂', 'a'.repeat(1_000), ...textsIn('en', 20), ...textsIn('de', 20)];
  await expect(lines(texts.map((text) => `${textDigest(text)} ${text.slice(0, 30)}`))).toMatchFileSnapshot(
    'listed/digests.txt',
  );
});
