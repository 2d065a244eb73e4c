import type { ServiceRole } from '@grivo/core';
import type { Illustrator } from '../adapters/illustrator.ts';
import type { KeywordFigures } from '../adapters/keywordFigures.ts';
import type { LookUp } from '../adapters/lookUp.ts';
import type { Micropub } from '../adapters/micropub.ts';
import type { Transcriber } from '../adapters/transcriber.ts';
import type { VideoHost } from '../adapters/videoHost.ts';
import type { Writer } from '../adapters/writer.ts';
import type { Secrets } from '../config/secrets.ts';
import type { Ground } from '../engine/outside.ts';
import type { StepContext } from '../engine/performer.ts';
import type { Network } from '../network/network.ts';
import type { ReadingRoom } from '../reading/room.ts';
import type { ServiceDirectory } from '../services/directory.ts';
import type { ServiceRow } from '../services/entity.ts';
import type { Mail } from '../telling/mail.ts';

/** What the kinds work with: the ports to outside services and the ground. */
export interface Tools {
  ground: Ground;
  network: Network;
  services: ServiceDirectory;
  writer: Writer;
  illustrator: Illustrator;
  lookUp: LookUp;
  videoHost: VideoHost;
  keywordFigures: KeywordFigures;
  micropub: Micropub;
  transcriber: Transcriber;
  /** Where everything that comes from outside is read, apart from everything else. */
  reader: ReadingRoom;
  secrets: Secrets;
  /** Where others reach this installation, when they can: hubs push feeds there. */
  publicUrl: string | null;
  /** The mail server, when the installation has one. */
  mail: Mail | null;
  /** Where copies are kept, when the installation has such a folder. */
  keepFolder: string | null;
  /** The worker that performs, as holder of open questions. */
  holder: () => string;
}

/** The service a role is filled by, or the failure that says there is none. */
export function serviceFor(
  tools: Tools,
  role: ServiceRole,
  context: Pick<StepContext, 'service'>,
):
  | { ok: true; service: ServiceRow }
  | { ok: false; result: { kind: 'failed'; failure: { code: 'no-service'; role: ServiceRole } } } {
  const held = context.service === null ? null : tools.services.get(context.service);
  const service = held?.role === role ? held : tools.services.standard(role);
  return service
    ? { ok: true, service }
    : { ok: false, result: { kind: 'failed', failure: { code: 'no-service', role } } };
}

/** Who asks, for the answers kept by content. */
export function askerOf(tools: Tools, context: StepContext) {
  return { holder: tools.holder(), stepRun: context.run.id, draw: context.draw, signal: context.signal };
}
