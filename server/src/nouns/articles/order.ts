import type { ArticlesQuery, ArticlesWanted } from '@grivo/contract';
import type { z } from 'zod';
import type { Sql } from '../../ground/store/database.ts';
import { type Along, allOf, alongRarest, type Condition, inTexts, nextAlong, type Said, TEXTS } from './said.ts';
import { type Chosen, chosen, SHOWN_PLACEMENT, SHOWN_PUBLICATION } from './wanted.ts';

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
  const of = await chosen(sql, wanted, wanted.days === undefined ? null : now - wanted.days * DAY);
  const read = order === 'slot' ? bySlot : order === 'fit' && of.said.length > 0 ? byFit : newest;
  const places = await read(sql, of, wanted.standing, before ?? null, limit);
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
  const [, from = 't', id] = /^([tx])\.([0-9a-z]{20})$/.exec(before ?? '') ?? [];
  const shown: Condition[] = [of.besides, ...(standing ? [] : [{ text: "a.standing <> 'set aside'", values: [] }])];
  const read = async (letter: 't' | 'x', said: readonly Said[], more: readonly Condition[], n: number) => {
    if (n <= 0) return [];
    const before = from === letter ? (id ?? 'z') : 'z';
    const along = await alongRarest(sql, said);
    const ids = along
      ? await readAlong(sql, of.joins, along, [...shown, ...more], { before, n })
      : await readNewest(sql, `${of.joins}${TEXTS}`, [...shown, ...inTexts(said), ...more], { before, n });
    return ids.map((one): Place => ({ id: one, end: `${letter}.${one}` }));
  };
  // Where only the title was asked about there is nothing that fits less; where no title says a word, none that fits more.
  if (of.inTitle.length === 0 || of.inTitle.some(({ text }) => text === 'FALSE')) return read('x', of.said, [], limit);
  const titled = from === 't' ? await read('t', [...of.inTitle, ...of.said], [], limit) : [];
  const { text, values } = allOf(of.inTitle);
  const untitled = { text: `NOT (${text})`, values };
  return [...titled, ...(await read('x', of.said, [untitled], limit - titled.length))];
}

/** Articles that are looked through in one go, and at most: what else is asked leaves too few of them at times. */
const GO = 150;
const MOST_AT_ONCE = 4_000;

interface Part {
  /** Behind which article it begins, and how many it has. */
  before: string;
  n: number;
}

async function readNewest(
  sql: Sql,
  joins: string,
  conditions: readonly Condition[],
  { before, n }: Part,
): Promise<string[]> {
  const { text, values } = allOf(conditions);
  const rows = await sql.rows<{ id: string }>(
    `SELECT a.id FROM article a${joins} WHERE ${text} AND a.id < ? ORDER BY a.id DESC LIMIT ?`,
    [...values, before, n],
  );
  return rows.map((row) => row.id);
}

/** The same along words: what the index alone can tell is asked first, all else of those that are left. */
async function readAlong(
  sql: Sql,
  joins: string,
  along: Along,
  conditions: readonly Condition[],
  { before, n }: Part,
): Promise<string[]> {
  const { text, values } = allOf([...conditions, ...along.rest]);
  const found: string[] = [];
  for (let at = before, go = Math.max(GO, n); found.length < n; ) {
    const { ids, behind } = await nextAlong(sql, along, at, go, at === before);
    if (ids.length > 0) {
      const rows = await sql.rows<{ id: string }>(
        `SELECT a.id FROM article a${joins} WHERE a.id IN (?) AND ${text} ORDER BY a.id DESC LIMIT ?`,
        [ids, ...values, n - found.length],
      );
      found.push(...rows.map((row) => row.id));
    }
    if (behind === null) break;
    at = behind;
    // Where little of it fits, more is looked through at once.
    go = Math.min(MOST_AT_ONCE, go * 2);
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
