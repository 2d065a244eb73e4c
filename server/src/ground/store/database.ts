import { DataSource, type EntitySchema, type ObjectLiteral, type QueryRunner, type Repository } from 'typeorm';
import { written } from './longText.ts';
import { machinesOf, wayTo } from './machines.ts';
import { migrations } from './migrations/index.ts';

export type Row = Record<string, unknown>;

/** Runs statements: on the pool, or inside one transaction. Arrays fill `IN (?)`, arrays of arrays fill `VALUES ?`. */
export interface Sql {
  rows<T = Row>(text: string, parameters?: unknown[]): Promise<T[]>;
  /** Rows matched by an UPDATE or DELETE, rows made by an INSERT. */
  run(text: string, parameters?: unknown[]): Promise<number>;
  /** The rows of an entity: for what is asked or said of them one at a time. */
  of<Entity extends ObjectLiteral>(entity: EntitySchema<Entity>): Repository<Entity>;
}

/** Deadlock or lock wait: the transaction did nothing and can simply be repeated. */
const REPEATABLE = new Set([1213, 1205]);

export function errnoOf(error: unknown): number | null {
  if (typeof error !== 'object' || error === null) return null;
  const { errno, driverError } = error as { errno?: unknown; driverError?: { errno?: unknown } };
  const value = errno ?? driverError?.errno;
  return typeof value === 'number' ? value : null;
}

/** A machine of a cluster that is out of step with the others refuses work, as if it were not there. */
const NOT_IN_STEP = 1047;

const MOST_TRIES = 8;
const BACK_MS = 250;
const OPEN_AGAIN_MS = 50;

const LOST = new Set([
  'PROTOCOL_CONNECTION_LOST',
  'ECONNRESET',
  'EPIPE',
  'ECONNREFUSED',
  'ETIMEDOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
]);

/** Whether the database could not be reached or went away: what the statement did is then unknown. */
export function isLostConnection(error: unknown): boolean {
  if (typeof error !== 'object' || error === null) return false;
  const { code, driverError, message } = error as {
    code?: unknown;
    driverError?: { code?: unknown };
    message?: unknown;
  };
  if (LOST.has(String(code ?? driverError?.code)) || errnoOf(error) === NOT_IN_STEP) return true;
  return typeof message === 'string' && /closed state|Pool is closed/.test(message);
}

/** The one way to the database. */
export class Database implements Sql {
  private constructor(readonly source: DataSource) {}

  /**
   * Connects and brings the schema up to this program.
   * @param connections size of the pool
   * @param waitMs how long a database that does not answer is waited for
   * @param entities what is known of its tables, to be compared with what the migrations made
   * @throws {NewerSchema} when the database was migrated by a newer program
   */
  static async open(
    url: string,
    connections = 12,
    waitMs = 0,
    entities: readonly EntitySchema[] = [],
  ): Promise<Database> {
    for (let waited = 0; ; waited += OPEN_AGAIN_MS) {
      try {
        return await Database.connect(url, connections, entities);
      } catch (error) {
        if (!isLostConnection(error) || waited >= waitMs) throw error;
        await new Promise((resolve) => setTimeout(resolve, OPEN_AGAIN_MS));
      }
    }
  }

  private static async connect(url: string, connections: number, entities: readonly EntitySchema[]): Promise<Database> {
    const machines = machinesOf(url);
    const source = new DataSource({
      type: 'mariadb',
      url: machines.url,
      timezone: 'Z',
      charset: 'utf8mb4',
      supportBigNumbers: true,
      bigNumberStrings: false,
      migrationsTransactionMode: 'each',
      synchronize: false,
      entities: [...entities],
      migrations,
      poolSize: connections,
      extra: {
        connectionLimit: connections,
        enableKeepAlive: true,
        // A stack for every statement, in case it fails, was a fiftieth of a worker's time; the statement stands in the error.
        trace: false,
        ...(machines.all.length > 1 ? { stream: wayTo(machines.all) } : {}),
      },
    });
    await source.initialize();
    const pool = (
      source.driver as unknown as {
        pool: { on(event: 'connection', made: (c: { query(text: string): void }) => void): void };
      }
    ).pool;
    // On a cluster a read waits until what was committed elsewhere before it is here.
    const ways = `SET tx_isolation = 'READ-COMMITTED', time_zone = '+00:00'${machines.all.length > 1 ? ', wsrep_sync_wait = 1' : ''}`;
    pool.on('connection', (connection) => connection.query(ways));
    // The one that was opened to see whether anybody answers came before anybody listened: it is the only one there is.
    await source.query(ways);
    const database = new Database(source);
    try {
      await database.refuseNewer();
    } catch (error) {
      await source.destroy();
      throw error;
    }
    return database;
  }

  async migrate(): Promise<number> {
    return (await this.source.runMigrations()).length;
  }

