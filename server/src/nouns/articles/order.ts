import type { ArticlesQuery, ArticlesWanted } from '@grivo/contract';
import type { z } from 'zod';
import type { Sql } from '../../ground/store/database.ts';
import { allOf, type Condition, parted, type Said } from './said.ts';
import { type Chosen, chosen, chosenSaying, SHOWN_PLACEMENT, SHOWN_PUBLICATION } from './wanted.ts';
import { numbersSaying } from './wordIndex.ts';

/** Ids of a page in their order, each with what the page after it would begin behind. */
interface Place {
  id: string;
  end: string;
}

/** Later than any slot: what has none stands behind all that have one. */
const NO_SLOT = 9_000_000_000_000_000;
const DAY = 86_400_000;

type Wanted = ArticlesWanted & Pick<z.infer<typeof ArticlesQuery>, 'order' | 'before' | 'limit'>;

/** A page of the ids of a list. */
export async function placesOf(sql: Sql, wanted: Wanted, now: number): Promise<{ ids: string[]; next: string | null }> {
  const { order, before, limit } = wanted;
  const since = wanted.days === undefined ? null : now - wanted.days * DAY;
  const fits = order === 'fit' ? await chosen(sql, wanted, since) : null;
  const places = fits?.said.length
    ? await byFit(sql, fits, wanted.standing, before ?? null, limit)
    : await (order === 'slot' ? bySlot : newest)(
        sql,
        await chosenSaying(sql, wanted, since),
        wanted.standing,
        before ?? null,
        limit,
      );
  return { ids: places.map(({ id }) => id), next: places.length < limit ? null : places.at(-1)!.end };
}

type Standing = ArticlesWanted['standing'];

async function newest(sql: Sql, of: Chosen, _: Standing, before: string | null, limit: number): Promise<Place[]> {
  const rows = await sql.rows<{ id: string }>(
    `SELECT a.id FROM article a${of.joins} WHERE ${of.where.join(' AND ')} AND a.id < ? ORDER BY a.id DESC LIMIT ?`,
    [...of.values, before ?? 'z', limit],
  );
  return rows.map(({ id }) => ({ id, end: id }));
}

/** Those whose title says all that was asked for, then those whose text does; the newest first. */
async function byFit(sql: Sql, of: Chosen, standing: Standing, before: string | null, limit: number): Promise<Place[]> {
  const [, from = 't', below] = /^([tx])\.(\d{1,10})$/.exec(before ?? '') ?? [];
  const shown: Condition[] = [
    { text: of.where.join(' AND '), values: of.values },
    ...(standing ? [] : [{ text: "a.standing <> 'set aside'", values: [] }]),
  ];
  const read = async (letter: 't' | 'x', said: readonly Said[], more: readonly Condition[], limit: number) => {
    const part = { below: from === letter && below !== undefined ? Number(below) : null, limit };
    const found = limit > 0 ? await readSaying(sql, of.joins, said, [...shown, ...more], part) : [];
    return found.map(({ id, n }): Place => ({ id, end: `${letter}.${n}` }));
  };
  // Where only the title was asked about there is nothing that fits less; where no title says a word, none that fits more.
  if (of.inTitle.length === 0 || of.inTitle.some(({ text }) => text === 'FALSE')) return read('x', of.said, [], limit);
  const titled = from === 't' ? await read('t', [...of.inTitle, ...of.said], [], limit) : [];
  const { text, values } = allOf(of.inTitle);
  const untitled = { text: `NOT (${text})`, values };
  return [...titled, ...(await read('x', of.said, [untitled], limit - titled.length))];
}

/** Articles that are looked through in one go, at first and at most: what else is asked leaves too few of them at times. */
const GO = 150;
const MOST_AT_ONCE = 4_000;

/** Along the index of words: what it tells is asked first, all else of those that are left. */
async function readSaying(
  sql: Sql,
  joins: string,
  said: readonly Said[],
  more: readonly Condition[],
  { below, limit }: { below: number | null; limit: number },
): Promise<{ id: string; n: number }[]> {
  const along = parted(said);
  const found: { id: string; n: number }[] = [];
  if (!along) return found;
  const { text, values } = allOf([...more, ...along.rest]);
  let go = Math.max(GO, limit);
  let looked = 0;
  for await (const numbers of numbersSaying(sql, along.sayings, below, limit))
    for (let at = 0; at < numbers.length; ) {
      const some = numbers.slice(at, at + go);
      found.push(
        ...(await sql.rows<{ id: string; n: number }>(
          `SELECT a.id, a.n FROM article a${joins} WHERE a.n IN (?) AND ${text} ORDER BY a.n DESC LIMIT ?`,
          [some, ...values, limit - found.length],
        )),
      );
      if (found.length >= limit) return found;
      at += go;
      looked += some.length;
      // As many as should be enough, as far as it was seen how many of them fit.
      const each = looked / Math.max(1, found.length);
      go = Math.min(MOST_AT_ONCE, Math.max(GO, Math.ceil((limit - found.length) * each)));
    }
  return found;
}

