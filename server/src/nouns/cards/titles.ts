import type { Sql } from '../../ground/store/database.ts';

export interface CardTitle {
  title: string;
  language: string;
  blog: string;
}

const READ = 2_000;

/** For an installation that has no article yet, so that a card can be judged all the same. */
const MADE_UP: readonly string[] = [
  'Honey',
  'Why bees swarm',
  'Five signs of a hungry hive',
  'How to tell a queen cell from a drone cell',
  'Moving a colony in October: what to do the evening before',
  'A wooden box, a straw skep and a polystyrene hive compared over three winters at the coast',
];

/**
 * Titles of articles on blogs that keep to a house style (of all blogs where none do), from the shortest to the longest and
 * evenly between.
 * @param draw another number takes others
 */
export async function titlesFor(
  sql: Sql,
  style: string,
  many: number,
  draw: number,
): Promise<{ madeUp: boolean; titles: CardTitle[] }> {
  const rows = await sql.rows<CardTitle & { ours: number }>(
    `SELECT a.title, a.language, COALESCE(b.name, '') AS blog, COALESCE(b.style = ?, 0) AS ours
     FROM article a LEFT JOIN blog b ON b.id = a.blog WHERE a.title <> '' AND a.trial = 0 ORDER BY a.id DESC LIMIT ${READ}`,
    [style],
  );
  const ours = rows.filter((row) => Number(row.ours) === 1);
  const once = new Map((ours.length > 0 ? ours : rows).map((row) => [row.title, row]));
  const sorted = [...once.values()].sort((a, b) => a.title.length - b.title.length);
  if (sorted.length === 0)
    return { madeUp: true, titles: MADE_UP.map((title) => ({ title, language: 'en', blog: 'Our blog' })) };
  if (sorted.length <= many) return { madeUp: false, titles: sorted };
  const apart = sorted.length / many;
  const titles = Array.from({ length: many }, (_, n) => {
    // The ends are always shown: what fits there fits between.
    if (n === 0) return sorted[0]!;
    if (n === many - 1) return sorted.at(-1)!;
    return sorted[Math.min(sorted.length - 2, Math.floor(n * apart + ((draw * 7) % Math.max(1, Math.floor(apart)))))]!;
  });
  return { madeUp: false, titles };
}
