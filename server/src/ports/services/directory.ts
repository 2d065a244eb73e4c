import type { ServiceRole } from '@grivo/core';
import type { Sql } from '../../ground/store/database.ts';
import type { ServiceRow } from './entity.ts';

/** The services of this installation as last read; small, read whole. */
export class ServiceDirectory {
  private byId = new Map<string, ServiceRow>();

  constructor(private readonly sql: Sql) {}

  async refresh(): Promise<void> {
    const rows = await this.sql.rows<ServiceRow>('SELECT * FROM service ORDER BY standard DESC, id');
    this.byId = new Map(rows.map((row) => [row.id, row]));
  }

  get(id: string): ServiceRow | null {
    return this.byId.get(id) ?? null;
  }

  /** Every service of a role, the installation's first. */
  filling(role: ServiceRole): ServiceRow[] {
    return [...this.byId.values()].filter((row) => row.role === role);
  }

  /** The installation's service for a role: the one marked standard, else the oldest. */
  standard(role: ServiceRole): ServiceRow | null {
    for (const row of this.byId.values()) if (row.role === role) return row;
    return null;
  }
}