interface Section {
  /** Names it where a page ends. */
  letter: string;
  standings: readonly string[];
  read: (sql: Sql, of: Chosen, standings: readonly string[], after: After | null, limit: number) => Promise<Row[]>;
}

interface After {
  at: number;
  id: string;
}
type Row = After & { article: string };

/** What comes; what lies on blogs as a draft; what is or was out; what was set aside, where it is asked for. */
const SECTIONS: readonly Section[] = [
  { letter: 'c', standings: ['in work', 'ready'], read: coming },
  { letter: 'd', standings: ['draft'], read: byId },
  { letter: 'o', standings: ['out', 'withdrawn'], read: out },
  { letter: 's', standings: ['set aside'], read: byId },
];

async function bySlot(
  sql: Sql,
  of: Chosen,
  standing: Standing,
  before: string | null,
  limit: number,
): Promise<Place[]> {
  const [, letter, at, id] = /^([cdos])\.(-?\d{1,16})\.([0-9a-z]{20})$/.exec(before ?? '') ?? [];
  const own = standing === 'held' || standing === 'stopped' ? 'in work' : standing;
  const sections = SECTIONS.map((section) => ({
    ...section,
    standings: section.standings.filter((one) => (own ? one === own : one !== 'set aside')),
  })).filter(({ standings }) => standings.length > 0);
  const first = letter === undefined ? 0 : sections.findIndex((section) => section.letter === letter);
  const places: Place[] = [];
  for (const [i, section] of sections.slice(Math.max(0, first)).entries()) {
    const after = i === 0 && id !== undefined ? { at: Number(at), id } : null;
    const rows = await section.read(sql, of, section.standings, after, limit - places.length);
    places.push(...rows.map((row) => ({ id: row.article, end: `${section.letter}.${row.at}.${row.id}` })));
    if (places.length >= limit) break;
  }
  return places;
}

/** Those to come, by slot; there are never as many as are out. */
async function coming(
  sql: Sql,
  of: Chosen,
  standings: readonly string[],
  after: After | null,
  limit: number,
): Promise<Row[]> {
  const due = `COALESCE(l.due_desk, ${NO_SLOT})`;
  return numbered(
    await sql.rows<Row>(
      `SELECT a.id AS article, a.id, ${due} AS at FROM article a${of.joins} LEFT JOIN placement l ON ${SHOWN_PLACEMENT}
       WHERE ${of.where.join(' AND ')} AND a.standing IN (?)${after ? ` AND (${due} > ? OR ${due} = ? AND a.id > ?)` : ''} ORDER BY at, a.id LIMIT ?`,
      [...of.values, standings, ...(after ? [after.at, after.at, after.id] : []), limit],
    ),
  );
}

async function byId(
  sql: Sql,
  of: Chosen,
  standings: readonly string[],
  after: After | null,
  limit: number,
): Promise<Row[]> {
  return numbered(
    await sql.rows<Row>(
      `SELECT a.id AS article, a.id, 0 AS at FROM article a${of.joins}
       WHERE ${of.where.join(' AND ')} AND a.standing IN (?) AND a.id < ? ORDER BY a.id DESC LIMIT ?`,
      [...of.values, standings, after?.id ?? 'z', limit],
    ),
  );
}

/** Those that went out, the last first: along the publications, each article by the one a list shows. */
async function out(
  sql: Sql,
  of: Chosen,
  standings: readonly string[],
  after: After | null,
  limit: number,
): Promise<Row[]> {
  const rows: Row[] = [];
  for (const standing of standings)
    rows.push(
      ...numbered(
        await sql.rows<Row>(
          `SELECT a.id AS article, p.id, COALESCE(p.out_desk, 0) AS at FROM publication p JOIN article a ON a.id = p.article${of.joins}
           WHERE p.state = ? AND ${of.where.join(' AND ')} AND a.standing = ?${of.since === null ? '' : ' AND p.out_desk >= ?'} AND p.id = ${SHOWN_PUBLICATION}${after ? ' AND (p.out_desk < ? OR p.out_desk = ? AND p.id < ?)' : ''} ORDER BY p.out_desk DESC, p.id DESC LIMIT ?`,
          [
            standing === 'out' ? 'live' : 'withdrawn',
            ...of.values,
            standing,
            ...(of.since === null ? [] : [of.since]),
            ...(after ? [after.at, after.at, after.id] : []),
            limit,
          ],
        ),
      ),
    );
  return rows.sort((a, b) => b.at - a.at || (a.id < b.id ? 1 : -1)).slice(0, limit);
}

const numbered = (rows: Row[]): Row[] => rows.map((row) => ({ ...row, at: Number(row.at) }));
