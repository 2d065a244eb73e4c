import type { Destination, DestinationKind, TestLine } from '@grivo/contract';
import type { Ground } from '../../ground/ground.ts';
import type { Sql } from '../../ground/store/database.ts';
import { tellChange } from '../../ground/store/event.ts';
import { insertOnce } from '../../ground/store/once.ts';
import { type DestinationRow, destinationEntity } from './entity.ts';

const read = ({
  id,
  kind,
  name,
  address,
  note,
  rev,
  last_test: lines,
  tested_desk: at,
}: DestinationRow): Destination => ({
  id,
  kind,
  name,
  address,
  note,
  rev,
  test: lines && at !== null ? { atDesk: Number(at), lines } : null,
});

export async function listDestinations(sql: Sql): Promise<Destination[]> {
  return (await sql.of(destinationEntity).find({ order: { name: 'ASC' } })).map(read);
}

export async function getDestination(sql: Sql, id: string): Promise<Destination | null> {
  const row = await sql.of(destinationEntity).findOneBy({ id });
  return row && read(row);
}

/** @returns its id, or null when there is one of that name: they are chosen by name */
export async function createDestination(
  ground: Ground,
  { kind, name, address, note }: { kind: DestinationKind; name: string; address: string; note: string },
): Promise<string | null> {
  const id = ground.ids();
  return ground.db.transaction<string | null>(async (sql) => {
    const made = await insertOnce(sql.of(destinationEntity), { id, kind, name, address: address.trim(), note });
    if (!made) return null;
    await tellChange(sql, ground, 'destination', id);
    return id;
  });
}

/** @returns whether it was as it had been read; its last test says nothing of another address */
export async function changeDestination(
  ground: Ground,
  id: string,
  rev: number,
  { kind, address }: { kind: DestinationKind; address: string },
): Promise<boolean> {
  return ground.db.transaction(async (sql) => {
    const { affected } = await sql
      .of(destinationEntity)
      .update({ id, rev }, { kind, address: address.trim(), last_test: null, tested_desk: null, rev: rev + 1 });
    if (affected) await tellChange(sql, ground, 'destination', id);
    return Boolean(affected);
  });
}

export async function keepTest(ground: Ground, id: string, lines: readonly TestLine[]): Promise<void> {
  await ground.db.of(destinationEntity).update({ id }, { last_test: [...lines], tested_desk: ground.desk.now() });
  await tellChange(ground.db, ground, 'destination', id);
}
