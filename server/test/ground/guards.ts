import { BRIEF, type Events, PUBLICATION, RUN, waysOf } from '@grivo/core';
import type { Database, Sql } from '../../src/ground/store/database.ts';

const GUARDED: { table: string; column: string; events: Events<string, string> }[] = [
  { table: 'step_run', column: 'state', events: RUN },
  { table: 'brief', column: 'standing', events: BRIEF },
  { table: 'publication', column: 'state', events: PUBLICATION },
];

/**
 * Lets the database refuse every change of a state that no event leads to, whatever statement makes it: so all that the
 * tests do holds the statements against the tables of events.
 */
export async function guardStates(sql: Sql): Promise<void> {
  for (const { table, column, events } of GUARDED) {
    const ways = waysOf(events).map(([from, to]) => `'${from} > ${to}'`);
    await sql.run(
      `CREATE TRIGGER ${table}_guard BEFORE UPDATE ON ${table} FOR EACH ROW
       IF @by_hand IS NULL AND OLD.${column} <> NEW.${column} AND CONCAT(OLD.${column}, ' > ', NEW.${column}) NOT IN (${ways.join(', ')}) THEN
         SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'no event leads there: a ${column} of ${table}';
       END IF`,
    );
  }
}

/** Sets a state that nothing but a fault would bring about, for tests of what is done about it. */
export async function byHand(db: Database, text: string, parameters: unknown[]): Promise<number> {
  return db.transaction(async (sql) => {
    await sql.run('SET @by_hand = 1');
    const rows = await sql.run(text, parameters);
    await sql.run('SET @by_hand = NULL');
    return rows;
  });
}
