import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { titlesFor } from '../src/nouns/cards/titles.ts';
import { changePicture, isSaidOfAnother, originsUsed, rememberPicture } from '../src/nouns/pictures/repository.ts';
import { type World, world } from './ground/world.ts';

let w: World;
beforeAll(async () => {
  w = await world();
});
afterAll(() => w.close());
const db = () => w.product.ground.db;

/** An article of nothing but a title, on a blog or on none. */
async function article(title: string, blog: string | null = null, trial = 0): Promise<void> {
  const id = w.product.ground.ids();
  await db().run(
    "INSERT INTO article (id, brief, line, blog, family, language, trial, title, rev) VALUES (?, ?, '', ?, ?, 'en', ?, ?, 1)",
    [id, id, blog, id, trial, title],
  );
}
const STYLE = 's'.repeat(20);
const titles = async (many: number, draw = 0, style = STYLE) =>
  (await titlesFor(db(), style, many, draw)).titles.map(({ title }) => title);

describe('titles a card is tried with', () => {
  test('are made up where there is no article, from short to long', async () => {
    const { madeUp, titles: made } = await titlesFor(db(), STYLE, 10, 0);
    expect(madeUp).toBe(true);
    const lengths = made.map(({ title }) => title.length);
    expect(lengths).toEqual([...lengths].sort((a, b) => a - b));
    expect(made.length).toBeGreaterThan(3);
  });

  test('are ours, each once, with the shortest and the longest always among them', async () => {
    for (let n = 1; n <= 60; n++) await article(`${'Bees '.repeat(n).trim()}`);
    await article('Bees');
    await article('A trial says nothing', null, 1);
    await article('');
    const ten = await titles(10);
    expect(ten).toHaveLength(10);
    expect(new Set(ten).size).toBe(10);
    expect([ten[0], ten.at(-1)]).toEqual(['Bees', 'Bees '.repeat(60).trim()]);
    expect(ten.map(({ length }) => length)).toEqual(ten.map(({ length }) => length).sort((a, b) => a - b));
    expect(ten).not.toContain('A trial says nothing');
    // Evenly between: no two of them next to each other in the list.
    const counts = ten.map((title) => title.split(' ').length);
    for (let i = 1; i < counts.length; i++) expect(counts[i]! - counts[i - 1]!).toBeGreaterThanOrEqual(3);
  });

  test('are others at another draw, and the same at the same', async () => {
    const [one, again, other] = [await titles(10, 1), await titles(10, 1), await titles(10, 2)];
    expect(again).toEqual(one);
    expect(other).not.toEqual(one);
    expect(other.at(-1)).toBe(one.at(-1));
  });

  test('are those of blogs that keep to the house style, where there are such', async () => {
    const { id } = (await db().rows<{ id: string }>('SELECT id FROM blog LIMIT 1'))[0]!;
    await article('Only on this blog', id);
    expect((await titles(10)).includes('Only on this blog') || (await titles(100)).includes('Only on this blog')).toBe(
      true,
    );
    await db().run("INSERT INTO house_style (id, name) VALUES (?, 'Of this blog')", [STYLE]);
    await db().run('UPDATE blog SET style = ? WHERE id = ?', [STYLE, id]);
    const { titles: own, madeUp } = await titlesFor(db(), STYLE, 10, 0);
    expect([madeUp, own.map(({ title }) => title)]).toEqual([false, ['Only on this blog']]);
    expect(own[0]!.blog).not.toBe('');
    await db().run('UPDATE blog SET style = NULL WHERE id = ?', [id]);
  });
});

describe('what is known of pictures', () => {
  const one = (file: string, words: string, origin = '') =>
    rememberPicture(db(), { file: file.repeat(64), kind: 'drawn', words, credit: '', origin, cost: 0, look: null });

  test('whether another says the same; one that says it alone does not', async () => {
    await one('1', 'A hive');
    await one('2', 'A smoker');
    expect(await isSaidOfAnother(db(), 'A hive', '2'.repeat(64))).toBe(true);
    expect(await isSaidOfAnother(db(), 'A hive', '1'.repeat(64))).toBe(false);
    expect(await isSaidOfAnother(db(), 'A swarm', '1'.repeat(64))).toBe(false);
    expect(await changePicture(db(), '1'.repeat(64), 1, { words: 'A hive; for “bees”', credit: '' })).toBe(true);
    expect(await isSaidOfAnother(db(), 'A hive', '2'.repeat(64))).toBe(false);
  });

  test('which places pictures of ours are from', async () => {
    await one('3', 'A barn', 'https://library.example/barn');
    const asked = ['https://library.example/barn', 'https://library.example/field'];
    expect([...(await originsUsed(db(), asked))]).toEqual(['https://library.example/barn']);
    expect([...(await originsUsed(db(), []))]).toEqual([]);
  });
});
