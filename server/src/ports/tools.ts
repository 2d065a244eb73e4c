import type { Secrets } from '../ground/config/secrets.ts';
import type { Ground } from '../ground/ground.ts';
import type { Network } from '../ground/network/network.ts';
import type { ReadingRoom } from '../ground/reading/room.ts';
import type { Illustrator } from './adapters/illustrator.ts';
import type { KeywordFigures } from './adapters/keywordFigures.ts';
import type { LookUp } from './adapters/lookUp.ts';
import type { PictureLibrary } from './adapters/pictureLibrary.ts';
import type { Transcriber } from './adapters/transcriber.ts';
import type { VideoHost } from './adapters/videoHost.ts';
import type { Writer } from './adapters/writer.ts';
import type { AtOnce } from './blogs/atOnce.ts';
import type { BlogWays } from './blogs/blog.ts';
import type { Camera } from './camera/camera.ts';
import type { ServiceDirectory } from './services/directory.ts';
import type { Mail } from './telling/mail.ts';

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
  blogs: BlogWays;
  /** Keeps this process from asking too much of a blog at the same time. */
  posting: AtOnce;
  pictureLibrary: PictureLibrary;
  transcriber: Transcriber;
  /** The browser by which pages are pictured, when this machine has one. */
  camera: Camera | null;
  /** Where everything that comes from outside is read, apart from everything else. */
  reader: ReadingRoom;
  secrets: Secrets;
  /** Where others reach this installation, when they can: hubs push feeds there. */
  publicUrl: string | null;
  /** The mail server, when the installation has one. */
  mail: Mail | null;
  /** Where copies are kept, when the installation has such a folder. */
  keepFolder: string | null;
  /** Folders below which blogs may be written to. */
  folders: readonly string[];
  /** The worker that performs, as holder of open questions. */
  holder: () => string;
}

/** What a look at a source outside works with. */
export type LookPorts = Pick<
  Tools,
  'ground' | 'network' | 'services' | 'keywordFigures' | 'reader' | 'secrets' | 'publicUrl'
> & {
  /** The worker this is done by, where it is one. */
  holder?: () => string;
};
