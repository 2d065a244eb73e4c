import type { Ids } from '@grivo/core';
import type { Logger } from 'pino';
import type { DeskClock } from './clock/deskClock.ts';
import type { Database } from './store/database.ts';

/** What the product takes from outside itself. Everything that is not the same twice comes through here. */
export interface Outside {
  /** Real milliseconds since 1970. */
  now: () => number;
  random: () => number;
  ids: Ids;
  log: Logger;
}

/** What every part of the server works with. */
export interface Ground extends Outside {
  db: Database;
  desk: DeskClock;
}
