// How long one text takes to be held against a hundred thousand that were found before.
import { sketchOf } from '@grivo/core';
import { nearRepeats, rememberWrites } from '../../server/src/nouns/sketches/nearRepeats.ts';
import { createSource } from '../../server/src/nouns/sources/repository.ts';
import { ground, median } from './ground.mjs';

const TEXTS = 100_000;
const AT_ONCE = 2_000;
const ASKED = 25;

const WORDS =
  'salt brine crock cabbage jar lid weight cellar week sour crisp soft garlic pepper kimchi yeast mould film press water cool warm shred stir taste wait rinse leaf stone glass clean wide narrow fill empty'.split(
    ' ',
  );

/** A made-up text of sixty words, the same for the same number. */
function text(n) {
  let x = n * 2_654_435_761 + 1;
  const words = [];
  for (let i = 0; i < 60; i++) {
    x = (Math.imul(x, 1_103_515_245) + 12_345) >>> 0;
    words.push(WORDS[(x >>> 16) % WORDS.length]);
  }
  return words.join(' ');
}

export async function nearRepeat(tell) {
  const floor = await ground();
  try {
    const { product } = await floor.product();
    const { db, ids } = product.ground;
    const source = await createSource(product.ground, { kind: 'keywords' }, 'Bench');
    for (let at = 0; at < TEXTS; at += AT_ONCE) {
      const batch = Array.from({ length: AT_ONCE }, (_, i) => ({ id: ids(), n: at + i }));
      await db.run('INSERT INTO item (id, source, identity, content_digest, subject, fields) VALUES ?', [
        batch.map(({ id, n }) => [id, source, String(n).padStart(64, '0'), '0'.repeat(64), `Text ${n}`, '{}']),
      ]);
      const sketches = new Map(batch.map(({ id, n }) => [id, sketchOf(text(n))]));
      for (const write of rememberWrites(sketches, 'item')) await db.run(write.text, write.parameters);
    }
    const times = [];
    for (let i = 0; i < ASKED; i++) {
      // Every second one repeats one that is there, with a word changed.
      const n = i % 2 === 0 ? i * 3_001 : TEXTS + i;
      const from = performance.now();
      const sketch = sketchOf(text(n).replace('salt', 'spice'));
      const asked = new Map([['asked', { sketch, title: 'Asked', identity: 'asked' }]]);
      const { repeats } = await nearRepeats(db, asked);
      times.push(performance.now() - from);
      if (repeats.has('asked') !== (i % 2 === 0))
        throw new Error(`text ${n} was taken for ${repeats.get('asked')?.title}`);
    }
    await product.close();
    tell(
      `one text against a hundred thousand: median ${median(times).toFixed(1)}, at most ${Math.max(...times).toFixed(1)} ms`,
    );
    return { 'intake.nearRepeatMs': median(times) };
  } finally {
    await floor.end();
  }
}