  /** Waits until another process has brought the schema up to this program. */
  async migrated(ms = 60_000): Promise<void> {
    for (let waited = 0; !(await this.isUpToDate()); waited += 100) {
      if (waited >= ms)
        throw new Error(
          'The database is not set up. Start the API first: it brings the schema up; workers wait for it.',
        );
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }

  /** Only looks: two processes that both made the table of migrations would be in each other's way. */
  private async isUpToDate(): Promise<boolean> {
    const done = await this.migrationsDone();
    return migrations.every((migration) => done.includes(migration.name));
  }

  private async migrationsDone(): Promise<string[]> {
    const [table] = await this.rows(
      "SELECT 1 FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'migrations'",
    );
    return table ? (await this.rows<{ name: string }>('SELECT name FROM migrations')).map(({ name }) => name) : [];
  }

  private async refuseNewer(): Promise<void> {
    const known = new Set(migrations.map((migration) => migration.name));
    const unknown = (await this.migrationsDone()).filter((name) => !known.has(name));
    if (unknown.length > 0) throw new NewerSchema(unknown);
  }

  /** Waits for an answer that says nothing. */
  async answers(): Promise<void> {
    await this.rows('SELECT 1');
  }

  async rows<T = Row>(text: string, parameters?: unknown[]): Promise<T[]> {
    return (await this.alone(text, parameters)) as T[];
  }

  async run(text: string, parameters?: unknown[]): Promise<number> {
    return affected(await this.alone(text, parameters));
  }

  of<Entity extends ObjectLiteral>(entity: EntitySchema<Entity>): Repository<Entity> {
    return this.source.getRepository(entity);
  }

  /** A statement by itself; one that lost against another did nothing and is repeated. */
  private async alone(text: string, parameters?: unknown[]): Promise<unknown> {
    for (let attempt = 1; ; attempt++) {
      try {
        return await this.source.query(text, written(parameters));
      } catch (error) {
        if (attempt >= MOST_TRIES || !REPEATABLE.has(errnoOf(error) ?? 0)) throw error;
      }
    }
  }

  /**
   * Work in one transaction. Deadlocks and lock waits are repeated with all of the work, so it must only touch the
   * database. When the connection is lost the outcome is unknown: with `settled` the database is asked, once it answers
   * again, whether the work was committed (a value) or not (undefined, then it is repeated); without it the error goes on.
   */
  async transaction<T>(work: (sql: Sql) => Promise<T>, settled?: (sql: Sql) => Promise<T | undefined>): Promise<T> {
    for (let attempt = 1; ; attempt++) {
      const runner = this.source.createQueryRunner();
      try {
        await runner.connect();
        await runner.query('START TRANSACTION');
        const value = await work(sqlOf(runner));
        await runner.query('COMMIT');
        return value;
      } catch (error) {
        await runner.query('ROLLBACK').catch(() => undefined);
        if (attempt < MOST_TRIES && REPEATABLE.has(errnoOf(error) ?? 0)) continue;
        if (!settled || !isLostConnection(error)) throw error;
        const known = await this.whenBack(settled);
        if (known !== undefined) return known;
      } finally {
        await runner.release().catch(() => undefined);
      }
    }
  }

  /**
   * A statement by itself that says whether it did something. Where the connection is lost the database is asked, once it
   * answers again, whether it was done (a value) or not (undefined, then it is repeated).
   */
  async settle(
    text: string,
    parameters: unknown[],
    settled: (sql: Sql) => Promise<true | undefined>,
  ): Promise<boolean> {
    for (;;) {
      try {
        return (await this.run(text, parameters)) === 1;
      } catch (error) {
        if (!isLostConnection(error)) throw error;
        if (await this.whenBack(settled)) return true;
      }
    }
  }

  /** Asks again and again until the database answers, for two minutes at most. */
  private async whenBack<T>(ask: (sql: Sql) => Promise<T>): Promise<T> {
    for (let waited = 0; ; waited += BACK_MS) {
      try {
        return await ask(this);
      } catch (error) {
        if (!isLostConnection(error) || waited > 120_000) throw error;
        await new Promise((resolve) => setTimeout(resolve, BACK_MS));
      }
    }
  }

  async close(): Promise<void> {
    if (this.source.isInitialized) await this.source.destroy();
  }
}

function sqlOf(runner: QueryRunner): Sql {
  return {
    rows: async <T>(text: string, parameters?: unknown[]) => (await runner.query(text, written(parameters))) as T[],
    run: async (text, parameters) => affected(await runner.query(text, written(parameters))),
    of: (entity) => runner.manager.getRepository(entity),
  };
}

function affected(result: unknown): number {
  return typeof result === 'object' && result !== null && 'affectedRows' in result ? Number(result.affectedRows) : 0;
}

export class NewerSchema extends Error {
  constructor(readonly unknown: string[]) {
    super(
      `This database was set up by a newer Grivo (it has ${unknown.join(', ')}). Start that version, or restore a backup made before it.`,
    );
  }
}
