import type { Performers } from '../engine/performer.ts';
import { performCheck } from './check.ts';
import { performIllustrate } from './illustrate.ts';
import { performLink } from './link.ts';
import { performLookUp } from './lookUp.ts';
import { performOutline } from './outline.ts';
import { performPublish } from './publish.ts';
import { performTitle } from './title.ts';
import type { Tools } from './tools.ts';
import { performWrite } from './write.ts';

/** How every kind is done. A new kind adds its file and one line here. */
export function performers(tools: Tools): Performers {
  return {
    'look up': performLookUp(tools),
    outline: performOutline(tools),
    write: performWrite(tools),
    title: performTitle(tools),
    illustrate: performIllustrate(tools),
    link: performLink(tools),
    check: performCheck(tools),
    publish: performPublish(tools),
  };
}
