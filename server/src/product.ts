import { makeIds } from '@grivo/core';
import { type Logger, pino } from 'pino';
import { Illustrator } from './adapters/illustrator.ts';
import { KeywordFigures } from './adapters/keywordFigures.ts';
import { LookUp } from './adapters/lookUp.ts';
import { Micropub } from './adapters/micropub.ts';
import { Transcriber } from './adapters/transcriber.ts';
import { VideoHost } from './adapters/videoHost.ts';
import { Writer } from './adapters/writer.ts';
import { blogEntity } from './blogs/entity.ts';
import { DeskClock } from './clock/deskClock.ts';
import { Secrets } from './config/secrets.ts';
import { fullLanes } from './engine/claims.ts';
import { Engine } from './engine/engine.ts';
import { type ServiceFor, serviceCalledBy } from './engine/lane.ts';
import { Lease, type ProcessRole } from './engine/lease.ts';
import type { EngineOptions } from './engine/options.ts';
import { Bell } from './engine/ring.ts';
import type { Ground } from './ground/ground.ts';
import { finishCalls } from './hooks/receive.ts';
import { Network } from './network/network.ts';
import { personEntity } from './people/entity.ts';
import { pipelineEntity } from './pipelines/entity.ts';
import type { Tools } from './ports/tools.ts';
import { ReadingRoom } from './reading/room.ts';
import { pinsFor } from './routines/repository.ts';
import { Firing } from './schedules/fire.ts';
import { ServiceDirectory } from './services/directory.ts';
import { serviceEntity } from './services/entity.ts';
import { sourceEntity } from './sources/entity.ts';
import { groupsFor } from './sources/groups.ts';
import { type Refreshed, refreshSource } from './sources/refresh.ts';
import { settlePublishing } from './steps/publish.ts';
import { performers } from './steps/registry.ts';
import { Database } from './store/database.ts';
import type { Mail } from './telling/mail.ts';

export interface ProductOptions {
  databaseUrl: string;
  /** 32 bytes that seal secrets. */
  secretKey: Buffer;
  /** Origins on private networks the owner allowed. */
  allowedOrigins?: readonly string[];
  log?: Logger;
  now?: () => number;
  random?: () => number;
  connections?: number;
  /** How long a database that does not answer yet is waited for. */
  waitForDatabaseMs?: number;
  /** Where the stand-ins of a demonstration are. */
  standIns?: string | null;
  /** Where others reach this installation. */
  publicUrl?: string | null;
  /** Addresses and ranges of proxies whose word is taken for who calls. */
  trustedProxies?: readonly string[];
  /** Whether every answer is held against the schema of its route; tests and development do, since it costs time. */
  checksAnswers?: boolean;
  /** The mail server of 'tell'. */
  mail?: Mail | null;
  /** Where 'keep' writes. */
  keepFolder?: string | null;
  /** Whether this process brings the schema up; workers wait for the API to do it. */
  migrates?: boolean;
}

/** The parts of the product put together for one process. */
export interface Product {
  ground: Ground;
  tools: Tools;
  bell: Bell;
  secrets: Secrets;
  allowed: Set<string>;
  standIns: string | null;
  trustedProxies: string[];
  checksAnswers: boolean;
  /** Starts working on steps in this process. */
  work(role: ProcessRole, options?: Partial<EngineOptions>): Promise<Engine>;
  /** Registers this process so that the others ring it, without working on steps. */
  hear(): Promise<void>;
  /** The service a kind of step would call now, if it calls any. */
  serviceFor: ServiceFor;
  /** One look at a source: keeps what is new there, takes nothing. */
  look(source: string): Promise<Refreshed>;
  /** Tells every process that steps of any lane may be ready again, and that settings changed. */
  ringAll(): Promise<void>;
  /** Something to be ended with the product. */
  onClose(end: () => void): void;
  close(): Promise<void>;
}

const ENTITIES = [personEntity, serviceEntity, blogEntity, sourceEntity, pipelineEntity];

export async function assemble(options: ProductOptions): Promise<Product> {
  const now = options.now ?? Date.now;
  const random = options.random ?? Math.random;
  const log = options.log ?? pino({ level: 'warn' });
  const db = await Database.open(options.databaseUrl, options.connections, options.waitForDatabaseMs, ENTITIES);
  if (options.migrates ?? true) await db.migrate();
  else await db.migrated();
  const desk = new DeskClock(db, now);
  await desk.refresh();
  const ground: Ground = { now, random, ids: makeIds(now, random), log, db, desk };
  const allowed = new Set(options.allowedOrigins ?? []);
  const network = new Network((origin) => allowed.has(origin));
  const secrets = new Secrets(options.secretKey);
  const services = new ServiceDirectory(db);
  await services.refresh();
  const bell = await Bell.open(db, log);
  const reader = new ReadingRoom();
  const ports = { ground, network, secrets, reader };
  let engine: Engine | null = null;
  let ear: Lease | null = null;
  let closed = false;
  const ends: (() => void)[] = [];
  const tools: Tools = {
    ground,
    network,
    services,
    writer: new Writer(ports),
    illustrator: new Illustrator(ports),
    lookUp: new LookUp(ports),
    videoHost: new VideoHost(ports),
    keywordFigures: new KeywordFigures(ports),
    micropub: new Micropub(ports),
    transcriber: new Transcriber(ports),
    reader,
    secrets,
    publicUrl: options.publicUrl ?? null,
    mail: options.mail ?? null,
    keepFolder: options.keepFolder ?? null,
    holder: () => engine?.worker ?? '-',
  };
  const look = (source: string) => refreshSource(tools, source);
  /** A lease lost while the database was away is taken anew as soon as it answers. */
  const hear = async (): Promise<void> => {
    const lease = new Lease(ground, 'api', bell.address);
    await lease.take();
    ear = lease;
    const again = (): void => {
      if (!closed) hear().catch(() => setTimeout(again, 1_000).unref());
    };
    lease.signal.addEventListener('abort', again);
  };
  return {
    ground,
    tools,
    bell,
    secrets,
    allowed,
    async work(role, more) {
      engine = new Engine(ground, bell, services, {
        role,
        performers: performers(tools),
        pinsFor,
        firing: (procedures, onFired) =>
          new Firing(
            ground,
            procedures,
            async (source) => (await look(source)).kind !== 'busy',
            onFired,
            (pipeline) => groupsFor(tools, procedures, pipeline),
          ),
        chores: async () => {
          await finishCalls(tools, bell);
          await settlePublishing(tools);
        },
        ...more,
      });
      await engine.start();
      return engine;
    },
    standIns: options.standIns ?? null,
    trustedProxies: [...(options.trustedProxies ?? [])],
    checksAnswers: options.checksAnswers ?? false,
    look,
    hear,
    serviceFor: serviceCalledBy(services),
    async ringAll() {
      bell.ring({ kind: 'settings' });
      for (const lane of await fullLanes(db)) bell.ring({ kind: 'lane', lane });
      bell.ring({ kind: 'event' });
    },
    onClose: (end) => void ends.push(end),
    async close() {
      closed = true;
      for (const end of ends) end();
      await engine?.stop();
      await ear?.giveBack().catch(() => undefined);
      bell.close();
      await tools.reader.close();
      await network.close();
      await db.close();
    },
  };
}
