import type { SourceKind, SourceSettings } from '@grivo/contract';
import type { Failure, Sketch } from '@grivo/core';
import type { LookPorts } from '../../ports/tools.ts';
import type { LeftOutReason } from './leaveOut.ts';

/** One thing a look found. */
export interface Found {
  /** What tells it from others of the source, for ever; a digest of it is kept. */
  identity: string;
  subject: string;
  /** What it says, as far as a change of it counts. */
  content: string;
  /** What a brief of it brings along; asked only of what is new or has changed. */
  fields: () => Record<string, unknown>;
  /** What it tells, to be compared with what was found and published; null or left out where that says nothing: rows are told apart by their identity. */
  text?: string | null;
  /** The sketch of it, where whoever read it made one along. */
  sketch?: Sketch | null;
  publishedDesk: number | null;
  /** Why it cannot be used as it is. */
  leftOut: { reason: LeftOutReason; detail: string } | null;
}

/** How a look ended, which some sources know only at their end. */
export interface Ended {
  /** Whether what is not found any more is gone; false where a source only shows its newest. */
  whole: boolean;
  /** What of it could not be read, where the rest was. */
  partly: Failure | null;
}

/** What a look can read, in batches, the oldest first. */
export type Looking =
  | {
      ok: true;
      entries: AsyncIterable<Found[]>;
      /** Settings found out by looking, to be kept. */
      settings?: SourceSettings;
      /** How the look ended; looked at when all entries are read. */
      ended: Ended;
    }
  | { ok: false; failure: Failure };

/** How a source of one kind is looked at. */
export interface SourceReader<Kind extends SourceKind = SourceKind> {
  look(
    ports: LookPorts,
    source: { id: string; name: string; settings: Extract<SourceSettings, { kind: Kind }> },
    signal: AbortSignal,
  ): Promise<Looking>;
}
