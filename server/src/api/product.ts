import { makeIds } from '@grivo/core';
import { type Logger, pino } from 'pino';
import { fullLanes } from '../engine/claims.ts';
import { Engine } from '../engine/engine.ts';
import { type ServiceFor, serviceCalledBy } from '../engine/lane.ts';
import { Lease, type ProcessRole } from '../engine/lease.ts';
import type { EngineOptions } from '../engine/options.ts';
import { Bell } from '../engine/ring.ts';
import { DeskClock } from '../ground/clock/deskClock.ts';
import { Secrets } from '../ground/config/secrets.ts';
import type { Ground } from '../ground/ground.ts';
import { Network } from '../ground/network/network.ts';
import { ReadingRoom } from '../ground/reading/room.ts';
import { Database } from '../ground/store/database.ts';
import { noteGlances } from '../nouns/articles/glance.ts';
import { blogEntity } from '../nouns/blogs/entity.ts';
import { destinationEntity } from '../nouns/destinations/entity.ts';
import { finishCalls } from '../nouns/hooks/receive.ts';
import { labelEntity } from '../nouns/labels/entity.ts';
import { readPagesDue } from '../nouns/links/read.ts';
import { personEntity } from '../nouns/people/entity.ts';
import { makeNextCopies } from '../nouns/pictures/sizes.ts';
import { notePictures } from '../nouns/pictures/uses.ts';
import { sendPings } from '../nouns/pings/send.ts';
import { pipelineEntity } from '../nouns/pipelines/entity.ts';
import { settlePublishing } from '../nouns/publishing/acts.ts';
import { bringPosts } from '../nouns/publishing/anew.ts';
import { bringChanges } from '../nouns/publishing/behind.ts';
import { takeBackDated } from '../nouns/publishing/dated.ts';
import { compareOutside } from '../nouns/publishing/outside.ts';
import { pinsFor } from '../nouns/routines/repository.ts';
import { Firing } from '../nouns/schedules/fire.ts';
import { sourceEntity } from '../nouns/sources/entity.ts';
import { groupsFor } from '../nouns/sources/groups.ts';
import { type Refreshed, refreshSource } from '../nouns/sources/refresh.ts';
import { houseStyleEntity } from '../nouns/styles/entity.ts';
import { LinkLooker } from '../nouns/upkeep/look.ts';
import { noteUses } from '../nouns/upkeep/uses.ts';
import { Illustrator } from '../ports/adapters/illustrator.ts';
import { KeywordFigures } from '../ports/adapters/keywordFigures.ts';
import { LookUp } from '../ports/adapters/lookUp.ts';
import { PictureLibrary } from '../ports/adapters/pictureLibrary.ts';
import { Transcriber } from '../ports/adapters/transcriber.ts';
import { VideoHost } from '../ports/adapters/videoHost.ts';
import { Writer } from '../ports/adapters/writer.ts';
import { AtOnce } from '../ports/blogs/atOnce.ts';
import { type BlogWays, waysOf } from '../ports/blogs/blog.ts';
import { allWays } from '../ports/blogs/ways/all.ts';
import { browserHere, HeadlessCamera } from '../ports/camera/camera.ts';
import { ServiceDirectory } from '../ports/services/directory.ts';
import { serviceEntity } from '../ports/services/entity.ts';
import type { Mail } from '../ports/telling/mail.ts';
import type { Tools } from '../ports/tools.ts';
import { performers } from '../steps/registry.ts';

