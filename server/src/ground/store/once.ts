import type { ObjectLiteral, QueryDeepPartialEntity, Repository } from 'typeorm';
import { errnoOf } from './database.ts';

/** A row whose key is taken. */
const TAKEN = 1062;

/** Makes a row unless there is one with its key. @returns whether it was made */
export async function insertOnce<Entity extends ObjectLiteral>(
  repository: Repository<Entity>,
  row: QueryDeepPartialEntity<Entity>,
): Promise<boolean> {
  try {
    await repository.insert(row);
    return true;
  } catch (error) {
    if (errnoOf(error) === TAKEN) return false;
    throw error;
  }
}
