import type { HouseStyle, StyleSample, StyleVersion } from '@grivo/contract';
import { allSteps, HouseStyleDocument, PLAIN_STYLE, ProcedureDocument } from '@grivo/core';
import { z } from 'zod';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { insertOnce } from '../../ground/store/once.ts';
import { labelsOf } from '../labels/repository.ts';
import { houseStyleEntity } from './entity.ts';

interface Stored {
  id: string;
  name: string;
  note: string;
  version: number;
  rev: number;
  archived: number;
  sample: StyleSample | null;
  document: unknown;
  texts: number;
}

const SELECT = `SELECT s.id, s.name, s.note, s.version, s.rev, s.archived, s.sample, v.document,
   (SELECT COUNT(*) FROM house_style_text t WHERE t.style = s.id) AS texts
 FROM house_style s JOIN house_style_version v ON v.style = s.id AND v.n = s.version`;

/** Every house style with its current document. */
export async function listStyles(sql: Sql): Promise<HouseStyle[]> {
  const [rows, users, labels] = await Promise.all([
    sql.rows<Stored>(`${SELECT} ORDER BY s.name`),
    stylesUsed(sql),
    labelsOf(sql, 'style'),
  ]);
  return rows.map((row) => read(row, users, labels));
}

/** One house style, and what was last written in it. */
export async function getStyle(
  sql: Sql,
  id: string,
): Promise<{ style: HouseStyle; sample: StyleSample | null } | null> {
  const [[row], users, labels] = await Promise.all([
    sql.rows<Stored>(`${SELECT} WHERE s.id = ?`, [id]),
    stylesUsed(sql),
    labelsOf(sql, 'style'),
  ]);
  return row ? { style: read(row, users, labels), sample: row.sample } : null;
}

function read(
  { sample: _, texts, archived, document, ...row }: Stored,
  users: readonly Used[],
  labels: (id: string) => string[],
): HouseStyle {
  return {
    ...row,
    archived: archived === 1,
    labels: labels(row.id),
    document: HouseStyleDocument.parse(document),
    texts: Number(texts),
    usedBy: users.flatMap(({ style, ...user }) => (style === row.id ? [user] : [])),
  };
}

/** What house styles and their cards are called. */
export async function styleNames(
  sql: Sql,
): Promise<{ id: string; name: string; archived: number; cards: readonly string[] }[]> {
  const rows = await sql.rows<{ id: string; name: string; archived: number; cards: unknown }>(
    `SELECT s.id, s.name, s.archived, JSON_EXTRACT(v.document, '$.cards[*].name') AS cards
     FROM house_style s JOIN house_style_version v ON v.style = s.id AND v.n = s.version ORDER BY s.name`,
  );
  return rows.map(({ cards, ...row }) => ({ ...row, cards: CardNames.parse(cards ?? []) }));
}

const CardNames = z.array(z.string());

type Used = HouseStyle['usedBy'][number] & { style: string };

/** Which blogs and pipelines keep to which style. */
export async function stylesUsed(sql: Sql): Promise<Used[]> {
  const blogs = await sql.rows<{ id: string; name: string; style: string }>(
    'SELECT id, name, style FROM blog WHERE style IS NOT NULL ORDER BY name',
  );
  const pipelines = await sql.rows<{ id: string; name: string; document: unknown }>(
    'SELECT p.id, p.name, v.document FROM pipeline p JOIN procedure_version v ON v.procedure_id = p.procedure_id AND v.n = p.version ORDER BY p.name',
  );
  return [
    ...blogs.map((blog) => ({ noun: 'blog' as const, ...blog, says: 'all its articles' })),
    ...pipelines.flatMap(({ id, name, document }) => {
      const { style, steps } = ProcedureDocument.parse(document);
      const named = allSteps(steps).filter((step) => step.style !== undefined);
      const whole = style === undefined ? [] : [{ style, says: 'the whole procedure' }];
      const single = [...new Set(named.map((step) => step.style!))].map((one) => {
        const n = named.filter((step) => step.style === one).length;
        return { style: one, says: n === 1 ? 'one step' : `${n} steps` };
      });
      return [...whole, ...single.filter((one) => one.style !== style)].map((one) => ({
        noun: 'pipeline' as const,
        id,
        name,
        ...one,
      }));
    }),
  ];
}

/** @returns its id, or null when there is one of that name: they are chosen by name */
export async function createStyle(
  ground: Ground,
  { name, from, person }: { name: string; from?: string | undefined; person: string },
): Promise<string | null> {
  const id = ground.ids();
  return ground.db.transaction<string | null>(async (sql) => {
    if (!(await insertOnce(sql.of(houseStyleEntity), { id, name }))) return null;
    const document = (from === undefined ? null : await getStyle(sql, from))?.style.document ?? PLAIN_STYLE;
    await addVersion(sql, ground, id, 1, document, person);
    if (from !== undefined)
      await sql.run(
        `INSERT INTO house_style_text (id, style, name, address, language, figures, body, digest, added_desk)
         SELECT CONCAT(LEFT(?, 12), RIGHT(id, 8)), ?, name, address, language, figures, body, digest, added_desk FROM house_style_text WHERE style = ?`,
        [ground.ids(), id, from],
      );
    await tellChange(sql, ground, 'style', id);
    return id;
  });
}

async function addVersion(
  sql: Sql,
  { desk }: Ground,
  style: string,
  n: number,
  document: HouseStyleDocument,
  person: string | null,
): Promise<void> {
  await sql.run('INSERT INTO house_style_version (style, n, document, by_person, made_desk) VALUES (?)', [
    [style, n, JSON.stringify(document), person, desk.now()],
  ]);
}

/**
 * Changes a style as it was read at `rev`: a new version, kept beside all before.
 * @returns whether nobody else had changed it meanwhile
 */
export async function changeStyle(
  ground: Ground,
  id: string,
  rev: number,
  { document, person }: { document: HouseStyleDocument; person: string },
): Promise<boolean> {
  return ground.db.transaction(async (sql) => {
    const [row] = await sql.rows<{ version: number; rev: number }>(
      'SELECT version, rev FROM house_style WHERE id = ? FOR UPDATE',
      [id],
    );
    if (row?.rev !== rev) return false;
    await addVersion(sql, ground, id, row.version + 1, document, person);
    await sql.run('UPDATE house_style SET version = version + 1, rev = rev + 1 WHERE id = ?', [id]);
    await tellChange(sql, ground, 'style', id);
    return true;
  });
}

const MOST_VERSIONS = 200;

/** The newest versions of a style, the newest first. */
export async function versionsOfStyle(sql: Sql, id: string): Promise<StyleVersion[]> {
  const rows = await sql.rows<{ n: number; atDesk: number; by: string | null; document: unknown }>(
    `SELECT v.n, v.made_desk AS atDesk, p.name AS \`by\`, v.document FROM house_style_version v LEFT JOIN person p ON p.id = v.by_person
     WHERE v.style = ? ORDER BY v.n DESC LIMIT ${MOST_VERSIONS}`,
    [id],
  );
  return rows.map((row) => ({
    ...row,
    atDesk: Number(row.atDesk),
    document: HouseStyleDocument.parse(row.document),
  }));
}

export async function keepSample(ground: Ground, id: string, sample: StyleSample): Promise<void> {
  await ground.db.run('UPDATE house_style SET sample = ? WHERE id = ?', [JSON.stringify(sample), id]);
  await tellChange(ground.db, ground, 'style', id);
}
