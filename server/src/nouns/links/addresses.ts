import { LinkIndex, type LinkPage } from '@grivo/core';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';

/** Where an address kept for linking belongs: to us, or to somebody we trust. */
export type AddressKind = 'own' | 'outside';

/** An address with what it is good for: of one blog, or of all. */
export interface KeptAddress {
  id: string;
  blog: string | null;
  kind: AddressKind;
  address: string;
  /** Subjects, parted by commas. */
  goodFor: string;
  rev: number;
}

interface Row extends Omit<KeptAddress, 'goodFor'> {
  good_for: string;
}

const COLUMNS = 'id, blog, kind, address, good_for, rev';
const read = ({ good_for: goodFor, ...row }: Row): KeptAddress => ({ ...row, goodFor });

/** Addresses kept for a blog, and those for all. */
export async function addressesFor(sql: Sql, blog: string): Promise<KeptAddress[]> {
  const rows = await sql.rows<Row>(
    `SELECT ${COLUMNS} FROM kept_address WHERE blog = ? UNION ALL SELECT ${COLUMNS} FROM kept_address WHERE blog IS NULL`,
    [blog],
  );
  return rows.map(read).sort((a, b) => (a.address < b.address ? -1 : a.address > b.address ? 1 : a.id < b.id ? -1 : 1));
}

export async function getAddress(sql: Sql, id: string): Promise<KeptAddress | null> {
  const [row] = await sql.rows<Row>(`SELECT ${COLUMNS} FROM kept_address WHERE id = ?`, [id]);
  return row ? read(row) : null;
}

export async function addAddress(ground: Ground, kept: Omit<KeptAddress, 'id' | 'rev'>): Promise<string> {
  const id = ground.ids();
  await ground.db.run('INSERT INTO kept_address (id, blog, kind, address, good_for) VALUES (?)', [
    [id, kept.blog, kept.kind, kept.address, kept.goodFor],
  ]);
  return id;
}

/** @returns whether it was as it had been read */
export async function changeAddress(
  sql: Sql,
  id: string,
  rev: number,
  { blog, address, goodFor }: Pick<KeptAddress, 'blog' | 'address' | 'goodFor'>,
): Promise<boolean> {
  return (
    (await sql.run(
      'UPDATE kept_address SET blog = ?, address = ?, good_for = ?, rev = rev + 1 WHERE id = ? AND rev = ?',
      [blog, address, goodFor, id, rev],
    )) > 0
  );
}

export async function removeAddress(sql: Sql, id: string): Promise<boolean> {
  return (await sql.run('DELETE FROM kept_address WHERE id = ?', [id])) > 0;
}

/** Addresses as pages: one for each subject they are good for. */
export const asPages = (kept: readonly KeptAddress[]): LinkPage[] =>
  kept.flatMap(({ address, goodFor }) =>
    goodFor
      .split(/[,;\n]/)
      .map((subject) => subject.trim())
      .filter((subject) => subject !== '')
      .map((title) => ({ address, title })),
  );

/** What an article rests on, as far as it stands on a site that is trusted. */
export interface RestsOn {
  address: string;
  title: string;
  language: string | null;
}

/** The host of an address without 'www.', null of what is none. */
export function hostOf(address: string): string | null {
  const whole = /^[a-z][a-z0-9+.-]*:/i.test(address) ? address : `https://${address}`;
  return URL.canParse(whole) ? new URL(whole).hostname.replace(/^www\./, '') : null;
}

/** Pages outside that may be linked: what is kept under what it is good for, and sources of the article on those sites. */
export function outsideIndex(kept: readonly KeptAddress[], sources: readonly RestsOn[], language: string): LinkIndex {
  const trusted = kept.filter(({ kind }) => kind === 'outside');
  const hosts = new Set(trusted.map(({ address }) => hostOf(address)));
  const own = sources.filter(({ address }) => hosts.has(hostOf(address)));
  return new LinkIndex([...asPages(trusted), ...own], language);
}