export interface ProductOptions {
  /** Other ways to blogs than there are; tests give their own. */
  blogs?: BlogWays;
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
  /** The browser by which pages are pictured; the one Debian has where none is named. */
  browser?: string | null;
  /** Folders below which blogs may be written to, as absolute paths. */
  folders?: readonly string[];
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

const ENTITIES = [
  personEntity,
  serviceEntity,
  blogEntity,
  sourceEntity,
  pipelineEntity,
  labelEntity,
  destinationEntity,
  houseStyleEntity,
];

/** The parts of the product, put together for one process. */
export async function assemble(options: ProductOptions): Promise<Product> {
  const ground = await groundOf(options);
  const allowed = new Set(options.allowedOrigins ?? []);
  const network = new Network((origin) => allowed.has(origin));
  const secrets = new Secrets(options.secretKey);
  const services = new ServiceDirectory(ground.db);
  await services.refresh();
  const bell = await Bell.open(ground.db, ground.log);
  let engine: Engine | null = null;
  const ports = { ground, network, secrets, reader: new ReadingRoom() };
  const ways = allWays({ ...ports, now: ground.now, desk: () => ground.desk.now(), folders: options.folders ?? [] });
  const ear = new Ear(ground, bell);
  // A call that is held by nobody who lives is taken for lost, and booked as if it had cost the most it may.
  const holder = () => engine?.worker ?? ear.holder ?? '-';
  const tools = toolsOf(options, { ...ports, ways }, services, holder);
  const ends: (() => void)[] = [];
  return {
    ground,
    tools,
    bell,
    secrets,
    allowed,
    async work(role, more) {
      engine = engineOf(tools, bell, services, { role, ...more });
      await engine.start();
      return engine;
    },
    standIns: options.standIns ?? null,
    trustedProxies: [...(options.trustedProxies ?? [])],
    checksAnswers: options.checksAnswers ?? false,
    look: (source) => refreshSource(tools, source),
    hear: () => ear.hear(),
    serviceFor: serviceCalledBy(services),
    async ringAll() {
      bell.ring({ kind: 'settings' });
      for (const lane of await fullLanes(ground.db)) bell.ring({ kind: 'lane', lane });
      bell.ring({ kind: 'event' });
    },
    onClose: (end) => void ends.push(end),
    async close() {
      for (const end of ends) end();
      await ear.close();
      await engine?.stop();
      bell.close();
      await ways.folder.settled();
      await tools.reader.close();
      await network.close();
      await ground.db.close();
    },
  };
}

async function groundOf(options: ProductOptions): Promise<Ground> {
  const now = options.now ?? Date.now;
  const random = options.random ?? Math.random;
  const log = options.log ?? pino({ level: 'warn' });
  const db = await Database.open(options.databaseUrl, options.connections, options.waitForDatabaseMs, ENTITIES);
  if (options.migrates ?? true) await db.migrate();
  else await db.migrated();
  const desk = new DeskClock(db, now);
  await desk.refresh();
  return { now, random, ids: makeIds(now, random), log, db, desk };
}

function toolsOf(
  options: ProductOptions,
  { ways, ...ports }: Pick<Tools, 'ground' | 'network' | 'secrets' | 'reader'> & { ways: ReturnType<typeof allWays> },
  services: ServiceDirectory,
  holder: () => string,
): Tools {
  const browser = browserHere(options.browser ?? null);
  return {
    ...ports,
    services,
    writer: new Writer(ports),
    illustrator: new Illustrator(ports),
    lookUp: new LookUp(ports),
    videoHost: new VideoHost(ports),
    keywordFigures: new KeywordFigures(ports),
    pictureLibrary: new PictureLibrary(ports),
    blogs: options.blogs ?? waysOf(ways),
    posting: new AtOnce(),
    folders: [...(options.folders ?? [])],
    transcriber: new Transcriber(ports),
    camera: browser === null ? null : new HeadlessCamera(ports.network, browser),
    publicUrl: options.publicUrl ?? null,
    mail: options.mail ?? null,
    keepFolder: options.keepFolder ?? null,
    holder,
  };
}

/** The engine with what stands above it handed in: the step kinds, schedules, and what is settled beside the steps. */
function engineOf(
  tools: Tools,
  bell: Bell,
  services: ServiceDirectory,
  options: { role: ProcessRole } & Partial<EngineOptions>,
): Engine {
  const looker = new LinkLooker(tools);
  const told = (changed: boolean): void => {
    if (changed) bell.ring({ kind: 'event' });
  };
  return new Engine(tools.ground, bell, services, {
    performers: performers(tools),
    pinsFor,
    firing: (procedures, onFired) =>
      new Firing(
        tools.ground,
        procedures,
        async (source) => (await refreshSource(tools, source)).kind !== 'busy',
        onFired,
        (pipeline) => groupsFor(tools, procedures, pipeline),
      ),
    chores: [
      () => finishCalls(tools, bell),
      () => settlePublishing(tools),
      () => takeBackDated(tools),
      () => compareOutside(tools),
    ],
    upkeep: [
      () => noteUses(tools.ground.db),
      () => notePictures(tools.ground.db),
      async () => told(await makeNextCopies(tools.ground.db)),
      async () => told((await noteGlances(tools.ground)) > 0),
      async () => told((await bringChanges(tools)) > 0),
      async () => told((await bringPosts(tools)) > 0),
      () => sendPings(tools),
      () => looker.round(),
      () => readPagesDue(tools),
    ],
    ...options,
  });
}

/** A process that does no steps and is rung all the same. A lease lost while the database was away is taken anew. */
class Ear {
  private lease: Lease | null = null;
  private closed = false;

  constructor(
    private readonly ground: Ground,
    private readonly bell: Bell,
  ) {}

  /** As whom this process is known to be alive; null while it is not. */
  get holder(): string | null {
    return this.lease?.id ?? null;
  }

  async hear(): Promise<void> {
    const lease = new Lease(this.ground, 'api', this.bell.address);
    await lease.take();
    this.lease = lease;
    const again = (): void => {
      if (!this.closed) this.hear().catch(() => setTimeout(again, 1_000).unref());
    };
    lease.signal.addEventListener('abort', again);
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.lease?.giveBack().catch(() => undefined);
  }
}
