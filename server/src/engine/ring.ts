import { createSocket, type Socket } from 'node:dgram';
import type { Logger } from 'pino';
import type { Sql } from '../ground/store/database.ts';

/** What a ring can say: rows are ready in a lane, events were written, services or the desk clock changed. */
export type Ring = { kind: 'lane'; lane: string } | { kind: 'event' } | { kind: 'admit' } | { kind: 'settings' };

const TELL_MS = 1;
const PEERS_MS = 1_000;

/**
 * Processes wake each other by small datagrams after a commit. A ring is only a hint: it may be lost or doubled, and a
 * scan every few seconds finds what no ring told of.
 */
export class Bell {
  private readonly heard = new Set<(ring: Ring) => void>();
  private pending = new Map<string, Ring>();
  private timer: NodeJS.Timeout | null = null;
  private peers: { at: number; addresses: string[] } = { at: 0, addresses: [] };

  private constructor(
    private readonly socket: Socket,
    private readonly sql: Sql,
    private readonly log: Logger,
    readonly address: string,
  ) {}

  static async open(sql: Sql, log: Logger, host = '127.0.0.1'): Promise<Bell> {
    const socket = createSocket('udp4');
    await new Promise<void>((resolve, reject) => {
      socket.once('error', reject);
      socket.bind(0, host, resolve);
    });
    socket.unref();
    const bell = new Bell(socket, sql, log, `${host}:${socket.address().port}`);
    socket.on('message', (message) => bell.hear(String(message)));
    socket.on('error', (error) => log.warn({ err: error }, 'ring'));
    return bell;
  }

  onRing(hear: (ring: Ring) => void): () => void {
    this.heard.add(hear);
    return () => this.heard.delete(hear);
  }

  /** Tells this process at once and the others within a millisecond, doubled rings joined. */
  ring(ring: Ring): void {
    for (const hear of this.heard) hear(ring);
    this.pending.set(wire(ring), ring);
    this.timer ??= setTimeout(() => {
      this.timer = null;
      this.tell().catch((error) => this.log.debug({ err: error }, 'ring not told'));
    }, TELL_MS);
  }

  close(): void {
    if (this.timer) clearTimeout(this.timer);
    this.socket.close();
  }

  private hear(message: string): void {
    for (const line of message.split('\n')) {
      const ring = read(line);
      if (ring) for (const hear of this.heard) hear(ring);
    }
  }

  private async tell(): Promise<void> {
    const message = Buffer.from([...this.pending.keys()].join('\n'));
    this.pending.clear();
    for (const address of await this.others()) {
      const [host, port] = address.split(':');
      this.socket.send(message, Number(port), host);
    }
  }

  private async others(): Promise<string[]> {
    if (Date.now() - this.peers.at > PEERS_MS) {
      const rows = await this.sql.rows<{ address: string }>(
        'SELECT address FROM worker WHERE lease_until > UTC_TIMESTAMP(3)',
      );
      this.peers = {
        at: Date.now(),
        addresses: rows.map((row) => row.address).filter((address) => address !== this.address),
      };
    }
    return this.peers.addresses;
  }
}

function wire(ring: Ring): string {
  return ring.kind === 'lane' ? `lane ${ring.lane}` : ring.kind;
}

function read(line: string): Ring | null {
  if (line.startsWith('lane ')) return { kind: 'lane', lane: line.slice(5) };
  return line === 'event' || line === 'admit' || line === 'settings' ? { kind: line } : null;
}
