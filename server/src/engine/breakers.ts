import type { Failure } from '@grivo/core';
import type { Sql } from '../ground/store/database.ts';

/** What is known to be wrong with a service until somebody mends it. */
export interface Broken {
  incident: string;
  failure: Failure;
}

/** Causes that every call would meet again; a reply that one brief could not use is none. */
const CAUSES = ['key-refused', 'credit-used-up', 'service-down'];

/**
 * Services with an open incident. While one is open a step that would call the service joins it at once instead of
 * finding out for itself: five hundred briefs do not try a dead service five times each.
 */
export class Breakers {
  private broken = new Map<string, Broken>();

  constructor(private readonly db: Sql) {}

  async refresh(): Promise<void> {
    const rows = await this.db.rows<{ id: string; service: string; failure: Failure }>(
      'SELECT id, service, failure FROM incident WHERE open = 1 AND well = 0 AND cause IN (?)',
      [CAUSES],
    );
    this.broken = new Map(rows.map(({ id, service, failure }) => [service, { incident: id, failure }]));
  }

  /** A step that was let go on all the same was answered: the service is there again, for whoever is let go on. */
  async foundWell(service: string): Promise<void> {
    await this.db.run('UPDATE incident SET well = 1 WHERE service = ? AND open = 1', [service]);
    await this.refresh();
  }

  at(service: string | null): Broken | null {
    return service === null ? null : (this.broken.get(service) ?? null);
  }
}
