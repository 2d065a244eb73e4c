import type { Network } from '../network/network.ts';
import type { ReadingRoom } from './room.ts';

/** What it takes to fetch something from outside and read it. */
export interface Reach {
  network: Network;
  reader: ReadingRoom;
}
