import { afterAll, afterEach, beforeAll } from 'vitest';
import type { EngineOptions } from '../../src/engine/options.ts';
import { type Ask, serve } from './http.ts';
import { type World, world } from './world.ts';

/** A product at work, its API over HTTP, and an editor who asks it. */
export interface Desk {
  w: World;
  http: Awaited<ReturnType<typeof serve>>;
  ask: Ask;
  /** The editor's session, for what is asked without `ask`. */
  cookie: string;
}

/** Opens a desk before the tests of a file, calms the stand-ins after each, and closes it. `at` gets it once it is open. */
export function atTheDesk(at: (desk: Desk) => void, options: Partial<EngineOptions> = {}): void {
  let desk: Desk | undefined;
  let close = () => {};
  beforeAll(async () => {
    const w = await world();
    const http = await serve(w);
    close = http.close;
    const ask = await http.as('editor');
    desk = { w, http, ask, cookie: (ask as Ask & { cookie: string }).cookie };
    at(desk);
    await w.product.work('both', options);
  });
  afterEach(() => desk?.w.standIns.calm());
  afterAll(async () => {
    close();
    await desk?.w.close();
  });
}
